/** Volts between two points with a meter, and what they mean. Judged by value, not by a few results. */

import type { FaultyCircuit } from '../../faults';
import type { CircuitFile, CircuitPart } from '../../format';
import { withoutPart } from '../../hands';
import { METER_OHMS, voltmeterError } from '../../limits';
import { combineAlterations, seenPoint } from '../../network';
import {
  type Access,
  atNode,
  type Names,
  nodeIndex,
  type Offer,
  type RefOf,
  type Scene,
  type TestKind,
} from './kind';
import { voltsWords } from './voltsWords';

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

/** Ends of a part between which a drop can be read. */
function dropEnds(part: CircuitPart): readonly [string, string] | null {
  const pins = DROP_PINS[part.kind];
  if (!pins) return null;
  const at = part.pins as Readonly<Record<string, string | undefined>>;
  const from = at[pins[0]];
  const to = at[pins[1]];
  return from === undefined || to === undefined ? null : [from, to];
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
    if (node.id === reference) continue;
    for (const one of model.conditions) {
      const ref: Ref = { kind: 'volts', node: node.id, against: reference, condition: one.id };
      found.push({ ref, accesses: atNode(circuit, node.id, MINUTES) });
    }
  }
  for (const part of circuit.parts) {
    if (!concerned(part.id)) continue;
    const drop = dropEnds(part);
    // Against the reference it is the plain reading at the other end.
    if (!drop || drop.includes(reference)) continue;
    const [node, against] = drop;
    found.push({
      ref: { kind: 'volts', node, against, condition },
      accesses: commonAccess(circuit, node, against),
    });
    // A second feed shows on the load side of a fuse that is out.
    if (part.kind === 'fuse' && !part.fixed) {
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

/** What lies between two points: the part whose ends they are, or the points themselves. */
function acrossWords(names: Names, { node, against }: Ref): string {
  const between = names.between(node, against);
  return between ? between.name : `${names.node(node)} and ${names.node(against)}`;
}

export const volts: TestKind<Ref> = {
  fields: ['node', 'against', 'condition', 'pulled'],
  answer: 'volts',
  results: [],
  minutes: MINUTES,
  setUp: (ref) => `volts|${ref.condition}|${ref.pulled ?? ''}`,
  spot: (ref) => `node|${ref.node}`,
  apart: (ref) => ref.pulled !== undefined,
  touches: (ref) => (ref.pulled ? [ref.pulled] : []),
  deed: ({ circuit }, ref) => ({
    probes: [ref.node, ref.against].filter((node) => node !== circuit.reference),
    pulls: ref.pulled ? [ref.pulled] : [],
  }),
  leads: (_, { node, against }) => ({ sign: 'volts', plus: node, minus: against }),
  offers,
  chances: () => [],
  outcome: () => null,
  shows,
  card: (names, ref, lead) => {
    const plain = ref.against === names.circuit.reference;
    return {
      title: plain
        ? `Volts at ${names.node(ref.node)}${ref.pulled ? `, ${names.part(ref.pulled)} out` : ''}`
        : `Volts across ${acrossWords(names, ref)}`,
      instrument: 'Meter on DC volts',
      steps: [
        ...(ref.pulled ? [`Load off, then pull ${names.part(ref.pulled)}.`, 'Load on again.'] : []),
        `Red lead on ${lead}.`,
        `Black lead on ${names.node(ref.against)}.`,
        ...(plain ? [] : ['The load stays switched on: without current a drop of 0 V says nothing.']),
      ],
      cautions: ref.pulled ? ['Put the same fuse back afterwards.'] : [],
    };
  },
  inSentence: (names, ref) =>
    ref.against === names.circuit.reference
      ? `the volts at ${names.node(ref.node)}${ref.pulled ? ` with ${names.part(ref.pulled)} out` : ''}`
      : `the drop across ${acrossWords(names, ref)}`,
  inLog: (names, ref) =>
    ref.against === names.circuit.reference
      ? `Volts at ${names.node(ref.node)}${ref.pulled ? `, ${names.part(ref.pulled)} out` : ''}`
      : `Drop across ${acrossWords(names, ref)}`,
  means: voltsWords,
};
