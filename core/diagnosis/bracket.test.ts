import { bracketOf, type RunRow } from './bracket';

/** A run that expects 12.5 V before its load and next to nothing behind it. */
function rows(...measured: (number | null)[]): RunRow[] {
  const expected = [12.5, 12.4, 12.3, 12.2, 0.2, 0.1, 0];
  return expected.map((volts, index) => ({
    node: `n${index}`,
    expected: volts,
    measured: measured[index] ?? null,
  }));
}

test('nothing measured, or all as expected: no bracket', () => {
  expect(bracketOf(rows(), 12)).toBeNull();
  expect(bracketOf(rows(12.5, null, 12.3, null, 0.2), 12)).toBeNull();
});

test('a feed that stops: between the last right stop and the first low one', () => {
  expect(bracketOf(rows(12.6, 12.5, null, 0), 12)).toEqual([1, 3]);
  expect(bracketOf(rows(null, null, 0.1), 12)).toEqual([0, 2]);
});

test('a feed that is only weak is bracketed alike', () => {
  expect(bracketOf(rows(12.5, null, 12.3, 9), 12)).toEqual([2, 3]);
});

test('a lifted return: between the last lifted stop and the first behind it that is right', () => {
  expect(bracketOf(rows(null, null, null, 12.4, 6, 5.9, 0), 12)).toEqual([5, 6]);
  expect(bracketOf(rows(null, null, null, null, 6), 12)).toEqual([4, 6]);
});
