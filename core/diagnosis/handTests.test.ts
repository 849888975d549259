/** Click, look, clamp, bridge and drop: what they are predicted to show, what they mean, and what they never prove. */
import { demoCircuit } from '../../testing/circuits';
import { breakCircuit } from '../faults/broken';
import type { ReadingValue, TestRef } from '../format/readingsSchema';
import { testCardWords } from './card';
import type { TakenReading } from './evidence/readings';
import { bridgeable } from './kinds/functions';
import { fuseOfRelay } from './kinds/fuseBefore';
import { readingOf } from './playback';
import { DiagnosisSession } from './session';

const circuit = demoCircuit('van-proving-cabinet');
const session = new DiagnosisSession(circuit, { function: 'cabinet-fan', condition: 'fan-on' });
const condition = 'fan-on';
const click: TestRef = { kind: 'click', part: 'R4', condition };
const look: TestRef = { kind: 'look', part: 'F31' };
const clamp: TestRef = { kind: 'clamp', part: 'F31', condition };
const bridge: TestRef = { kind: 'bridge', part: 'R4', function: 'cabinet-fan', condition };
const dead: TakenReading = {
  id: 'complaint',
  test: { kind: 'function', function: 'cabinet-fan', condition },
  value: { state: 'dead' },
};

function assess(...readings: readonly (readonly [TestRef, ReadingValue])[]) {
  return session.assess({
    readings: [dead, ...readings.map(([test, value], i) => ({ id: `r${i}`, test, value }))],
    refused: [],
    opened: [],
  });
}

function chanceOf(assessment: ReturnType<typeof assess>, words: RegExp): number {
  return assessment.suspects
    .filter((suspect) => suspect.forms.some((form) => words.test(form.words)))
    .reduce((sum, suspect) => sum + suspect.chance, 0);
}

test('a click speaks for the coil circuit and clears no contact', () => {
  const { effects, parts } = assess([click, { click: 'clicks' }]);
  expect(effects.at(-1)?.sentence).toContain('That says nothing of its contact.');
  const relay = parts.find((one) => one.part === 'R4');
  expect(relay?.remaining.some((words) => words.includes('contact does not close'))).toBe(true);
  expect(relay?.chance).toBeGreaterThan(assess().parts.find((one) => one.part === 'R4')!.chance);
});

test('silence points at coil, command and their wires, and away from plug and motor', () => {
  const before = assess();
  const after = assess([click, { click: 'silent' }]);
  expect(after.effects.at(-1)?.sentence).toContain('is silent');
  const chance = (of: typeof before, ...parts: string[]) =>
    of.parts.filter((one) => parts.includes(one.part)).reduce((sum, one) => sum + one.chance, 0);
  const control = ['S7', 'W41', 'W42', 'F33', 'W43'];
  expect(chance(after, ...control)).toBeGreaterThan(1.5 * chance(before, ...control));
  expect(chance(after, 'C12', 'M1')).toBeLessThan(chance(before, 'C12', 'M1') / 3);
});

describe('what was seen against what was measured', () => {
  const whole = [look, { look: 'whole' }] as const;
  const openByVolts = [
    [{ kind: 'volts', node: 'bay-bus', against: circuit.reference, condition: 'fan-on' }, { volts: 12.5 }],
    [{ kind: 'volts', node: 'f31-out', against: circuit.reference, condition: 'fan-on' }, { volts: 0 }],
    [{ kind: 'lamp', node: 'f31-out', condition: 'fan-on' }, { lamp: 'off' }],
  ] as const;
  test('a fuse that looked whole and is open by its ends: named until it is measured out of the circuit', () => {
    const conflict = assess(whole, ...openByVolts).lookConflicts;
    expect(conflict.map(({ sentence }) => sentence)).toEqual([
      expect.stringContaining('by the readings it is open'),
    ]);
    const measured = assess(whole, ...openByVolts, [
      { kind: 'continuity', part: 'F31', from: 'bay-bus', to: 'f31-out' },
      { overLimit: true },
    ]);
    expect(measured.lookConflicts).toEqual([]);
    expect(measured.effects.at(-1)!.sentence).toContain('the meter decides');
  });
  test('a look alone contradicts nothing and clears nothing', () => {
    const seen = assess(whole);
    expect(seen.lookConflicts).toEqual([]);
    expect(
      seen.parts.filter((one) => one.standing === 'cleared' && one.clearedBy === seen.effects.at(-1)!.id),
    ).toEqual([]);
    expect(seen.effects.at(-1)!.clears).toEqual([]);
  });
});

test('looks are weak: whole to the eye and open to the meter is a blown fuse, and the conflict is named', () => {
  const whole = assess([look, { look: 'whole' }]);
  expect(whole.effects.at(-1)?.sentence).toContain('proves nothing');
  expect(whole.parts.find((one) => one.part === 'F31')?.standing).not.toBe('cleared');
  const open = assess(
    [look, { look: 'whole' }],
    [{ kind: 'continuity', part: 'F31', from: 'in', to: 'out' }, { overLimit: true }],
    [{ kind: 'volts', node: 'f31-out', against: 'bat-minus', condition }, { volts: 0 }],
  );
  expect(chanceOf(open, /Fuse 31.*(blown|not fitted)|blowing Fuse 31|A one is fitted/)).toBeGreaterThan(0.9);
});

test('no current through the fuse says that the way is open; the expected current says that it is not', () => {
  expect(assess([clamp, { amps: 0 }]).effects.at(-1)?.sentence).toContain('the way is open');
  const { amps } = readingOf(breakCircuit(session.model, []), clamp) as { amps: number };
  expect(amps).toBeGreaterThan(1);
  expect(assess([clamp, { amps }]).effects.at(-1)?.sentence).toContain('carry it');
  expect(assess([clamp, { amps: amps * 3 }]).effects.at(-1)?.sentence).toContain('overload');
});

test('a bridged relay that makes the fan run clears path and load, and leaves contact, coil and command', () => {
  const works = assess([bridge, { state: 'works' }]);
  expect(works.effects.at(-1)?.sentence).toContain('Contact, coil or command remain.');
  expect(works.parts.find((one) => one.part === 'C12')?.standing).toBe('cleared');
  expect(works.parts.find((one) => one.part === 'R4')?.standing).not.toBe('cleared');
  // One intervention points; it does not prove which of them it is.
  expect(works.verdict.strength).not.toBe('proved');
  const silent = assess([bridge, { state: 'dead' }]);
  expect(silent.effects.at(-1)?.sentence).toContain('behind pin 87');
});

describe('a drop between two points', () => {
  const drop: TestRef = { kind: 'volts', node: 'c12-box', against: 'c12-cab', condition };
  const said = (volts: number) => assess([drop, { volts }]);

  test('of nothing is no pass while nothing flows: an open elsewhere shows it too', () => {
    expect(said(0).effects.at(-1)?.sentence).toContain('no pass');
    // The motor being open explains it as well as a good plug does: the plug is told apart only from an open one.
    expect(said(0).parts.find((one) => one.part === 'M1')?.standing).not.toBe('cleared');
  });

  test('of the whole supply is the open itself', () => {
    const { effects, suspects } = said(12.4);
    expect(effects.at(-1)?.sentence).toContain('open between these points');
    expect(suspects[0]?.parts).toContain('C12');
  });

  test('of a volt is resistance, and a minus sign is leads the wrong way round', () => {
    expect(said(1.1).effects.at(-1)?.sentence).toContain('resistance between');
    expect(said(-1.1).effects.at(-1)?.sentence).toContain('leads were the wrong way round');
  });

  test('is named as a drop and not as the volts at a point', () => {
    expect(testCardWords(circuit, drop, null, 'cavity 3').title).toBe('Volts across Plug C12 cavity 3');
    expect(said(12.4).suspects[0]?.reason).toContain('the drop across Plug C12');
  });
});

test('the lead that bridges a relay is fused by the circuit’s own fuse, not by a larger one elsewhere', () => {
  // Fuse 31 (15 A) feeds relay 4; main fuses of 60 A and more stand before it.
  expect(fuseOfRelay(circuit, 'R4')).toBe(15);
  expect(testCardWords(circuit, bridge, null, 'Relay 4').cautions.join(' ')).toContain('at most 15 A here');
  const withoutFuse = { ...circuit, parts: circuit.parts.filter((part) => part.kind !== 'fuse') };
  expect(fuseOfRelay(withoutFuse, 'R4')).toBeNull();
  expect(testCardWords(withoutFuse, bridge, null, 'Relay 4').cautions.join(' ')).toContain('look it up');
});

test('only a relay that comes out, with 30 and 87, can be bridged', () => {
  const relay = circuit.parts.find((part) => part.id === 'R4')!;
  expect(bridgeable(relay)).toBe(true);
  expect(bridgeable({ ...relay, fixed: true })).toBe(false);
  expect(bridgeable(circuit.parts.find((part) => part.id === 'F31')!)).toBe(false);
});

test('every hand test of every fault shows what the engine gives the highest chance', () => {
  let asked = 0;
  for (const [h, hypothesis] of session.hypotheses.entries()) {
    if (hypothesis.faults.length === 0 || hypothesis.intermittent) continue;
    const broken = breakCircuit(session.model, hypothesis.faults);
    for (const [ref, id] of [
      [click, `click|R4|${condition}`],
      [look, 'look|F31'],
      [bridge, `bridge|R4|cabinet-fan|${condition}`],
    ] as const) {
      const { outcomes, clean } = session.predictions.of(id, ref);
      const row = [...clean.subarray(h * outcomes, (h + 1) * outcomes)];
      const shown = readingOf(broken, ref);
      const words = {
        click: ['clicks', 'silent', 'chatters'],
        look: ['whole', 'broken'],
        bridge: ['works', 'weak', 'dead'],
      }[ref.kind as 'click' | 'look' | 'bridge'];
      const word = Object.values(shown)[0] as string;
      expect({
        fault: hypothesis.words,
        ref: ref.kind,
        most: words[row.indexOf(Math.max(...row))],
      }).toEqual({
        fault: hypothesis.words,
        ref: ref.kind,
        most: word,
      });
      asked += 1;
    }
  }
  expect(asked).toBeGreaterThan(300);
});
