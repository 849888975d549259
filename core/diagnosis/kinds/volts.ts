/** Volts between two points with a meter, and what they mean. Judged by value, not by a few results. */

import { type Fault, type FaultMode, type FaultyCircuit, OPEN_MODES, RESISTANCE_MODES } from '../../faults';
import type { CircuitFile, CircuitPart, Reading } from '../../format';
import { withoutPart } from '../../hands';
import { CONTACT_WORN_VOLTS, expectedWithin, METER_OHMS, voltmeterError } from '../../limits';
import { combineAlterations, seenPoint } from '../../network';
import { formatQuantity } from '../../quantity';
import {
  type Access,
  atNode,
  carries,
  type Meaning,
  nodeIndex,
  type Offer,
  type RefOf,
  type Scene,
  type TestKind,
} from './kind';

type Ref = RefOf<'volts'>;

const MINUTES = 0.7;
/** Pulling a fuse for a reading, and putting it back. */
const PULL_MINUTES = 0.8;
/** Relative tolerance of resistances. */
export const RESISTANCE_TOLERANCE = 0.1;

/**
 * Spread of a predicted voltage before anything is known of the tolerances: the meter, and the resistances that
 * divide the supply. A divider that leaves the fraction x moves by about x(1-x) times the relative `tolerance` of its
 * halves.
 */
export function voltsSpread(volts: number, emfVolts: number, tolerance = RESISTANCE_TOLERANCE): number {
  const x = Math.min(1, Math.abs(volts) / emfVolts);
  return Math.hypot(voltmeterError(volts), tolerance * Math.SQRT2 * emfVolts * x * (1 - x));
}

/** Pins between which a drop can be read, in the direction of the current. */
const DROP_PINS: Readonly<Partial<Record<CircuitPart['kind'], readonly [string, string]>>> = {
  fuse: ['in', 'out'],
  connector: ['a', 'b'],
  ground: ['lug', 'body'],
  relay: ['30', '87'],
  'key-contact': ['in', 'out'],
};

function mayProbe(circuit: CircuitFile, id: string): boolean {
  return circuit.nodes.find((node) => node.id === id)?.probe !== 'do-not-probe';
}

/** Ends of a part between which a drop can be read. */
function dropEnds(circuit: CircuitFile, part: CircuitPart): readonly [string, string] | null {
  const pins = DROP_PINS[part.kind];
  if (!pins) return null;
  const at = part.pins as Readonly<Record<string, string | undefined>>;
  const from = at[pins[0]];
  const to = at[pins[1]];
  if (from === undefined || to === undefined) return null;
  return mayProbe(circuit, from) && mayProbe(circuit, to) ? [from, to] : null;
}

/** Places from which both ends of a drop are reached, with the lead for the first end. */
function commonAccess(circuit: CircuitFile, from: string, to: string): readonly Access[] {
  const others = atNode(circuit, to, 0);
  return atNode(circuit, from, MINUTES).flatMap((one) => {
    const other = others.find((access) => access.place === one.place);
    return other ? [{ ...one, minutes: one.minutes + other.minutes }] : [];
  });
}

function offers({ model, circuit, condition, concerned }: Scene): Offer<Ref>[] {
  const { reference } = circuit;
  const found: Offer<Ref>[] = [];
  for (const node of circuit.nodes) {
    if (node.id === reference || !mayProbe(circuit, node.id)) continue;
    for (const one of model.conditions) {
      const ref: Ref = { kind: 'volts', node: node.id, against: reference, condition: one.id };
      found.push({ ref, accesses: atNode(circuit, node.id, MINUTES) });
    }
  }
  for (const part of circuit.parts) {
    if (!concerned(part.id)) continue;
    const drop = dropEnds(circuit, part);
    // Against the reference it is the plain reading at the other end.
    if (!drop || drop.includes(reference)) continue;
    const [node, against] = drop;
    found.push({
      ref: { kind: 'volts', node, against, condition },
      accesses: commonAccess(circuit, node, against),
    });
    // A second feed shows on the load side of a fuse that is out.
    if (part.kind === 'fuse' && !part.fixed && !part.safetyCritical) {
      for (const one of model.conditions) {
        found.push({
          ref: { kind: 'volts', node: against, against: reference, condition: one.id, pulled: part.id },
          accesses: atNode(circuit, against, MINUTES + PULL_MINUTES),
          disturbs: true,
        });
      }
    }
  }
  return found;
}

function shows(circuit: FaultyCircuit, ref: Ref) {
  const { model, alteration } = circuit;
  const altered = ref.pulled
    ? combineAlterations(alteration, withoutPart(model.network, ref.pulled))
    : alteration;
  const a = nodeIndex(model, ref.node);
  const b = nodeIndex(model, ref.against);
  // Its own ohms count: what only leakage holds up they pull down.
  const meter = { changes: [], bridges: [{ a, b, ohms: METER_OHMS }] };
  const point = seenPoint(model, ref.condition, combineAlterations(altered, meter));
  const volts = point.volts[a]! - point.volts[b]!;
  return { volts: Math.round(volts * 100) / 100 };
}

/** From this chance on it is said that current flows, and up to this that none does. */
const FLOWS = 0.95;
const FLOWS_NOT = 0.05;

/** Faults that bring volts to where none belong. */
const HOLDS_UP: ReadonlySet<FaultMode> = new Set(['short-to-feed', 'contact-stuck', 'shorted', 'wrong-part']);

/** Faults that leave no way, or a poor one, to earth. */
function endsWay({ mode }: Fault): boolean {
  return OPEN_MODES.has(mode) || RESISTANCE_MODES.has(mode) || mode === 'contact-open';
}

/** Live where it should be dead, or not brought down to earth: by what is likely now. */
function heldUpWords({ model, left }: Meaning, ref: Ref, shown: string): string {
  const { likely } = left;
  const holds = ({ faults }: { faults: readonly Fault[] }) => faults.some(({ mode }) => HOLDS_UP.has(mode));
  const first = likely.find((one) => holds(one) || one.faults.some(endsWay));
  if (first && holds(first)) {
    const list = likely
      .filter(holds)
      .map(({ words }) => words)
      .join('; ');
    return `${shown}, live where it should be dead. What would hold it up: ${list}.`;
  }
  if (!carries(model, model.sound(ref.condition).amps, ref.node)) {
    return `${shown}, live where it should be dead: a second feed, a contact that stays closed, or a switch that is not where it was believed.`;
  }
  return first
    ? `${shown}, which should be near earth: the way from here to earth is open or poor.`
    : `${shown}, which should be near earth: nothing on this map alone does that. A second feed would, and so would an open way to earth.`;
}

/** What a drop between two points means. Without current it means nothing, and says so. */
function dropWords(
  volts: number,
  expected: number,
  between: string,
  nominalVolts: number,
  flows: number,
): string {
  const shown = formatQuantity(volts, 'V');
  const limit = Math.max(CONTACT_WORN_VOLTS, 2 * Math.abs(expected));
  if (volts < -limit)
    return `${shown} ${between}: the minus sign says that the leads are reversed, or current flows backwards.`;
  if (volts > 0.5 * nominalVolts) {
    return `${shown} ${between}: all of the supply is lost here, so it is open between these points while the rest of the way is joined.`;
  }
  if (volts > limit)
    return `${shown} ${between}, more than a good joint or contact loses: resistance between these points.`;
  if (flows >= FLOWS) return `${shown} ${between} while current flows: no more than a good joint loses.`;
  return flows <= FLOWS_NOT
    ? `${shown} ${between}: no current flows here by what is left, so it says nothing of the joint.`
    : `${shown} ${between}: good only if the load’s current flows. Without current a drop of nothing is no pass.`;
}

/** What was read at a point in a condition, the latest counting; null when nothing was. */
function readBefore(earlier: readonly Reading[], node: string, condition: string): number | null {
  for (const { test, value } of earlier.slice().reverse()) {
    if (
      test.kind === 'volts' &&
      !test.pulled &&
      test.node === node &&
      test.condition === condition &&
      'volts' in value
    ) {
      return value.volts;
    }
  }
  return null;
}

/** Both ends of a fuse read: what only the pair can say. Null when the other end was not read, or all is plain. */
function pairWords({ model, names, earlier }: Meaning, ref: Ref, volts: number): string | null {
  const nominal = model.circuit.nominalVolts;
  const live = (value: number) => value > 0.5 * nominal;
  for (const part of model.circuit.parts) {
    if (part.kind !== 'fuse') continue;
    const { in: feed, out } = part.pins;
    if (ref.node !== feed && ref.node !== out) continue;
    const other = readBefore(earlier, ref.node === feed ? out : feed, ref.condition);
    if (other === null) continue;
    const dead = earlier.some(
      ({ test, value }) =>
        test.kind === 'function' &&
        'state' in value &&
        value.state === 'dead' &&
        model.expectedOn(model.function(test.function), test.condition),
    );
    if (live(volts) && live(other)) {
      return dead
        ? `Both ends of ${part.name} are live. That passes it only if nothing feeds its load side from elsewhere: pull it and read both holes.`
        : null;
    }
    if (!live(volts) && !live(other)) {
      return `Neither end of ${part.name} is live: it is not fed in this set-up. Key position, main fuse and everything upstream come before the fuse.`;
    }
    const feedLive = ref.node === feed ? live(volts) : live(other);
    return feedLive
      ? `Only the feed side of ${part.name} is live: it is open, or nothing of its current gets through. Pull it and measure it.`
      : `Only the load side of ${names.part(part.id)} is live: something feeds it backwards.`;
  }
  return null;
}

/** A coil's control pin that should fall when commanded and stays up. */
function controlWords({ model, expectedVolts }: Meaning, ref: Ref, volts: number): string | null {
  const nominal = model.circuit.nominalVolts;
  if (expectedVolts === null || expectedVolts > 0.25 * nominal || volts < 0.6 * nominal) return null;
  const relay = model.circuit.parts.find(
    (part) => part.kind === 'relay' && (part.pins['85'] === ref.node || part.pins['86'] === ref.node),
  );
  if (!relay) return null;
  return `${formatQuantity(volts, 'V')} at ${relay.name}’s control pin, which should fall when commanded and does not: look at the command and its wire, not at the relay.`;
}

function means(meaning: Meaning, ref: Ref, value: Reading['value']): string | null {
  if (!('volts' in value)) return null;
  const { model, names, expectedVolts } = meaning;
  const { volts } = value;
  const nominal = model.circuit.nominalVolts;
  const at = names.node(ref.node);
  const shown = `${formatQuantity(volts, 'V')} at ${at}`;
  if (ref.pulled) {
    return volts > 0.3 * nominal
      ? `${shown} with ${names.part(ref.pulled)} out: its load side has a second feed. A lamp or meter on both ends cannot pass this fuse.`
      : `${shown} with ${names.part(ref.pulled)} out: no second feed shows here. What is connected may pull a weak one down: read it with the load off too.`;
  }
  const expected = expectedVolts ?? 0;
  if (ref.against !== model.circuit.reference) {
    const between = `from ${at} to ${names.node(ref.against)}`;
    return dropWords(volts, expected, between, nominal, meaning.left.flows(ref.condition, ref.node));
  }
  if (volts < -0.3) {
    return `${shown}: the minus sign says that the leads are reversed, or the polarity is.`;
  }
  const special = controlWords(meaning, ref, volts) ?? pairWords(meaning, ref, volts);
  if (special) return special.startsWith(shown.slice(0, 4)) ? special : `${shown}. ${special}`;
  const tolerance = expectedWithin(nominal, voltsSpread(expected, model.emfVolts));
  if (expectedVolts !== null && Math.abs(volts - expected) <= tolerance) {
    const flows = meaning.left.flows(ref.condition, ref.node);
    if (expected < 0.3 * (nominal / 12)) {
      return flows <= FLOWS_NOT
        ? `${shown}, as in a sound circuit; no current flows here by what is left, so it proves nothing of the way to earth.`
        : `${shown}, as in a sound circuit.`;
    }
    return flows >= FLOWS
      ? `${shown}, as expected under load: the feed is sound up to here.`
      : `${shown}, as expected; without load this does not prove that the joint can carry current.`;
  }
  if (volts > 0 && volts < 0.12 && expected > nominal * 0.4) {
    return `Only ${shown}: a few millivolts are nothing; no feed arrives here.`;
  }
  if (volts < expected * 0.15) {
    return `${shown} where ${formatQuantity(expected, 'V')} belong: the feed does not arrive here. Look at key, switches and everything upstream before any part is condemned.`;
  }
  if (volts < expected) {
    return `${shown} instead of ${formatQuantity(expected, 'V')}: volts are lost in resistance before this point, or the return is lifted less than it should be.`;
  }
  return expected < 0.5 * (nominal / 12)
    ? heldUpWords(meaning, ref, shown)
    : `${shown}, more than the ${formatQuantity(expected, 'V')} of a sound circuit: less current flows than should, so look behind this point.`;
}

export const volts: TestKind<Ref> = {
  fields: ['node', 'against', 'condition', 'pulled'],
  answer: 'volts',
  results: [],
  minutes: MINUTES,
  setUp: (ref) => `volts|${ref.condition}|${ref.pulled ?? ''}`,
  spot: (ref) => `node|${ref.node}`,
  touches: (ref) => (ref.pulled ? [ref.pulled] : []),
  offers,
  chances: () => [],
  outcome: () => null,
  shows,
  card: (names, ref, lead) => {
    const plain = ref.against === names.circuit.reference;
    return {
      title: plain
        ? `Volts at ${names.node(ref.node)}${ref.pulled ? `, ${names.part(ref.pulled)} out` : ''}`
        : `Drop from ${names.node(ref.node)} to ${names.node(ref.against)}`,
      instrument: 'Meter on DC volts',
      steps: [
        ...(ref.pulled ? [`Load off, then pull ${names.part(ref.pulled)}.`, 'Load on again.'] : []),
        `Red lead on ${lead}.`,
        `Black lead on ${names.node(ref.against)}.`,
        ...(plain ? [] : ['The load stays switched on: without current a drop of 0 V says nothing.']),
      ],
      cautions: ref.pulled ? ['Insulated puller, no metal pliers. Put the same fuse back afterwards.'] : [],
    };
  },
  inSentence: (names, ref) =>
    ref.against === names.circuit.reference
      ? `the volts at ${names.node(ref.node)}${ref.pulled ? ` with ${names.part(ref.pulled)} out` : ''}`
      : `the drop from ${names.node(ref.node)} to ${names.node(ref.against)}`,
  inLog: (names, ref) =>
    ref.against === names.circuit.reference
      ? `Volts at ${names.node(ref.node)}${ref.pulled ? `, ${names.part(ref.pulled)} out` : ''}`
      : `Drop from ${names.node(ref.node)} to ${names.node(ref.against)}`,
  means,
};
