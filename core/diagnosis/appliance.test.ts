/** An appliance that took fuses, and fuses that were found open without anybody saying why: worked out by hand. */
import { circuitOf, fuse, lamp, ON, wire } from '../../testing/circuits';
import type { CircuitPart, TestRef } from '../format';
import { secondFuseFinding } from './appliance';
import type { SessionOptions } from './assessment';
import type { TakenReading } from './evidence/readings';
import { DiagnosisSession } from './session';

const B: CircuitPart = {
  id: 'B',
  kind: 'battery',
  name: 'Battery',
  pins: { plus: 'plus', minus: 'minus' },
  emfVolts: 12.6,
  innerOhms: 0.012,
};
/** Main fuse, then one branch with a fuse of its own and one without. */
const map = circuitOf({
  parts: [
    B,
    fuse('F1', 'plus', 'bus', 20),
    fuse('F2', 'bus', 'f2', 10),
    wire('W1', 'f2', 'l1', 0.02),
    lamp('L1', 'l1', 'minus', 4),
    wire('W2', 'bus', 'l2', 0.02),
    lamp('L2', 'l2', 'minus', 4),
  ],
  conditions: [ON],
  functions: [
    { id: 'first', name: 'First lamp', load: 'L1' },
    { id: 'second', name: 'Second lamp', load: 'L2' },
  ],
});
const dead: Omit<TakenReading, 'id'> = {
  test: { kind: 'function', function: 'first', condition: 'on' },
  value: { state: 'dead' },
};
const broken = (part: string): Omit<TakenReading, 'id'> => ({
  test: { kind: 'look', part } as TestRef,
  value: { look: 'broken' },
});
function suspects(options: SessionOptions, readings: readonly Omit<TakenReading, 'id'>[]) {
  const session = new DiagnosisSession(map, { function: 'first', condition: 'on' }, options);
  return session.assess({
    readings: readings.map((one, index) => ({ id: `r${index}`, ...one })),
    refused: [],
    opened: [],
  }).suspects;
}
const chanceOf = (found: ReturnType<typeof suspects>, unit: string) =>
  found.find((one) => one.units.includes(unit))?.chance ?? 0;

test('with two open fuses and an appliance declared the appliance leads: no wiring behind one explains the other', () => {
  const readings = [dead, broken('F1'), broken('F2')];
  const [first] = suspects({ appliance: { fusesTaken: 2 } }, readings);
  expect(first).toMatchObject({ title: 'The appliance that was plugged in', units: ['appliance'] });
  expect(first!.forms[0]!.words).toBe('The appliance that was plugged in: took Fuse F1 and Fuse F2');
  expect(chanceOf(suspects({ appliance: { fusesTaken: 2 } }, readings), 'short:W1')).toBeLessThan(0.02);
});

test('nobody has seen an appliance: none is suspected; one that took one fuse is one suspect among others', () => {
  const readings = [dead, broken('F2')];
  expect(chanceOf(suspects({}, readings), 'appliance')).toBe(0);
  expect(chanceOf(suspects({ appliance: { fusesTaken: 0 } }, readings), 'appliance')).toBe(0);
  const one = chanceOf(suspects({ appliance: { fusesTaken: 1 } }, readings), 'appliance');
  expect(one).toBeGreaterThan(0.1);
  expect(one).toBeLessThan(0.9);
});

test('it is no excuse for what a fuse does not explain', () => {
  const whole: Omit<TakenReading, 'id'>[] = ['F1', 'F2'].map((part) => ({
    test: { kind: 'volts', node: part === 'F1' ? 'bus' : 'f2', against: 'minus', condition: 'on' },
    value: { volts: 12.4 },
  }));
  expect(chanceOf(suspects({ appliance: { fusesTaken: 2 } }, [dead, ...whole]), 'appliance')).toBeLessThan(
    0.02,
  );
});

test('a second open fuse that nobody explains halts and asks; an answer lets the work go on', () => {
  const opened = [
    { name: 'Fuse 3', ratingAmps: 10 },
    { name: 'slot 12 of Cab box', ratingAmps: null },
  ];
  expect(secondFuseFinding(opened.slice(0, 1), false)).toBeNull();
  const asked = secondFuseFinding(opened, false)!;
  expect(asked).toMatchObject({ halted: true, asks: true });
  expect(asked.sentence).toContain('Fuse 3 (10 A) and slot 12 of Cab box (rating not read)');
  const answered = secondFuseFinding(opened, true)!;
  expect(answered).toMatchObject({ halted: false, asks: false });
  expect(answered.sentence).toContain('Nothing was plugged in');
});
