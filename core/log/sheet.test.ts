/** What the sheet says of a job: all of it, with who and when, and nothing that something open speaks against. */

import { demoCircuit } from '../../testing/circuits';
import { boxOf } from '../../testing/panels';
import { DiagnosisSession, requiredProofs } from '../diagnosis';
import type { EventBody } from '../format';
import { CircuitModel } from '../network';
import type { LogEvent } from './event';
import { sheetOf } from './sheet';
import { jobState } from './state';
import { takenReadings } from './taken';

const circuit = demoCircuit('van-proving-cabinet');
const model = new CircuitModel(circuit);
const FAN = { function: 'cabinet-fan', condition: 'fan-on' };
const session = new DiagnosisSession(circuit, FAN);
const { panels } = boxOf(3, 3);

const id = (index: number) => `00000000-0000-4000-8000-${String(index).padStart(12, '0')}`;
const logOf = (bodies: readonly EventBody[]): LogEvent[] =>
  bodies.map((body, index) => ({
    id: id(index),
    seq: index + 1,
    person: 'Imre Pellow',
    madeAt: `2026-03-31T14:${String(index).padStart(2, '0')}:00.000Z`,
    clientOrder: index,
    body,
  }));

function sheet(...bodies: readonly EventBody[]) {
  const job = jobState(logOf(bodies));
  const readings = takenReadings(job);
  const assessment = session.assess({ readings, refused: job.refused, opened: [] });
  const proofs = requiredProofs(model, FAN, job.found?.parts ?? []);
  const made = sheetOf({
    job,
    circuit,
    panels,
    nominalVolts: 12,
    proofs,
    assessment,
    expected: {},
  });
  const text = made.parts.flatMap(({ title, lines, empty }) => [
    title,
    ...(lines.length > 0 ? lines.flatMap(({ words, more = '' }) => [words, more]) : [empty ?? '']),
  ]);
  return {
    made,
    assessment,
    text: text.join('\n'),
    part: (title: string) => made.parts.find((one) => one.title === title),
  };
}

const LAMPS: EventBody = { kind: 'proof-answer', what: 'safety-lamps', answer: 'done', words: '' };
const COMPLAINT: EventBody = { kind: 'complaint', words: 'Fan dead', state: 'dead', ...FAN };
const volts = (node: string, read: number): EventBody => ({
  kind: 'reading',
  test: { kind: 'volts', node, against: circuit.reference, condition: FAN.condition },
  value: { volts: read },
  raw: String(read),
  testerProved: true,
});
const FOUND: EventBody = {
  kind: 'found',
  parts: ['F31'],
  fault: 'Fuse 31 blown',
  strength: 'proved',
  cause: 'unknown',
  causeWords: '',
  evidence: [],
};

test('an open job prints as open, and says neither proved nor that nothing is known', () => {
  const { made, text } = sheet(COMPLAINT, volts('f31-out', 0.02), FOUND);
  expect(made.standing).toContain('OPEN');
  expect(made.open.length).toBeGreaterThan(0);
  expect(text).toContain('recorded as proved; not verified while something is open');
  expect(text).not.toContain('Nothing known');
  for (const words of made.open) expect(text.toLowerCase()).toContain(words.toLowerCase());
});

test('every suspect worth a word is among what is left, with its chance', () => {
  for (const bodies of [[], [volts('r4-87', 12.2)], [volts('m1-minus', 12.3)], [volts('f31-out', 0.02)]]) {
    const { assessment, part } = sheet(COMPLAINT, ...bodies);
    const lines = part('Suspects by the readings')!.lines.map(({ words }) => words);
    const worth = assessment.suspects.filter(({ chance }) => chance >= 0.05);
    expect(worth.length).toBeGreaterThan(0);
    for (const { title, chance } of worth) expect(lines).toContain(`${title}: ${Math.round(chance * 100)} %`);
  }
});

test('a reading stands with its meaning, its hour and its person; a struck one stays, with the reason', () => {
  const { part, assessment } = sheet(COMPLAINT, volts('f31-out', 12.4), volts('r4-87', 0), {
    kind: 'correction',
    of: id(1),
    reason: 'wrong hole',
  });
  const lines = part('Evidence')!.lines;
  expect(lines[0]).toMatchObject({ words: expect.stringContaining('Struck'), more: 'wrong hole' });
  expect(lines[1]).toMatchObject({
    by: { person: 'Imre Pellow', at: '2026-03-31T14:02:00.000Z' },
    more: assessment.effects.at(-1)!.sentence,
  });
});

test('boxes with verdicts and readings, ends of wires, exchanges, appliance, sounds, refusals and overrides are all there', () => {
  const { made, text } = sheet(
    {
      ...COMPLAINT,
      kind: 'complaint',
      words: 'Fan dead',
      heard: 'hums',
      pluggedIn: 'Whisk',
      appliance: { fusesTaken: 2 },
    } as EventBody,
    {
      kind: 'slot-reading',
      panel: 'seat-box',
      slot: 'fuse-1',
      ends: [
        { end: 'first', value: { lamp: 'lit' } },
        { end: 'second', value: { lamp: 'off' } },
      ],
      state: 'run',
      fuseOut: false,
      testerProved: true,
    },
    {
      kind: 'slot-state',
      panel: 'seat-box',
      slot: 'fuse-2',
      state: 'fitted',
      found: { ratingAmps: 20 },
      evidence: 'seen',
    },
    { kind: 'wire-reading', wire: 'W33', end: 'a', state: 'off', value: { volts: 0 }, testerProved: true },
    { kind: 'swapped', one: 'R4', other: 'R4', functions: ['cabinet-fan'] },
    { kind: 'damage', panel: 'seat-box', words: 'tongue broken', when: 'as-found' } as EventBody,
    { kind: 'test-refused', test: { kind: 'look', part: 'F31' }, reason: 'cannot reach that' },
    { kind: 'task-begun', task: 'lift-box', panel: 'seat-box', override: 'towed here, no key' },
    { kind: 'caution-read', caution: 'Hands clear.' },
    { kind: 'appliance-set-aside' } as EventBody,
    { kind: 'work-place', place: 'Quay 3' },
  );
  for (const words of [
    'hums',
    'Whisk',
    'It took 2 fuses',
    'suspected open',
    'Only the upper end is live',
    '20 A fitted for 10 A: 200 % of the design',
    'end a',
    'Still exchanged',
    'tongue broken',
    'cannot reach that',
    'towed here, no key',
    'Hands clear.',
  ]) {
    expect(text).toContain(words);
  }
  expect(made.place).toBe('Quay 3');
  expect([made.from, made.until]).toEqual(['2026-03-31T14:00:00.000Z', '2026-03-31T14:10:00.000Z']);
});

test('a closed job that was proved and seen in every condition is verified, and only then nothing is known to be left', () => {
  const proofs = requiredProofs(model, FAN, ['F31']);
  const { made, text } = sheet(
    COMPLAINT,
    volts('f31-out', 0.02),
    { ...FOUND, cause: 'proved', causeWords: 'chafed wire at the hinge' } as EventBody,
    { kind: 'repair', words: 'Wire laid anew, fuse 31 renewed', partsUsed: [], temporary: false },
    ...proofs.map(
      ({ function: of, condition, expected }): EventBody => ({
        kind: 'proof',
        function: of,
        condition,
        state: expected,
        expected,
      }),
    ),
    LAMPS,
    { kind: 'state', state: 'closed' },
  );
  expect(made.open).toEqual([]);
  expect(made.standing).toBe('Closed and verified');
  expect(text).toContain('Nothing known.');
  expect(text).not.toContain('Suspects by the readings');
});

test('readings beside which nothing stands say why: not worked out yet, or nothing says what they are of', () => {
  const of = (complaint: EventBody) =>
    sheetOf({
      job: jobState(logOf([complaint, volts('m1-plus', 12.3)])),
      circuit,
      panels: [],
      nominalVolts: 12,
      proofs: [],
      assessment: null,
      expected: {},
    })
      .parts.find(({ title }) => title === 'Evidence')!
      .lines.at(-1)!.words;
  expect(of(COMPLAINT)).toBe('What these readings mean is not worked out yet.');
  expect(of({ kind: 'complaint', words: 'Fan dead' })).toContain('no complaint says what they are of');
});

describe('a job that is work', () => {
  const work = (kind: 'survey' | 'change'): EventBody => ({
    kind: 'complaint',
    words: 'Read the cab box',
    work: kind,
  });
  const DONE: EventBody = { kind: 'repair', words: 'All slots read', partsUsed: [], temporary: false };
  const CLOSED: EventBody = { kind: 'state', state: 'closed' };
  const SEEN: EventBody = { kind: 'function-check', ...FAN, state: 'works' };
  const plain = (...bodies: readonly EventBody[]) => {
    const job = jobState(logOf(bodies));
    const scene = { circuit, panels, nominalVolts: 12, proofs: [], assessment: null, expected: {} };
    return { job, sheet: sheetOf({ job, ...scene }) };
  };

  test('it says what was to be done and what was, and nothing of a fault', () => {
    const { job, sheet: open } = plain(work('survey'));
    expect(job.stage).toBe('working');
    expect(open.open).toEqual(['no work is recorded as done']);
    expect(open.parts.map(({ title }) => title).slice(0, 2)).toEqual(['As it stands now', 'Survey']);
    expect(open.parts[1]).toMatchObject({ lines: [{ words: '“Read the cab box”' }] });
    expect(open.parts.map(({ title }) => title)).not.toContain('What was found, and why');
    const { job: done, sheet: closed } = plain(work('survey'), DONE, CLOSED);
    expect(closed.open).toEqual([]);
    expect(closed.standing).toBe('Closed, the work recorded');
    expect(done.stage).toBe('closed');
    expect(plain(work('survey'), DONE).job.stage).toBe('done');
  });

  test('what was changed is open until a function was seen since, before it counts for nothing', () => {
    const since = 'no function has been seen since the change';
    const lamps = 'not answered: brake lamps and outside lamps';
    expect(plain(work('change'), SEEN, DONE, LAMPS).sheet.open).toEqual([since]);
    expect(plain(work('change'), DONE, SEEN, LAMPS).sheet.open).toEqual([]);
    // What was seen before the last change says nothing about it.
    expect(plain(work('change'), DONE, SEEN, LAMPS, DONE).sheet.open).toEqual([since, lamps]);
    expect(plain(work('change'), DONE, SEEN, LAMPS, CLOSED).sheet.standing).toBe('Closed and verified');
  });
});

test('a fuse above the design stands on the sheet with its percent, and why it was fitted', () => {
  const repair: EventBody = {
    kind: 'repair',
    words: 'Fuse 31 replaced',
    partsUsed: [],
    temporary: true,
    due: '2026-12-24',
    lines: [
      {
        part: 'F31',
        name: 'Fuse 31',
        deed: 'replaced',
        wanted: { kind: 'fuse', family: 'mini', ratingAmps: 15 },
        fitted: { kind: 'fuse', family: 'mini', ratingAmps: 20 },
        wireMm2: 1.5,
      },
    ],
    reason: 'only one in the van',
  };
  const { text, part } = sheet(COMPLAINT, FOUND, repair);
  expect(text).toContain('20 A fitted; 20 A is 133 % of the design; the wire behind it carries 21 A');
  expect(part('Temporary')!.lines[0]).toMatchObject({ more: 'Why: only one in the van' });
});
