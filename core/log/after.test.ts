/** The second half of a job: what reopens a cause, what is owed after a repair, what a way of doing it costs. */
import { demoCircuit, demoText } from '../../testing/circuits';
import { requiredProofs } from '../diagnosis';
import { checkPanelSetText, type EventBody, type RepairLine } from '../format';
import { CircuitModel } from '../network';
import { causeReopened } from './cause';
import type { LogEvent } from './event';
import { labelsOf } from './labelsOf';
import { missingProofs } from './missing';
import { boardChecks, costOf, differencesOf, type Option } from './options';
import { judgeOwed, owedProofs, whyNotAnswered } from './owed';
import { workedScene } from './scene';
import { sheetOf } from './sheet';
import { standsNow } from './standsNow';
import { jobState } from './state';

const circuit = demoCircuit('van-proving-cabinet');
const id = (index: number) => `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`;
const jobOf = (...bodies: readonly EventBody[]) =>
  jobState(
    bodies.map(
      (body, index): LogEvent => ({
        id: id(index),
        seq: index + 1,
        person: 'Imre Pellow',
        madeAt: `2026-03-31T14:${String(index).padStart(2, '0')}:00.000Z`,
        clientOrder: index,
        body,
      }),
    ),
  );

const COMPLAINT: EventBody = {
  kind: 'complaint',
  words: 'Fan dead',
  function: 'cabinet-fan',
  condition: 'fan-on',
  state: 'dead',
};
const FOUND: EventBody = {
  kind: 'found',
  parts: ['F31'],
  fault: 'Fuse 31 open',
  strength: 'proved',
  cause: 'suspected',
  causeWords: 'motor draws too much',
  openedBy: 'overload',
  evidence: [],
};
const repair = (...lines: RepairLine[]): EventBody => ({
  kind: 'repair',
  words: 'Renewed',
  partsUsed: [],
  temporary: false,
  ...(lines.length > 0 ? { lines } : {}),
});
const fuse: RepairLine = {
  part: 'F31',
  name: 'Fuse 31',
  deed: 'replaced',
  wanted: { kind: 'fuse', family: 'mini', ratingAmps: 15 },
  fitted: { kind: 'fuse', family: 'mini', ratingAmps: 15 },
};
const current = (amps: number, phase: 'running' | 'starting' = 'running'): EventBody => ({
  kind: 'fuse-current',
  fuse: 'F31',
  phase,
  amps,
  ratingAmps: 15,
  how: 'measured',
});
const looked: EventBody = {
  kind: 'reading',
  test: { kind: 'look', part: 'F31' },
  value: { look: 'broken' },
  raw: 'broken',
  testerProved: false,
};
const answer = (
  what: string,
  more: Partial<Extract<EventBody, { kind: 'proof-answer' }>> = {},
): EventBody => ({
  kind: 'proof-answer',
  what,
  answer: 'done',
  words: '',
  ...more,
});

describe('the cause is open again', () => {
  // 80 % of 15 A are 12 A.
  test.each([
    [[FOUND, repair(fuse), current(12)], 0],
    [[FOUND, repair(fuse), current(12.1)], 1],
    // In the first moment a motor may draw more.
    [[FOUND, repair(fuse), current(40, 'starting')], 0],
    // Measured anew, less.
    [[FOUND, repair(fuse), current(14), current(9)], 0],
    // Said anew why: settled.
    [[FOUND, repair(fuse), current(14), FOUND], 0],
    // Open before the repair is why it was repaired; open after it is a second time.
    [[looked, FOUND, repair(fuse)], 0],
    [[FOUND, repair(fuse), looked], 1],
    [[FOUND, repair(fuse), looked, current(14)], 2],
    [[repair(fuse), looked], 0],
  ] as const)('%#', (bodies, reasons) => {
    expect(causeReopened(jobOf(COMPLAINT, ...bodies), circuit)).toHaveLength(reasons);
  });

  test('it bars the closing, with the percent', () => {
    const missing = missingProofs(jobOf(COMPLAINT, FOUND, repair(fuse), current(14)), [], circuit).join('; ');
    expect(missing).toContain(
      'the cause is open again: Fuse 31 (15 A) carries 14 A running, 93 % of its 15 A',
    );
  });
});

describe('what else is owed', () => {
  const ids = (...bodies: readonly EventBody[]) =>
    owedProofs(jobOf(COMPLAINT, ...bodies), circuit, []).map((one) => one.id);

  test('the lamps always; the current of a fuse that was fitted; the drop over what was joined; the draw of what is live at rest', () => {
    expect(ids(FOUND)).toEqual([]);
    expect(ids(FOUND, repair())).toEqual(['safety-lamps']);
    expect(ids(FOUND, repair(fuse))).toEqual(['current:F31', 'safety-lamps']);
    // Behind the relay: dead at rest.
    const spliced = (part: string): RepairLine => ({ part, name: part, deed: 'spliced' });
    expect(ids(FOUND, repair(spliced('W32')))).toEqual(['drop:W32', 'safety-lamps']);
    // From the battery: live at rest.
    expect(ids(FOUND, repair(spliced('W36')))).toEqual(['drop:W36', 'draw', 'safety-lamps']);
    expect(ids(FOUND, repair({ part: 'G4', name: 'G4', deed: 'cleaned' }))).toEqual([
      'drop:G4',
      'safety-lamps',
    ]);
    // A part that the map has not, joined anew.
    expect(ids(FOUND, repair({ name: 'Sill loom', deed: 're-terminated' }))).toEqual([
      'drop:sill-loom',
      'safety-lamps',
    ]);
  });

  test('of what stayed on the draw is owed; of a survey nothing', () => {
    const stays: EventBody = { ...COMPLAINT, state: 'on-when-off' } as EventBody;
    expect(owedProofs(jobOf(stays, FOUND, repair()), circuit, []).map((one) => one.id)).toEqual([
      'draw',
      'safety-lamps',
    ]);
    const survey: EventBody = { kind: 'complaint', words: 'Read the box', work: 'survey' };
    expect(owedProofs(jobOf(survey, repair()), circuit, [])).toEqual([]);
  });

  test('answers: read, not possible here, left to the owner; another repair asks again', () => {
    const answered = jobOf(
      COMPLAINT,
      FOUND,
      repair(fuse),
      answer('current:F31', { amps: 9.2 }),
      answer('safety-lamps', { answer: 'owner', words: 'Josune Wray, before she drives' }),
    );
    const owed = owedProofs(answered, circuit, []);
    expect(owed.map(({ answer: said }) => said)).toEqual(['done', 'owner']);
    expect(owed[0]!.words).toBe('9.2 A, 61 % of 15 A');
    expect(owed[1]!.words).toContain('Josune Wray');
    const again = jobOf(COMPLAINT, FOUND, repair(fuse), answer('current:F31', { amps: 9.2 }), repair());
    expect(owedProofs(again, circuit, []).map(({ answer: said }) => said)).toEqual([null, null]);
  });

  test('a value judges itself, whatever was tapped', () => {
    const drawn = jobOf(
      { ...COMPLAINT, state: 'on-when-off' } as EventBody,
      FOUND,
      repair(),
      answer('draw', { amps: 0.31 }),
    );
    expect(owedProofs(drawn, circuit, [])[0]).toMatchObject({
      answer: 'wrong',
      words: '0.31 A, more than 0.05 A',
    });
    expect(missingProofs(drawn, [], circuit).join('; ')).toContain(
      'not as it should be: draw of the battery',
    );
    const volts = { asks: { unit: 'V' as const, most: 0.1 }, fuse: null };
    expect(judgeOwed(volts, -0.05).right).toBe(true);
    expect(judgeOwed(volts, 0.12).right).toBe(false);
  });

  test('an answer without its words or its number is not taken', () => {
    const item = { name: 'Draw', asks: { unit: 'A' as const, most: 0.05 } };
    expect(whyNotAnswered(item, 'not-here', '', null)).toContain('why');
    expect(whyNotAnswered(item, 'owner', '', null)).toContain('to whom');
    expect(whyNotAnswered(item, 'done', '', null)).toContain('in A');
    expect(whyNotAnswered(item, 'done', '', 0.01)).toBeNull();
    expect(whyNotAnswered({ ...item, asks: null }, 'done', '', null)).toBeNull();
  });
});

test('off at once leaves the reading after the wait owed, and it is not taken before', () => {
  const OFF = { function: 'cabinet-fan', condition: 'all-off', expected: 'dead' as const, because: '' };
  const proofs = [{ ...OFF, waitSeconds: 600 }];
  const seen: EventBody = {
    kind: 'proof',
    function: 'cabinet-fan',
    condition: 'all-off',
    state: 'dead',
    expected: 'dead',
  };
  const [open] = owedProofs(jobOf(COMPLAINT, FOUND, repair()), circuit, proofs);
  expect(open).toMatchObject({ id: 'wait:cabinet-fan', answer: null, notBefore: null });
  expect(open!.name).toContain('still off after 10 min');
  expect(whyNotAnswered(open!, 'done', '', null)).toContain('see it off first');
  const [wait] = owedProofs(jobOf(COMPLAINT, FOUND, repair(), seen), circuit, proofs);
  // Seen off at 14:03, so read from 14:13 on.
  expect(wait!.notBefore).toBe('2026-03-31T14:13:00.000Z');
  expect(whyNotAnswered(wait!, 'done', '', null, Date.parse('2026-03-31T14:05:00Z'))).toContain(
    '8 min are left',
  );
  expect(whyNotAnswered(wait!, 'done', '', null, Date.parse('2026-03-31T14:13:00Z'))).toBeNull();
  expect(missingProofs(jobOf(COMPLAINT, FOUND, repair(), seen), proofs, circuit).join()).toContain(
    'still off after',
  );
});

test('what was seen to be wrong before the repair is seen after it, whether or not it shares a part; a timed relay asks for the wait', () => {
  const model = new CircuitModel(circuit);
  const asked = { function: 'cabinet-fan', condition: 'fan-on' };
  const names = (seen: Parameters<typeof requiredProofs>[3]) =>
    requiredProofs(model, asked, ['F31'], seen).map((one) => `${one.function}|${one.condition}`);
  expect(names([])).not.toContain('left-shelf-light|lights-on');
  const dark = { function: 'left-shelf-light', condition: 'lights-on', state: 'dead' };
  expect(names([dark])).toContain('left-shelf-light|lights-on');
  expect(names([{ ...dark, state: 'works' }])).not.toContain('left-shelf-light|lights-on');
  expect(names([{ ...dark, function: 'gone' }])).toEqual(names([]));
  const timed = new CircuitModel({
    ...circuit,
    parts: circuit.parts.map((part) =>
      part.id === 'R4' ? { ...part, timing: { mode: 'delay-off', seconds: 90 } } : part,
    ) as typeof circuit.parts,
  });
  const waits = (one: CircuitModel) =>
    requiredProofs(one, asked, ['F31']).flatMap(({ waitSeconds }) => waitSeconds ?? []);
  expect(waits(model)).toEqual([]);
  expect(waits(timed)).toEqual([90]);
});

describe('repair or replace', () => {
  const option = (name: string, more: Partial<Option> = {}): Option => ({
    kind: 'option',
    option: name,
    name,
    board: false,
    parts: [],
    minutes: 60,
    rate: 62,
    leaves: '',
    unproved: '',
    ...more,
  });
  const part = (price: number, count: number, days: number) => ({ name: 'p', price, count, from: '', days });

  // Totals worked out by hand.
  test.each([
    [option('a'), 0, 62, 62, 0],
    [option('b', { minutes: 45 }), 0, 46.5, 46.5, 0],
    [option('c', { parts: [part(19.99, 3, 2), part(0.1, 3, 5)] }), 60.27, 62, 122.27, 5],
    [option('d', { parts: [part(318.4, 1, 9)], minutes: 20 }), 318.4, 20.67, 339.07, 9],
    [option('e', { parts: [part(1_000_000, 1000, 0)], minutes: 0 }), 1_000_000_000, 0, 1_000_000_000, 0],
    [option('f', { rate: 0 }), 0, 0, 0, 0],
    [option('new board', { parts: [part(310, 1, 0)], minutes: 90, rate: 58 }), 310, 87, 397, 0],
    [option('its relay', { parts: [part(22, 1, 0)], minutes: 165, rate: 58 }), 22, 159.5, 181.5, 0],
  ])('%#', (one, parts, labour, total, waitDays) => {
    expect(costOf(one)).toEqual({ parts, labour, total, waitDays });
  });

  test('the cheapest is named, and what every other has more', () => {
    const differs = differencesOf([
      option('box', { parts: [part(318.4, 1, 9)], minutes: 20 }),
      option('board', { parts: [part(6.2, 1, 2)], minutes: 90 }),
    ]);
    // Board: 6.20 + 93.00 = 99.20; box: 318.40 + 20.67 = 339.07.
    expect(differs.get('board')).toBe('the cheapest');
    expect(differs.get('box')).toBe('239.87 more, 7 days later, 70 min less work');
    expect(differencesOf([option('alone')]).size).toBe(0);
  });

  test('a board repair, chosen or done, answers for its whole list before the job is closed', () => {
    const chosen = jobOf(COMPLAINT, option('board', { board: true }), {
      kind: 'option-chosen',
      option: 'board',
      by: 'Owner',
      words: '',
    });
    expect(boardChecks(chosen)).toHaveLength(7);
    const done = jobOf(COMPLAINT, FOUND, repair({ name: 'Box', deed: 'board-repaired' }));
    expect(missingProofs(done, [], circuit).filter((words) => words.startsWith('board repair'))).toHaveLength(
      7,
    );
    const one = jobOf(COMPLAINT, FOUND, repair({ name: 'Box', deed: 'board-repaired' }), {
      kind: 'board-check',
      check: 'coating',
      state: 'in-order',
      words: 'lacquered',
    });
    expect(missingProofs(one, [], circuit).filter((words) => words.startsWith('board repair'))).toHaveLength(
      6,
    );
    expect(boardChecks(jobOf(COMPLAINT, FOUND, repair(fuse)))).toEqual([]);
  });
});

describe('what is temporary', () => {
  const temporary: EventBody = {
    kind: 'repair',
    words: 'Fuse renewed',
    partsUsed: [],
    temporary: true,
    due: '2026-12-24',
    reason: 'none in the van',
    lines: [{ ...fuse, fitted: { kind: 'fuse', family: 'mini', ratingAmps: 20 }, wireMm2: 1.5 }],
  };

  test('it stands until the right part is in, or somebody decides; a put off day is the new day', () => {
    expect(jobOf(COMPLAINT, temporary).temporaries).toHaveLength(1);
    expect(
      jobOf(COMPLAINT, temporary, { ...(repair(fuse) as object), ends: [id(1)] } as EventBody).temporaries,
    ).toEqual([]);
    expect(
      jobOf(COMPLAINT, temporary, { kind: 'temporary-ended', of: id(1), words: 'fine', decidedBy: 'Owner' })
        .temporaries,
    ).toEqual([]);
    const later = jobOf(COMPLAINT, temporary, {
      kind: 'watch-snoozed',
      of: id(1),
      due: '2027-01-10',
      words: 'strike',
    });
    expect(later.temporaries[0]!.due).toBe('2027-01-10');
  });

  test('its label says how much it is above the design and until when', () => {
    const [label] = labelsOf(jobOf(COMPLAINT, temporary), circuit, 'Van · Fan dead');
    expect(label).toMatchObject({ title: 'TEMPORARY' });
    expect(label!.lines).toEqual([
      'Fuse renewed',
      'Fuse 31: 133 % of the design',
      'To be put right by 24 Dec 2026',
      'Proving-cabinet fan · 31 Mar 2026',
      'Van · Fan dead',
    ]);
  });
});

test('what was worked out and what draws asleep stand on the sheet, and go onto a label where that was asked', () => {
  const note: EventBody = {
    kind: 'note',
    words: 'Wire size: Size 16 mm².\nBy the drop 16 mm²',
    label: 'Wire size: 16 mm² for 48 A',
  };
  const drop = (slot: string, volts: number): EventBody => ({
    kind: 'slot-drop',
    panel: 'bay',
    slot,
    volts,
    ratingAmps: 10,
    family: 'mini',
  });
  const job = jobOf(COMPLAINT, note, drop('fuse-32', 0.0031), drop('fuse-34', 0.0002));
  expect(labelsOf(job, circuit, 'Van').map(({ title, lines }) => [title, lines[0]])).toContainEqual([
    'NOTE',
    'Wire size: 16 mm² for 48 A',
  ]);
  const boxes = checkPanelSetText(demoText('van.panel-set.json'));
  const panels = boxes.ok ? boxes.value.panels : [];
  const scene = { job, circuit, panels, nominalVolts: 12, proofs: [], assessment: null, expected: {} };
  const { parts } = sheetOf(scene);
  const noted = parts.find(({ title }) => title === 'Noted')!;
  expect(noted.lines[0]).toMatchObject({ words: 'Wire size: Size 16 mm².', more: 'By the drop 16 mm²' });
  // 3.1 mV ÷ 7.6 mΩ.
  expect(
    parts
      .find(({ title }) => title === 'Boxes')!
      .lines.map(({ words }) => words)
      .join(),
  ).toContain('Hunt fuse 32 (Shelf lights) first: 0.408 A');
});

test('a job that is handed over names covers, isolation, exchanged parts and what was done last', () => {
  const box = circuit.places[0]!;
  const lines = standsNow(
    jobOf(
      COMPLAINT,
      { ...(looked as object), place: box.id } as EventBody,
      { kind: 'isolation', step: 'earthed-pole-off', done: true },
      { kind: 'swapped', one: 'R4', other: 'R4', functions: [] },
      { kind: 'appliance-set-aside', words: 'Kettle', fuses: ['Fuse 31', 'Fuse 5'] },
      { kind: 'handed-over', to: 'Josune Wray', words: 'ring me' },
    ),
    circuit,
    null,
  ).map(({ words }) => words);
  expect(lines[0]).toBe('Handed over to Josune Wray: ring me');
  const text = lines.join('\n');
  for (const words of [
    'Done last: Appliance set aside',
    `Covers opened: ${box.name}`,
    'Isolated: earthed pole',
    'Exchanged: Relay 4',
    'In quarantine: Kettle; it took Fuse 31, Fuse 5',
  ])
    expect(text).toContain(words);
});

test('the clock of the work counts from start to stop, as often as it is started', () => {
  const start: EventBody = { kind: 'clock', step: 'start' };
  const stop: EventBody = { kind: 'clock', step: 'stop' };
  const note: EventBody = { kind: 'note', words: '' };
  // Entries are a minute apart.
  expect(jobOf(start, note, note, stop, note, start, stop).clockedMinutes).toBe(4);
  expect(jobOf(stop, start, start, stop).clockedMinutes).toBe(2);
  expect(jobOf(start, note).clockSince).toBe('2026-03-31T14:00:00.000Z');
});

describe('all that a sheet is written from, worked out without a page', () => {
  const maps = { circuits: [circuit], panelSet: null, vehicle: { nominalVolts: 12 } };
  const volts = (node: string): EventBody => ({
    kind: 'reading',
    test: { kind: 'volts', node, against: circuit.reference, condition: 'fan-on' },
    value: { volts: 0.02 },
    raw: '0.02',
    testerProved: true,
  });

  test('suspects, functions that have to be seen, and what a sound circuit does', () => {
    const scene = workedScene(maps, jobOf(COMPLAINT, volts('f31-out')), {});
    // The complaint itself is the first thing that was seen.
    expect(scene.assessment!.effects.map((one) => one.id)).toEqual([id(0), id(1)]);
    expect(scene.proofs[0]).toMatchObject({
      function: 'cabinet-fan',
      condition: 'fan-on',
      expected: 'works',
    });
    expect(scene.expected['cabinet-fan|all-off']).toBe('dead');
  });

  test('a reading at a point that the circuit has not, no circuit, no complaint: nothing is worked out, and nothing fails', () => {
    expect(workedScene(maps, jobOf(COMPLAINT, volts('gone')), {}).assessment).toBeNull();
    expect(workedScene({ ...maps, circuits: [] }, jobOf(COMPLAINT), {})).toMatchObject({
      circuit: null,
      proofs: [],
    });
    expect(workedScene(maps, jobOf(volts('f31-out')), {}).assessment).toBeNull();
    expect(
      workedScene({ ...maps, vehicle: { nominalVolts: null } }, jobOf(COMPLAINT), {}).assessment,
    ).toBeNull();
  });
});
