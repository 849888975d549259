/** Many readings are judged as few are: whether rows or tolerances are kept, they expect the same of the next one. */
import fc from 'fast-check';
import { Chain } from './chain';

const UNKNOWNS = 30;

const moves = fc
  .uniqueArray(fc.integer({ min: 0, max: UNKNOWNS - 1 }), { minLength: 1, maxLength: 9 })
  .chain((index) =>
    fc
      .array(fc.double({ min: -0.8, max: 0.8, noNaN: true }), {
        minLength: index.length,
        maxLength: index.length,
      })
      .map((volts) => ({ index: Int32Array.from(index), volts: Float64Array.from(volts) })),
  );
const mean = fc.double({ min: 0, max: 14, noNaN: true });
const reading = fc.record({ moves, mean, off: fc.double({ min: -1, max: 1, noNaN: true }) });

test('what is expected of a reading is the same by rows and by tolerances', () => {
  fc.assert(
    fc.property(fc.array(reading, { minLength: 1, maxLength: 70 }), reading, (taken, next) => {
      const rows = new Chain(new Float64Array(UNKNOWNS), Number.POSITIVE_INFINITY);
      const chains = [0, 1, 20].map((most) => new Chain(new Float64Array(UNKNOWNS), most));
      for (const one of taken) {
        for (const chain of [rows, ...chains]) chain.join(one.moves, one.mean, one.mean + one.off);
      }
      const wanted = rows.expect(next.moves, next.mean);
      for (const chain of [...chains, ...chains.map((one) => one.copy())]) {
        const got = chain.expect(next.moves, next.mean);
        expect(got.expected).toBeCloseTo(wanted.expected, 6);
        expect(got.deviation).toBeCloseTo(wanted.deviation, 6);
      }
    }),
    { numRuns: 150 },
  );
});

test('a reading taken a hundred times leaves the error of the meter alone', () => {
  const chain = new Chain(new Float64Array(2));
  const one = { index: Int32Array.of(0, 1), volts: Float64Array.of(0.4, 0.1) };
  const before = chain.expect(one, 12).deviation;
  for (let times = 0; times < 100; times++) chain.join(one, 12, 12.3);
  const { expected, deviation } = chain.expect(one, 12);
  expect(expected).toBeCloseTo(12.3, 1);
  expect(deviation).toBeLessThan(before / 3);
});

test('a copy goes its own way', () => {
  const chain = new Chain(new Float64Array(1), 0);
  const one = { index: Int32Array.of(0), volts: Float64Array.of(0.5) };
  chain.join(one, 10, 10.2);
  const { expected } = chain.expect(one, 10);
  const copy = chain.copy();
  for (let times = 0; times < 20; times++) copy.join(one, 10, 9.4);
  expect(copy.expect(one, 10).expected).toBeLessThan(10);
  expect(chain.expect(one, 10).expected).toBe(expected);
});
