/** The five endings of a job, and what each of them asks for. */
import type { EventBody } from '../format';
import { ENDINGS, endingWords, whyNotEnd } from './ending';
import type { LogEvent } from './event';
import { jobState } from './state';

const jobOf = (...bodies: readonly EventBody[]) =>
  jobState(
    bodies.map(
      (body, index): LogEvent => ({
        id: `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`,
        seq: index + 1,
        person: 'Imre Pellow',
        madeAt: '2026-03-31T14:05:00.250Z',
        clientOrder: index,
        body,
      }),
    ),
  );
const found = (cause: 'proved' | 'suspected' | 'unknown'): EventBody => ({
  kind: 'found',
  parts: ['F1'],
  fault: 'Fuse blown',
  strength: 'proved',
  cause,
  causeWords: '',
  evidence: [],
});
const REPAIR: EventBody = { kind: 'repair', words: 'Fitted', partsUsed: [], temporary: false };
const READING: EventBody = {
  kind: 'reading',
  test: { kind: 'lamp', node: 'a', condition: 'on' },
  value: { lamp: 'lit' },
  raw: 'lit',
  testerProved: true,
};
const CLOSED: EventBody = { kind: 'state', state: 'closed' };
const without = (ending: 'made-safe' | 'not-found'): EventBody => ({
  kind: 'state',
  state: 'closed',
  ending,
  override: 'battery lead off and taped',
});

test.each([
  [[found('proved'), REPAIR, CLOSED], 'repaired, cause proved'],
  [[found('suspected'), REPAIR, CLOSED], 'repaired, cause suspected'],
  [[found('unknown'), REPAIR, CLOSED], 'restored, cause unknown'],
  [[found('proved'), without('made-safe')], 'made safe, not repaired'],
  [[READING, without('not-found')], 'not found'],
  // Open, or nothing to say: no ending.
  [[found('proved'), REPAIR], null],
  [[CLOSED], null],
  // Opened again, what was said of its end counts no more.
  [[without('made-safe'), { kind: 'state', state: 'open' }], null],
  [
    [without('made-safe'), { kind: 'state', state: 'open' }, found('proved'), REPAIR, CLOSED],
    'repaired, cause proved',
  ],
] as const)('%#: %j', (bodies, words) => {
  expect(endingWords(jobOf(...(bodies as readonly EventBody[])))).toBe(words);
});

test('a repair is owed its proofs or a reason; what is not repaired is owed words', () => {
  const job = jobOf(READING);
  expect(whyNotEnd(job, 'repaired', [], '')).toBeNull();
  expect(whyNotEnd(job, 'repaired', ['no repair is recorded'], '')).toContain('no repair is recorded');
  expect(whyNotEnd(job, 'repaired', ['no repair is recorded'], 'sold')).toBeNull();
  expect(whyNotEnd(job, 'made-safe', [], '')).toContain('what makes it safe');
  expect(whyNotEnd(job, 'made-safe', ['x'], 'lead off')).toBeNull();
  expect(whyNotEnd(job, 'not-found', [], '')).toContain('what was looked at');
  expect(whyNotEnd(job, 'not-found', ['x'], 'all of the box read')).toBeNull();
});

test('what nobody looked for is not said not to be found', () => {
  const nothing = jobOf({ kind: 'complaint', words: 'Fan dead' });
  expect(whyNotEnd(nothing, 'not-found', [], 'tired')).toContain('Nothing was read or seen');
  const struck = jobOf(READING, { kind: 'correction', of: '00000000-0000-4000-8000-000000000000' });
  expect(whyNotEnd(struck, 'not-found', [], 'tired')).toContain('Nothing was read or seen');
  const seen = jobOf({ kind: 'function-check', function: 'f', condition: 'on', state: 'works' });
  expect(whyNotEnd(seen, 'not-found', [], 'it works now')).toBeNull();
});

test('every ending has a name of its own and asks for words of its own', () => {
  expect(new Set(ENDINGS.map(({ name }) => name)).size).toBe(ENDINGS.length);
  expect(new Set(ENDINGS.map(({ asks }) => asks)).size).toBe(ENDINGS.length);
});
