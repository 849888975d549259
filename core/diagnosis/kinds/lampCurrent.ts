/**
 * Which way a short draws: a lamp in place of the fuse lets a small, safe current flow, and a clamp around one wire after
 * another finds where it goes. Nothing is unplugged, and wires of one splice are told apart.
 */
import { coilsBehind, isUnknownLoad, partsBehind, pointsBehind } from '../../circuit';
import type { Fault } from '../../faults';
import { lampInPlaceOf } from '../../hands';
import { clampError, fuseLampOhms, normalBelow } from '../../limits';
import {
  type Alteration,
  type CircuitModel,
  chatteringPoint,
  combineAlterations,
  seenPoint,
} from '../../network';
import { formatQuantity } from '../../quantity';
import { fusesConcerned } from './behind';
import { atNode, type RefOf, type TestKind } from './kind';

type Ref = RefOf<'lamp-current'>;

const RESULTS = [
  'no current',
  'up to a third of the lamp’s current',
  'up to two thirds of it',
  'most of it',
  'all of it',
] as const;
/** Limits between the results, as shares of what the lamp takes from a full battery. */
const LIMITS = [0.09, 0.33, 0.6, 0.85] as const;
/** Lamp in, clamp on; from wire to wire it stays in. */
const MINUTES = 2;
/** Relative spread of the current: filament, battery, loads beside. */
const SPREAD = 0.06;

/** What flows: through the lamp, and by branch. */
interface Lit {
  readonly lampAmps: number;
  readonly amps: Float64Array;
}

/** Where coils hang on the fuse: how likely they starve, whatever the model has of their thresholds. */
const STARVES = 0.5;

/** What flows with the lamp in place; every wire behind one fuse is asked of the same state. */
const known = new WeakMap<CircuitModel, WeakMap<Alteration, Map<string, readonly Lit[]>>>();

/** As the model has it; and where coils hang on the fuse as it is while they go to and fro. */
function litWith(model: CircuitModel, { part, condition }: Ref, altered: Alteration): readonly Lit[] {
  const ofModel = known.get(model) ?? new WeakMap<Alteration, Map<string, readonly Lit[]>>();
  known.set(model, ofModel);
  const found = ofModel.get(altered) ?? new Map<string, readonly Lit[]>();
  ofModel.set(altered, found);
  const before = found.get(`${part}|${condition}`);
  if (before) return before;
  const lamp = lampInPlaceOf(model.network, part);
  const there = combineAlterations(altered, lamp.alteration);
  const coils = coilsBehind(model.circuit, part);
  const points = [
    seenPoint(model, condition, there),
    ...(coils.length > 0 ? [chatteringPoint(model, condition, there, coils)] : []),
  ];
  const lit = points.map(({ volts, amps }) => {
    const across = volts[lamp.a]! - volts[lamp.b]!;
    return { lampAmps: Math.abs(across) / fuseLampOhms(model.circuit.nominalVolts), amps };
  });
  found.set(`${part}|${condition}`, lit);
  return lit;
}

/** Ampere in the wire at its end towards the fuse. */
function wireAmps(model: CircuitModel, ref: Ref, faults: readonly Fault[], { lampAmps, amps }: Lit): number {
  // Where a wire is chafed is between its ends: its own short flows through the end that is clamped.
  if (faults.some(({ part, mode }) => part === ref.wire && mode === 'short-to-earth')) return lampAmps;
  return Math.max(...(model.network.branchesOfPart.get(ref.wire) ?? []).map((e) => Math.abs(amps[e]!)));
}

/** What the lamp takes from a full battery, ampere. */
function fullAmps(model: CircuitModel): number {
  return model.circuit.nominalVolts / fuseLampOhms(model.circuit.nominalVolts);
}

function chancesOf(model: CircuitModel, amps: number): number[] {
  const blur = Math.hypot(clampError(amps), SPREAD * amps);
  const below = LIMITS.map((limit) => normalBelow((limit * fullAmps(model) - amps) / blur));
  return [...below, 1].map((upTo, k) => Math.max(0, upTo - (below[k - 1] ?? 0)));
}

/** The end of a wire that lies nearer to the fuse. */
function nearEnd(model: CircuitModel, fuse: string, wire: string): string {
  const ends = Object.values(model.network.parts.get(wire)?.pins ?? {}) as string[];
  return [...pointsBehind(model.circuit, fuse)].find((point) => ends.includes(point)) ?? ends[0]!;
}

export const lampCurrent: TestKind<Ref> = {
  fields: ['part', 'wire', 'condition'],
  answer: 'amps',
  results: RESULTS,
  minutes: MINUTES,
  setUp: (ref) => `lamp-current|${ref.condition}`,
  spot: (ref) => `wire|${ref.wire}`,
  apart: () => true,
  touches: (ref) => [ref.part],
  deed: (_, ref) => ({ pulls: [ref.part], behind: [ref.part], lampInPlace: true }),
  leads: (_, { wire }) => ({ sign: 'clamp', at: wire }),
  offers: ({ model, circuit, condition, concerned }) => {
    // A load of unknown power may take the lamp's current as a short does.
    if (circuit.parts.some(isUnknownLoad)) return [];
    return fusesConcerned(circuit, concerned).flatMap((fuse) =>
      partsBehind(circuit, fuse.id)
        .filter((part) => part.kind === 'wire')
        .map((wire) => ({
          ref: { kind: 'lamp-current' as const, part: fuse.id, wire: wire.id, condition },
          accesses: atNode(circuit, nearEnd(model, fuse.id, wire.id), MINUTES),
          disturbs: true,
        })),
    );
  },
  chances: ({ model, hypothesis, altered }, ref) => {
    const [asSolved, starved] = litWith(model, ref, altered).map((lit) =>
      chancesOf(model, wireAmps(model, ref, hypothesis.faults, lit)),
    );
    if (!starved) return asSolved!;
    return asSolved!.map((chance, k) => (1 - STARVES) * chance + STARVES * starved[k]!);
  },
  outcome: (model, _ref, value) =>
    'amps' in value ? LIMITS.filter((limit) => Math.abs(value.amps) >= limit * fullAmps(model)).length : null,
  shows: ({ model, faults, alteration }, ref) => ({
    amps: Math.round(wireAmps(model, ref, faults, litWith(model, ref, alteration)[0]!) * 10) / 10,
  }),
  card: (names, ref, lead) => ({
    title: `Current in ${names.part(ref.wire)}, a lamp in place of ${names.part(ref.part)}`,
    instrument: 'Lamp of 21 W with fused leads; clamp on DC amperes, smallest range, zeroed first',
    steps: [
      `Pull ${names.part(ref.part)} and put the lamp across its two contacts.`,
      `Clamp around ${names.part(ref.wire)} alone, near ${lead}.`,
    ],
    cautions: [],
  }),
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) =>
    `the current in ${names.part(ref.wire)} with a lamp in place of ${names.part(ref.part)}`,
  inLog: (names, ref) => `Current in ${names.part(ref.wire)}, lamp in place of ${names.part(ref.part)}`,
  means: ({ model, names }, ref, value) => {
    if (!('amps' in value)) return null;
    const shown = `${formatQuantity(Math.abs(value.amps), 'A')} in ${names.part(ref.wire)}`;
    const result = LIMITS.filter((limit) => Math.abs(value.amps) >= limit * fullAmps(model)).length;
    if (result === 0) return `${shown}: no current goes this way, whatever takes it lies on another.`;
    return result === LIMITS.length
      ? `${shown}, all that the lamp lets through: what takes it lies on ${names.part(ref.wire)} or behind it.`
      : `${shown}, a share of what the lamp lets through: a load behind it takes that much, a dead short would take all.`;
  },
};
