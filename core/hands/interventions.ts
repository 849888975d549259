/**
 * What a technician does to a circuit: pulls, unplugs, bridges, feeds, attaches. Together with faults it becomes
 * one alteration, so that any combination can be solved.
 */

import type { Network } from '../circuit';
import { type Fault, faultAlteration } from '../faults';
import { fuseColdOhms, fuseLampOhms, LEAD_OHMS, ledTesterOhms, METER_OHMS, testLampOhms } from '../limits';
import { type Alteration, type BranchChange, combineAlterations } from '../network';

export type Intervention =
  /** A fuse, relay or any part out of its place. */
  | { readonly kind: 'pulled'; readonly part: string }
  /** A plug apart: every pin of the connector's plug. */
  | { readonly kind: 'unplugged'; readonly part: string }
  /** The part exchanged for one that is known to work. */
  | { readonly kind: 'known-good'; readonly part: string }
  | { readonly kind: 'disconnected'; readonly part: string }
  /** A lead with a fuse in it. */
  | { readonly kind: 'jumper'; readonly from: string; readonly to: string; readonly fuseAmps: number }
  /** The battery's plus, through a fuse, put on a point. */
  | { readonly kind: 'feed'; readonly node: string; readonly fuseAmps: number }
  | { readonly kind: 'earth'; readonly node: string }
  /** A lamp across the contacts of a fuse that is out. */
  | { readonly kind: 'lamp-in-place'; readonly part: string }
  | { readonly kind: 'meter' | 'lamp' | 'led'; readonly at: string; readonly against: string };

function node(network: Network, id: string): number {
  const found = network.nodeIndex.get(id);
  if (found === undefined) throw new Error(`There is no point ${id} in this circuit.`);
  return found;
}

function allOpen(network: Network, part: string): BranchChange[] {
  const branches = network.branchesOfPart.get(part);
  if (!branches) throw new Error(`There is no part ${part} in this circuit.`);
  return branches.map((branch) => ({ branch, held: 'open' }));
}

function plugOf(network: Network, id: string): readonly string[] {
  const part = network.parts.get(id);
  if (part?.kind !== 'connector') throw new Error(`${id} is not a connector of this circuit.`);
  if (part.plug === undefined) return [id];
  return network.circuit.parts
    .filter((one) => one.kind === 'connector' && one.plug === part.plug)
    .map((one) => one.id);
}

function batteryPlus(network: Network): number {
  const battery = network.circuit.parts.find((part) => part.kind === 'battery');
  if (battery?.kind !== 'battery') throw new Error('The circuit has no battery to feed from.');
  return node(network, battery.pins.plus);
}

/** One intervention as a change of the network; nothing for a known good part, which takes its faults away. */
function alterationOf(network: Network, one: Intervention): Alteration {
  const nominal = network.circuit.nominalVolts;
  switch (one.kind) {
    case 'pulled':
    case 'disconnected':
      return { changes: allOpen(network, one.part), bridges: [] };
    case 'unplugged':
      return { changes: plugOf(network, one.part).flatMap((part) => allOpen(network, part)), bridges: [] };
    case 'known-good':
      if (!network.parts.has(one.part)) throw new Error(`There is no part ${one.part} in this circuit.`);
      return { changes: [], bridges: [] };
    case 'jumper': {
      const ohms = LEAD_OHMS + fuseColdOhms(one.fuseAmps);
      const [a, b] = [node(network, one.from), node(network, one.to)];
      return { changes: [], bridges: [{ a, b, ohms, fuseAmps: one.fuseAmps }] };
    }
    case 'feed': {
      const ohms = LEAD_OHMS + fuseColdOhms(one.fuseAmps);
      const bridge = { a: batteryPlus(network), b: node(network, one.node), ohms, fuseAmps: one.fuseAmps };
      return { changes: [], bridges: [bridge] };
    }
    case 'earth':
      return { changes: [], bridges: [{ a: node(network, one.node), b: network.datum, ohms: LEAD_OHMS }] };
    case 'lamp-in-place': {
      const changes = allOpen(network, one.part);
      const { a, b } = network.branches[changes[0]!.branch]!;
      return { changes, bridges: [{ a, b, ohms: fuseLampOhms(nominal) }] };
    }
    case 'meter':
    case 'lamp':
    case 'led': {
      const ohms =
        one.kind === 'meter'
          ? METER_OHMS
          : one.kind === 'lamp'
            ? testLampOhms(nominal)
            : ledTesterOhms(nominal);
      return { changes: [], bridges: [{ a: node(network, one.at), b: node(network, one.against), ohms }] };
    }
  }
}

/**
 * Faults and interventions as one alteration. A known good part takes the faults of that part away; what it
 * has done to others, a blown fuse for instance, stays. Throws when a part or point does not exist.
 */
export function intervene(
  network: Network,
  faults: readonly Fault[],
  interventions: readonly Intervention[],
): Alteration {
  const renewed = new Set(interventions.flatMap((one) => (one.kind === 'known-good' ? [one.part] : [])));
  return combineAlterations(
    ...faults.filter((fault) => !renewed.has(fault.part)).map((fault) => faultAlteration(network, fault)),
    ...interventions.map((one) => alterationOf(network, one)),
  );
}

const FORMS: Readonly<Record<Intervention['kind'], readonly string[]>> = {
  pulled: ['PART'],
  unplugged: ['CONNECTOR'],
  'known-good': ['PART'],
  disconnected: ['BATTERY'],
  jumper: ['POINT', 'POINT', 'AMPS'],
  feed: ['POINT', 'AMPS'],
  earth: ['POINT'],
  'lamp-in-place': ['FUSE'],
  meter: ['POINT', 'POINT'],
  lamp: ['POINT', 'POINT'],
  led: ['POINT', 'POINT'],
};

/** Every form that `parseIntervention` reads. */
export const INTERVENTION_FORMS: readonly string[] = Object.entries(FORMS).map(([kind, parts]) =>
  [kind, ...parts].join(':'),
);

/** Reads `pulled:F3`, `jumper:POINT:POINT:AMPS` and the like, or says what is wanted. */
export function parseIntervention(text: string): Intervention | { readonly error: string } {
  const [kind = '', ...values] = text.split(':');
  const form = FORMS[kind as Intervention['kind']];
  if (!form)
    return { error: `"${kind}" is not something to do. Use one of ${INTERVENTION_FORMS.join(', ')}.` };
  if (values.length !== form.length || values.some((value) => value === '')) {
    return { error: `Write ${[kind, ...form].join(':')}, not "${text}".` };
  }
  const [first = '', second = '', third = ''] = values;
  const amps = Number(form.at(-1) === 'AMPS' ? values.at(-1) : 1);
  if (!(amps > 0 && amps <= 500)) return { error: `"${values.at(-1)}" is not a fuse rating in ampere.` };
  switch (kind as Intervention['kind']) {
    case 'jumper':
      return { kind: 'jumper', from: first, to: second, fuseAmps: Number(third) };
    case 'feed':
      return { kind: 'feed', node: first, fuseAmps: Number(second) };
    case 'earth':
      return { kind: 'earth', node: first };
    case 'meter':
    case 'lamp':
    case 'led':
      return { kind: kind as 'meter' | 'lamp' | 'led', at: first, against: second };
    default:
      return { kind: kind as 'pulled', part: first };
  }
}
