/** Small circuits that between them hold every part kind in every form, for comparison with ngspice. */
import type { CircuitFile, CircuitPart, Condition } from '../core/format';
import { BATTERY, circuitOf, fuse, lamp, wire } from './circuits';

const off: Condition = { id: 'off', name: 'Off', key: 'off' };
const run: Condition = { id: 'run', name: 'Run', key: 'run' };
const on = (...switches: string[]): Condition => ({
  id: switches.join('-'),
  name: `${switches.join(', ')} on`,
  key: 'run',
  switches: Object.fromEntries(switches.map((id) => [id, 'on'])),
});
const engine: Condition = { id: 'engine', name: 'Engine running', key: 'run', engineRunning: true };

function toggle(id: string, from: string, to: string): CircuitPart {
  return {
    id,
    kind: 'switch',
    name: `Switch ${id}`,
    pins: { in: from, out: to },
    positions: ['off', 'on'],
    rest: 'off',
    contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
  };
}

function relay(
  id: string,
  pins: Extract<CircuitPart, { kind: 'relay' }>['pins'],
  more: object = {},
): CircuitPart {
  return { id, kind: 'relay', name: `Relay ${id}`, pins, ...more } as CircuitPart;
}

const earth: CircuitPart = {
  id: 'G',
  kind: 'ground',
  name: 'Earth point',
  pins: { lug: 'e', body: 'minus' },
};
const house: CircuitPart = {
  id: 'B2',
  kind: 'battery',
  name: 'House battery',
  pins: { plus: 'house', minus: 'minus' },
  emfVolts: 12.2,
  innerOhms: 0.02,
};
const alternator: CircuitPart = {
  id: 'A',
  kind: 'charging-source',
  name: 'Alternator',
  pins: { plus: 'alt', minus: 'minus' },
  active: 'engine-running',
};
const output = (side: 'high' | 'low', more: object = {}): CircuitPart =>
  ({
    id: 'M',
    kind: 'module-output',
    name: 'Module output',
    pins: { plus: 'f', minus: 'e', out: 'out', door: 'door' },
    side,
    pullUps: ['door'],
    rule: [{ key: ['run'], inputs: { door: 'low' } }, { engineRunning: true }],
    ...more,
  }) as CircuitPart;
const doorSwitch = toggle('D', 'door', 'e');
const feed = [BATTERY, fuse('F', 'plus', 'f', 10)];

const LIST: readonly (readonly [string, CircuitPart[], Condition[]])[] = [
  [
    'lamp',
    [
      ...feed,
      { id: 'W', kind: 'wire', name: 'Wire', pins: { a: 'f', b: 'a' }, lengthMetres: 3, sizeMm2: 1.5 },
      { id: 'L', kind: 'lamp', name: 'Lamp', pins: { plus: 'a', minus: 'e' }, watts: 21 },
      earth,
    ],
    [run],
  ],
  [
    'shared-earth',
    [
      ...feed,
      lamp('L1', 'f', 'e', 6),
      lamp('L2', 'f', 'e', 30),
      toggle('S', 'f', 'x'),
      lamp('L3', 'x', 'e', 3),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'loads-of-every-kind',
    [
      ...feed,
      { id: 'M', kind: 'motor', name: 'Motor', pins: { plus: 'f', minus: 'e' }, amps: 3 },
      { id: 'P', kind: 'pump', name: 'Pump', pins: { plus: 'f', minus: 'e' }, watts: 40 },
      { id: 'N', kind: 'horn', name: 'Sounder', pins: { plus: 'f', minus: 'e' }, amps: 1 },
      { id: 'H', kind: 'heater', name: 'Heater', pins: { plus: 'f', minus: 'e' }, ohms: 4 },
      { id: 'U', kind: 'module', name: 'Module', pins: { plus: 'f', minus: 'e' }, watts: 5 },
      earth,
    ],
    [run],
  ],
  [
    'splice-and-plugs',
    [
      ...feed,
      { id: 'X', kind: 'splice', name: 'Splice', pins: { a: 'f', b: 'b', c: 'c' } },
      { id: 'P1', kind: 'connector', name: 'Plug', pins: { a: 'b', b: 'd' }, plug: 'P' },
      { id: 'P2', kind: 'connector', name: 'Plug', pins: { a: 'c', b: 'g' }, plug: 'P' },
      lamp('L1', 'd', 'e', 8),
      lamp('L2', 'g', 'e', 12),
      earth,
    ],
    [run],
  ],
  [
    'fusible-link',
    [
      BATTERY,
      { id: 'K', kind: 'fusible-link', name: 'Link', pins: { in: 'plus', out: 'bus' }, ratingAmps: 60 },
      fuse('F', 'bus', 'f', 10),
      lamp('L', 'f', 'e', 5),
      earth,
    ],
    [run],
  ],
  [
    'key-contact',
    [
      BATTERY,
      {
        id: 'Y',
        kind: 'key-contact',
        name: 'Key',
        pins: { in: 'plus', out: 'ig' },
        closedIn: ['run', 'crank'],
      },
      fuse('F', 'ig', 'f', 10),
      lamp('L', 'f', 'e', 5),
      earth,
    ],
    [off, run],
  ],
  [
    'two-pole-switch',
    [
      ...feed,
      {
        id: 'S',
        kind: 'switch',
        name: 'Switch',
        pins: { a: 'f', b: 'x', c: 'e', d: 'y' },
        positions: ['off', 'low', 'high'],
        rest: 'off',
        contacts: [
          { from: 'a', to: 'b', closedIn: ['low', 'high'] },
          { from: 'c', to: 'd', closedIn: ['high'] },
        ],
      },
      lamp('L1', 'x', 'y', 6),
      lamp('L2', 'x', 'e', 20),
      earth,
    ],
    [off, { ...run, id: 'low', switches: { S: 'low' } }, { ...run, id: 'high', switches: { S: 'high' } }],
  ],
  [
    'momentary',
    [...feed, { ...toggle('S', 'f', 'x'), momentary: true } as CircuitPart, lamp('L', 'x', 'e', 6), earth],
    [off, on('S')],
  ],
  [
    'relay',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay('R', { '30': 'f', '87': 'o', '86': 'c', '85': 'e' }),
      lamp('L', 'o', 'e', 3),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'changeover',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay('R', { '30': 'f', '87': 'o', '87a': 'r', '86': 'c', '85': 'e' }),
      lamp('L1', 'o', 'e', 6),
      lamp('L2', 'r', 'e', 9),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'normally-closed',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay('R', { '30': 'f', '87a': 'r', '86': 'c', '85': 'e' }),
      lamp('L', 'r', 'e', 9),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'double-make',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay('R', { '30': 'f', '87': 'o', '87b': 'p', '86': 'c', '85': 'e' }),
      lamp('L1', 'o', 'e', 6),
      lamp('L2', 'p', 'e', 9),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'three-pin-relay',
    [
      ...feed,
      toggle('S', 'c', 'e'),
      relay('R', { '30': 'f', '86': 'f', '85': 'c', '87': 'o' }),
      lamp('L', 'o', 'e', 6),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'suppressed-by-resistor',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay('R', { '30': 'f', '87': 'o', '86': 'c', '85': 'e' }, { suppression: 'resistor' }),
      lamp('L', 'o', 'e', 6),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'suppressed-by-diode',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay('R', { '30': 'f', '87': 'o', '86': 'c', '85': 'e' }, { suppression: 'diode' }),
      lamp('L', 'o', 'e', 6),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'self-holding-relay',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay('R', { '30': 'f', '87': 'c', '86': 'c', '85': 'e' }),
      lamp('L', 'c', 'e', 20),
      earth,
    ],
    [off, on('S'), { ...off, id: 'released', name: 'Released', after: 'S' }],
  ],
  [
    'relay-chain',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay('R1', { '30': 'f', '87': 'o', '86': 'c', '85': 'e' }),
      relay('R2', { '30': 'f', '87': 'p', '86': 'o', '85': 'e' }),
      lamp('L', 'p', 'e', 6),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'buzzer',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay('R', { '30': 'c', '87a': 'x', '86': 'x', '85': 'e' }),
      lamp('L', 'c', 'e', 20),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'latching',
    [
      ...feed,
      toggle('S', 'f', 's'),
      toggle('T', 'f', 't'),
      {
        id: 'R',
        kind: 'latching-relay',
        name: 'Latch',
        pins: {
          '30': 'f',
          '87': 'o',
          '87a': 'r',
          set: 's',
          'set-return': 'e',
          reset: 't',
          'reset-return': 'e',
        },
      },
      lamp('L1', 'o', 'e', 6),
      lamp('L2', 'r', 'e', 9),
      earth,
    ],
    [off, on('S'), { ...off, id: 'kept', name: 'Kept', after: 'S' }, { ...on('T'), after: 'kept' }],
  ],
  [
    'delay-on',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      relay(
        'R',
        { '30': 'f', '87': 'o', '87a': 'r', '86': 'c', '85': 'e' },
        { timing: { mode: 'delay-on', seconds: 5 } },
      ),
      lamp('L1', 'o', 'e', 6),
      lamp('L2', 'r', 'e', 6),
      earth,
    ],
    [
      { ...on('S'), secondsIn: 1 },
      { ...on('S'), id: 'late', secondsIn: 9 },
    ],
  ],
  [
    'solenoid',
    [
      ...feed,
      toggle('S', 'f', 'c'),
      {
        id: 'Z',
        kind: 'solenoid',
        name: 'Solenoid',
        pins: { feed: 'plus', load: 'm', control: 'c', return: 'e' },
        pullInCoilOhms: 1.5,
      },
      { id: 'M', kind: 'motor', name: 'Winch', pins: { plus: 'm', minus: 'e' }, ohms: 0.3 },
      earth,
    ],
    [off, on('S')],
  ],
  [
    'flasher',
    [
      ...feed,
      { id: 'U', kind: 'flasher', name: 'Flasher', pins: { '49': 'f', '49a': 'a', '31': 'e' } },
      lamp('L1', 'a', 'e', 6),
      lamp('L2', 'a', 'e', 7),
      earth,
    ],
    [run, { ...run, id: 'dark', phase: 'off' }],
  ],
  [
    'two-pin-flasher',
    [
      ...feed,
      { id: 'U', kind: 'flasher', name: 'Flasher', pins: { '49': 'f', '49a': 'a' } },
      lamp('L', 'a', 'e', 6),
      earth,
    ],
    [run, { ...run, id: 'dark', phase: 'off' }],
  ],
  [
    'breaker',
    [
      BATTERY,
      {
        id: 'K',
        kind: 'breaker',
        name: 'Breaker',
        pins: { in: 'plus', out: 'f' },
        ratingAmps: 10,
        reset: 'manual',
      },
      lamp('L', 'f', 'e', 4),
      { id: 'M', kind: 'pump', name: 'Pump', pins: { plus: 'f', minus: 'e' }, amps: 4 },
      earth,
    ],
    [run],
  ],
  [
    'polyfuse',
    [
      BATTERY,
      { id: 'PF', kind: 'polyfuse', name: 'Resettable fuse', pins: { in: 'plus', out: 'f' }, ratingAmps: 3 },
      lamp('L', 'f', 'e', 8),
      { id: 'M', kind: 'pump', name: 'Pump', pins: { plus: 'f', minus: 'e' }, amps: 1 },
      earth,
    ],
    [run],
  ],
  [
    'cut-off',
    [
      ...feed,
      {
        id: 'C',
        kind: 'cut-off',
        name: 'Cut-off',
        pins: { in: 'f', out: 'o', minus: 'e' },
        disconnectVolts: 11.5,
      },
      lamp('L', 'o', 'e', 4),
      earth,
    ],
    [run],
  ],
  [
    'alternator',
    [
      BATTERY,
      alternator,
      wire('W', 'alt', 'plus', 0.01),
      fuse('F', 'plus', 'f', 10),
      lamp('L', 'f', 'e', 4),
      earth,
    ],
    [off, engine],
  ],
  [
    'split-charge',
    [
      BATTERY,
      alternator,
      wire('W', 'alt', 'plus', 0.01),
      {
        id: 'C',
        kind: 'cut-off',
        name: 'Split charge',
        pins: { in: 'plus', out: 'house', minus: 'minus' },
        disconnectVolts: 12.7,
        reconnectVolts: 13.2,
        starts: 'disconnected',
      },
      house,
      lamp('L', 'house', 'e', 4),
      earth,
    ],
    [off, engine],
  ],
  [
    'two-batteries',
    [
      BATTERY,
      toggle('S', 'plus', 'house'),
      house,
      lamp('L1', 'plus', 'e', 6),
      lamp('L2', 'house', 'e', 4),
      earth,
    ],
    [off, on('S')],
  ],
  [
    'module-high-side',
    [...feed, doorSwitch, output('high'), lamp('L', 'out', 'e', 6), earth],
    [off, run, on('D'), engine],
  ],
  [
    'module-low-side',
    [...feed, doorSwitch, output('low'), lamp('L', 'f', 'out', 6), earth],
    [off, run, on('D'), engine],
  ],
  [
    'module-pulsed',
    [...feed, doorSwitch, output('high', { duty: 0.4 }), lamp('L', 'out', 'e', 6), earth],
    [off, on('D')],
  ],
  [
    'led',
    [
      ...feed,
      { id: 'L', kind: 'led', name: 'LED lamp', pins: { plus: 'f', minus: 'e' }, amps: 0.5 },
      { id: 'L2', kind: 'led', name: 'LED lamp', pins: { plus: 'f', minus: 'e' }, watts: 3, forwardVolts: 3 },
      earth,
    ],
    [run],
  ],
  [
    'steering-diodes',
    [
      ...feed,
      toggle('S', 'f', 'a'),
      toggle('T', 'f', 'b'),
      { id: 'D1', kind: 'diode', name: 'Diode', pins: { anode: 'a', cathode: 'o' } },
      { id: 'D2', kind: 'diode', name: 'Diode', pins: { anode: 'b', cathode: 'o' } },
      lamp('L', 'o', 'e', 6),
      earth,
    ],
    [off, on('S'), on('T'), on('S', 'T')],
  ],
  [
    'stepped-motor',
    [
      ...feed,
      {
        id: 'S',
        kind: 'switch',
        name: 'Speed',
        pins: { in: 'f', hi: 'm', mid: 'q', lo: 'p' },
        positions: ['off', 'lo', 'mid', 'hi'],
        rest: 'off',
        contacts: [
          { from: 'in', to: 'lo', closedIn: ['lo'] },
          { from: 'in', to: 'mid', closedIn: ['mid'] },
          { from: 'in', to: 'hi', closedIn: ['hi'] },
        ],
      },
      { id: 'Q1', kind: 'resistor', name: 'Step 1', pins: { a: 'p', b: 'q' }, ohms: 1.2 },
      { id: 'Q2', kind: 'resistor', name: 'Step 2', pins: { a: 'q', b: 'm' }, ohms: 0.6 },
      { id: 'M', kind: 'motor', name: 'Blower', pins: { plus: 'm', minus: 'e' }, ohms: 1.5 },
      earth,
    ],
    [off, { ...run, id: 'lo', switches: { S: 'lo' } }, { ...run, id: 'hi', switches: { S: 'hi' } }],
  ],
  [
    'socket',
    [
      ...feed,
      {
        id: 'X',
        kind: 'socket',
        name: 'Socket',
        pins: { plus: 'f', minus: 'e' },
        appliances: [
          { id: 'cooler', name: 'Cool box', amps: 4 },
          { id: 'pump', name: 'Tyre pump', watts: 120 },
        ],
      },
      earth,
    ],
    [
      off,
      { ...off, id: 'cool', pluggedIn: { X: 'cooler' } },
      { ...off, id: 'pumping', pluggedIn: { X: 'pump' } },
    ],
  ],
];

/** Every one by its name. */
export const KIND_CIRCUITS: ReadonlyMap<string, CircuitFile> = new Map(
  LIST.map(([name, parts, conditions]) => [name, { ...circuitOf({ parts, conditions }), id: name, name }]),
);

/** 24 and 6 V versions of some: what scales must scale in the netlist too. */
export const OTHER_VOLTAGES: ReadonlyMap<string, CircuitFile> = new Map(
  (['relay', 'module-high-side', 'cut-off', 'led'] as const).flatMap((name) =>
    ([6, 24, 48] as const).map((nominalVolts): [string, CircuitFile] => {
      const circuit = KIND_CIRCUITS.get(name)!;
      const parts = circuit.parts.map((part): CircuitPart => {
        if (part.kind === 'battery') return { ...part, emfVolts: (12.6 * nominalVolts) / 12 };
        if (part.kind === 'cut-off') return { ...part, disconnectVolts: (11.5 * nominalVolts) / 12 };
        return part;
      });
      return [`${name}-${nominalVolts}V`, { ...circuit, nominalVolts, parts }];
    }),
  ),
);
