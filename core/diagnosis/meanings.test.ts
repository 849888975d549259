/**
 * What a reading must be said to mean, and what must not be said of it: situations written down from the rules of the
 * trade, not from the program.
 */
import { demoCircuit } from '../../testing/circuits';
import type { FunctionStateName, ReadingValue, TestRef } from '../format';
import { DiagnosisSession } from './session';

const circuit = demoCircuit('van-proving-cabinet');
const FAN = { function: 'cabinet-fan', condition: 'fan-on' };
const OFF = 'all-off';
const sessions = new Map(
  [FAN.condition, OFF].map((condition) => [condition, new DiagnosisSession(circuit, { ...FAN, condition })]),
);

type Taken = readonly [test: TestRef, value: ReadingValue];

const volts = (node: string, read: number, condition = FAN.condition): Taken => [
  { kind: 'volts', node, against: circuit.reference, condition },
  { volts: read },
];
const drop = (node: string, against: string, read: number): Taken => [
  { kind: 'volts', node, against, condition: FAN.condition },
  { volts: read },
];

interface Situation {
  readonly what: string;
  readonly fan: FunctionStateName;
  readonly before?: readonly Taken[];
  readonly read: Taken;
  readonly says: readonly (string | RegExp)[];
  readonly never: readonly (string | RegExp)[];
  readonly notCleared?: readonly string[];
}

const SITUATIONS: readonly Situation[] = [
  {
    what: 'full volts at a fan that stands still: no current flows, so no joint before it is passed',
    fan: 'dead',
    read: volts('m1-plus', 12.5),
    says: [/without load this does not prove|less current flows than should/],
    never: ['under load', 'feed is sound'],
  },
  {
    what: 'full volts at a fan that is weak: its current flows, and the feed is passed',
    fan: 'weak',
    before: [volts('m1-minus', 3.1)],
    read: volts('m1-plus', 12.2),
    says: [],
    never: ['without load this does not prove'],
  },
  {
    what: 'nothing much at the return of a fan that has come back and runs: its current flows',
    fan: 'dead',
    before: [[{ kind: 'function', ...FAN }, { state: 'works' }]],
    read: volts('m1-minus', 0.35),
    says: [],
    never: ['no current flows', 'proves nothing'],
  },
  {
    what: 'nothing at the return of a fan that stands still proves no earth',
    fan: 'dead',
    before: [volts('f31-out', 0.02)],
    read: volts('m1-minus', 0),
    says: ['no current flows here', 'proves nothing of the way to earth'],
    never: [],
  },
  {
    what: 'the whole supply at the return: the way to earth is open',
    fan: 'dead',
    read: volts('m1-minus', 12.3),
    says: ['the way from here to earth is open or poor'],
    never: ['should be dead'],
    notCleared: ['G4', 'W35'],
  },
  {
    what: 'an output that is live with everything off is held up by something, and is no bad earth',
    fan: 'on-when-off',
    read: volts('r4-87', 12.4, OFF),
    says: ['live where it should be dead', 'What would hold it up', 'stuck closed'],
    never: ['way from here to earth', 'way to earth'],
    notCleared: ['R4'],
  },
  {
    what: 'an output that is live with everything off, though the fan is dead when it should run, is no bad earth either',
    fan: 'dead',
    read: volts('r4-87', 12.4, OFF),
    says: ['live where it should be dead'],
    never: ['way to earth', 'from here to earth'],
  },
  {
    what: 'no drop over a plug while nothing flows says nothing of the plug',
    fan: 'dead',
    before: [volts('f31-out', 0.02)],
    read: drop('c12-box', 'c12-cab', 0.01),
    says: ['no current flows here', 'says nothing of the joint'],
    never: ['good joint'],
  },
  {
    what: 'little drop over a plug while the fan draws passes the plug',
    fan: 'weak',
    before: [volts('m1-plus', 12.2)],
    read: drop('c12-box', 'c12-cab', 0.03),
    says: ['while current flows'],
    never: ['says nothing', 'no current flows'],
  },
];

describe('what a reading means', () => {
  test.each(SITUATIONS)('$what', ({ fan, before = [], read, says, never, notCleared = [] }) => {
    // What is on when it should be off is complained of where it should be off.
    const condition = fan === 'on-when-off' ? OFF : FAN.condition;
    const complaint = { ...FAN, condition };
    const readings = [
      { id: 'c', test: { kind: 'function' as const, ...complaint }, value: { state: fan } },
      ...[...before, read].map(([test, value], index) => ({ id: `r${index}`, test, value })),
    ];
    const { effects, parts } = sessions.get(condition)!.assess({ readings, refused: [], opened: [] });
    const { sentence } = effects.at(-1)!;
    const found = (words: string | RegExp) =>
      typeof words === 'string' ? sentence.includes(words) : words.test(sentence);
    expect({ sentence, missing: says.filter((words) => !found(words)) }).toEqual({ sentence, missing: [] });
    expect({ sentence, wrong: never.filter(found) }).toEqual({ sentence, wrong: [] });
    const cleared = parts.filter((one) => one.standing === 'cleared').map(({ part }) => part);
    expect(notCleared.filter((part) => cleared.includes(part))).toEqual([]);
  });
});

test('a part that leads and is not proved names the tests that stand before it is bought; what is proved, or only cleaned, names none', () => {
  const given = (state: FunctionStateName, ...taken: readonly Taken[]) =>
    sessions.get(FAN.condition)!.assess({
      readings: [
        { id: 'c', test: { kind: 'function' as const, ...FAN }, value: { state } },
        ...taken.map(([test, value], index) => ({ id: `r${index}`, test, value })),
      ],
      refused: [],
      opened: [],
    });
  const relay = given('dead', volts('f31-out', 12.4), volts('r4-87', 0), volts('r4-85', 0.1), [
    { kind: 'click', part: 'R4', condition: FAN.condition },
    { click: 'clicks' },
  ]);
  expect(relay.verdict.suspect).not.toBeNull();
  expect(relay.beforePurchase.length > 0).toBe(relay.verdict.strength !== 'proved');
  const battery = given('weak', [{ kind: 'battery', state: 'rest' }, { volts: 8.6 }], volts('bay-bus', 8.4));
  expect(battery.suspects[0]!.title).toContain('attery');
  expect(battery.beforePurchase[0]).toContain('charge it');
  expect(given('dead').beforePurchase).toEqual([]);
});
