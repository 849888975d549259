/** Pieces that several intents are made of. */
import { isProtector, type Protector } from '../../circuit';
import type { CircuitFile, CircuitPart, PartOf, PlanEdit, PlanGoal } from '../../format';
import { FUSE_FAMILIES } from '../../format';
import { DESIGN_DROP_PERCENT, RUNNING_SHARE } from '../../limits';
import { figure, leastRating, wireSize } from '../../sizing';
import { meetings, reach } from '../findings/region';
import { type Asking, type IntentField, Unanswered } from './intent';

export const FEED_FUSE: IntentField = {
  id: 'feed',
  label: 'Feed to be tapped',
  kind: 'part',
  hint: 'The fuse whose slot takes the tap. Find a feed says which one fits.',
  fits: ({ kind }) => kind === 'fuse',
};
export const METRES: IntentField = {
  id: 'metres',
  label: 'Length of the new wire',
  kind: 'number',
  unit: 'm',
};
export const SIZE: IntentField = {
  id: 'mm2',
  label: 'Its size',
  kind: 'number',
  unit: 'mm²',
  optional: true,
  hint: 'Left open, it is worked out.',
};
export const THROUGH: IntentField = {
  id: 'through',
  label: 'Through which bulkhead or floor',
  kind: 'words',
  optional: true,
};
/** When it is to be live; what is not named does not matter. */
export const WHEN_LIVE: IntentField = {
  id: 'when',
  label: 'Live',
  kind: 'choice',
  choices: [
    ['run', 'with the key at run'],
    ['accessory', 'at accessory and run'],
    ['engine', 'only while the engine runs'],
    ['always', 'always'],
  ],
};

const STATES: Readonly<Record<string, Pick<PlanGoal, 'on' | 'off'>>> = {
  run: { on: ['run', 'running'], off: ['off', 'off-waited'] },
  accessory: { on: ['accessory', 'run'], off: ['off', 'off-waited'] },
  engine: { on: ['running'], off: ['off', 'off-waited', 'accessory', 'run'] },
  always: { on: ['off', 'run'], off: [] },
};

export function goalFor(ask: Asking, of: string): PlanGoal {
  return { id: ask.fresh('goal-'), of, ...STATES[ask.choice('when')]! };
}

/** Ampere that were typed as such or as watts. */
export function ampsOf(ask: Asking): number {
  const amps = ask.number('amps');
  const watts = ask.number('watts');
  if (amps === null && watts === null) throw new Unanswered('amps', 'What it draws: write ampere or watts.');
  return amps ?? watts! / ask.circuit.nominalVolts;
}

/** Thinner wires break where they are bent and pulled, mm². */
const LEAST_MM2 = 0.75;

/** A fuse that carries it for good, and a wire for it; each with its sentence. */
export function sized(
  ask: Asking,
  amps: number,
  kind: CircuitPart['kind'],
  short: boolean,
): { readonly fuseAmps: number; readonly mm2: number; readonly metres: number; readonly worked: string[] } {
  const metres = ask.number('metres')!;
  const typed = ask.number('mm2');
  const percent = DESIGN_DROP_PERCENT[kind] ?? DESIGN_DROP_PERCENT.other;
  const size = wireSize({
    amps,
    systemVolts: ask.circuit.nominalVolts,
    oneWayMetres: metres,
    returnBy: 'body',
    allowed: { percent },
    ...(short ? { duty: { onSeconds: 20, everySeconds: 600 } } : {}),
  });
  const fuseAmps = leastRating(amps, short ? 1 : RUNNING_SHARE);
  if (fuseAmps === null)
    throw new Unanswered(
      'amps',
      `${figure(amps, 'A')} is more than any blade carries for good: a strip fuse after its maker’s table.`,
    );
  const asked = size.sizeMm2 ?? null;
  const mm2 = typed ?? (asked === null ? null : Math.max(asked, LEAST_MM2));
  if (mm2 === null || mm2 === undefined)
    throw new Unanswered('mm2', 'No wire of the table does: write its size.');
  return {
    fuseAmps,
    mm2,
    metres,
    worked: [
      `${figure(amps, 'A')} asks a fuse of ${figure(fuseAmps, 'A')}${short ? ', on for seconds' : ` (${RUNNING_SHARE * 100} % of it for good)`}.`,
      ...(size.sizeMm2 === null
        ? []
        : [
            `Over ${figure(metres, 'm')}: ${size.byDropMm2 === null ? 'no size' : `${size.byDropMm2} mm²`} by the drop of ${percent} %, ${size.byHeatMm2 === null ? 'no size' : `${size.byHeatMm2} mm²`} by heat, ${size.byFuseMm2 === null ? 'no size' : `${size.byFuseMm2} mm²`} by the fuse; ${size.governs === 'drop' ? 'the drop' : size.governs === 'heat' ? 'the heat' : 'the fuse'} rules: ${size.sizeMm2} mm²${typed === null ? '' : `; ${typed} mm² was typed`}${typed === null && size.sizeMm2 < LEAST_MM2 ? `; nothing thinner than ${LEAST_MM2} mm² is laid by hand` : ''}.`,
          ]),
    ],
  };
}

/** A tap of a family that the slot takes, as far as the map has it. */
export function tapOf(ask: Asking, fuse: PartOf<'fuse'>, addedAmps: number, name: string) {
  const family = FUSE_FAMILIES.find((one) => one === fuse.family);
  if (!family)
    throw new Unanswered(
      'feed',
      `${fuse.name}: its family is not known, so no tap can be chosen. Say it at the fuse first.`,
    );
  const lead = ask.fresh('lead-');
  const edit: PlanEdit = {
    kind: 'tap',
    id: ask.fresh('tap-'),
    fuse: fuse.id,
    side: 'supply',
    family,
    addedFuse: ask.fresh('AF'),
    addedAmps,
    lead,
    name,
  };
  return { edit, lead };
}

export function newWire(
  ask: Asking,
  a: string,
  b: string,
  { mm2, metres }: { readonly mm2: number; readonly metres: number },
  name: string,
): CircuitPart {
  const through = ask.said('through');
  return {
    id: ask.fresh('NW'),
    kind: 'wire',
    name,
    pins: { a, b },
    lengthMetres: metres,
    sizeMm2: mm2,
    ...(through ? { through } : {}),
  };
}

export function labelOf(ask: Asking, on: string, words: string): PlanEdit {
  return { kind: 'label', id: ask.fresh('label-'), on, words };
}

/** Fuses that feed a point through nothing that uses current. */
export function fusesBefore(circuit: CircuitFile, node: string): Protector[] {
  const { nodes } = reach(meetings(circuit), node);
  return circuit.parts.filter((part): part is Protector => isProtector(part) && nodes.has(part.pins.out));
}

/** An earth point that can be used: one of the circuit’s, else its reference. */
export function earthOf(circuit: CircuitFile): string {
  const ground = circuit.parts.find((part) => part.kind === 'ground');
  return ground?.kind === 'ground' ? ground.pins.body : circuit.reference;
}
