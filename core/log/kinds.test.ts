/** Every kind of entry: the row that steps from entry to entry says what the whole log says. */
import fc from 'fast-check';
import type { EventBody } from '../format';
import type { LogEvent } from './event';
import { EVENT_KINDS, standsBehind, stepOf } from './kinds';
import { BEGUN, stageOfRow } from './progress';
import { jobState } from './state';

const FUNCTIONS = ['fan', 'lamp'] as const;
const STATES = ['works', 'weak', 'dead', 'on-when-off'] as const;
const uuid = (index: number) => `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`;
const seen = fc.record({
  function: fc.constantFrom(...FUNCTIONS),
  condition: fc.constantFrom('on', 'off'),
  state: fc.constantFrom(...STATES),
});

const BODIES: fc.Arbitrary<EventBody>[] = [
  seen.map((one) => ({ kind: 'complaint', words: `${one.function} ${one.state}`, ...one })),
  fc.constant<EventBody>({ kind: 'complaint', words: 'nothing works' }),
  fc.double({ min: 0, max: 14, noNaN: true }).map((volts) => ({
    kind: 'reading',
    test: { kind: 'volts', node: 'a', against: 'minus', condition: 'on' },
    value: { volts },
    raw: '',
    testerProved: true,
  })),
  fc.constantFrom('corroded plug', 'open coil').map((fault) => ({
    kind: 'found',
    parts: ['plug'],
    fault,
    strength: 'proved',
    cause: 'unknown',
    causeWords: '',
    evidence: [],
  })),
  fc.constant<EventBody>({ kind: 'repair', words: 'cleaned', partsUsed: [], temporary: false }),
  seen.map((one) => ({ kind: 'proof', ...one })),
  fc.tuple(seen, fc.constantFrom(...STATES)).map(([one, expected]) => ({ kind: 'proof', ...one, expected })),
  fc.subarray([...FUNCTIONS]).map((functions) => ({
    kind: 'swapped',
    one: 'relay-1',
    other: 'relay-2',
    functions,
  })),
  fc.nat(12).map((of) => ({ kind: 'swap-restored', of: uuid(of) })),
  fc.constantFrom('open', 'waiting', 'closed').map((state) => ({ kind: 'state', state })),
  fc.constant<EventBody>({ kind: 'note', words: 'rain' }),
  fc.constant<EventBody>({ kind: 'watch', words: 'look again' }),
];

test('stage, complaint, finding and count of readings of the row are those of the log', () => {
  fc.assert(
    fc.property(fc.array(fc.oneof(...BODIES), { maxLength: 14 }), (bodies) => {
      const events = bodies.map(
        (body, index): LogEvent => ({
          id: uuid(index),
          seq: index + 1,
          person: 'Imre Pellow',
          madeAt: '2026-03-31T14:05:00.250Z',
          clientOrder: index,
          body,
        }),
      );
      const job = jobState(events);
      const row = bodies.reduce(stepOf, BEGUN);
      expect({
        stage: stageOfRow(row),
        complaint: row.complaint,
        found: row.found,
        readings: row.readings,
      }).toEqual({
        stage: job.stage,
        complaint: job.complaint?.words ?? '',
        found: job.found?.fault ?? null,
        readings: job.readings.length,
      });
    }),
    { numRuns: 2000 },
  );
});

test('a kind whose entries change the row otherwise than by counting brings back what stood before when struck', () => {
  const counted = { ...BEGUN, readings: 1 };
  for (const kind of EVENT_KINDS) {
    const example = {
      kind,
      words: 'w',
      function: 'fan',
      condition: 'on',
      functions: ['lamp'],
      fault: 'open',
      state: 'closed',
    } as unknown as EventBody;
    const after = stepOf(BEGUN, example);
    const onlyCounts = JSON.stringify(after) === JSON.stringify(counted) || after === BEGUN;
    if (!onlyCounts) expect([kind, standsBehind(kind)]).toEqual([kind, true]);
  }
});

test('a relay that was exchanged after the proof takes the proof back, on the page and in the lists', () => {
  const log: EventBody[] = [
    { kind: 'repair', words: 'new plug', partsUsed: [], temporary: false },
    { kind: 'proof', function: 'fan', condition: 'on', state: 'works' },
    { kind: 'swapped', one: 'relay-1', other: 'relay-2', functions: ['fan'] },
  ];
  expect(log.slice(0, 2).reduce(stepOf, BEGUN)).toMatchObject({ proofs: { 'fan|on': true } });
  expect(stageOfRow(log.slice(0, 2).reduce(stepOf, BEGUN))).toBe('proved');
  expect(stageOfRow(log.reduce(stepOf, BEGUN))).toBe('repaired');
});
