/** What an entry of the log may hold: nothing that the database or another reader could not keep. */
import fc from 'fast-check';
import { type NumberRange, readNumber } from '../quantity/quantity';
import { BOUNDS } from './bounds';
import { checkBatch, checkEvent } from './checkEvent';

const GOOD = {
  id: '0b6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c',
  jobId: '1b6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c',
  madeAt: '2026-03-31T14:05:00.250Z',
  clientOrder: 7,
  body: { kind: 'note', words: 'Fan runs rough, shelf lamps fine' },
};
const withBody = (body: object) => checkEvent({ ...GOOD, body });
const said = (checked: ReturnType<typeof checkEvent>) =>
  checked.ok ? [] : checked.problems.map((one) => one.message);

test('an ordinary entry is taken', () => {
  expect(checkEvent(GOOD)).toEqual({ ok: true, value: GOOD });
});

test.each([
  ['an order number beyond 32 bits', { ...GOOD, clientOrder: 3e9 }],
  ['month 13', { ...GOOD, madeAt: '2026-13-01T10:00:00Z' }],
  ['31 February', { ...GOOD, madeAt: '2026-02-31T10:00:00Z' }],
  ['29 February of a year without it', { ...GOOD, madeAt: '2025-02-29T10:00:00Z' }],
  ['an hour that is none', { ...GOOD, madeAt: '2026-02-03T24:00:00Z' }],
  ['the year 275760', { ...GOOD, madeAt: '+275760-01-01T00:00:00Z' }],
  ['a NUL', { ...GOOD, body: { kind: 'note', words: 'fan\u0000dead' } }],
  ['half of a pair of letters', { ...GOOD, body: { kind: 'note', words: 'fan \ud83d dead' } }],
  [
    'a due day that the calendar does not have',
    { ...GOOD, body: { kind: 'watch', words: 'again', due: '2026-04-31' } },
  ],
])('%s is refused with a reason', (_, entry) => {
  expect(said(checkEvent(entry))).toHaveLength(1);
});

test('leap days, zones and whole pairs of letters are taken', () => {
  expect(checkEvent({ ...GOOD, madeAt: '2024-02-29T23:59:59.123456+05:30' }).ok).toBe(true);
  expect(checkEvent({ ...GOOD, madeAt: '2000-02-29T00:00:00Z' }).ok).toBe(true);
  expect(checkEvent({ ...GOOD, madeAt: '2100-02-29T00:00:00Z' }).ok).toBe(false);
  expect(withBody({ kind: 'note', words: 'hot 🔥, 12 Ω' }).ok).toBe(true);
});

test('every day that the calendar has is taken, and no other', () => {
  fc.assert(
    fc.property(
      fc.record({
        year: fc.integer({ min: 1900, max: 2199 }),
        month: fc.integer({ min: 0, max: 13 }),
        day: fc.integer({ min: 0, max: 32 }),
      }),
      ({ year, month, day }) => {
        const text = `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
        const date = new Date(Date.UTC(year, month - 1, day));
        const exists =
          month >= 1 && month <= 12 && date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
        expect(withBody({ kind: 'watch', words: 'again', due: text }).ok).toBe(exists);
      },
    ),
  );
});

/** An entry that holds one bounded number. */
const HOLDING: Readonly<Record<string, (value: number) => object>> = {
  applianceWatts: (watts) => ({ kind: 'complaint', words: 'dead', appliance: { watts, fusesTaken: 1 } }),
  fusesTaken: (fusesTaken) => ({ kind: 'complaint', words: 'dead', appliance: { fusesTaken } }),
  odometerKm: (odometerKm) => ({ kind: 'identity', odometerKm }),
  repairMinutes: (minutes) => ({
    kind: 'repair',
    words: 'new wire',
    partsUsed: [],
    minutes,
    temporary: false,
  }),
  partCount: (count) => ({
    kind: 'repair',
    words: 'x',
    partsUsed: [{ name: 'sleeve', count }],
    temporary: false,
  }),
  foundAmps: (ratingAmps) => ({
    kind: 'slot-state',
    panel: 'p',
    slot: 's',
    state: 'fitted',
    found: { ratingAmps },
    evidence: 'seen',
  }),
};

test.each(Object.keys(HOLDING))('a form takes exactly the numbers of %s that the log takes', (name) => {
  const range = BOUNDS[name as keyof typeof BOUNDS] as NumberRange;
  const edge = range.most;
  for (const value of [-1, 0, 0.5, 1, edge - 1, edge, edge + 1, edge * 10]) {
    const typed = readNumber(String(value), range).ok;
    expect([value, withBody(HOLDING[name]!(value)).ok]).toEqual([value, typed]);
  }
});

test('a batch names the entry that is wrong, and looks no further than anyone reads', () => {
  const bad = { ...GOOD, id: '2b6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c', clientOrder: -1 };
  const checked = checkBatch({ events: [GOOD, bad] });
  expect(checked.ok).toBe(false);
  if (!checked.ok) expect(checked.problems.map((one) => one.path)).toEqual([`/events/${bad.id}/clientOrder`]);
  const many = checkBatch({ events: Array.from({ length: 500 }, () => ({ wrong: 1, worse: 2 })) });
  expect(many.ok ? 0 : many.problems.length).toBeLessThanOrEqual(201);
  expect(checkBatch({ events: [] }).ok).toBe(false);
  expect(checkBatch({ events: Array.from({ length: 501 }, () => GOOD) }).ok).toBe(false);
  expect(checkBatch(null).ok).toBe(false);
});
