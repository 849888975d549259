/**
 * The gate, for every kind of test, every flag and every voltage: what may be done never contains what the rules of the
 * trade forbid, written here once more and apart from the program; and what is forbidden says why.
 */
import { demoCircuit } from '../../testing/circuits';
import { breakCircuit } from '../faults';
import { type CircuitFile, type CircuitPart, type Hand, type TestRef, USUAL_HAND } from '../format';
import { CircuitModel } from '../network';
import { circuitOfPattern, PATTERNS } from '../notation/patterns';
import { testCardWords } from './card';
import { leadToEnd } from './followEngine';
import { KINDS, kindOf, testId } from './kinds';
import { readingOf } from './playback';
import { DiagnosisSession } from './session';
import { testsFor } from './tests';

const FAN = { function: 'cabinet-fan', condition: 'fan-on' };

interface Flag {
  readonly name: string;
  readonly put: (circuit: CircuitFile) => void;
  /** Whether the flag forbids a test. */
  readonly forbids: (ref: TestRef) => boolean;
}

const part = (circuit: CircuitFile, id: string): CircuitPart => circuit.parts.find((one) => one.id === id)!;
const node = (circuit: CircuitFile, id: string) => circuit.nodes.find((one) => one.id === id)!;
/** Points that a test puts something on. */
const pointsOf = (ref: TestRef): string[] =>
  ref.kind === 'volts' || ref.kind === 'ohms'
    ? [ref.node, ref.against]
    : ref.kind === 'lamp' || ref.kind === 'led' || ref.kind === 'apply'
      ? [ref.node]
      : [];
const LOADS = ['lamp', 'apply', 'ohms'];
const WORKS_ON = ['substitute', 'elsewhere', 'bridge', 'wiggle'];
const BEHIND = ['lamp-in-fuse', 'lamp-current', 'ohms-behind'];
const of = (ref: TestRef) => ('part' in ref ? ref.part : '');

const FLAGS: readonly Flag[] = [
  { name: 'no flag', put: () => undefined, forbids: () => false },
  {
    name: 'a point that must not be probed',
    put: (circuit) => {
      node(circuit, 'r4-87').probe = 'do-not-probe';
    },
    forbids: (ref) => pointsOf(ref).includes('r4-87') || (BEHIND.includes(ref.kind) && of(ref) === 'F31'),
  },
  {
    name: 'a line of a module',
    put: (circuit) => {
      node(circuit, 'c12-box').probe = 'no-load';
    },
    forbids: (ref) => LOADS.includes(ref.kind) && pointsOf(ref).includes('c12-box'),
  },
  ...(['M1', 'R4', 'C12', 'F31', 'S7'] as const).map(
    (id): Flag => ({
      name: `${id} serves a safety function`,
      put: (circuit) => {
        part(circuit, id).safetyCritical = true;
      },
      forbids: (ref) =>
        (WORKS_ON.includes(ref.kind) && of(ref) === id) ||
        ('unplugged' in ref && ref.unplugged === id) ||
        (BEHIND.includes(ref.kind) &&
          (of(ref) === id || (['M1', 'C12'].includes(id) && ['F31', 'R4'].includes(of(ref))))) ||
        (ref.kind === 'bridge' && ['M1', 'C12'].includes(id) && of(ref) === 'R4') ||
        (id === 'M1' &&
          (ref.kind === 'apply' || (ref.kind === 'lamp' && ['m1-plus', 'm1-minus'].includes(ref.node)))),
    }),
  ),
  {
    name: 'the function is a safety function',
    put: (circuit) => {
      circuit.functions.find(({ id }) => id === FAN.function)!.safetyCritical = true;
    },
    forbids: (ref) =>
      ref.kind === 'apply' || (['bridge', ...BEHIND].includes(ref.kind) && ['R4', 'F31'].includes(of(ref))),
  },
  {
    name: 'a printed name that suggests a safety function, until somebody answers',
    put: (circuit) => {
      part(circuit, 'M1').name = 'ABS pump';
    },
    forbids: (ref) => ref.kind === 'apply' || (BEHIND.includes(ref.kind) && of(ref) === 'F31'),
  },
  {
    name: 'the same name, and somebody said that it is none',
    put: (circuit) => {
      Object.assign(part(circuit, 'M1'), { name: 'ABS pump', safetyCritical: false });
    },
    forbids: () => false,
  },
  {
    name: 'a relay that is soldered in',
    put: (circuit) => {
      part(circuit, 'R4').fixed = true;
    },
    forbids: (ref) =>
      of(ref) === 'R4' &&
      ['substitute', 'elsewhere', 'bridge', 'ohms-behind', 'continuity'].includes(ref.kind),
  },
];

const VOLTS = [6, 12, 24, 36, 48];
const HANDS: readonly Hand[] = [[12], [24], [12, 24], []].map((lampVolts) => ({ ...USUAL_HAND, lampVolts }));

/** What volts and lamps at hand forbid. */
function byVolts(ref: TestRef, nominal: number, { lampVolts }: Hand): boolean {
  const lampTest = ['lamp', 'lamp-in-fuse', 'lamp-current'].includes(ref.kind);
  const fused = ['bridge', 'apply', 'lamp-in-fuse', 'lamp-current'].includes(ref.kind);
  return (
    (lampTest && !lampVolts.includes(nominal)) ||
    (fused && nominal > 32) ||
    (ref.kind === 'led' && nominal > 32)
  );
}

const COMPLAINTS = [
  { name: 'dead', complaint: FAN, unbidden: false },
  { name: 'runs unbidden', complaint: { ...FAN, condition: 'all-off' }, unbidden: true },
] as const;

const ROWS = FLAGS.flatMap((flag) => COMPLAINTS.map((complaint) => ({ flag, ...complaint })));

test.each(ROWS)(
  '$flag.name, $name: on every voltage and with every lamp',
  ({ flag, complaint, unbidden }) => {
    for (const nominal of VOLTS) {
      const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
      Object.assign(circuit, { nominalVolts: nominal });
      flag.put(circuit);
      const model = new CircuitModel(circuit);
      for (const hand of HANDS) {
        const { permitted, barred } = testsFor(model, complaint, hand);
        const wrong = permitted
          .map(({ ref }) => ref)
          .filter(
            (ref) =>
              flag.forbids(ref) ||
              byVolts(ref, nominal, hand) ||
              (unbidden && ['substitute', 'elsewhere', 'bridge', 'apply'].includes(ref.kind)),
          );
        expect({ nominal, hand, wrong: wrong.map(testId) }).toEqual({ nominal, hand, wrong: [] });
        for (const { reasons } of barred) expect(reasons.every((words) => words.endsWith('.'))).toBe(true);
        // Nothing is in both lists, and what harms nothing stays.
        const open = new Set(permitted.map(({ id }) => id));
        expect(barred.filter(({ id }) => open.has(id))).toEqual([]);
        expect([...open].some((id) => id.startsWith('volts|'))).toBe(true);
      }
    }
  },
);

test('every kind of test goes through the gate, and each is offered somewhere', () => {
  const circuits = [
    ...(['van-proving-cabinet', 'van-hatch-fridge', 'trailer-lamps'] as const).map((name) =>
      demoCircuit(name),
    ),
    ...PATTERNS.map(
      (pattern) => circuitOfPattern(pattern, { load: 'Step light', kind: 'lamp', nominalVolts: 12 }).circuit,
    ),
  ];
  const kinds = new Set(
    circuits.flatMap((circuit) => {
      const model = new CircuitModel(circuit);
      return circuit.functions.flatMap(({ id }) => {
        const on = model.conditions.find((one) => model.expectedOn(model.function(id), one.id));
        if (!on) return [];
        const { permitted, barred } = testsFor(model, { function: id, condition: on.id });
        return [...permitted, ...barred].map(({ ref }) => ref.kind);
      });
    }),
  );
  expect([...kinds].sort()).toEqual(Object.keys(KINDS).sort());
});

test('a walk over what is offered never meets what is forbidden, and a card of a forbidden test is not made', () => {
  const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
  part(circuit, 'M1').safetyCritical = true;
  node(circuit, 'c12-box').probe = 'do-not-probe';
  const session = new DiagnosisSession(circuit, FAN);
  const forbidden = new Set(session.barred.map(({ id }) => id));
  expect(forbidden.size).toBeGreaterThan(20);
  const model = new CircuitModel(circuit);
  for (const fault of [
    { part: 'F31', mode: 'open' },
    { part: 'R4', mode: 'contact-open' },
    { part: 'G4', mode: 'open' },
    { part: 'W33', mode: 'short-to-earth' },
  ] as const) {
    if (!circuit.parts.some(({ id }) => id === fault.part)) continue;
    const broken = breakCircuit(model, [fault]);
    const { trail } = leadToEnd(session, { ...FAN, state: 'dead' }, (ref) => readingOf(broken, ref));
    expect(trail.map((line) => line.split(' = ')[0]!).filter((id) => forbidden.has(id))).toEqual([]);
  }
  const given = { readings: [], refused: [], opened: [] };
  for (const id of [...forbidden].slice(0, 20)) expect(session.card(id, given)).toBeNull();
});

test.each(['sparks', 'motion', 'crank', 'safety-circuit'])(
  '“%s” answered with “not now”: all that is asked about it waits, says why, and nothing else does',
  (id) => {
    const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
    part(circuit, 'W33').safetyCritical = true;
    const model = new CircuitModel(circuit);
    const free = testsFor(model, FAN).permitted;
    const waits = testsFor(model, FAN, USUAL_HAND, [id]);
    const asks = (ref: TestRef) =>
      testCardWords(circuit, ref, null, 'it').asks.some(({ caution }) => caution === id);
    const expected = free.filter(({ ref }) => asks(ref)).map((one) => one.id);
    expect(expected.length).toBeGreaterThan(0);
    const left = new Set(waits.permitted.map((one) => one.id));
    expect(free.filter((one) => !left.has(one.id)).map((one) => one.id)).toEqual(expected);
    for (const one of expected) {
      const reasons = waits.barred.find((barred) => barred.id === one)!.reasons;
      expect(reasons.join(' ')).toContain('“Not now” was the answer');
    }
  },
);

test('what only warns is not asked: a fan on its own switch is; a bridge past it is asked', () => {
  const circuit = demoCircuit('van-proving-cabinet');
  const asked = (ref: TestRef) => testCardWords(circuit, ref, null, 'it').asks.map(({ caution }) => caution);
  expect(asked({ kind: 'function', ...FAN })).toEqual([]);
  expect(asked({ kind: 'bridge', part: 'R4', ...FAN })).toEqual(['motion', 'sparks']);
});

test('more than 60 V read stops the job: no proposal, no card, and why', () => {
  const session = new DiagnosisSession(demoCircuit('van-proving-cabinet'), FAN);
  const readings = [
    { id: 'c', test: { kind: 'function' as const, ...FAN }, value: { state: 'dead' as const } },
    { id: 'r', test: { kind: 'battery' as const, state: 'rest' as const }, value: { volts: 96 } },
  ];
  const given = { readings, refused: [], opened: [] };
  const { next, stop } = session.assess(given);
  expect(next).toEqual([]);
  expect(stop).toMatchObject({ reason: 'forbidden' });
  expect(stop!.sentence).toContain('60 V');
  expect(session.card(session.permitted[0]!.id, given)).toBeNull();
});

test('each card says what its deed meets, at its moment', () => {
  const circuit = demoCircuit('van-proving-cabinet');
  const said = (ref: TestRef) => testCardWords(circuit, ref, null, 'it').cautions.join(' ');
  const on = { part: 'R4', function: FAN.function, condition: FAN.condition };
  // The fan turns by itself; a fuse is pulled with its load off; a battery may spark.
  expect(said({ kind: 'bridge', ...on })).toMatch(/hands, clothes and leads clear/);
  expect(said({ kind: 'bridge', ...on })).toMatch(/Fused leads only/);
  expect(said({ kind: 'look', part: 'F31' })).toMatch(/Load off before it is pulled/);
  expect(said({ kind: 'battery', state: 'crank' })).toMatch(/It may spark/);
  expect(said({ kind: 'battery', state: 'crank' })).toMatch(/Out of gear/);
  expect(said({ kind: 'lamp-in-fuse', part: 'F31', condition: FAN.condition })).toMatch(/gets hot/);
  const model = new CircuitModel(circuit);
  for (const { ref } of testsFor(model, FAN).permitted) {
    const { pulls = [], ohms = false } = kindOf(ref).deed(model, ref);
    if (pulls.length > 0) expect(said(ref)).toContain('Load off');
    if (ohms) expect(said(ref)).toContain('Never ohms on a live circuit');
  }
});

test('what is made for seconds has its limit on every card that has it on, and on no other', () => {
  const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
  circuit.functions.find(({ id }) => id === FAN.function)!.name = 'Winch';
  const at = (condition: string) =>
    testCardWords(
      circuit,
      { kind: 'volts', node: 'm1-plus', against: circuit.reference, condition },
      null,
      'it',
    );
  expect(at('fan-on').onSeconds).toBe(10);
  expect(at('fan-on').cautions.join(' ')).toContain('On for 10 s at most');
  expect(at('all-off').onSeconds).toBeNull();
  expect(
    testCardWords(demoCircuit('van-proving-cabinet'), { kind: 'look', part: 'F31' }, null, '').onSeconds,
  ).toBeNull();
});
