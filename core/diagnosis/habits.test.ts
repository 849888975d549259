/** Every habit and every missing instrument, played over the patterns: never against it, and right at the end. */
import { so } from '../../testing/whole';
import { breakCircuit } from '../faults';
import { type Hand, INSTRUMENT_NAMES, USUAL_HAND } from '../format';
import { CircuitModel } from '../network';
import { circuitOfPattern, PATTERNS } from '../notation/patterns';
import { endsRight, leadToEnd } from './followEngine';
import { DISAGREEMENTS, habitMinutes, missingInstrument, NEEDS, sideTaken } from './habits';
import { refOfId } from './kinds';
import { complaintOf, readingOf } from './playback';
import { DiagnosisSession } from './session';

const HANDS: readonly (readonly [name: string, hand: Hand])[] = [
  ['as usual', USUAL_HAND],
  ...INSTRUMENT_NAMES.filter((one) => one !== 'meter').map((one): readonly [string, Hand] => [
    `without ${one}`,
    { ...USUAL_HAND, without: [one] },
  ]),
  ['with a meter alone', { ...USUAL_HAND, without: ['lamp', 'led', 'clamp', 'lead'] }],
  ['pull first', { ...USUAL_HAND, fuses: 'pull' }],
  ['lamp first', { ...USUAL_HAND, tester: 'lamp' }],
  ['meter first', { ...USUAL_HAND, tester: 'meter' }],
  ['exchange last', { ...USUAL_HAND, exchange: 'last' }],
  ['battery always off', { ...USUAL_HAND, isolation: 'always' }],
];

/** Every fault of a pattern that shows, or one in so many. */
const EVERY = so(10, 40);
/** All patterns, or every third. */
const PLAYED = PATTERNS.filter((_, index) => index % so(1, 3) === 0);
const minutesOf = new Map<string, { minutes: number; jobs: number }>();

test.each(HANDS)('%s: never a proposal against it, and right at the end', (name, hand) => {
  let right = 0;
  let jobs = 0;
  let minutes = 0;
  for (const pattern of PLAYED) {
    const { circuit } = circuitOfPattern(pattern, { load: 'Step light', kind: 'lamp', nominalVolts: 12 });
    const model = new CircuitModel(circuit);
    const sessions = new Map<string, DiagnosisSession>();
    const all = new DiagnosisSession(circuit, {
      function: 'failed',
      condition: circuit.conditions.at(-1)!.id,
    });
    const faults = all.hypotheses.flatMap(({ faults: [fault], second, intermittent }) =>
      fault && !second && !intermittent ? [fault] : [],
    );
    faults.forEach((fault, index) => {
      if (index % EVERY !== 0) return;
      const broken = breakCircuit(model, [fault]);
      const complaint = complaintOf(broken);
      if (!complaint || complaint.state === 'works') return;
      const key = `${complaint.function} ${complaint.condition}`;
      const session =
        sessions.get(key) ??
        new DiagnosisSession(
          circuit,
          { function: complaint.function, condition: complaint.condition },
          { hand },
        );
      sessions.set(key, session);
      const played = leadToEnd(session, complaint, (ref) => readingOf(broken, ref));
      const against = played.trail
        .map((line) => refOfId(line.split(' = ')[0]!))
        .filter((ref) => missingInstrument(hand, ref) !== null);
      expect(against).toEqual([]);
      jobs += 1;
      minutes += played.minutes;
      if (endsRight(played.assessment, fault, broken.blown.length > 0)) right += 1;
    });
  }
  minutesOf.set(name, { minutes, jobs });
  const free = minutesOf.get('as usual')!;
  process.stdout.write(
    `${name}: ${jobs} jobs, ${right} right, ${(minutes / jobs).toFixed(1)} min each; the free choice ${(free.minutes / free.jobs).toFixed(1)} min\n`,
  );
  expect(jobs).toBeGreaterThan(3);
  expect(right / jobs).toBeGreaterThanOrEqual(0.9);
});

test('a habit that puts another test first says what it costs', () => {
  const { circuit } = circuitOfPattern(PATTERNS[0]!, { load: 'Step light', kind: 'lamp', nominalVolts: 12 });
  const complaint = { function: 'failed', condition: 'on' };
  const readings = [
    { id: 'c', test: { kind: 'function' as const, ...complaint }, value: { state: 'dead' as const } },
  ];
  const given = { readings, refused: [], opened: [] };
  const free = new DiagnosisSession(circuit, complaint).assess(given);
  expect(free.habit).toBeNull();
  const hands = HANDS.map(([, hand]) => new DiagnosisSession(circuit, complaint, { hand }).assess(given));
  for (const { next, habit } of hands) {
    if (next[0]!.id === free.next[0]!.id) expect(habit).toBeNull();
  }
  expect(hands.some(({ habit }) => habit?.startsWith('By your habit'))).toBe(true);
});

test('every kind of test has its instruments, and only what is safe can be set', () => {
  const parts = circuitOfPattern(PATTERNS[0]!, { load: 'Step light', kind: 'lamp', nominalVolts: 12 }).circuit
    .parts;
  for (const [kind, needs] of Object.entries(NEEDS)) {
    for (const one of needs) {
      const ref = { kind } as never;
      expect(missingInstrument({ ...USUAL_HAND, without: [one] }, ref)).toContain('not at hand');
    }
  }
  expect(habitMinutes(USUAL_HAND, { kind: 'look', part: 'F1' }, parts)).toBe(0);
  expect(habitMinutes({ ...USUAL_HAND, fuses: 'pull' }, { kind: 'look', part: 'F1' }, parts)).toBeLessThan(0);
  expect(
    DISAGREEMENTS.filter(({ setting }) => setting !== null)
      .map(({ setting }) => setting)
      .sort(),
  ).toEqual(['exchange', 'fuses', 'isolation', 'tester']);
  expect(sideTaken({ kind: 'click', part: 'R1', condition: 'on' })).toContain('never the contact');
});
