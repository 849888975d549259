import { demoCircuit } from '../../testing/circuits';
import { substitutionOf } from '../diagnosis';
import type { EventBody, PanelSetFile } from '../format';
import type { LogEvent } from './event';
import { fittedNow } from './fitted';
import { missingProofs } from './missing';
import { openedFuses } from './openedFuses';
import { jobState, summarise } from './state';
import { takenReadings } from './taken';

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
  const lamps = event({ kind: 'proof-answer', what: 'safety-lamps', answer: 'done', words: '' });
  const job = jobState([complaint, found, repair, proof, lamps]);
  const required = [
    { function: 'fan', condition: 'on', expected: 'works' as const, because: 'the complaint' },
  ];
  expect(missingProofs(job, required, null)).toEqual(['the cause is unknown and no watch item is set']);
  const watched = jobState([
    complaint,
    found,
    repair,
    proof,
    lamps,
    event({ kind: 'watch', words: 'Look again', due: '2026-12-01' }),
  ]);
  expect(missingProofs(watched, required, null)).toEqual([]);
  expect(
    missingProofs(watched, [...required, { ...required[0]!, condition: 'off', expected: 'dead' }], null),
  ).toEqual(['one function has not been seen']);
});

test('after a repair that did not help, what was read before it belongs to the circuit as it was then', () => {
  const complaint = event({
    kind: 'complaint',
    words: 'dead',
    function: 'fan',
    condition: 'on',
    state: 'dead',
  });
  const readingBefore = event({
    kind: 'reading',
    test: { kind: 'volts', node: 'a', against: 'b', condition: 'on' },
    value: { volts: 0 },
    raw: '0',
    testerProved: true,
  });
  const found = event({
    kind: 'found',
    parts: ['F1'],
    fault: 'blown',
    strength: 'proved',
    cause: 'unknown',
    causeWords: '',
    evidence: [],
  });
  const repair = event({ kind: 'repair', words: 'new fuse', partsUsed: [], minutes: 2, temporary: false });
  const proof = (state: 'dead' | 'works') =>
    event({ kind: 'proof', function: 'fan', condition: 'on', state });
  const helped = takenReadings(jobState([complaint, readingBefore, found, repair, proof('works')]));
  expect(helped.map((one) => one.before)).toEqual([undefined, undefined]);
  const remained = takenReadings(jobState([complaint, readingBefore, found, repair, proof('dead')]));
  expect(remained.map((one) => one.before)).toEqual([['F1'], ['F1'], undefined]);
  expect(remained.at(-1)?.value).toEqual({ state: 'dead' });
});

test('what was not made sure of travels with the reading', () => {
  const volts = {
    test: { kind: 'volts', node: 'f1', against: 'chassis', condition: 'on' },
    value: { volts: 12 },
  } as const;
  const look = { test: { kind: 'look', part: 'F1' }, value: { look: 'whole' } } as const;
  const reading = (testerProved: boolean, setUpSeen?: boolean, taken: typeof volts | typeof look = volts) =>
    takenReadings(
      jobState([
        event({
          kind: 'reading',
          ...taken,
          raw: '',
          testerProved,
          ...(setUpSeen === undefined ? {} : { setUpSeen }),
        }),
      ]),
    )[0]?.sure;
  expect(reading(true)).toBeUndefined();
  expect(reading(false)).toEqual({ tester: false, reference: false, setUp: true });
  expect(reading(true, false)).toEqual({ tester: true, reference: true, setUp: false });
  // Eyes need no tester.
  expect(reading(false, undefined, look)).toBeUndefined();
});

test('exchanged relays block the closing until they are back and both functions were seen to work', () => {
  const swap = event({ kind: 'swapped', one: 'R4', other: 'R5', functions: ['fan', 'lamp'] });
  const works = (of: string) => event({ kind: 'proof', function: of, condition: 'on', state: 'works' });
  const seenWhile = [works('fan'), works('lamp')];
  const back = event({ kind: 'swap-restored', of: swap.id });
  const seenAfter = [works('fan'), works('lamp')];
  const missing = (...events: readonly LogEvent[]) =>
    missingProofs(jobState([swap, ...events]), [], null).join('; ');
  expect(missing()).toContain('exchanged relays have not been put back');
  expect(missing(...seenWhile)).toContain('exchanged relays have not been put back');
  // What was seen while they were exchanged says nothing of them in their own places.
  expect(missing(...seenWhile, back)).toContain('has not been seen to work since it was put back');
  expect(missing(back, seenAfter[0]!)).toContain('has not been seen to work since');
  expect(missing(back, ...seenAfter)).not.toContain('exchanged');
});

test('photos keep their latest marks, slots their latest state, steps of isolation can be undone', () => {
  const photo = '00000000-0000-4000-8000-00000000aaaa';
  const job = jobState([
    event({ kind: 'photo', photo, words: '', panel: 'box', when: 'before' }),
    event({ kind: 'photo-marks', photo, marks: [{ x: 0.1, y: 0.2, words: 'clip' }] }),
    event({
      kind: 'photo-marks',
      photo,
      marks: [
        { x: 0.1, y: 0.2, words: 'clip' },
        { x: 0.5, y: 0.5, words: 'key' },
      ],
    }),
    event({ kind: 'isolation', step: 'key-off', done: true }),
    event({ kind: 'isolation', step: 'earthed-pole-off', done: true }),
    event({ kind: 'isolation', step: 'earthed-pole-off', done: false }),
    event({ kind: 'slot-state', panel: 'box', slot: 'f1', state: 'fitted', evidence: 'seen' }),
    event({
      kind: 'slot-reading',
      panel: 'box',
      slot: 'f1',
      ends: [
        { end: 'feed', value: { lamp: 'lit' } },
        { end: 'load', value: { volts: 12.3 } },
      ],
      state: 'run',
      fuseOut: false,
      testerProved: true,
    }),
  ]);
  expect(job.photos[0]?.marks.map((mark) => mark.words)).toEqual(['clip', 'key']);
  expect(job.isolated).toEqual(['key-off']);
  expect(job.slotStates).toHaveLength(1);
  expect(job.slotReadings.map((one) => [one.end, one.state])).toEqual([
    ['feed', 'run'],
    ['load', 'run'],
  ]);
});

test('what an entry about the vehicle does not say leaves what stood before, also where the page wrote nothing into it', () => {
  const said = event({ kind: 'identity', nominalVolts: 12, odometerKm: 5, fuel: 'petrol' });
  const later = {
    kind: 'identity',
    odometerKm: 9,
    nominalVolts: undefined,
    fuel: undefined,
  } as unknown as EventBody;
  expect(jobState([said, event(later)]).identity).toMatchObject({
    nominalVolts: 12,
    odometerKm: 9,
    fuel: 'petrol',
  });
});

describe('parts that do not stand in their own places', () => {
  const swap = event({ kind: 'swapped', one: 'R4', other: 'R5', functions: ['fan', 'lamp'] });
  const check = (state: 'works' | 'dead') =>
    event({ kind: 'function-check', function: 'fan', condition: 'on', state });
  const fittedOf = (...events: LogEvent[]) =>
    takenReadings(jobState([complaint, ...events])).map((one) => [one.value, one.fitted]);
  const exchanged = { exchanged: [{ one: 'R4', other: 'R5' }], knownGood: [] };

  test('each reading is kept with the relays as they stood, the check of before beside the one of after', () => {
    expect(
      fittedOf(
        check('dead'),
        swap,
        check('works'),
        event({ kind: 'swap-restored', of: swap.id }),
        reading(12),
      ),
    ).toEqual([
      [{ state: 'dead' }, undefined],
      [{ state: 'works' }, exchanged],
      [{ volts: 12 }, undefined],
    ]);
  });

  test('a check while they were exchanged does not replace what was reported of before', () => {
    expect(fittedOf(swap, check('works'))).toEqual([
      [{ state: 'dead' }, undefined],
      [{ state: 'works' }, exchanged],
    ]);
    expect(fittedNow(jobState([complaint, swap]))).toEqual({ fitted: exchanged });
  });

  test('after a known good part was tried it is asked which one stayed, and counts from the answer on', () => {
    const tried = event({
      kind: 'reading',
      test: { kind: 'substitute', part: 'R4', function: 'fan', condition: 'on' },
      value: { state: 'works' },
      raw: 'w',
      testerProved: true,
    });
    const stays = event({ kind: 'part-in-place', part: 'R4', sits: 'known-good' });
    const meanwhile = reading(12);
    const back = event({ kind: 'part-in-place', part: 'R4', sits: 'own' });
    const inPlace = (...events: LogEvent[]) => jobState([complaint, ...events]).inPlace.get('R4');
    expect([inPlace(tried), inPlace(tried, stays), inPlace(tried, stays, back)]).toEqual([
      'asked',
      'known-good',
      'own',
    ]);
    const good = { exchanged: [], knownGood: ['R4'] };
    expect(fittedOf(tried, stays, meanwhile, back, reading(11)).slice(1)).toEqual([
      [{ state: 'works' }, undefined],
      [{ volts: 12 }, good],
      [{ volts: 11 }, undefined],
    ]);
  });
});

test('a whole unit tried between vehicles needs no circuit: three cells name the fourth, and no more is claimed', () => {
  const cell = (which: 'own-here' | 'good-here' | 'own-there', state: 'works' | 'fails') =>
    event({ kind: 'unit-tried', unit: 'Hatch module', cell: which, state });
  const first = cell('own-here', 'works');
  const events = [first, cell('own-here', 'fails'), cell('good-here', 'fails'), cell('own-there', 'works')];
  const cells = (more: readonly LogEvent[] = []) => jobState([...events, ...more]).units.get('Hatch module')!;
  const said = substitutionOf(cells());
  expect(said).toMatchObject({ claim: 'vehicle side', missing: 'good-there' });
  expect(said.sentence).toContain('the known good part where such a part works');
  // The latest of a cell counts; struck, the one before it stands again.
  expect(cells()['own-here']).toBe('fails');
  expect(cells([event({ kind: 'correction', of: events[1]!.id })])['own-here']).toBe('works');
});

describe('fuses that were found open', () => {
  const circuit = {
    ...demoCircuit('van-proving-cabinet'),
    id: 'two',
  };
  const fuses = circuit.parts.filter((part) => part.kind === 'fuse');
  const seen = (part: string, value: 'broken' | 'whole') =>
    event({
      kind: 'reading',
      test: { kind: 'look', part },
      value: { look: value },
      raw: value,
      testerProved: true,
    });
  const slot = (id: string, load: number) =>
    event({
      kind: 'slot-reading',
      panel: 'cab',
      slot: id,
      ends: [
        { end: 'feed', value: { volts: 12.4 } },
        { end: 'load', value: { volts: load } },
      ],
      state: 'run',
      fuseOut: false,
      testerProved: true,
    });
  const panels = {
    panels: [
      {
        id: 'cab',
        name: 'Cab box',
        place: 'cab',
        slots: ['1', '2'].map((number) => ({
          id: `s${number}`,
          number,
          type: 'fuse' as const,
          ratingAmps: 15,
        })),
      },
    ],
  } as unknown as PanelSetFile;
  const names = (...events: LogEvent[]) =>
    openedFuses(jobState([complaint, ...events]), circuit, panels, 12).map((one) => one.name);

  test('in whatever box and by whatever test, each once', () => {
    const one = fuses[0]!;
    expect(names(seen(one.id, 'whole'), slot('s1', 12.3))).toEqual([]);
    expect(names(seen(one.id, 'broken'), seen(one.id, 'broken'))).toEqual([one.name]);
    expect(names(slot('s1', 0.01), seen(one.id, 'broken'), slot('s2', 0))).toEqual([
      one.name,
      'slot 1 of Cab box',
      'slot 2 of Cab box',
    ]);
  });
});
