/** Whatever comes in is refused in words or solved: never hung, never NaN. */
import fc from 'fast-check';
import { BATTERY, circuitOf, lamp, wire } from '../../testing/circuits';
import { KIND_CIRCUITS } from '../../testing/kindCircuits';
import type { CircuitFile, CircuitPart } from '../format/circuitSchema';
import { UNALTERED } from '../network/alteration';
import { CircuitModel } from '../network/model';
import { checkCircuit } from './checkCircuit';

const sound = circuitOf({ parts: [BATTERY, wire('W', 'plus', 'a', 0.1), lamp('L', 'a', 'minus', 6)] });

function refusal(change: (circuit: CircuitFile) => unknown): string {
  const checked = checkCircuit(change(structuredClone(sound) as CircuitFile));
  if (checked.ok) return '';
  return checked.problems.map((one) => `${one.path}: ${one.message}`).join('\n');
}

const withPart = (part: object) => (circuit: CircuitFile) => ({
  ...circuit,
  parts: [...circuit.parts, part],
});
const second = (pins: { plus: string; minus: string }, emfVolts: number) =>
  withPart({ id: 'B2', kind: 'battery', name: 'Second', pins, emfVolts });

describe('is refused in words', () => {
  test.each([
    [
      'no battery',
      (c: CircuitFile) => ({ ...c, parts: c.parts.filter((part) => part.kind !== 'battery') }),
      'no battery',
    ],
    ['a battery shorted by itself', second({ plus: 'plus', minus: 'plus' }, 12), 'shorted'],
    ['two batteries plus to minus', second({ plus: 'minus', minus: 'plus' }, 12), 'plus to minus'],
    ['two unequal batteries pole to pole', second({ plus: 'plus', minus: 'minus' }, 11), 'nothing between'],
    ['parts with equal ids', withPart(lamp('L', 'a', 'minus', 3)), 'stands twice'],
    ['negative ohms', withPart(wire('W2', 'plus', 'a', -1)), 'at least'],
    ['1e30 ohms', withPart(wire('W2', 'plus', 'a', 1e30)), 'at most'],
    ['no ohms at all', withPart(wire('W2', 'plus', 'a', 0)), 'at least'],
    ['an unknown kind', withPart({ ...wire('W2', 'plus', 'a', 1), kind: 'hose' }), 'not a kind'],
    ['a pin to nowhere', withPart(lamp('L2', 'a', 'x9', 3)), 'not among the nodes'],
    [
      'a coil that lets go above where it pulls in',
      withPart({
        id: 'R',
        kind: 'relay',
        name: 'Relay',
        pins: { '30': 'plus', '87': 'a', '86': 'plus', '85': 'minus' },
        pullInVolts: 5,
        dropOutVolts: 6,
      }),
      'must let go lower',
    ],
    [
      'a cut-off that reconnects below where it disconnects',
      withPart({
        id: 'C',
        kind: 'cut-off',
        name: 'Cut-off',
        pins: { in: 'plus', out: 'a', minus: 'minus' },
        disconnectVolts: 13,
        reconnectVolts: 12,
      }),
      'must disconnect lower',
    ],
    [
      'a rule over an input that is not there',
      withPart({
        id: 'M',
        kind: 'module-output',
        name: 'Module',
        pins: { plus: 'plus', minus: 'minus', out: 'a' },
        side: 'high',
        rule: [{ inputs: { door: 'low' } }],
      }),
      'does not have',
    ],
    [
      'a module without supply',
      withPart({
        id: 'M',
        kind: 'module-output',
        name: 'Module',
        pins: { p: 'plus', minus: 'minus', out: 'a' },
        side: 'high',
        rule: [{}],
      }),
      'needs a pin “plus”',
    ],
    [
      'an appliance that is not there',
      (c: CircuitFile) => ({
        ...c,
        conditions: [{ id: 'on', name: 'On', key: 'run', pluggedIn: { L: 'x' } }],
      }),
      'not a socket',
    ],
    [
      'conditions in a circle',
      (c: CircuitFile) => ({
        ...c,
        conditions: [
          { id: 'a', name: 'A', key: 'run', after: 'b' },
          { id: 'b', name: 'B', key: 'run', after: 'a' },
        ],
      }),
      'circle',
    ],
    [
      'a condition after none',
      (c: CircuitFile) => ({ ...c, conditions: [{ id: 'a', name: 'A', key: 'run', after: 'z' }] }),
      'not a condition',
    ],
    [
      '5,000 parts',
      (c: CircuitFile) => ({
        ...c,
        parts: [...c.parts, ...Array.from({ length: 5000 }, (_, i) => wire(`X${i}`, 'plus', 'a', 1))],
      }),
      'At most',
    ],
  ])('%s', (_, change, words) => {
    expect(refusal(change as (circuit: CircuitFile) => unknown)).toContain(words);
  });
});

test('the largest circuit that is taken, a chain of 999 parts, is solved', () => {
  const parts: CircuitPart[] = [BATTERY];
  for (let i = 0; i < 998; i++)
    parts.push(wire(`W${i}`, i === 0 ? 'plus' : `n${i}`, i === 997 ? 'minus' : `n${i + 1}`, 0.01));
  const model = new CircuitModel(circuitOf({ parts }));
  const point = model.sound('on');
  // 12.6 V over 0.1 + 998·0.01 ohm; the first point stands 0.1 ohm below the source.
  expect(point.volts[model.network.nodeIndex.get('plus')!]).toBeCloseTo(12.6 - (12.6 / 10.08) * 0.1, 9);
});

/** Values that a careless or hostile hand might write. */
const absurd = fc.oneof(
  fc.constantFrom(-1, 0, 1e-300, 1e300, 1e30, Number.MAX_VALUE, Number.MIN_VALUE, null, 'x', [], {}, true),
  fc.double(),
  fc.string(),
);

/** Replaces one value somewhere inside by another. */
function spoil(value: unknown, path: readonly number[], by: unknown): unknown {
  if (path.length === 0 || value === null || typeof value !== 'object') return by;
  const keys = Object.keys(value);
  if (keys.length === 0) return by;
  const key = keys[path[0]! % keys.length]!;
  const inner = spoil((value as Record<string, unknown>)[key], path.slice(1), by);
  return Array.isArray(value)
    ? value.map((one, index) => (String(index) === key ? inner : one))
    : { ...value, [key]: inner };
}

test('any file with one to three values spoiled is refused in words or solved without NaN', () => {
  const names = [...KIND_CIRCUITS.keys()];
  let solved = 0;
  let refused = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(...names),
      fc.array(fc.tuple(fc.array(fc.nat(60), { minLength: 1, maxLength: 5 }), absurd), {
        minLength: 1,
        maxLength: 3,
      }),
      (name, changes) => {
        let data: unknown = JSON.parse(JSON.stringify(KIND_CIRCUITS.get(name)));
        for (const [path, by] of changes) data = spoil(data, path, by);
        const checked = checkCircuit(data);
        if (!checked.ok) {
          refused += 1;
          expect(checked.problems.length).toBeGreaterThan(0);
          for (const problem of checked.problems) expect(problem.message).toMatch(/\.$/);
          return;
        }
        solved += 1;
        const model = new CircuitModel(checked.value);
        for (const condition of model.conditions) {
          const point = model.solve(condition.id, UNALTERED);
          expect([...point.volts, ...point.amps].every(Number.isFinite)).toBe(true);
        }
      },
    ),
    { numRuns: 1600, seed: 7 },
  );
  expect(refused).toBeGreaterThan(300);
  expect(solved).toBeGreaterThan(50);
});

test('values at the edges of what is taken are solved without NaN', () => {
  const ohms = fc.constantFrom(1e-5, 1e-3, 1, 1e3, 1e6, 1e9);
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(6), fc.nat(6), ohms, fc.nat(4)), { minLength: 1, maxLength: 25 }),
      (list) => {
        const parts: CircuitPart[] = [BATTERY];
        list.forEach(([from, to, value, kind], i) => {
          const node = (n: number) => (n === 0 ? 'plus' : n === 1 ? 'minus' : `n${n}`);
          const [a, b] = [node(from), node(to)];
          if (kind === 0) parts.push(lamp(`X${i}`, a, b, value));
          else if (kind === 1)
            parts.push({ id: `X${i}`, kind: 'diode', name: 'Diode', pins: { anode: a, cathode: b } });
          else if (kind === 2)
            parts.push({
              id: `X${i}`,
              kind: 'led',
              name: 'LED',
              pins: { plus: a, minus: b },
              amps: Math.min(5000, value),
            });
          else if (kind === 3) {
            parts.push({
              id: `X${i}`,
              kind: 'relay',
              name: 'Relay',
              pins: { '30': a, '87': b, '86': node((from + 1) % 7), '85': 'minus' },
              coilOhms: value,
            });
          } else parts.push(wire(`X${i}`, a, b, value));
        });
        const model = new CircuitModel(circuitOf({ parts }));
        const point = model.sound('on');
        expect([...point.volts, ...point.amps].every(Number.isFinite)).toBe(true);
      },
    ),
    { numRuns: 600, seed: 11 },
  );
});
