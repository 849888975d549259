/** Test lamp, tester of light-emitting diodes, and the lamp in place of a fuse. */
import { isUnknownLoad } from '../../circuit';
import type { Fault } from '../../faults';
import type { ReadingValue } from '../../format';
import { lampInPlaceOf, ledTesterAt, testLampAt } from '../../hands';
import { EMF_PER_NOMINAL, LAMP_STATES, lampChances, ledChances } from '../../limits';
import { type Alteration, type CircuitModel, combineAlterations, seenPoint, seenVolts } from '../../network';
import { safetyMarks } from '../../safety';
import { apartAccess, apartOf, apartSteps, apartWords, fusesConcerned, waysApart, withApart } from './behind';
import { atNode, likeliest, nodeIndex, pinsOf, type RefOf, type Scene, type TestKind } from './kind';

const RESULTS = ['lit', 'dim', 'off'] as const;
const LAMP_MINUTES = 0.6;
const IN_FUSE_MINUTES = 2;
const UNPLUG_MINUTES = 1.5;

/** Volts at which a lamp is as bright as it should be, whatever the battery of the vehicle has left. */
function ratedVolts(model: CircuitModel): number {
  return model.circuit.nominalVolts * EMF_PER_NOMINAL;
}

function outcome(value: ReadingValue): number | null {
  return 'lamp' in value ? LAMP_STATES.indexOf(value.lamp) : null;
}

/** Points on the way of what failed that may be loaded with a lamp, in the condition that failed. */
function loadable({ circuit, concerned }: Scene): string[] {
  return circuit.nodes
    .filter((node) => node.id !== circuit.reference && concerned(node.id))
    .map((node) => node.id);
}

export const lamp: TestKind<RefOf<'lamp'>> = {
  fields: ['node', 'condition'],
  answer: 'lamp',
  results: RESULTS,
  minutes: LAMP_MINUTES,
  setUp: (ref) => `lamp|${ref.condition}`,
  spot: (ref) => `node|${ref.node}`,
  apart: () => false,
  deed: (_, ref) => ({ lamps: [ref.node] }),
  leads: ({ reference }, { node }) => ({ sign: 'lamp', plus: node, minus: reference }),
  offers: (scene) =>
    loadable(scene).map((node) => ({
      ref: { kind: 'lamp', node, condition: scene.condition },
      accesses: atNode(scene.circuit, node, LAMP_MINUTES),
    })),
  chances: ({ model, point, volts }, ref) => {
    const node = nodeIndex(model, ref.node);
    // A dead floating point cannot light anything; no need to solve.
    if (point(ref.condition).floating[node]) return lampChances(0);
    const lit = volts(ref.condition, testLampAt(model.network, node), node, model.network.datum);
    return lampChances(Math.abs(lit) / ratedVolts(model));
  },
  outcome: (_, _ref, value) => outcome(value),
  shows: ({ model, alteration }, ref) => {
    const node = nodeIndex(model, ref.node);
    const point = seenPoint(
      model,
      ref.condition,
      combineAlterations(alteration, testLampAt(model.network, node)),
    );
    const volts = point.floating[node] ? 0 : Math.abs(point.volts[node]!);
    return { lamp: likeliest(LAMP_STATES, lampChances(volts / ratedVolts(model))) };
  },
  card: (names, _ref, lead) => ({
    title: `Test lamp at ${names.node(_ref.node)}`,
    instrument: 'Filament test lamp, 3 to 5 W',
    steps: [`Clip on ${names.node(names.circuit.reference)}.`, `Probe on ${lead}.`],
    cautions: [],
  }),
  inSentence: (names, ref) => `the lamp at ${names.node(ref.node)}`,
  inLog: (names, ref) => `Test lamp at ${names.node(ref.node)}`,
  means: ({ names }, ref, value) => {
    if (!('lamp' in value)) return null;
    const at = names.node(ref.node);
    if (value.lamp === 'lit')
      return `The lamp lights at ${at}: there is a feed that can carry the lamp's current.`;
    return value.lamp === 'dim'
      ? `The lamp is dim at ${at}: a feed is there, but through resistance.`
      : `The lamp stays off at ${at}: no feed that could carry it arrives here.`;
  },
};

export const led: TestKind<RefOf<'led'>> = {
  fields: ['node', 'condition'],
  answer: 'lamp',
  results: RESULTS,
  minutes: LAMP_MINUTES,
  setUp: (ref) => `led|${ref.condition}`,
  spot: (ref) => `node|${ref.node}`,
  apart: () => false,
  deed: (_, ref) => ({ leds: [ref.node] }),
  leads: ({ reference }, { node }) => ({ sign: 'led', plus: node, minus: reference }),
  outcome: (_, _ref, value) => outcome(value),
  // Where a filament lamp would harm, this one is the tester; elsewhere the filament tells more.
  offers: ({ circuit, condition, concerned }) =>
    circuit.nodes
      .filter((node) => safetyMarks(circuit).points.get(node.id) === 'no-load' && concerned(node.id))
      .map((node) => ({
        ref: { kind: 'led', node: node.id, condition },
        accesses: atNode(circuit, node.id, LAMP_MINUTES),
      })),
  chances: ({ model, point, volts }, ref) => {
    const node = nodeIndex(model, ref.node);
    if (point(ref.condition).floating[node]) return ledChances(0);
    const lit = volts(ref.condition, ledTesterAt(model.network, node), node, model.network.datum);
    return ledChances(Math.abs(lit) / ratedVolts(model));
  },
  shows: ({ model, alteration }, ref) => {
    const node = nodeIndex(model, ref.node);
    const point = seenPoint(
      model,
      ref.condition,
      combineAlterations(alteration, ledTesterAt(model.network, node)),
    );
    const volts = point.floating[node] ? 0 : Math.abs(point.volts[node]!);
    return { lamp: likeliest(LAMP_STATES, ledChances(volts / ratedVolts(model))) };
  },
  card: (names, ref, lead) => ({
    title: `LED tester at ${names.node(ref.node)}`,
    instrument: 'LED tester, 5 to 10 mA',
    steps: [`Clip on ${names.node(names.circuit.reference)}.`, `Probe on ${lead}.`],
    cautions: [],
  }),
  inSentence: (names, ref) => `the LED tester at ${names.node(ref.node)}`,
  inLog: (names, ref) => `LED tester at ${names.node(ref.node)}`,
  means: ({ names }, ref, value) => {
    if (!('lamp' in value)) return null;
    const at = names.node(ref.node);
    return value.lamp === 'off'
      ? `The LED tester stays off at ${at}: no feed arrives here.`
      : `The LED tester lights at ${at}: volts are there. It hardly loads, so a bad joint before it would light it too.`;
  },
};

/** Share of its volts that the lamp in place of a fuse gets. */
function lampShare(
  model: CircuitModel,
  ref: RefOf<'lamp-in-fuse'>,
  faults: readonly Fault[],
  altered: Alteration,
): number {
  const lamp = lampInPlaceOf(model.network, ref.part);
  const there = combineAlterations(withApart(model, faults, altered, apartOf(model, ref)), lamp.alteration);
  return Math.abs(seenVolts(model, ref.condition, there, lamp.a, lamp.b)) / ratedVolts(model);
}

export const lampInFuse: TestKind<RefOf<'lamp-in-fuse'>> = {
  fields: ['part', 'condition', 'unplugged', 'apart'],
  answer: 'lamp',
  results: RESULTS,
  minutes: IN_FUSE_MINUTES,
  setUp: (ref) => `lamp-in-fuse|${ref.condition}|${ref.unplugged ?? ref.apart ?? ''}`,
  spot: (ref) => `part|${ref.part}`,
  apart: () => true,
  touches: (ref) => (ref.unplugged ? [ref.part, ref.unplugged] : [ref.part]),
  deed: (model, ref) => ({
    pulls: [ref.part],
    behind: [ref.part],
    unplugs: apartOf(model, ref),
    lampInPlace: true,
  }),
  leads: ({ parts }, { part }) => {
    const { in: plus, out: minus } = pinsOf(parts, part);
    return { sign: 'lamp', plus, minus, at: part };
  },
  offers: ({ model, circuit, condition, concerned }) => {
    // A load of unknown power may light the lamp as a short does: it has to be unplugged first.
    const bare = circuit.parts.some(isUnknownLoad) ? [] : [{}];
    return fusesConcerned(circuit, concerned).flatMap((part) =>
      [...bare, ...waysApart(model, part.id)].map((way) => {
        const ref = { kind: 'lamp-in-fuse' as const, part: part.id, condition, ...way };
        const access = apartAccess(model, ref, part.name, IN_FUSE_MINUTES, UNPLUG_MINUTES);
        return { ref, accesses: [access], disturbs: true };
      }),
    );
  },
  chances: ({ model, hypothesis: { faults, alteration } }, ref) =>
    lampChances(lampShare(model, ref, faults, alteration!)),
  outcome: (_, _ref, value) => outcome(value),
  shows: ({ model, faults, blown, alteration }, ref) => {
    const fuses = blown.map((part): Fault => ({ part, mode: 'open' }));
    const share = lampShare(model, ref, [...faults, ...fuses], alteration);
    return { lamp: likeliest(LAMP_STATES, lampChances(share)) };
  },
  card: (names, ref) => ({
    title: `Lamp in place of ${names.part(ref.part)}`,
    instrument: 'Lamp of 21 W with fused leads',
    steps: [
      ...apartSteps(names, ref),
      `Pull ${names.part(ref.part)} and put the lamp across its two contacts.`,
    ],
    cautions: ['A load that is still connected lights the lamp too.'],
  }),
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `the lamp in place of ${names.part(ref.part)}`,
  inLog: (names, ref) => {
    const apart = apartWords(names, ref);
    return `Lamp in place of ${names.part(ref.part)}${apart ? `, ${apart} unplugged` : ''}`;
  },
  means: ({ names }, ref, value) => {
    if (!('lamp' in value)) return null;
    const part = names.part(ref.part);
    const plug = apartWords(names, ref);
    if (ref.apart === 'loads') {
      return value.lamp === 'off'
        ? `No light with ${plug} unplugged: no short in the wires to them.`
        : `It lights with ${plug} unplugged: a short in the wires, since no load is left to take current.`;
    }
    if (value.lamp === 'lit') {
      return plug
        ? `Still full brightness with ${plug} unplugged: the short lies before ${plug}, or a load there is still connected.`
        : `Full brightness in place of ${part}: a short behind it, or a load still connected.`;
    }
    if (value.lamp === 'dim') return `Dim in place of ${part}: a load takes current, no dead short.`;
    return plug
      ? `No light with ${plug} unplugged: nothing before it takes current. If it was bright before, the short lies behind ${plug}.`
      : `No light in place of ${part}: nothing behind it takes current in this set-up.`;
  },
};
