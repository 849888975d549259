/** Does it work: as it is, with a known good part, with a relay bridged, with a feed or an earth put on. */

import { partsBehind } from '../../circuit';
import { renewed } from '../../faults';
import type { CircuitFile, CircuitPart, ReadingValue } from '../../format';
import { appliedAt, bridgeRelay } from '../../hands';
import { FUNCTION_STATES, functionChances, OPENS_FROM } from '../../limits';
import {
  type Alteration,
  type CircuitModel,
  combineAlterations,
  type OperatingPoint,
  seenPoint,
  UNALTERED,
} from '../../network';
import { fuseOfNode, fuseOfRelay } from './fuseBefore';
import { atNode, atPart, loadPart, type Names, pinsOf, type RefOf, type TestKind } from './kind';

const RESULTS = ['works', 'weak', 'dead'] as const;

function chancesOf(model: CircuitModel, functionId: string, point: OperatingPoint): readonly number[] {
  const load = model.network.loads.get(model.function(functionId).load)!;
  const fraction = Math.abs(point.amps[load.branch]!) / load.nominalAmps;
  return functionChances(fraction, load.weakBelow, load.deadBelow);
}

function outcome(value: ReadingValue): number | null {
  if (!('state' in value)) return null;
  if (value.state === 'on-when-off') return 0;
  const index = (FUNCTION_STATES as readonly string[]).indexOf(value.state);
  return index < 0 ? null : index;
}

function state(model: CircuitModel, ref: { function: string; condition: string }, altered: Alteration) {
  return { state: model.outcome(model.function(ref.function), seenPoint(model, ref.condition, altered)) };
}

const lower = (names: Names, id: string) => names.function(id).toLowerCase();

export const functionSeen: TestKind<RefOf<'function'>> = {
  fields: ['function', 'condition'],
  answer: 'function',
  results: RESULTS,
  minutes: 0.3,
  setUp: (ref) => `function|${ref.condition}`,
  spot: (ref) => `function|${ref.function}`,
  apart: () => false,
  deed: (_, ref) => ({ runs: [ref.function] }),
  leads: ({ functions }, ref) => ({ sign: 'eye', at: loadPart(functions, ref.function) }),
  offers: ({ circuit, model }) =>
    circuit.functions.flatMap((one) =>
      model.conditions.map((condition) => ({
        ref: { kind: 'function' as const, function: one.id, condition: condition.id },
        accesses: [{ place: null, lead: one.name, minutes: one.minutes ?? functionSeen.minutes }],
      })),
    ),
  chances: ({ model, point }, ref) => chancesOf(model, ref.function, point(ref.condition)),
  outcome: (_, _ref, value) => outcome(value),
  shows: ({ model, alteration }, ref) => state(model, ref, alteration),
  card: (names, ref) => ({
    title: `Does it work: ${names.function(ref.function)}`,
    instrument: 'Eyes and ears',
    steps: [`Set key and switches, then look at ${lower(names, ref.function)}.`],
    cautions: [],
  }),
  inSentence: (names, ref) => `what ${lower(names, ref.function)} does`,
  inLog: (names, ref) => names.function(ref.function),
  means: ({ model, names }, ref, value) => {
    if (!('state' in value)) return null;
    const name = names.function(ref.function);
    const on = model.expectedOn(model.function(ref.function), ref.condition);
    switch (value.state) {
      case 'works':
        return `${name} works: what it shares carries its current. A heavier load may still find a bad joint there.`;
      case 'weak':
        return `${name} is weak: a weak feed, a weak way to ${names.ground}, or a load that is worn.`;
      case 'on-when-off':
        return `${name} runs when it should be off: a stuck contact, or a feed from elsewhere.`;
      case 'comes-and-goes':
        return `${name} comes and goes: something loose. Good readings while it works clear nothing.`;
      default:
        return on ? `${name} is dead where it should work.` : `${name} is off, as it should be.`;
    }
  },
};

function substitutable(part: CircuitPart): boolean {
  return (part.kind === 'relay' || part.kind === 'fuse' || part.kind === 'lamp') && !part.fixed;
}

export const substitute: TestKind<RefOf<'substitute'>> = {
  fields: ['part', 'function', 'condition'],
  answer: 'function',
  results: RESULTS,
  minutes: 3,
  setUp: (ref) => `substitute|${ref.part}|${ref.condition}`,
  feedsBehind: (circuit, { part }) =>
    circuit.parts.some((one) => one.id === part && one.kind === 'fuse') ? [part] : [],
  spot: (ref) => `part|${ref.part}`,
  apart: () => true,
  intervenes: true,
  touches: (ref) => [ref.part],
  deed: (_, ref) => ({ exchanges: [ref.part], behind: [ref.part], runs: [ref.function] }),
  leads: (_, { part }) => ({ sign: 'hand', at: part }),
  tried: () => UNALTERED,
  offers: ({ circuit, concerned, function: of, condition }) =>
    circuit.parts
      .filter((part) => concerned(part.id) && substitutable(part))
      .map((part) => ({
        ref: { kind: 'substitute', part: part.id, function: of, condition },
        accesses: atPart(part, substitute.minutes),
        disturbs: true,
      })),
  chances: ({ model, hypothesis, point, solveWith }, ref) => {
    // A new fuse on a short opens again.
    const left = hypothesis.blows
      ? hypothesis.faults
      : hypothesis.faults.filter((fault) => fault.part !== ref.part);
    return left.length === hypothesis.faults.length
      ? chancesOf(model, ref.function, point(ref.condition))
      : chancesOf(model, ref.function, solveWith(ref.condition, left));
  },
  outcome: (_, _ref, value) => outcome(value),
  shows: (circuit, ref) => state(circuit.model, ref, renewed(circuit, ref.part).alteration),
  card: (names, ref) => ({
    title: `Known good part for ${names.part(ref.part)}`,
    instrument: 'A part known to work',
    steps: [
      `Fit a known good part for ${names.part(ref.part)}.`,
      `Does ${lower(names, ref.function)} work now?`,
    ],
    cautions: [
      'Same rating, footprint, pin layout and coil voltage only. A fuse that blows again is a finding: do not fit a third.',
    ],
  }),
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `a known good part for ${names.part(ref.part)}`,
  inLog: (names, ref) => `Known good part for ${names.part(ref.part)}`,
  means: ({ names }, ref, value) =>
    !('state' in value)
      ? null
      : value.state === 'works'
        ? `With a known good ${names.part(ref.part)} it works: the fault went with the part that came out.`
        : `A known good ${names.part(ref.part)} changes nothing.`,
};

/** A relay whose contact can be bridged for a test: it comes out, and has a 30 and an 87. */
export function bridgeable(part: CircuitPart): boolean {
  return part.kind === 'relay' && part.pins['87'] !== undefined && !part.fixed;
}

export const bridge: TestKind<RefOf<'bridge'>> = {
  fields: ['part', 'function', 'condition'],
  answer: 'function',
  results: RESULTS,
  minutes: 2.5,
  setUp: (ref) => `bridge|${ref.part}|${ref.condition}`,
  spot: (ref) => `part|${ref.part}`,
  apart: () => true,
  touches: (ref) => [ref.part],
  deed: (_, ref) => ({ bridges: [ref.part], behind: [ref.part], runs: [ref.function] }),
  leads: ({ parts }, { part }) => {
    const { 30: plus, 87: minus } = pinsOf(parts, part);
    return { sign: 'fused-lead', plus, minus, at: part };
  },
  tried: ({ network }, ref) => bridgeRelay(network, ref.part),
  offers: ({ circuit, concerned, function: of, condition }) =>
    circuit.parts
      .filter((part) => concerned(part.id) && bridgeable(part))
      .map((part) => ({
        ref: { kind: 'bridge', part: part.id, function: of, condition },
        accesses: atPart(part, bridge.minutes),
        disturbs: true,
      })),
  chances: ({ model, solve }, ref) =>
    chancesOf(model, ref.function, solve(ref.condition, bridgeRelay(model.network, ref.part))),
  outcome: (_, _ref, value) => outcome(value),
  shows: ({ model, alteration }, ref) =>
    state(model, ref, combineAlterations(alteration, bridgeRelay(model.network, ref.part))),
  card: (names, ref) => {
    const fuseAmps = fuseOfRelay(names.circuit, ref.part);
    const limit = fuseAmps === null ? 'look it up before' : `at most ${fuseAmps} A here`;
    return {
      title: `Bridge ${names.part(ref.part)} from 30 to 87`,
      instrument: 'Momentary lead with a fuse in it',
      steps: [
        `Take ${names.part(ref.part)} out.`,
        'Find 30 and 87 by a reading: 30 is live, 87 is not. Never a coil pin.',
        `Touch the lead from 30 to 87 for a moment. Does ${lower(names, ref.function)} work?`,
      ],
      cautions: [`The fuse in the lead no larger than the circuit’s own (${limit}).`],
    };
  },
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `${names.part(ref.part)} bridged`,
  inLog: (names, ref) => `${names.part(ref.part)} bridged from 30 to 87`,
  means: ({ names }, ref, value) =>
    !('state' in value)
      ? null
      : value.state === 'works'
        ? `It works with ${names.part(ref.part)} bridged: path and load carry the current. Contact, coil or command remain.`
        : `Bridging ${names.part(ref.part)} does not make it work: look behind pin 87, or at the feed of pin 30.`,
};

/** Loads that may be fed by hand: no electronics, no restraint, nothing that only runs for seconds. */
const FEEDABLE: readonly CircuitPart['kind'][] = ['lamp', 'motor', 'pump', 'heater', 'horn', 'led'];

/** The two ends of the load of a function, where both may be touched. */
function loadEnds(circuit: CircuitFile, functionId: string): readonly [string, string] | null {
  const load = circuit.functions.find((one) => one.id === functionId)?.load;
  const part = circuit.parts.find((one) => one.id === load);
  if (!part || !FEEDABLE.includes(part.kind)) return null;
  const pins = part.pins as Readonly<Record<string, string | undefined>>;
  const { plus, minus } = pins;
  return plus === undefined || minus === undefined ? null : [plus, minus];
}

/** Rating of the fuse in a lead where the map names none, ampere. */
const LEAD_FUSE_AMPS = 15;

/** Whether the fuse in the lead stands the current; the lead is the last bridge of the alteration. */
function leadHolds(model: CircuitModel, node: string, point: OperatingPoint): boolean {
  const rating = fuseOfNode(model.circuit, node) ?? LEAD_FUSE_AMPS;
  return Math.abs(point.amps[point.amps.length - 1]!) <= rating * OPENS_FROM;
}

export const apply: TestKind<RefOf<'apply'>> = {
  fields: ['with', 'node', 'function', 'condition'],
  answer: 'function',
  results: RESULTS,
  minutes: 2,
  setUp: (ref) => `apply|${ref.with}|${ref.condition}`,
  feedsBehind: (circuit, ref) =>
    ref.with === 'plus'
      ? circuit.parts
          .filter((fuse) =>
            partsBehind(circuit, fuse.id).some((part) => Object.values(part.pins).includes(ref.node)),
          )
          .map((fuse) => fuse.id)
      : [],
  spot: (ref) => `node|${ref.node}`,
  apart: () => true,
  intervenes: true,
  deed: (_, ref) => ({ leads: [{ node: ref.node, with: ref.with }], runs: [ref.function] }),
  leads: (_, { node, with: pole }) => ({
    sign: 'fused-lead',
    ...(pole === 'plus' ? { plus: node } : { minus: node }),
  }),
  tried: ({ network }, ref) => appliedAt(network, ref.with, ref.node),
  offers: ({ circuit, function: of, condition }) => {
    const ends = loadEnds(circuit, of);
    if (!ends) return [];
    const [plus, minus] = ends;
    const both = [
      { with: 'plus' as const, node: plus },
      { with: 'earth' as const, node: minus },
    ];
    return both
      .filter(({ node }) => node !== circuit.reference)
      .map(({ with: what, node }) => ({
        ref: { kind: 'apply' as const, with: what, node, function: of, condition },
        accesses: atNode(circuit, node, apply.minutes),
      }));
  },
  chances: ({ model, solve, point }, ref) => {
    const applied = solve(ref.condition, appliedAt(model.network, ref.with, ref.node));
    const held = leadHolds(model, ref.node, applied);
    return chancesOf(model, ref.function, held ? applied : point(ref.condition));
  },
  outcome: (_, _ref, value) => outcome(value),
  shows: ({ model, alteration }, ref) => {
    const lead = combineAlterations(alteration, appliedAt(model.network, ref.with, ref.node));
    const held = leadHolds(model, ref.node, model.solve(ref.condition, lead));
    return state(model, ref, held ? lead : alteration);
  },
  card: (names, ref, lead) => {
    const amps = fuseOfNode(names.circuit, ref.node);
    const fuse = amps === null ? 'fused as the circuit is: look it up before' : `fused at ${amps} A at most`;
    return ref.with === 'plus'
      ? {
          title: `Feed ${names.node(ref.node)} from the battery`,
          instrument: 'Momentary lead with a fuse in it',
          steps: [
            `One end on battery plus, ${fuse}.`,
            `Touch ${lead} for a moment. Does ${lower(names, ref.function)} work?`,
          ],
          cautions: [
            'Never into a module, a restraint or data line, nor to a point that may be earthed by a switch.',
          ],
        }
      : {
          title: `Earth ${names.node(ref.node)} with a lead`,
          instrument: 'Fused lead to a proved earth',
          steps: [
            `One end on a proved earth, ${fuse}.`,
            `Touch ${lead} for a moment. Does ${lower(names, ref.function)} work now?`,
          ],
          cautions: ['Never earth a point that is fed other than through its load.'],
        };
  },
  inSentence: (names, ref) => `${ref.with === 'plus' ? 'a feed' : 'an earth'} put on ${names.node(ref.node)}`,
  inLog: (names, ref) => `${ref.with === 'plus' ? 'Feed' : 'Earth'} put on ${names.node(ref.node)}`,
  means: ({ names }, ref, value) => {
    if (!('state' in value)) return null;
    const at = names.node(ref.node);
    if (ref.with === 'plus') {
      return value.state === 'works'
        ? `It works with ${at} fed from the battery: load and earth are sound, the feed is missing before this point.`
        : `It does not work even with ${at} fed from the battery: load or earth side.`;
    }
    return value.state === 'works'
      ? `It works with ${at} earthed by a lead: load and feed are sound, the earth behind this point is not.`
      : `An earth at ${at} changes nothing: the earth behind it is not what is missing.`;
  },
};
