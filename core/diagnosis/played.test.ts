/** Cases played from the first reading to what the program says, with the readings a technician would have. */
import { BACK_FED } from '../../testing/backFed';
import { demoCircuit } from '../../testing/circuits';
import { checkCircuit } from '../circuit/checkCircuit';
import { breakCircuit } from '../faults/broken';
import type { CircuitFile } from '../format/circuitSchema';
import type { Preconditions, ReadingValue, TestRef } from '../format/readingsSchema';
import { applianceFinding } from './appliance';
import type { Complaint } from './assessment';
import { testCardWords } from './card';
import { repairCost, whetherToStop, wrongRepairMinutes } from './choice/decision';
import type { TakenReading } from './evidence/readings';
import { readingOf } from './playback';
import { DiagnosisSession } from './session';
import { substitutionClaim, substitutionTables } from './verdict/substitution';

const sessions = new Map<CircuitFile, DiagnosisSession>();

function player(circuit: CircuitFile, complaint: Complaint) {
  const session = sessions.get(circuit) ?? new DiagnosisSession(circuit, complaint);
  sessions.set(circuit, session);
  const readings: TakenReading[] = [];
  const assess = () => session.assess({ readings, refused: [], opened: [] });
  const read = (test: TestRef, value: ReadingValue, more: Partial<TakenReading> = {}) => {
    readings.push({ id: `r${readings.length}`, test, value, ...more });
    const assessment = assess();
    return { assessment, sentence: assessment.effects.at(-1)!.sentence };
  };
  const works = (state: 'works' | 'dead' | 'comes-and-goes', more: Partial<TakenReading> = {}) =>
    read({ kind: 'function', ...complaint }, { state }, more);
  return { session, read, works, assess };
}

const cabinet = demoCircuit('van-proving-cabinet');
const FAN = { function: 'cabinet-fan', condition: 'fan-on' };
const at = (node: string, condition = FAN.condition): TestRef => ({
  kind: 'volts',
  node,
  against: 'bat-minus',
  condition,
});

/** The cabinet with a relay of three pins: coil and contact share the feed. */
function threePin(): CircuitFile {
  const circuit = structuredClone(cabinet);
  const pins = circuit.parts.find((part) => part.id === 'R4')!.pins as Record<string, string>;
  pins['86'] = pins['30']!;
  return circuit;
}

describe('a three-pin relay with feed 12.4 V, control 0.1 V when commanded, output 0 V', () => {
  const circuit = threePin();
  const relay = circuit.parts.find((part) => part.id === 'R4')!;
  const pins = relay.pins as Record<string, string>;

  test('points at the contact; the bridge is offered from 30 to 87 only, by a fused momentary lead', () => {
    expect(checkCircuit(circuit).ok).toBe(true);
    const { session, read, works } = player(circuit, FAN);
    works('dead');
    read(at(pins['30']!), { volts: 12.4 });
    read(at(pins['85']!), { volts: 0.1 });
    const { assessment } = read(at(pins['87']!), { volts: 0 });
    expect(assessment.suspects[0]?.parts).toContain('R4');
    const bridges = session.permitted.filter((test) => test.ref.kind === 'bridge');
    expect(bridges.map((test) => test.ref)).toEqual([{ kind: 'bridge', part: 'R4', ...FAN }]);
    const card = testCardWords(circuit, bridges[0]!.ref, null, 'relay 4');
    expect(card.instrument).toContain('Momentary lead with a fuse');
    expect(card.title).toContain('from 30 to 87');
    expect(card.steps.join(' ')).toContain('Never a coil pin');
    // No offer of any kind joins the feed to the coil pin.
    expect(session.permitted.some((test) => test.ref.kind === 'apply' && test.ref.node === pins['85'])).toBe(
      false,
    );
  });

  test('runs when bridged: contact, coil or command; silence: behind 87. Neither closes the job', () => {
    for (const state of ['works', 'dead'] as const) {
      const { read, works } = player(circuit, FAN);
      works('dead');
      read(at(pins['30']!), { volts: 12.4 });
      const { assessment, sentence } = read({ kind: 'bridge', part: 'R4', ...FAN }, { state });
      expect(sentence).toContain(state === 'works' ? 'Contact, coil or command remain' : 'behind pin 87');
      expect(assessment.verdict.strength).not.toBe('proved');
      expect(assessment.next.length).toBeGreaterThan(0);
    }
  });
});

describe('an appliance of 180 W that took two fuses of 10 A', () => {
  test('draws 15 A, marked as calculated, and the next fuse is halted until it is dealt with', () => {
    const taken = applianceFinding({ watts: 180, fusesTaken: 2, setAside: false }, 12, 10);
    expect(taken).toMatchObject({ amps: 15, tooMuch: true, halted: true });
    expect(taken.sentence).toContain('15.00 A (calculated)');
    expect(taken.sentence).toContain('itself is the suspect');
    expect(applianceFinding({ watts: 180, fusesTaken: 2, setAside: true }, 12, 10).halted).toBe(false);
  });
  test('one fuse halts too; none only advises; unknown watts are asked for', () => {
    expect(applianceFinding({ watts: 60, fusesTaken: 1, setAside: false }, 12, 10)).toMatchObject({
      tooMuch: false,
      halted: true,
    });
    expect(applianceFinding({ fusesTaken: 0, setAside: false }, 12, 10)).toMatchObject({
      amps: null,
      halted: false,
    });
    expect(applianceFinding({ fusesTaken: 0, setAside: false }, 12, null).sentence).toContain(
      'read its plate',
    );
  });
});

describe('substitution, part by vehicle', () => {
  const here: TestRef = { kind: 'substitute', part: 'R4', ...FAN };
  const there = (fitted: 'own' | 'known-good'): TestRef => ({
    kind: 'elsewhere',
    part: 'R4',
    function: FAN.function,
    fitted,
  });
  const complaint = { test: { kind: 'function' as const, ...FAN }, value: { state: 'dead' as const } };

  test('three of four cells: the missing one is named, and no more than "vehicle side" is claimed', () => {
    const [table] = substitutionTables(
      [
        complaint,
        { test: here, value: { state: 'dead' } },
        { test: there('own'), value: { state: 'works' } },
      ],
      FAN,
    );
    expect(table?.claim).toBe('vehicle side');
    expect(table?.missing).toBe('good-there');
    expect(table?.sentence).toContain('More is not shown');
    expect(table?.sentence).toContain('the known good part where such a part works');
    expect(table?.missingTest).toEqual(there('known-good'));
  });

  test('claims follow the cells, and a bad measure takes them back', () => {
    expect(substitutionClaim({}).claim).toBeNull();
    expect(substitutionClaim({ 'good-here': 'works', 'own-there': 'fails' }).claim).toBe('part');
    expect(substitutionClaim({ 'good-here': 'works', 'own-there': 'works' }).claim).toBe('contradiction');
    expect(substitutionClaim({ 'good-here': 'fails', 'own-there': 'fails' }).claim).toBe('both');
    expect(substitutionClaim({ 'good-here': 'fails', 'good-there': 'fails' }).claim).toBeNull();
    expect(substitutionClaim({ 'own-there': 'fails' }).claim).toBe('part');
  });

  test('the engine draws the same: works there takes the relay off the list, fails there puts it on top', () => {
    for (const [state, sign] of [
      ['works', -1],
      ['dead', 1],
    ] as const) {
      const { read, works } = player(cabinet, FAN);
      const before = works('dead').assessment.parts.find((part) => part.part === 'R4')!.chance;
      const { assessment } = read(there('own'), { state });
      const after = assessment.parts.find((part) => part.part === 'R4')!.chance;
      expect(Math.sign(after - before)).toBe(sign);
    }
  });
});

test('a fuse that looks whole and reads open when pulled has failed, and the conflict stays in the log', () => {
  const { read, works } = player(cabinet, FAN);
  works('dead');
  expect(read({ kind: 'look', part: 'F31' }, { look: 'whole' }).sentence).toContain('proves nothing');
  const { sentence } = read({ kind: 'continuity', part: 'F31', from: 'in', to: 'out' }, { overLimit: true });
  expect(sentence).toContain('although it looked whole: the meter decides');
  const { assessment } = read(at('f31-out'), { volts: 0 });
  expect(assessment.suspects[0]?.parts).toContain('F31');
  expect(assessment.effects).toHaveLength(4);
});

describe('a blown fuse that is fed from its load side', () => {
  const complaint = { function: 'jacket', condition: 'run-on' };
  const off = 'run-off';
  const point = (node: string, pulled?: string): TestRef => ({
    kind: 'volts',
    node,
    against: 'minus',
    condition: off,
    ...(pulled ? { pulled } : {}),
  });

  test('is not passed by two live ends, and is found', () => {
    expect(checkCircuit(BACK_FED).ok).toBe(true);
    const { session, read, works } = player(BACK_FED, complaint);
    const broken = breakCircuit(session.model, [{ part: 'J1', mode: 'open' }]);
    works('dead');
    read(point('feed'), readingOf(broken, point('feed')));
    const both = read(point('fused'), readingOf(broken, point('fused')));
    expect(both.sentence).toContain('Both ends of Fuse J1 (15 A) are live');
    expect(both.sentence).toContain('pull it and read both holes');
    expect(both.assessment.parts.find((part) => part.part === 'J1')?.standing).not.toBe('cleared');
    const pulled = read(point('fused', 'J1'), readingOf(broken, point('fused', 'J1')));
    expect(pulled.sentence).toContain('second feed');
    const { assessment } = read(
      { kind: 'volts', node: 'fused', against: 'minus', condition: 'run-on' },
      readingOf(broken, { kind: 'volts', node: 'fused', against: 'minus', condition: 'run-on' }),
    );
    expect(assessment.suspects[0]?.parts).toContain('J1');
  });
});

describe('sentences of the subtle cases', () => {
  test('neither end of a fuse live: key and upstream come before the fuse', () => {
    const { read } = player(cabinet, FAN);
    read(at('bay-bus'), { volts: 0.02 });
    expect(read(at('f31-out'), { volts: 0 }).sentence).toContain('come before the fuse');
  });
  test('one end live: open, or nothing gets through; the other way round something feeds it backwards', () => {
    const { read } = player(cabinet, FAN);
    read(at('bay-bus'), { volts: 12.3 });
    expect(read(at('f31-out'), { volts: 0 }).sentence).toContain('Only the feed side');
    const other = player(cabinet, FAN);
    other.read(at('bay-bus'), { volts: 0 });
    expect(other.read(at('f31-out'), { volts: 12.3 }).sentence).toContain('feeds it backwards');
  });
  test('millivolts on a floating wire are nothing; 40 mV is not 40 V', () => {
    const { read } = player(cabinet, FAN);
    expect(read(at('r4-87'), { volts: 0.04 }).sentence).toContain('a few millivolts are nothing');
  });
  test('a control pin that does not fall points at the command, not at the relay', () => {
    const { read } = player(cabinet, FAN);
    const control = (cabinet.parts.find((part) => part.id === 'R4')!.pins as Record<string, string>)['85']!;
    expect(read(at(control), { volts: 12.3 }).sentence).toContain(
      'look at the command and its wire, not at the relay',
    );
  });
  test('a click with nothing at 87 names the contact', () => {
    const { read } = player(cabinet, FAN);
    read(at('r4-87'), { volts: 0 });
    expect(read({ kind: 'click', part: 'R4', condition: 'fan-on' }, { click: 'clicks' }).sentence).toContain(
      'nothing comes out at 87',
    );
  });
  test('ohms in place pass nothing', () => {
    const { read } = player(cabinet, FAN);
    const ref: TestRef = { kind: 'ohms', node: 'r4-87', against: 'bat-minus', condition: 'fan-on' };
    const { assessment, sentence } = read(ref, { ohms: 3 });
    expect(sentence).toContain('no part is passed by this');
    expect(assessment.verdict.strength).not.toBe('proved');
  });
  test('battery limits follow the nominal voltage and what the engine does', () => {
    const twentyFour = structuredClone(cabinet);
    twentyFour.nominalVolts = 24;
    const battery: TestRef = { kind: 'battery', state: 'rest' };
    const rested = (volts: number) => player(cabinet, FAN).read(battery, { volts }).sentence;
    expect(rested(12.6)).toContain('well charged. In order at rest');
    expect(rested(12.2)).toContain('about half charged. Charge it before it is judged');
    expect(rested(12.1)).not.toContain('n order');
    expect(rested(25.3)).toContain('twice what a 12 V system has. Stop: what system is this?');
    expect(rested(6.2)).toContain('half of what a 12 V system has');
    expect(rested(75)).toContain('more than 60 V. Stop');
    expect(player(twentyFour, FAN).read(battery, { volts: 23 }).sentence).toContain('on this 24 V system');
    expect(player(twentyFour, FAN).read(battery, { volts: 12.5 }).sentence).toContain('half of what a 24 V');
    const crank: TestRef = { kind: 'battery', state: 'crank' };
    expect(player(cabinet, FAN).read(crank, { volts: 10.4 }).sentence).toContain('in order');
    expect(player(cabinet, FAN).read(crank, { volts: 8.9 }).sentence).toContain('below 9.60 V');
  });
  test('millivolts over a fuse become amperes with their band, and nothing below the resolution', () => {
    const { read } = player(cabinet, FAN);
    const ref: TestRef = { kind: 'fuse-drop', part: 'F31', condition: 'fan-on' };
    expect(read(ref, { volts: 0.0188 }).sentence).toMatch(/about 4\.\d+ A \(/);
    expect(read(ref, { volts: 0 }).sentence).toContain('proves nothing');
  });
  test.each([
    ['tester', 'the tester was not proved first'],
    ['reference', 'the point measured against was not proved'],
    ['setUp', 'key and switches were not seen'],
  ] as const)('without its precondition "%s" a reading is provisional and weighs less', (missing, words) => {
    const sure: Preconditions = { tester: true, reference: true, setUp: true, [missing]: false };
    const chance = (more: Partial<TakenReading>) => {
      const { read, works } = player(cabinet, FAN);
      works('dead');
      read(at('bay-bus'), { volts: 12.3 });
      const { assessment, sentence } = read(at('f31-out'), { volts: 0 }, more);
      return { sentence, f31: assessment.parts.find((part) => part.part === 'F31')!.chance };
    };
    const unsure = chance({ sure });
    expect(unsure.sentence).toContain(`Provisional: ${words}`);
    expect(unsure.f31).toBeLessThan(chance({}).f31);
  });
});

describe('a fault that comes and goes', () => {
  test('good readings while it works clear nothing; while it fails they do', () => {
    const { read, works } = player(cabinet, FAN);
    works('dead');
    works('works');
    const working = read(at('c12-cab'), { volts: 12.1 }).assessment;
    const left = (of: typeof working) => of.parts.find((part) => part.part === 'C12')!.remaining.join('; ');
    expect(left(working)).toContain('comes and goes');
    works('dead');
    read(at('c12-cab'), { volts: 12.4 });
    const failing = read(at('m1-plus'), { volts: 12.35 }).assessment;
    // Open for good it is not; that it came and went and the failure was misread is what a single look cannot exclude.
    expect(left(failing)).not.toMatch(/open(;|$)/);
    expect(failing.suspects[0]?.forms[0]?.intermittent).toBe(true);
  });
  test('says that measuring finds nothing while it works, and asks whether it fails after something was moved', () => {
    const { read, works, assess } = player(cabinet, FAN);
    works('dead');
    works('works');
    works('dead');
    works('works');
    expect(assess().suspects[0]?.forms[0]?.intermittent).toBe(true);
    const moved = read({ kind: 'wiggle', part: 'C12', ...FAN }, { wiggle: 'changes' }).assessment;
    expect(moved.askFailsNow).toBe(true);
    expect(moved.suspects[0]?.parts).toContain('C12');
  });
});

test('two faults: after the first is mended and the complaint remains, the search goes on with the rest', () => {
  const before = { before: ['F31'] };
  const { session, read, works } = player(cabinet, FAN);
  const both = breakCircuit(session.model, [
    { part: 'F31', mode: 'open' },
    { part: 'C12', mode: 'open' },
  ]);
  const one = breakCircuit(session.model, [{ part: 'C12', mode: 'open' }]);
  works('dead', before);
  for (const node of ['bay-bus', 'f31-out', 'r4-87']) read(at(node), readingOf(both, at(node)), before);
  const again = works('dead').assessment;
  expect(again.verdict.suspect).not.toBe('F31');
  expect(again.parts.find((part) => part.part === 'F31')!.chance).toBeLessThan(0.2);
  for (const node of ['c12-box', 'c12-cab']) read(at(node), readingOf(one, at(node)));
  const { assessment } = read({ kind: 'lamp', node: 'c12-cab', condition: FAN.condition }, { lamp: 'off' });
  expect(assessment.suspects[0]?.parts).toContain('C12');
  expect(assessment.contradiction).toBeNull();
});

test('refusing the only test between two suspects merges them and says so', () => {
  const session = new DiagnosisSession(cabinet, FAN);
  const readings: TakenReading[] = [
    { id: 'c', test: { kind: 'function', ...FAN }, value: { state: 'dead' } },
  ];
  expect(session.assess({ readings, refused: [], opened: [] }).mergedByRefusal).toBeNull();
  const near = session.permitted
    .filter(
      (test) =>
        'node' in test.ref &&
        (test.ref.node === 'c12-cab' || ('against' in test.ref && test.ref.against === 'c12-cab')),
    )
    .map((test) => test.id);
  expect(near.length).toBeGreaterThan(2);
  const { mergedByRefusal } = session.assess({ readings, refused: near, opened: [] });
  expect(mergedByRefusal).toContain('cannot be told apart');
  expect(mergedByRefusal).toContain('Plug C12');
});

describe('when to stop', () => {
  const base = {
    proved: false,
    title: 'Plug C12',
    chance: 0.97,
    likely: 0.95,
    cost: { minutes: 2, price: 1, harm: 4 },
    confirmingMinutes: 0.7,
    decidesAlone: false,
    anythingToLearn: true,
    best: { minutes: 1, gainBits: 0.5 },
    doubtBits: 1,
    mayBlowAgain: false,
    isSoundNow: false,
  };
  test('a cheap repair is tried, a dear one is confirmed first', () => {
    // 3 % of 37 minutes is less than the test takes; 3 % of 180 is more.
    expect(whetherToStop({ ...base, confirmingMinutes: 1.2 })?.reason).toBe('repair-is-cheaper');
    expect(whetherToStop({ ...base, cost: { minutes: 60, price: 80, harm: 10 } })).toBeNull();
  });
  test('never below likely, always when proved, and when nothing tells more', () => {
    expect(whetherToStop({ ...base, chance: 0.9, confirmingMinutes: 50 })).toBeNull();
    expect(whetherToStop({ ...base, proved: true })?.reason).toBe('proved');
    expect(
      whetherToStop({ ...base, chance: 0.5, confirmingMinutes: null, anythingToLearn: false })?.reason,
    ).toBe('nothing-to-learn');
  });
  test('below likely too when the best test left costs more than its hundredths of a bit are worth', () => {
    const open = { ...base, chance: 0.6, confirmingMinutes: null };
    // A bit is worth two wrong repairs of 37 minutes: 0.05 bits are worth 3.7 minutes.
    expect(whetherToStop({ ...open, best: { minutes: 3, gainBits: 0.05 } })).toBeNull();
    expect(whetherToStop({ ...open, best: { minutes: 4, gainBits: 0.05 } })?.reason).toBe('not-worth-it');
  });
  test('a test that takes a few hundredths of the doubt away is one of many that lead nowhere', () => {
    // A dear repair makes a bit worth 360 minutes, so that minutes alone would never end it.
    const dear = { ...base, confirmingMinutes: null, cost: { minutes: 60, price: 80, harm: 10 } };
    const best = { minutes: 0.7, gainBits: 0.05 };
    expect(whetherToStop({ ...dear, chance: 0.6, best, doubtBits: 1.2 })).toBeNull();
    expect(whetherToStop({ ...dear, chance: 0.6, best, doubtBits: 1.3 })?.reason).toBe('not-worth-it');
    // Once something is likely it takes a fifth of what is left.
    expect(whetherToStop({ ...dear, best, doubtBits: 0.24 })).toBeNull();
    expect(whetherToStop({ ...dear, best, doubtBits: 0.26 })?.reason).toBe('not-worth-it');
  });
  test('no new fuse is tried while what opened the old one may be there', () => {
    const fuse = { ...base, mayBlowAgain: true };
    expect(whetherToStop({ ...fuse, confirmingMinutes: 50 })).toBeNull();
    const end = whetherToStop({ ...fuse, best: { minutes: 30, gainBits: 0.01 } });
    expect(end?.reason).toBe('nothing-to-learn');
    expect(end?.sentence).toContain('before a new one is fitted');
  });
  test('while it works nothing can be measured: wait until it fails', () => {
    const away = whetherToStop({
      ...base,
      chance: 0.5,
      confirmingMinutes: null,
      anythingToLearn: false,
      isSoundNow: true,
    });
    expect(away?.reason).toBe('works-now');
    expect(away?.sentence).toContain('until it fails again');
  });
  test('a group costs what its cheapest repair costs', () => {
    const { session } = player(cabinet, FAN);
    expect(repairCost(session.model, ['C12', 'M1'])).toEqual(repairCost(session.model, ['C12']));
    expect(wrongRepairMinutes(repairCost(session.model, ['M1']))).toBeGreaterThan(
      wrongRepairMinutes(repairCost(session.model, ['F31'])),
    );
  });
});

test('no test puts a filament lamp or a feed on what must not be loaded, or any probe on what must not be touched', () => {
  const circuit = structuredClone(cabinet);
  circuit.nodes.find((node) => node.id === 'r4-87')!.probe = 'do-not-probe';
  circuit.nodes.find((node) => node.id === 'c12-box')!.probe = 'no-load';
  const session = new DiagnosisSession(circuit, FAN);
  const offers = session.permitted.map(({ id }) => id);
  expect(
    offers.some(
      (id) => /^(volts|lamp|led|ohms|apply)\|(plus\||earth\|)?r4-87/.test(id) || id.includes('|r4-87|'),
    ),
  ).toBe(false);
  expect(offers).toContain('led|c12-box|fan-on');
  expect(offers.some((id) => id.startsWith('lamp|c12-box'))).toBe(false);
});
