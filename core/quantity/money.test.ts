import fc from 'fast-check';
import { labourTotal, lineTotal, moneyWords, sumOf } from './money';

test.each([
  [1.005, 1, '1.01'],
  [0.125, 3, '0.39'],
  [2.5, 3, '7.50'],
  [19.99, 0.5, '10.00'],
  [0, 7, '0.00'],
  [1e-7, 3, '0.00'],
])('%p each, %p of them: %s', (price, count, words) => {
  expect(moneyWords(lineTotal(price, count))).toBe(words);
});

test.each([
  [58, 165, '159.50'],
  [58, 90, '87.00'],
  [61, 7, '7.12'],
])('at %p an hour, %p minutes: %s', (rate, minutes, words) => {
  expect(moneyWords(labourTotal(rate, minutes))).toBe(words);
});

/** Hundredths of a figure that is printed with two places, read as text. */
const printed = (amount: number) => BigInt(moneyWords(amount).replace('.', ''));

test('the total that is printed is the sum of the lines that are printed', () => {
  const price = fc.integer({ min: 0, max: 9_999_999 }).map((thousandths) => thousandths / 1000);
  const count = fc.integer({ min: 1, max: 4000 }).map((quarters) => quarters / 4);
  fc.assert(
    fc.property(fc.array(fc.tuple(price, count), { maxLength: 12 }), (lines) => {
      const totals = lines.map(([each, many]) => lineTotal(each, many));
      expect(printed(sumOf(totals))).toBe(totals.map(printed).reduce((sum, one) => sum + one, 0n));
    }),
  );
});
