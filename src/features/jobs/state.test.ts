import type { EventBody } from '#core/format/jobSchema';
import { missingProofs } from './missing';
import { jobState, type LogEvent, summarise, takenReadings } from './state';

let order = 0;
function event(body: EventBody, more: Partial<LogEvent> = {}): LogEvent {
  order += 1;
  return {
    id: `00000000-0000-4000-8000-${String(order).padStart(12, '0')}`,
    seq: order,
    person: 'Imre Pellow',
    madeAt: new Date(1_790_000_000_000 + order * 60_000).toISOString(),
    clientOrder: order,
    body,
    ...more,
  };
}

const complaint = event({
  kind: 'complaint',
  words: 'Fan dead',
  function: 'fan',
  condition: 'on',
  state: 'dead',
});
const reading = (volts: number) =>
  event({
    kind: 'reading',
    test: { kind: 'volts', node: 'a', against: 'minus', condition: 'on' },
    value: { volts },
    raw: String(volts),
    testerProved: true,
    place: 'box',
  });

test('a correction strikes the entry, keeps it in the log, and takes it out of the diagnosis', () => {
  const wrong = reading(1.2);
  const right = reading(12);
  const job = jobState([
    complaint,
    wrong,
    event({ kind: 'correction', of: wrong.id, reason: 'slip' }),
    right,
  ]);
  expect(job.readings.map((entry) => entry.struck !== null)).toEqual([true, false]);
  expect(takenReadings(job).map((one) => one.value)).toEqual([{ state: 'dead' }, { volts: 12 }]);
});

test('a complaint seen at the vehicle replaces the reported one', () => {
  const seen = event({ kind: 'function-check', function: 'fan', condition: 'on', state: 'weak' });
  const taken = takenReadings(jobState([complaint, seen]));
  expect(taken).toHaveLength(1);
  expect(taken[0]).toMatchObject({ value: { state: 'weak' } });
  expect(taken[0]?.sure).toBeUndefined();
});

test('events on their way stand behind the confirmed ones, in the order they were made', () => {
  const late = event({ kind: 'note', words: 'second' }, { seq: null, clientOrder: 9 });
  const early = event({ kind: 'note', words: 'first' }, { seq: null, clientOrder: 8 });
  const job = jobState([late, early, complaint]);
  expect(job.entries.map((entry) => entry.event.body.kind)).toEqual(['complaint', 'note', 'note']);
  expect(job.notes.map((note) => note.words)).toEqual(['first', 'second']);
});

test('the stage follows the work', () => {
  const found = event({
    kind: 'found',
    parts: ['F'],
    fault: 'Fuse blown',
    strength: 'proved',
    cause: 'unknown',
    causeWords: '',
    evidence: [],
  });
  const repair = event({ kind: 'repair', words: 'Fuse', partsUsed: [], minutes: 5, temporary: false });
  const proof = event({ kind: 'proof', function: 'fan', condition: 'on', state: 'works' });
  const stages = [
    [complaint],
    [complaint, reading(0)],
    [complaint, reading(0), found],
    [complaint, found, repair],
    [complaint, found, repair, proof],
  ];
  expect(stages.map((events) => jobState(events).stage)).toEqual([
    'complaint',
    'testing',
    'found',
    'repaired',
    'proved',
  ]);
  expect(summarise([complaint, found, repair], complaint.madeAt)).toMatchObject({
    stage: 'repaired',
    found: 'Fuse blown',
  });

  // A fuse alone closes only with somebody keeping an eye on it.
  const job = jobState([complaint, found, repair, proof]);
  const required = [
    { function: 'fan', condition: 'on', expected: 'works' as const, because: 'the complaint' },
  ];
  expect(missingProofs(job, required)).toEqual(['the cause is unknown and no watch item is set']);
  const watched = jobState([
    complaint,
    found,
    repair,
    proof,
    event({ kind: 'watch', words: 'Look again', due: '2026-12-01' }),
  ]);
  expect(missingProofs(watched, required)).toEqual([]);
  expect(
    missingProofs(watched, [...required, { ...required[0]!, condition: 'off', expected: 'dead' }]),
  ).toEqual(['one function has not been seen']);
});
