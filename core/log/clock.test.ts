/** Clocks that were never set, or run ahead: both times are kept, and the server's is believed. */
import { entryTime, momentOf } from './clock';

const arrivedAt = '2026-03-03T10:00:00.000Z';

test.each([
  ['never set', '1970-01-01T00:02:00.000Z'],
  ['set back to the year of its making', '2015-01-01T00:00:00.000Z'],
  ['years ahead', '2090-05-05T05:05:00.000Z'],
  ['a quarter of an hour ahead', '2026-03-03T10:15:00.000Z'],
])('a clock that is %s: both times', (_, madeAt) => {
  expect(entryTime({ madeAt, arrivedAt })).toEqual({ at: madeAt, arrived: arrivedAt });
  expect(momentOf({ madeAt, arrivedAt })).toBe(arrivedAt);
});

test.each([
  ['recorded without a signal last week', '2026-02-24T10:00:00.000Z'],
  ['a few minutes ahead', '2026-03-03T10:04:00.000Z'],
  ['of the same moment', arrivedAt],
])('a sound clock, %s: its own time alone', (_, madeAt) => {
  expect(entryTime({ madeAt, arrivedAt })).toEqual({ at: madeAt });
  expect(momentOf({ madeAt, arrivedAt })).toBe(madeAt);
});

test('what the server has not got yet has its own time', () => {
  expect(entryTime({ madeAt: '1970-01-01T00:02:00.000Z' })).toEqual({ at: '1970-01-01T00:02:00.000Z' });
});
