/** Current without opening the circuit: a clamp around the wire, or the millivolts over a fuse. */
import {
  clampChances,
  clampLimits,
  DROP_RESOLUTION_VOLTS,
  dropChances,
  fuseColdOhms,
  fuseDropAmps,
  hasColdOhms,
} from '../../limits';
import { type CircuitModel, type OperatingPoint, seenPoint } from '../../network';
import { formatQuantity } from '../../quantity';
import { atPart, pinsOf, type RefOf, type Scene, type TestKind } from './kind';

const RESULTS = [
  'no current',
  'clearly less current',
  'current as expected',
  'clearly more current',
] as const;

/** Ampere through the wire of a part at a point. */
function clampedAmps(model: CircuitModel, part: string, point: OperatingPoint): number {
  const [branch] = model.network.branchesOfPart.get(part) ?? [];
  return branch === undefined ? 0 : Math.abs(point.amps[branch]!);
}

function expectedAmps(model: CircuitModel, ref: { part: string; condition: string }): number {
  return clampedAmps(model, ref.part, model.sound(ref.condition));
}

function fusesOf({ circuit, concerned }: Scene) {
  return circuit.parts.filter(
    (part) => part.kind === 'fuse' && part.place !== undefined && concerned(part.id),
  );
}

/** What so many amperes mean where others belong. */
function flowWords(shown: string, amps: number, expected: number, part: string): string {
  const [nothing, less, more] = clampLimits(expected);
  const flows = `${shown} through ${part}, where ${formatQuantity(expected, 'A')} belong`;
  if (amps < nothing) return `${flows}: no current, so the way is open somewhere before or behind it.`;
  if (amps < less) return `${flows}: resistance in the way, or part of the load is missing.`;
  return amps < more ? `${flows}: feed, way and load carry it.` : `${flows}: overload or a short behind it.`;
}

export const clamp: TestKind<RefOf<'clamp'>> = {
  fields: ['part', 'condition'],
  answer: 'amps',
  results: RESULTS,
  minutes: 1,
  setUp: (ref) => `clamp|${ref.condition}`,
  spot: (ref) => `part|${ref.part}`,
  apart: () => false,
  deed: () => ({}),
  leads: (_, { part }) => ({ sign: 'clamp', at: part }),
  offers: (scene) =>
    fusesOf(scene).map((part) => ({
      ref: { kind: 'clamp', part: part.id, condition: scene.condition },
      accesses: atPart(part, clamp.minutes),
    })),
  chances: ({ model, point }, ref) =>
    clampChances(clampedAmps(model, ref.part, point(ref.condition)), expectedAmps(model, ref)),
  outcome: (model, ref, value) =>
    'amps' in value
      ? clampLimits(expectedAmps(model, ref)).filter((limit) => Math.abs(value.amps) >= limit).length
      : null,
  shows: ({ model, alteration }, ref) => {
    const amps = clampedAmps(model, ref.part, seenPoint(model, ref.condition, alteration));
    return { amps: Math.round(amps * 10) / 10 };
  },
  card: (names, ref, lead) => ({
    title: `Current through ${names.part(ref.part)}`,
    instrument: 'Clamp on DC amperes, zeroed first',
    steps: [`Clamp around the one wire that leads from ${lead} to the load.`],
    cautions: [],
  }),
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `the current through ${names.part(ref.part)}`,
  inLog: (names, ref) => `Current through ${names.part(ref.part)}`,
  means: ({ model, names }, ref, value) =>
    'amps' in value
      ? flowWords(
          formatQuantity(value.amps, 'A'),
          Math.abs(value.amps),
          expectedAmps(model, ref),
          names.part(ref.part),
        )
      : null,
};

function ratingOf(model: CircuitModel, part: string): { amps: number; family: string | undefined } {
  const fuse = model.network.parts.get(part);
  if (fuse?.kind !== 'fuse') return { amps: 0, family: undefined };
  return fuse.ratingAmps === undefined
    ? { amps: 0, family: 'unknown' }
    : { amps: fuse.ratingAmps, family: fuse.family };
}

/** Whether the cold resistance of a fuse is known well enough to read a current from its drop. */
function readable(model: CircuitModel, part: string): boolean {
  const { family } = ratingOf(model, part);
  return hasColdOhms(family);
}

export const fuseDrop: TestKind<RefOf<'fuse-drop'>> = {
  fields: ['part', 'condition'],
  answer: 'millivolts',
  results: RESULTS,
  minutes: 0.8,
  setUp: (ref) => `fuse-drop|${ref.condition}`,
  spot: (ref) => `part|${ref.part}`,
  apart: () => false,
  deed: ({ network }, ref) => ({
    probes: Object.values(network.parts.get(ref.part)?.pins ?? {}) as string[],
  }),
  leads: ({ parts }, { part }) => {
    const { in: plus, out: minus } = pinsOf(parts, part);
    return { sign: 'millivolts', plus, minus, at: part };
  },
  offers: (scene) =>
    fusesOf(scene)
      .filter((part) => readable(scene.model, part.id))
      .map((part) => ({
        ref: { kind: 'fuse-drop', part: part.id, condition: scene.condition },
        accesses: atPart(part, fuseDrop.minutes),
      })),
  chances: ({ model, point, hypothesis }, ref) => {
    const amps = clampedAmps(model, ref.part, point(ref.condition));
    const faulty = hypothesis.faults.some((fault) => fault.part === ref.part);
    // An open or bad fuse drops what its own fault makes it drop, not what its current would.
    if (faulty) return [0.34, 0.02, 0.02, 0.62];
    return dropChances(amps, expectedAmps(model, ref), ratingOf(model, ref.part).amps);
  },
  outcome: (model, ref, value) => {
    if (!('volts' in value)) return null;
    const { amps: rating } = ratingOf(model, ref.part);
    const amps = Math.abs(value.volts) / fuseColdOhms(rating);
    return clampLimits(expectedAmps(model, ref)).filter((limit) => amps >= limit).length;
  },
  shows: ({ model, alteration }, ref) => {
    const [branch] = model.network.branchesOfPart.get(ref.part) ?? [];
    const { a, b } = model.network.branches[branch!]!;
    const { volts } = seenPoint(model, ref.condition, alteration);
    return { volts: Math.round((volts[a]! - volts[b]!) / DROP_RESOLUTION_VOLTS) * DROP_RESOLUTION_VOLTS };
  },
  card: (names, ref) => ({
    title: `Millivolts over ${names.part(ref.part)}`,
    instrument: 'Meter on DC millivolts',
    steps: [
      `Load on. Both tips on the test points of ${names.part(ref.part)} itself, not on its clips.`,
      'Read millivolts: the current follows from them.',
    ],
    cautions: [
      'Volts only: never a lead in the ampere socket. One tip slipping to the neighbour is a short.',
    ],
  }),
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `the millivolts over ${names.part(ref.part)}`,
  inLog: (names, ref) => `Millivolts over ${names.part(ref.part)}`,
  means: ({ model, names }, ref, value) => {
    if (!('volts' in value)) return null;
    const { amps: rating, family } = ratingOf(model, ref.part);
    const found = fuseDropAmps(Math.abs(value.volts), rating, family);
    const part = names.part(ref.part);
    if ('nothing' in found) return `${formatQuantity(value.volts, 'V')} over ${part}. ${found.nothing}`;
    const band = `${formatQuantity(found.fromAmps, 'A')} to ${formatQuantity(found.toAmps, 'A')}`;
    return flowWords(
      `${formatQuantity(value.volts, 'V')}, that is about ${formatQuantity(found.amps, 'A')} (${band})`,
      found.amps,
      expectedAmps(model, ref),
      part,
    );
  },
};
