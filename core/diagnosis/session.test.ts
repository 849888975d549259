import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { breakCircuit } from '../faults/broken';
import type { ReadingValue, TestRef } from '../format/readingsSchema';
import { CircuitModel } from '../network/model';
import type { TakenReading } from './evidence/readings';
import { NOT_IN_MAP } from './hypotheses/hypotheses';
import { readingOf } from './playback';
import { functionRuns } from './run';
import { DiagnosisSession } from './session';
import { requiredProofs } from './verdict/proofs';

const session = new DiagnosisSession(demoCircuit('van-proving-cabinet'), {
  function: 'cabinet-fan',
  condition: 'fan-on',
});
const NOTHING = { refused: [], opened: [] };

function taken(test: TestRef, value: ReadingValue, id = `r${Math.random()}`): TakenReading {
  return { id, test, value };
}

const volts = (node: string, value: number, condition = 'fan-on') =>
  taken({ kind: 'volts', node, against: 'bat-minus', condition }, { volts: value });
const seen = (functionId: string, condition: string, state: 'works' | 'dead' | 'weak') =>
  taken({ kind: 'function', function: functionId, condition }, { state });
const FAN_DEAD = seen('cabinet-fan', 'fan-on', 'dead');

function assess(...readings: TakenReading[]) {
  return session.assess({ readings, ...NOTHING });
}

describe('what still works clears what it shares', () => {
  const { parts } = assess(FAN_DEAD, seen('left-shelf-light', 'lights-on', 'works'));
  const standing = (id: string) => parts.find((part) => part.part === id)?.standing;

  test('shared feed and earth are cleared of an open; fuse, relay and plug of the fan are not', () => {
    expect(standing('MF2')).toBe('cleared');
    // A bad seat would have left the fan weak, not dead; blown or missing remains.
    expect(standing('F31')).toBe('partly');
    // A relay stuck closed would have run the fan; its other faults remain.
    expect(standing('R4')).toBe('partly');
    expect(standing('C12')).not.toBe('cleared');
  });

  test('a resistance that only a heavier load shows is not cleared by a small lamp', () => {
    const weak = assess(
      seen('cabinet-fan', 'fan-on', 'weak'),
      seen('left-shelf-light', 'lights-on', 'works'),
    );
    const earth = weak.parts.find((part) => part.part === 'G4');
    expect(earth?.standing).toBe('partly');
    expect(earth?.remaining.join()).toContain('high resistance');
    expect(earth?.remaining.join()).not.toContain(': open');
  });
});

describe('chances', () => {
  test('sum to one, groups and hypotheses alike', () => {
    const { suspects } = session.assess({ readings: [FAN_DEAD], ...NOTHING });
    const sum = suspects.reduce((total, one) => total + one.chance, 0);
    expect(sum).toBeGreaterThan(0.97);
    expect(sum).toBeLessThanOrEqual(1 + 1e-9);
  });

  test('no single reading makes a suspect impossible', () => {
    const { parts: after } = assess(FAN_DEAD, volts('r4-87', 12.3));
    expect(after.find((one) => one.part === 'F31')?.chance).toBeGreaterThan(1e-6);
  });

  test('one reading is never a proof', () => {
    for (const node of ['f31-out', 'r4-87', 'c12-box', 'm1-plus']) {
      for (const value of [0, 12.3]) expect(assess(volts(node, value)).verdict.strength).not.toBe('proved');
    }
  });

  test('readings without tester proof weigh less and say that they are provisional', () => {
    const sure = assess(FAN_DEAD, volts('f31-out', 0));
    const unsure = assess(FAN_DEAD, {
      ...volts('f31-out', 0),
      sure: { tester: false, reference: true, setUp: true },
    });
    const chance = (result: typeof sure) =>
      result.suspects.find((one) => one.parts.includes('F31'))?.chance ?? 0;
    expect(chance(unsure)).toBeLessThan(chance(sure));
    expect(unsure.effects[1]?.sentence).toContain('Provisional');
  });
});

describe('next test', () => {
  test('never repeats a test, never offers a refused one', () => {
    const before = assess(FAN_DEAD);
    const refused = before.next[0]!.id;
    const after = session.assess({ readings: [FAN_DEAD], refused: [refused], opened: [] });
    expect(after.next.some((one) => one.id === refused)).toBe(false);
    expect(after.next.some((one) => one.id === 'function|cabinet-fan|fan-on')).toBe(false);
  });

  test('every proposal says what each result would mean, and the chances of the results sum to about one', () => {
    for (const proposal of assess(FAN_DEAD).next) {
      expect(proposal.why).toMatch(/min/);
      expect(proposal.outcomes.some((one) => one.asExpected)).toBe(true);
      const sum = proposal.outcomes.reduce((total, one) => total + one.chance, 0);
      expect(sum).toBeGreaterThan(0.9);
      expect(sum).toBeLessThan(1.001);
      expect(proposal.outcomes.every((one) => one.means.length > 10)).toBe(true);
    }
  });

  test('points that must not be probed or loaded are never offered so', () => {
    const circuit = structuredClone(demoCircuit('van-proving-cabinet'));
    circuit.nodes.find((node) => node.id === 'r4-87')!.probe = 'do-not-probe';
    circuit.nodes.find((node) => node.id === 'f31-out')!.probe = 'no-load';
    const barred = new DiagnosisSession(circuit, session.complaint);
    expect(barred.card('volts|r4-87|bat-minus|fan-on', { readings: [], ...NOTHING })).toBeNull();
    expect(barred.card('lamp|f31-out|fan-on', { readings: [], ...NOTHING })).toBeNull();
    expect(barred.card('volts|f31-out|bat-minus|fan-on', { readings: [], ...NOTHING })).not.toBeNull();
  });
});

describe('sentences', () => {
  const sentence = (...readings: TakenReading[]) => assess(...readings).effects.at(-1)!;

  test('a minus sign says that the leads were the wrong way round', () => {
    expect(sentence(volts('f31-out', -12.4)).sentence).toContain('leads were the wrong way round');
  });
  test('millivolts are not volts', () => {
    expect(sentence(volts('f31-out', 0.04)).sentence).toMatch(/40 mV.*millivolts are nothing/);
  });
  test('full volts without load prove no joint', () => {
    expect(sentence(volts('f31-out', 12.6, 'all-off')).sentence).toContain(
      'without load this does not prove',
    );
  });
  test('a dead feed sends one upstream before anything is condemned', () => {
    expect(sentence(volts('f31-out', 0.5)).sentence).toContain('everything upstream');
  });
  test('a lifted return says so', () => {
    expect(sentence(volts('m1-minus', 7)).sentence).toContain('the way from here to earth is open or poor');
  });
  test('a reading that fits nothing before it is called out', () => {
    const dead = breakCircuit(session.model, [{ part: 'W32', mode: 'open' }]);
    const refs = ['f31-out', 'r4-87', 'c12-box'].map(
      (node): TestRef => ({ kind: 'volts', node, against: 'bat-minus', condition: 'fan-on' }),
    );
    const readings = [FAN_DEAD, ...refs.map((ref) => taken(ref, readingOf(dead, ref)))];
    expect(assess(...readings).effects.some((one) => one.unexpected)).toBe(false);
    const odd = sentence(...readings, volts('c12-cab', 12.3));
    expect(odd.unexpected).toBe(true);
    expect(odd.sentence).toContain('repeat it');
  });
});

describe('readings that do not fit together', () => {
  // The plug C12 is open: what the fan's circuit shows, and one reading beside the point.
  const broken = breakCircuit(session.model, [{ part: 'C12', mode: 'open' }]);
  const truth = (node: string, condition = 'fan-on') => {
    const test: TestRef = { kind: 'volts', node, against: 'bat-minus', condition };
    return taken(test, readingOf(broken, test), node);
  };
  const slipped = { ...volts('bay-bus', 0), id: 'slip' };
  const others = [FAN_DEAD, truth('f31-out'), truth('r4-87'), truth('c12-box'), truth('c12-cab')];

  test('nothing is called odd while all fit', () => {
    expect(assess(...others).contradiction).toBeNull();
    expect(assess().contradiction).toBeNull();
  });

  test('the slip is named and its repeat proposed, wherever in the order it came', () => {
    for (const at of [0, 2, 5]) {
      const readings = [...others.slice(0, at), slipped, ...others.slice(at)];
      const { contradiction, next, verdict } = assess(...readings);
      expect(contradiction?.reading).toBe('slip');
      expect(contradiction?.sentence).toContain('Repeat it');
      if (verdict.strength !== 'proved') {
        expect(next[0]?.id).toBe('volts|bay-bus|bat-minus|fan-on');
        expect(next[0]?.why).toContain('disagrees with the others');
      }
    }
  });

  test('once repeated it is not proposed again, and the map itself is doubted when it stays', () => {
    const again = { ...slipped, id: 'again' };
    const { contradiction, next } = assess(...others, slipped, again);
    expect(contradiction?.sentence).toMatch(/this map/);
    expect(next.some((one) => one.id === 'volts|bay-bus|bat-minus|fan-on')).toBe(false);
  });

  test('taken away by a correction, nothing is odd any more', () => {
    expect(assess(...others, { ...truth('bay-bus'), id: 'right' }).contradiction).toBeNull();
  });
});

describe('a fault outside the map', () => {
  test('leads once no part explains the readings', () => {
    const readings = [
      FAN_DEAD,
      volts('f31-out', 6),
      volts('r4-87', 9),
      volts('c12-box', 3),
      volts('m1-plus', 11),
      volts('bay-bus', 4.5),
    ];
    const { suspects, verdict } = assess(...readings);
    expect(suspects[0]?.id).toBe(NOT_IN_MAP);
    expect(verdict.sentence).toContain('No part of the map');
    expect(verdict.strength).not.toBe('proved');
  });
});

describe('runs and proofs', () => {
  test.each(DEMO_CIRCUITS)('%s: every run leads from the source’s plus to its minus', (name) => {
    const model = new CircuitModel(demoCircuit(name));
    const battery = model.circuit.parts.find((part) => part.kind === 'battery')!;
    const pins = battery.pins as { plus: string; minus: string };
    for (const one of model.circuit.functions) {
      for (const condition of model.conditions) {
        if (!model.expectedOn(one, condition.id)) continue;
        for (const run of functionRuns(model, one.id, condition.id)) {
          expect(run.stops[0]).toBe(pins.plus);
          expect(run.stops.at(-1)).toBe(pins.minus);
          expect(run.stops).toHaveLength(run.stations.length + 1);
        }
      }
    }
  });

  test('the fan’s run names its relay, and the relay’s control run comes with it', () => {
    const [main, control] = functionRuns(session.model, 'cabinet-fan', 'fan-on');
    expect(main?.stations.map((one) => one.part)).toEqual([
      'MF2',
      'W2',
      'F31',
      'R4',
      'W32',
      'C12',
      'W33',
      'M1',
      'W34',
      'SP2',
      'W35',
      'G4',
      'G0',
      'E0',
    ]);
    expect(control?.stations.map((one) => one.part)).toContain('S7');
  });

  test('what must be proved: the complaint, what shares the touched part, and off with everything off', () => {
    const proofs = requiredProofs(session.model, session.complaint, ['SP2']);
    expect(proofs[0]).toMatchObject({ function: 'cabinet-fan', condition: 'fan-on', expected: 'works' });
    expect(proofs.map((one) => one.function)).toContain('left-shelf-light');
    expect(proofs).toContainEqual(
      expect.objectContaining({ function: 'cabinet-fan', condition: 'all-off', expected: 'dead' }),
    );
    expect(
      requiredProofs(session.model, session.complaint, ['C12']).map((one) => one.function),
    ).not.toContain('left-shelf-light');
  });
});
