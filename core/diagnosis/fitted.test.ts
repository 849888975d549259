/** Relays exchanged for one another, and a known good part that stays in: worked out for two lamps on two equal relays. */
import { circuitOf, fuse, lamp, ON, wire } from '../../testing/circuits';
import { breakCircuit, type Fault } from '../faults';
import type { CircuitPart, FunctionStateName, TestRef } from '../format';
import { CircuitModel } from '../network';
import { testCardWords } from './card';
import type { Fitted } from './evidence/fitted';
import { fittedKey, fittedWords } from './evidence/fitted';
import type { TakenReading } from './evidence/readings';
import { readingOf } from './playback';
import { DiagnosisSession } from './session';

const relay = (id: string, out: string): CircuitPart => ({
  id,
  kind: 'relay',
  name: `Relay ${id}`,
  pins: { '30': 'f', '87': out, '86': 'ask', '85': 'minus' },
  coilOhms: 85,
});
const map = circuitOf({
  parts: [
    {
      id: 'B',
      kind: 'battery',
      name: 'Battery',
      pins: { plus: 'plus', minus: 'minus' },
      emfVolts: 12.6,
      innerOhms: 0.012,
    },
    fuse('F', 'plus', 'f', 20),
    {
      id: 'S',
      kind: 'switch',
      name: 'Switch',
      pins: { in: 'f', out: 'ask' },
      positions: ['off', 'on'],
      rest: 'off',
      contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
    },
    relay('K1', 'o1'),
    wire('W1', 'o1', 'l1', 0.02),
    lamp('L1', 'l1', 'minus', 4),
    relay('K2', 'o2'),
    wire('W2', 'o2', 'l2', 0.02),
    lamp('L2', 'l2', 'minus', 4),
  ],
  conditions: [{ ...ON, switches: { S: 'on' } }],
  functions: [
    { id: 'first', name: 'First lamp', load: 'L1' },
    { id: 'second', name: 'Second lamp', load: 'L2' },
  ],
});
const session = new DiagnosisSession(map, { function: 'first', condition: 'on' });
const look = (of: string): TestRef => ({ kind: 'function', function: of, condition: 'on' });
const EXCHANGED: Fitted = { exchanged: [{ one: 'K1', other: 'K2' }], knownGood: [] };
const seen = (of: string, state: FunctionStateName, fitted?: Fitted): Omit<TakenReading, 'id'> => ({
  test: look(of),
  value: { state },
  ...(fitted ? { fitted } : {}),
});
const assess = (readings: readonly Omit<TakenReading, 'id'>[], fitted?: Fitted) =>
  session.assess({
    readings: readings.map((one, index) => ({ id: `r${index}`, ...one })),
    refused: [],
    opened: [],
    fitted,
  });
const before = [seen('first', 'dead'), seen('second', 'works')];
const chanceOf = (readings: readonly Omit<TakenReading, 'id'>[], part: string) =>
  assess(readings).suspects.reduce((sum, one) => sum + (one.parts.includes(part) ? one.chance : 0), 0);

test('exchanged, the fault of a relay shows in the other place: it followed the part', () => {
  const followed = [...before, seen('first', 'works', EXCHANGED), seen('second', 'dead', EXCHANGED)];
  const { suspects, verdict } = assess(followed, EXCHANGED);
  expect(suspects[0]).toMatchObject({ parts: ['K1'] });
  expect(suspects[0]!.chance).toBeGreaterThan(0.97);
  expect(verdict.sentence).toContain('followed the part');
});

test('exchanged, a fault that stays in its place is not the relay', () => {
  const stayed = [...before, seen('first', 'dead', EXCHANGED), seen('second', 'works', EXCHANGED)];
  expect(chanceOf(before, 'K1')).toBeGreaterThan(0.3);
  expect(chanceOf(stayed, 'K1')).toBeLessThan(0.03);
  expect(assess(stayed, EXCHANGED).verdict.sentence).not.toContain('followed');
});

test('what a card expects is of the relays where they stand: a vehicle with the other one broken reads the same', () => {
  const fault: Fault = { part: 'K1', mode: 'contact-open' };
  const followed = [...before, seen('first', 'works', EXCHANGED), seen('second', 'dead', EXCHANGED)];
  const readings = followed.map((one, index) => ({ id: `r${index}`, ...one }));
  // With K1 in the place of K2 the second lamp is what its open contact leaves dead.
  const there = breakCircuit(new CircuitModel(map), [{ ...fault, part: 'K2' }]);
  const atL2: TestRef = { kind: 'volts', node: 'l2', against: 'minus', condition: 'on' };
  const card = session.card('volts|l2|minus|on', { readings, refused: [], opened: [], fitted: EXCHANGED })!;
  const value = readingOf(there, atL2);
  expect('volts' in value && Math.abs(value.volts)).toBeLessThan(0.1);
  const nothing = card.outcomes.find((one) => one.result === 'next to nothing');
  expect(nothing?.chance).toBeGreaterThan(0.8);
  const own = session.card('volts|l2|minus|on', { readings: readings.slice(0, 2), refused: [], opened: [] })!;
  expect(own.outcomes.find((one) => one.result === 'next to nothing')?.chance ?? 0).toBeLessThan(0.1);
});

test('a test of before the exchange may be asked again after it', () => {
  const input = { refused: [], opened: [] };
  const readings = before.map((one, index) => ({ id: `r${index}`, ...one }));
  const asked = (fitted?: Fitted) =>
    session.assess({ ...input, readings, fitted }).next.some(({ ref }) => ref.kind === 'function');
  expect([asked(), asked(EXCHANGED)]).toEqual([false, true]);
});

test('with a known good relay in its place the relay is at fault no more', () => {
  const GOOD: Fitted = { exchanged: [], knownGood: ['K1'] };
  const works = [...before, seen('first', 'works', GOOD)];
  expect(chanceOf(works, 'K1')).toBeGreaterThan(0.9);
  const dead = [...before, seen('first', 'dead', GOOD)];
  expect(chanceOf(dead, 'K1')).toBeLessThan(0.05);
});

test('one state has one name whichever way round it is said; a sentence says which one sits where', () => {
  expect(fittedKey({ exchanged: [{ one: 'K2', other: 'K1' }], knownGood: [] })).toBe(fittedKey(EXCHANGED));
  expect(fittedKey(undefined)).toBe('');
  expect(fittedWords(map, { exchanged: EXCHANGED.exchanged, knownGood: ['K2'] })).toEqual([
    'Relay K1 and Relay K2 stand exchanged: in the place of Relay K1 sits Relay K2, and the other way round.',
    'In the place of Relay K2 sits the known good part.',
  ]);
  // Two cards that differ only in which one sits where differ in what is set, and in their titles.
  const ref = { kind: 'look', part: map.parts.find(({ kind }) => kind === 'fuse')!.id } as const;
  const [plain, exchanged] = [undefined, { exchanged: EXCHANGED.exchanged, knownGood: [] }].map((fitted) =>
    testCardWords(map, ref, null, '', fitted),
  );
  expect(exchanged!.title).toBe(`${plain!.title}, Relay K1 and Relay K2 exchanged`);
  expect(exchanged!.settings).toEqual([
    ...plain!.settings,
    { sign: 'other', words: 'Relay K1 and Relay K2 exchanged' },
  ]);
});
