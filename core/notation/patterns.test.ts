/** Every pattern becomes a circuit that works, and whose faults are found with a meter. */

import { leadToEnd } from '../diagnosis/followEngine';
import { complaintOf, readingOf } from '../diagnosis/playback';
import { DiagnosisSession } from '../diagnosis/session';
import { breakCircuit } from '../faults/broken';
import { withBlownFuses } from '../faults/enumerate';
import { CircuitModel } from '../network/model';
import { circuitOfPattern, LOAD_WORDS, PATTERNS, usualReturn } from './patterns';

describe.each(PATTERNS.map((pattern) => [pattern.id, pattern] as const))('%s', (_id, pattern) => {
  const input = { load: 'Warming jacket', kind: 'heater', nominalVolts: 12 } as const;
  const made = circuitOfPattern(pattern, input);
  test('the load works where it should, and is dead with everything off', () => {
    const model = new CircuitModel(made.circuit);
    const failed = model.function(made.function);
    expect(failed.name).toBe('Warming jacket');
    expect(model.outcome(failed, model.sound(made.condition))).toBe('works');
    expect(model.outcome(failed, model.sound('off'))).toBe('dead');
  });
  test.each(LOAD_WORDS)('with a %s, on every nominal voltage', (kind) => {
    for (const nominalVolts of [6, 12, 24, 36, 48]) {
      const one = circuitOfPattern(pattern, { load: 'Step lamp', kind, nominalVolts });
      const model = new CircuitModel(one.circuit);
      expect(model.outcome(model.function('failed'), model.sound(one.condition))).not.toBe('dead');
    }
  });
  test('a first test is there at once, with a place to put the lead', () => {
    const session = new DiagnosisSession(made.circuit, {
      function: made.function,
      condition: made.condition,
    });
    const { next } = session.assess({
      readings: [
        {
          id: 'r1',
          test: { kind: 'function', function: made.function, condition: made.condition },
          value: { state: 'dead' },
        },
      ],
      refused: [],
      opened: [],
    });
    expect(next.length).toBeGreaterThan(0);
    expect(next[0]!.lead).not.toBe('');
    expect(next[0]!.gainBits).toBeGreaterThan(0.05);
  });
});

describe.each(PATTERNS.filter((one) => one.asksInterlocks).map((one) => [one.id, one] as const))(
  'what has to be made first, in %s',
  (_id, pattern) => {
    const { circuit, condition } = circuitOfPattern(pattern, {
      load: 'Lift',
      kind: 'motor',
      nominalVolts: 12,
      interlocks: ['seat', 'neutral'],
    });
    const model = new CircuitModel(circuit);
    const lift = model.function('failed');

    test('each is a switch in the control path, made where it should run', () => {
      const names = circuit.parts.filter((part) => part.id.startsWith('I')).map((part) => part.name);
      expect(names).toEqual(['Gear in neutral: its switch', 'Seat taken: its switch']);
      expect(model.outcome(lift, model.sound(condition))).toBe('works');
    });

    test.each([['I1'], ['I2']])('%s that stays open stops it, and is found', (id) => {
      const broken = breakCircuit(model, [{ part: id, mode: 'contact-open' }]);
      const complaint = complaintOf(broken)!;
      const { assessment, trail } = leadToEnd(new DiagnosisSession(circuit, complaint), complaint, (ref) =>
        readingOf(broken, ref),
      );
      expect([assessment.suspects[0]?.parts, trail]).toEqual([[id], trail]);
    });
  },
);

/** Patterns with a wire from the fuse to the load, and that wire. */
const FEEDS = PATTERNS.flatMap((pattern) => {
  const made = circuitOfPattern(pattern, { load: 'Warming jacket', kind: 'heater', nominalVolts: 12 });
  const wire = made.circuit.parts.find(
    (part) => part.kind === 'wire' && /to the (load|socket)/.test(part.name),
  );
  return wire ? [[pattern.id, made, wire.id] as const] : [];
});

test('most patterns have a wire to the load', () => {
  expect(FEEDS.length).toBeGreaterThanOrEqual(6);
});

test.each(FEEDS)('%s: a dead short opens a fuse, though nobody has read its rating', (_id, made, wire) => {
  const model = new CircuitModel(made.circuit);
  const blown = withBlownFuses(model, { part: wire, mode: 'short-to-earth' });
  const fuses = made.circuit.parts.filter((part) => part.kind === 'fuse' || part.kind === 'fusible-link');
  expect(fuses.map((part) => part.id)).toEqual(expect.arrayContaining([...blown!.fuses]));
  const failed = model.function(made.function);
  expect(model.outcome(failed, model.solve(made.condition, blown!.alteration))).toBe('dead');
});

describe('a vehicle whose return is not the body', () => {
  test.each(PATTERNS.map((pattern) => [pattern.name, pattern] as const))(
    '%s: no name speaks of earth or of body metal, and the circuit is the same',
    (_name, pattern) => {
      const input = { load: 'Bilge blower', kind: 'motor', nominalVolts: 24 } as const;
      const boat = circuitOfPattern(pattern, { ...input, returns: 'insulated' }).circuit;
      const car = circuitOfPattern(pattern, input).circuit;
      const names = [
        ...boat.nodes.map(({ name }) => name),
        ...boat.nodes.flatMap(({ access = [] }) => access.map(({ lead }) => lead)),
        ...boat.parts.map(({ name }) => name),
        ...boat.places.map(({ name }) => name),
      ];
      expect(names.filter((name) => /earth|body metal|chassis/i.test(name))).toEqual([]);
      expect(names.some((name) => name.includes('minus busbar'))).toBe(true);
      const bare = ({ parts }: typeof car) =>
        parts.map(({ id, kind, pins }) => ({ id, kind, ends: Object.keys(pins).length }));
      expect(bare(boat)).toEqual(bare(car));
      // And as many points are within reach of a probe.
      const reached = ({ nodes }: typeof car) => nodes.filter(({ access = [] }) => access.length > 0).length;
      expect(reached(boat)).toBe(reached(car));
    },
  );
  test.each([
    ['Harbour launch', 24, 'insulated'],
    ['Flour barrow', 48, 'insulated'],
    ['Bakery van', 12, 'body'],
    ['Delivery trailer', 24, 'body'],
  ] as const)('%s, %i V: usually %s', (vehicle, volts, path) => {
    expect(usualReturn(vehicle, volts)).toBe(path);
  });
});
