/** What must hold of the diagnosis whatever the circuit and whatever was read. */
import fc from 'fast-check';
import { demoCircuit } from '../../testing/circuits';
import { vehicleCircuit } from '../../testing/vehicleCircuit';
import type { CircuitFile } from '../format/circuitSchema';
import type { ReadingValue, TestRef } from '../format/readingsSchema';
import { rankTests, rowsInPlay } from './choice/next';
import { EvidenceState } from './evidence/evidence';
import { withPairs } from './evidence/groups';
import { normalise } from './evidence/likelihood';
import type { TakenReading } from './evidence/readings';
import { FLOATS } from './evidence/voltsPrediction';
import { kindOf, refOfId, testId } from './kinds';
import { DiagnosisSession } from './session';

const CONDITION = 'fan-on';
const circuit = demoCircuit('van-proving-cabinet');
const session = new DiagnosisSession(circuit, { function: 'cabinet-fan', condition: CONDITION });
const FAN_DEAD: TakenReading = {
  id: 'complaint',
  test: { kind: 'function', function: 'cabinet-fan', condition: CONDITION },
  value: { state: 'dead' },
};

function volts(node: string, value: number, id = `${node} ${value}`): TakenReading {
  return {
    id,
    test: { kind: 'volts', node, against: 'bat-minus', condition: CONDITION },
    value: { volts: value },
  };
}

/** A value that the kind of a test can take. */
function someValue(ref: TestRef): fc.Arbitrary<ReadingValue> {
  switch (kindOf(ref).answer) {
    case 'volts':
      return fc
        .double({ min: -1, max: 14, noNaN: true })
        .map((value) => ({ volts: Math.round(value * 100) / 100 }));
    case 'lamp':
      return fc.constantFrom('lit' as const, 'dim' as const, 'off' as const).map((lamp) => ({ lamp }));
    default:
      return fc.constantFrom('works' as const, 'weak' as const, 'dead' as const).map((state) => ({ state }));
  }
}

// Nothing here is pulled or moved, so all of it belongs to one episode.
const still = session.permitted.filter(
  (test) =>
    !test.disturbs &&
    ['volts', 'lamp', 'function'].includes(test.ref.kind) &&
    !test.id.startsWith('function|cabinet-fan'),
);
const someReading = fc
  .constantFrom(...still)
  .chain((test) => someValue(test.ref).map((value) => ({ test: test.ref, value })));
const someReadings = fc
  .array(someReading, { minLength: 1, maxLength: 7 })
  .map((list) => list.map((one, index): TakenReading => ({ id: `r${index}`, ...one })));

function weightsAfter(of: DiagnosisSession, readings: readonly TakenReading[]): Float64Array {
  const state = new EvidenceState(of.predictions);
  for (const reading of readings) state.take(reading, { number: 0, freed: null });
  return normalise(state.logWeight);
}

test('chances sum to one whatever was read', () => {
  fc.assert(
    fc.property(someReadings, (readings) => {
      const p = weightsAfter(session, [FAN_DEAD, ...readings]);
      const sum = p.reduce((total, one) => total + one, 0);
      expect(Math.abs(sum - 1)).toBeLessThan(1e-9);
      expect(p.every((one) => one >= 0 && Number.isFinite(one))).toBe(true);
      const { chance } = withPairs(session.hypotheses, session.groups([]).groups, p);
      expect(Math.abs(chance.reduce((total, one) => total + one, 0) - 1)).toBeLessThan(1e-9);
    }),
    { numRuns: 60 },
  );
});

test('within an episode the order of the readings does not matter', () => {
  fc.assert(
    fc.property(
      someReadings.chain((readings) =>
        fc.tuple(fc.constant(readings), fc.shuffledSubarray(readings, { minLength: readings.length })),
      ),
      ([one, other]) => {
        const p = weightsAfter(session, [FAN_DEAD, ...one]);
        const q = weightsAfter(session, [...other, FAN_DEAD]);
        p.forEach((chance, h) => {
          expect(Math.abs(chance - q[h]!)).toBeLessThan(1e-6);
        });
      },
    ),
    { numRuns: 40 },
  );
});

test('ten equal readings at one point in one set-up prove no more than the point can tell', () => {
  for (const [node, value] of [
    ['r4-87', 12.2],
    ['r4-87', 0],
    ['f31-out', 0.02],
    ['c12-box', 12.1],
  ] as const) {
    const once = weightsAfter(session, [FAN_DEAD, volts(node, value)]);
    const often = weightsAfter(session, [
      FAN_DEAD,
      ...Array.from({ length: 10 }, (_, i) => volts(node, value, `again ${i}`)),
    ]);
    const { mean, floating } = session.predictions.of(
      `volts|${node}|bat-minus|${CONDITION}`,
      volts(node, value).test,
    ).volts!;
    // Faults that predict the same there keep the same odds to one another, however often it is read.
    const [first, ...others] = session.hypotheses
      .map((_, h) => h)
      .filter((h) => once[h]! > 1e-4 && floating[h] === 0 && Math.abs(mean[h]! - value) < 0.15);
    for (const h of others) {
      const before = once[h]! / once[first!]!;
      const after = often[h]! / often[first!]!;
      expect(after / before).toBeGreaterThan(0.2);
      expect(after / before).toBeLessThan(5);
    }
    // And nothing is proved by it.
    const assessment = session.assess({
      readings: [FAN_DEAD, ...Array.from({ length: 10 }, (_, i) => volts(node, value, `again ${i}`))],
      refused: [],
      opened: [],
    });
    expect(assessment.verdict.strength).not.toBe('proved');
  }
});

test('the same lamp looked at ten times says no more than twice', () => {
  const lamp = (i: number): TakenReading => ({
    id: `l${i}`,
    test: { kind: 'lamp', node: 'r4-87', condition: CONDITION },
    value: { lamp: 'off' },
  });
  const twice = weightsAfter(session, [FAN_DEAD, lamp(1), lamp(2)]);
  const often = weightsAfter(session, [FAN_DEAD, ...Array.from({ length: 10 }, (_, i) => lamp(i))]);
  twice.forEach((chance, h) => {
    expect(Math.abs(chance - often[h]!)).toBeLessThan(0.02);
  });
});

test('a reading that every fault predicts alike changes nothing', () => {
  const dull = session.permitted.find(
    (test) => test.ref.kind === 'function' && !session.predictions.of(test.id, test.ref).tells,
  )!;
  expect(dull).toBeDefined();
  const ref = dull.ref as Extract<TestRef, { kind: 'function' }>;
  const state = session.model.outcome(
    session.model.function(ref.function),
    session.model.sound(ref.condition),
  );
  const before = weightsAfter(session, [FAN_DEAD]);
  const after = weightsAfter(session, [FAN_DEAD, { id: 'dull', test: ref, value: { state } }]);
  const unmapped = session.hypotheses.findIndex((one) => one.alteration === null);
  before.forEach((chance, h) => {
    // What nobody drew predicts broadly, and so loses a little to everything that was expected.
    if (h !== unmapped)
      expect(after[h]! / (1 - after[unmapped]!)).toBeCloseTo(chance / (1 - before[unmapped]!), 3);
  });
});

/** The same circuit with other ids for parts and nodes. */
function relabelled(file: CircuitFile): {
  file: CircuitFile;
  part: (id: string) => string;
  node: (id: string) => string;
} {
  const part = (id: string) => `x-${[...id].reverse().join('')}`;
  const node = (id: string) => `n-${[...id].reverse().join('')}`;
  return {
    part,
    node,
    file: {
      ...file,
      reference: node(file.reference),
      nodes: file.nodes.map((one) => ({ ...one, id: node(one.id) })),
      parts: file.parts.map(
        (one) =>
          ({
            ...one,
            id: part(one.id),
            pins: Object.fromEntries(Object.entries(one.pins).map(([pin, id]) => [pin, node(id as string)])),
          }) as CircuitFile['parts'][number],
      ),
      functions: file.functions.map((one) => ({ ...one, load: part(one.load) })),
      conditions: file.conditions.map((one) => ({
        ...one,
        ...(one.switches
          ? { switches: Object.fromEntries(Object.entries(one.switches).map(([id, at]) => [part(id), at])) }
          : {}),
      })),
    },
  };
}

test('other ids for parts and points change nothing', () => {
  const original = vehicleCircuit(41, 24);
  const { file, part, node } = relabelled(original);
  const complaint = { function: 'function-1', condition: original.conditions.at(-1)!.id };
  const one = new DiagnosisSession(original, complaint);
  const other = new DiagnosisSession(file, complaint);
  const asked: TestRef = { kind: 'function', ...complaint };
  const spot = one.permitted.find(
    (test) => test.ref.kind === 'volts' && one.predictions.of(test.id, test.ref).tells,
  )!;
  const ref = spot.ref as Extract<TestRef, { kind: 'volts' }>;
  const p = weightsAfter(one, [
    { id: 'a', test: asked, value: { state: 'dead' } },
    { id: 'b', test: ref, value: { volts: 0.1 } },
  ]);
  const q = weightsAfter(other, [
    { id: 'a', test: asked, value: { state: 'dead' } },
    { id: 'b', test: { ...ref, node: node(ref.node), against: node(ref.against) }, value: { volts: 0.1 } },
  ]);
  const chanceOf = (of: DiagnosisSession, chances: Float64Array, id: string) =>
    of.hypotheses.reduce(
      (sum, h, i) => (h.parts[0] === id && h.second === undefined ? sum + chances[i]! : sum),
      0,
    );
  for (const { id } of original.parts) {
    expect(chanceOf(other, q, part(id))).toBeCloseTo(chanceOf(one, p, id), 6);
  }
});

test('no test is expected to lose anything', () => {
  fc.assert(
    fc.property(someReadings, (readings) => {
      const state = new EvidenceState(session.predictions);
      for (const reading of [FAN_DEAD, ...readings]) state.take(reading, { number: 0, freed: null });
      const p = normalise(state.logWeight);
      const { groupOf } = withPairs(session.hypotheses, session.groups([]).groups, p);
      const live = rowsInPlay(p, groupOf, session.predictions.sound, (h) =>
        session.hypotheses[h]!.lasting === null ? null : state.presentNow(h),
      );
      const offered = still.map((test) => ({ test, prediction: session.predictions.of(test.id, test.ref) }));
      const ranked = rankTests(offered, live, { opened: new Set(), minutesToOpen: () => 1 });
      expect(ranked.length).toBe(offered.length);
      expect(ranked.every((one) => one.gainBits >= 0 && Number.isFinite(one.value))).toBe(true);
    }),
    { numRuns: 25 },
  );
});

test('a point that hangs, read ten times in its set-ups, moves no suspect more than it did once', () => {
  const conditions = circuit.conditions.map((one) => one.id);
  const against = circuit.reference;
  const columnOf = (node: string, condition: string) => {
    const test = { kind: 'volts' as const, node, against, condition };
    return session.predictions.of(testId(test), test).volts!;
  };
  const lasting = [...session.hypotheses.keys()].filter(
    (h) => session.hypotheses[h]!.alteration && session.hypotheses[h]!.lasting === null,
  );
  let judged = 0;
  for (const { id: node } of circuit.nodes) {
    // Set-ups in which the point hangs under one suspect and is on earth for sure under another.
    for (const hangs of lasting) {
      const where = conditions.filter((one) => columnOf(node, one).floating[hangs] === FLOATS);
      const grounded = lasting.find((h) =>
        where.every((one) => {
          const { floating, mean } = columnOf(node, one);
          return floating[h] === 0 && Math.abs(mean[h]!) < 0.002;
        }),
      );
      if (where.length < 2 || grounded === undefined) continue;
      const evidence = (count: number) => {
        const state = new EvidenceState(session.predictions);
        for (let index = 0; index < count; index++) {
          const test = { kind: 'volts' as const, node, against, condition: where[index % where.length]! };
          state.take({ id: `r${index}`, test, value: { volts: 0.01 } }, { number: 0, freed: null });
        }
        const said = state.evidence();
        return said[hangs]! - said[grounded]!;
      };
      expect(Math.abs(evidence(10) - evidence(1))).toBeLessThan(Math.abs(evidence(1)));
      judged += 1;
      if (judged >= 12) return;
    }
  }
  expect(judged).toBeGreaterThan(0);
});

test('working readings in one by one gives what working them in at once gives', () => {
  const readings = [
    FAN_DEAD,
    volts('f31-out', 12.3),
    volts('r4-87', 12.2),
    volts('c12-box', 12.2),
    volts('c12-cab', 0.01),
  ];
  const input = (list: readonly TakenReading[]) => ({ readings: list, refused: [], opened: [] });
  const stepwise = new DiagnosisSession(circuit, session.complaint);
  for (let count = 1; count < readings.length; count++) stepwise.assess(input(readings.slice(0, count)));
  const one = stepwise.assess(input(readings));
  const other = new DiagnosisSession(circuit, session.complaint).assess(input(readings));
  expect(one.suspects).toEqual(other.suspects);
  expect(one.effects).toEqual(other.effects);
  expect(one.next.map((proposal) => proposal.id)).toEqual(other.next.map((proposal) => proposal.id));
});

test('every id names its test', () => {
  for (const { id, ref } of session.permitted) expect(testId(refOfId(id))).toBe(testId(ref));
});
