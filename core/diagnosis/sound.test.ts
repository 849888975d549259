/** What is heard: worked out by hand for a motor on a relay. */
import { circuitOf, fuse, ON, wire } from '../../testing/circuits';
import { breakCircuit, type Fault } from '../faults';
import type { CircuitPart, ReadingValue, TestRef } from '../format';
import { CircuitModel } from '../network';
import { readingOf } from './playback';
import { DiagnosisSession } from './session';

const parts: CircuitPart[] = [
  {
    id: 'B',
    kind: 'battery',
    name: 'Battery',
    pins: { plus: 'plus', minus: 'minus' },
    emfVolts: 12.6,
    innerOhms: 0.012,
  },
  fuse('F', 'plus', 'f', 30),
  {
    id: 'S',
    kind: 'switch',
    name: 'Switch',
    pins: { in: 'f', out: 'ask' },
    positions: ['off', 'on'],
    rest: 'off',
    contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
  },
  {
    id: 'K',
    kind: 'relay',
    name: 'Relay K',
    pins: { '30': 'f', '87': 'out', '86': 'ask', '85': 'minus' },
    coilOhms: 85,
  },
  wire('W', 'out', 'm', 0.02),
  { id: 'M', kind: 'motor', name: 'Blower', pins: { plus: 'm', minus: 'minus' }, watts: 120 },
];
const map = circuitOf({
  parts,
  conditions: [
    { ...ON, switches: { S: 'on' } },
    { id: 'rest', name: 'All off', key: 'off' },
  ],
  functions: [{ id: 'blow', name: 'Blower', load: 'M' }],
});
const model = new CircuitModel(map);
const LISTEN: TestRef = { kind: 'sound', function: 'blow', condition: 'on' };
const FINGER: TestRef = { kind: 'click', part: 'K', condition: 'on' };
const heard = (faults: Fault[], ref: TestRef) => readingOf(breakCircuit(model, faults), ref);

/** 12.6 V behind 8 ohm: the coil alone sees 11.5 V and pulls in, the blower then leaves it 12.6 · 1.2 / 9.2 = 1.6 V. */
const WORN: Fault = { part: 'B', mode: 'weak', ohms: 8 };

test.each<[string, Fault[], ReadingValue, ReadingValue]>([
  ['coil open', [{ part: 'K', mode: 'coil-open' }], { sound: 'silent' }, { click: 'silent' }],
  ['contact open', [{ part: 'K', mode: 'contact-open' }], { sound: 'clicks' }, { click: 'clicks' }],
  ['wire behind it open', [{ part: 'W', mode: 'open' }], { sound: 'clicks' }, { click: 'clicks' }],
  ['worn battery', [WORN], { sound: 'chatters' }, { click: 'chatters' }],
])('%s', (_, faults, sound, click) => {
  expect([heard(faults, LISTEN), heard(faults, FINGER)]).toEqual([sound, click]);
});

const session = new DiagnosisSession(map, { function: 'blow', condition: 'on' });
function chanceOf(part: string, readings: readonly { test: TestRef; value: ReadingValue }[]): number {
  const all = [
    {
      test: { kind: 'function', function: 'blow', condition: 'on' } as TestRef,
      value: { state: 'dead' } as ReadingValue,
    },
    ...readings,
  ];
  const { suspects } = session.assess({
    readings: all.map((one, index) => ({ id: `r${index}`, ...one })),
    refused: [],
    opened: [],
  });
  return suspects
    .filter((one) => one.parts.includes(part))
    .flatMap((one) => one.forms)
    .filter((form) => form.fault?.part === part)
    .reduce((sum, form) => sum + form.chance, 0);
}

test('a click speaks for the contact and what is behind it, silence for coil and command, chattering for the supply', () => {
  const listened = (sound: 'silent' | 'clicks' | 'chatters') => [{ test: LISTEN, value: { sound } }];
  expect(chanceOf('W', listened('clicks'))).toBeGreaterThan(2 * chanceOf('W', listened('silent')));
  expect(chanceOf('S', listened('silent'))).toBeGreaterThan(3 * chanceOf('S', listened('clicks')));
  expect(chanceOf('B', listened('chatters'))).toBeGreaterThan(5 * chanceOf('B', listened('clicks')));
});

test('what a person heard says less than one finger on the relay', () => {
  const far = chanceOf('S', [{ test: LISTEN, value: { sound: 'clicks' } }]);
  const near = chanceOf('S', [{ test: FINGER, value: { click: 'clicks' } }]);
  expect(near).toBeLessThan(far);
});

test('nothing is listened for where nothing makes a sound', () => {
  const quiet = circuitOf({
    parts: [
      parts[0]!,
      fuse('F', 'plus', 'f', 10),
      { id: 'L', kind: 'lamp', name: 'Lamp', pins: { plus: 'f', minus: 'minus' }, watts: 20 } as CircuitPart,
    ],
    conditions: [ON],
    functions: [{ id: 'light', name: 'Light', load: 'L' }],
  });
  const offered = new DiagnosisSession(quiet, { function: 'light', condition: 'on' }).permitted;
  expect(offered.some(({ ref }) => ref.kind === 'sound')).toBe(false);
});
