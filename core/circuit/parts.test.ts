/** Every part kind in a small circuit, against values worked out by hand. */
import { BATTERY, circuitOf, fuse, lamp, wire } from '../../testing/circuits';
import { faultAlteration } from '../faults/faults';
import type { CircuitFile, CircuitPart, Condition } from '../format/circuitSchema';
import { UNALTERED } from '../network/alteration';
import { CircuitModel } from '../network/model';
import { ratedAs } from './protects';

/** Volts, amps and states of a circuit of these parts, condition by condition. */
function look(parts: CircuitPart[], conditions?: Condition[], functions?: CircuitFile['functions']) {
  const model = new CircuitModel(circuitOf({ parts, conditions, functions }));
  const at = (condition: string) => {
    const point = model.solve(condition, UNALTERED);
    return {
      point,
      volts: (node: string) => point.volts[model.network.nodeIndex.get(node)!]!,
      amps: (part: string) => point.amps[model.network.branchesOfPart.get(part)![0]!]!,
      on: (part: string, label?: string) =>
        point.sensed[
          model.network.sensors.findIndex((one) => one.part === part && (!label || one.label === label))
        ] === 1,
    };
  };
  return { model, at };
}

const run: Condition = { id: 'run', name: 'Run', key: 'run' };
const off: Condition = { id: 'off', name: 'Off', key: 'off' };

describe('relays', () => {
  const pins = { '30': 'plus', '85': 'minus', '86': 'plus' };

  test('a three-pin relay shares one pin between coil and common', () => {
    // Coil 90 and load 6.2 + 0.1 ohm beside it behind 0.1 ohm: 12.6 / (1 + 0.1·(1/6.3 + 1/90)).
    const { at } = look([
      BATTERY,
      {
        id: 'R',
        kind: 'relay',
        name: 'Relay',
        pins: { ...pins, '87': 'out' },
        coilOhms: 90,
        contactOhms: 0.1,
      },
      lamp('L', 'out', 'minus', 6.2),
    ]);
    const terminal = 12.6 / (1 + 0.1 * (1 / 6.3 + 1 / 90));
    expect(at('on').volts('out')).toBeCloseTo((terminal * 6.2) / 6.3, 9);
  });

  test('87b closes with 87, 87a opens', () => {
    const { at } = look([
      BATTERY,
      { id: 'R', kind: 'relay', name: 'Relay', pins: { ...pins, '87': 'a', '87b': 'b', '87a': 'c' } },
      lamp('LA', 'a', 'minus', 12),
      lamp('LB', 'b', 'minus', 12),
      lamp('LC', 'c', 'minus', 12),
    ]);
    const { volts } = at('on');
    expect(volts('a')).toBeGreaterThan(12);
    expect(volts('b')).toBeCloseTo(volts('a'), 9);
    expect(volts('c')).toBeCloseTo(0, 6);
  });

  test('a suppression resistor draws its share, a suppression diode blocks one way and shorts the other', () => {
    const relay = (suppression: 'resistor' | 'diode', a: string, b: string): CircuitPart => ({
      id: 'R',
      kind: 'relay',
      name: 'Relay',
      pins: { '30': 'plus', '87': 'out', '86': a, '85': b },
      coilOhms: 100,
      suppression,
      suppressorOhms: 500,
    });
    const load = lamp('L', 'out', 'minus', 1e6);
    // 100 || 500 = 83.33 ohm behind 0.1 ohm: 12.6/83.43 = 0.15102 A, five sixths of it in the coil.
    const resistor = look([BATTERY, relay('resistor', 'plus', 'minus'), load]).at('on');
    expect(resistor.amps('R')).toBeCloseTo(((12.6 / (0.1 + 250 / 3)) * 5) / 6, 4);
    const right = look([BATTERY, relay('diode', 'plus', 'minus'), load]).at('on');
    expect(right.amps('R')).toBeCloseTo(12.6 / 100.1, 3);
    expect(right.on('R')).toBe(true);
    // The wrong way round the diode is all that limits: 12.6 V less about 1 V over 0.13 ohm.
    const wrong = look([BATTERY, relay('diode', 'minus', 'plus'), load]).at('on');
    expect(-wrong.amps('B')).toBeGreaterThan(80);
    expect(wrong.on('R')).toBe(false);
  });

  test('a latching relay stays where the last coil put it', () => {
    const { at } = look(
      [
        BATTERY,
        {
          id: 'R',
          kind: 'latching-relay',
          name: 'Latch',
          pins: {
            '30': 'plus',
            '87': 'out',
            set: 's',
            'set-return': 'minus',
            reset: 'r',
            'reset-return': 'minus',
          },
        },
        {
          id: 'S',
          kind: 'switch',
          name: 'Button',
          pins: { in: 'plus', s: 's', r: 'r' },
          positions: ['rest', 'set', 'reset'],
          rest: 'rest',
          momentary: true,
          contacts: [
            { from: 'in', to: 's', closedIn: ['set'] },
            { from: 'in', to: 'r', closedIn: ['reset'] },
          ],
        },
        lamp('L', 'out', 'minus', 12),
      ],
      [
        { id: 'new', name: 'Never touched', key: 'off' },
        { id: 'pressed', name: 'Set pressed', key: 'off', switches: { S: 'set' } },
        { id: 'released', name: 'Released after set', key: 'off', after: 'pressed' },
        { id: 'undone', name: 'Reset pressed', key: 'off', switches: { S: 'reset' }, after: 'released' },
        { id: 'again', name: 'Released after reset', key: 'off', after: 'undone' },
      ],
    );
    // 12 ohm behind 0.1 + 0.01: 12.6·12/12.11 V while set and released; the set coil of 60 ohm draws besides.
    expect(at('new').volts('out')).toBeCloseTo(0, 6);
    expect(at('pressed').volts('out')).toBeGreaterThan(12);
    expect(at('released').volts('out')).toBeCloseTo((12.6 * 12) / 12.11, 6);
    expect(at('undone').volts('out')).toBeCloseTo(0, 6);
    expect(at('again').volts('out')).toBeCloseTo(0, 6);
  });

  test.each([
    ['delay-on', 2, 'c'],
    ['delay-on', 10, 'a'],
    ['pulse', 2, 'a'],
    ['pulse', 10, 'c'],
  ] as const)('a timed relay (%s, 5 s) after %s s', (mode, secondsIn, lit) => {
    const { at } = look(
      [
        BATTERY,
        {
          id: 'R',
          kind: 'relay',
          name: 'Timer',
          pins: { ...pins, '87': 'a', '87a': 'c' },
          timing: { mode, seconds: 5 },
        },
        lamp('LA', 'a', 'minus', 12),
        lamp('LC', 'c', 'minus', 12),
      ],
      [{ ...run, secondsIn }],
    );
    expect(at('run').volts(lit)).toBeGreaterThan(12);
    expect(at('run').volts(lit === 'a' ? 'c' : 'a')).toBeCloseTo(0, 6);
  });

  test('an off-delay holds for its seconds after the switch opens, and lets go then', () => {
    const { at } = look(
      [
        BATTERY,
        {
          id: 'S',
          kind: 'switch',
          name: 'Switch',
          pins: { in: 'plus', out: 'c' },
          positions: ['off', 'on'],
          rest: 'off',
          contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
        },
        {
          id: 'R',
          kind: 'relay',
          name: 'Timer',
          pins: { '30': 'plus', '87': 'a', '86': 'c', '85': 'minus' },
          timing: { mode: 'delay-off', seconds: 30 },
        },
        lamp('L', 'a', 'minus', 12),
      ],
      [
        { id: 'on', name: 'On', key: 'off', switches: { S: 'on' } },
        { id: 'soon', name: 'Just released', key: 'off', after: 'on', secondsIn: 5 },
        { id: 'late', name: 'Long released', key: 'off', after: 'on', secondsIn: 60 },
      ],
    );
    expect(at('on').volts('a')).toBeGreaterThan(12);
    expect(at('soon').volts('a')).toBeGreaterThan(12);
    expect(at('late').volts('a')).toBeCloseTo(0, 6);
  });

  test('a solenoid closes its studs, its pull-in winding adds to the current until they are closed', () => {
    const parts = (load: CircuitPart): CircuitPart[] => [
      BATTERY,
      {
        id: 'Z',
        kind: 'solenoid',
        name: 'Solenoid',
        pins: { feed: 'plus', load: 'out', control: 'plus', return: 'minus' },
        coilOhms: 10,
        contactOhms: 0.001,
        pullInCoilOhms: 1,
      },
      load,
    ];
    // Studs closed: both ends of the pull-in winding at 12 V, so only 0.001/1 of the load current passes it.
    const { at } = look(parts(lamp('L', 'out', 'minus', 2)));
    expect(at('on').on('Z')).toBe(true);
    const terminal = at('on').volts('plus');
    expect(at('on').volts('out')).toBeCloseTo((terminal * 2) / (2 + 0.001 / 1.001), 6);
  });
});

describe('sources', () => {
  const charger: CircuitPart = {
    id: 'A',
    kind: 'charging-source',
    name: 'Alternator',
    pins: { plus: 'alt', minus: 'minus' },
    emfVolts: 14.4,
    innerOhms: 0.02,
    active: 'engine-running',
  };
  const battery: CircuitPart = { ...BATTERY, innerOhms: 0.01, chargeOhms: 0.15 } as CircuitPart;

  test('with the engine running the charging source carries the loads and charges the battery', () => {
    const { at } = look(
      [battery, charger, wire('W', 'alt', 'plus', 0.01), lamp('L', 'plus', 'minus', 6)],
      [off, { id: 'engine', name: 'Engine', key: 'run', engineRunning: true }],
    );
    // Off: 12.6·6/6.01. Running: sources 14.4 behind 0.03 and 12.6 behind 0.15, load 6:
    // V = (14.4/0.03 + 12.6/0.15)/(1/0.03 + 1/0.15 + 1/6).
    expect(at('off').volts('plus')).toBeCloseTo((12.6 * 6) / 6.01, 9);
    const running = (14.4 / 0.03 + 12.6 / 0.15) / (1 / 0.03 + 1 / 0.15 + 1 / 6);
    expect(at('engine').volts('plus')).toBeCloseTo(running, 6);
    expect(at('engine').on('B', 'charged')).toBe(true);
  });

  test('two batteries behind a cut-off joined only while the first is charged', () => {
    const { at } = look(
      [
        battery,
        charger,
        wire('W', 'alt', 'plus', 0.01),
        {
          id: 'C',
          kind: 'cut-off',
          name: 'Split charge',
          pins: { in: 'plus', out: 'house', minus: 'minus' },
          disconnectVolts: 12.8,
          reconnectVolts: 13.3,
          starts: 'disconnected',
        },
        { ...BATTERY, id: 'B2', pins: { plus: 'house', minus: 'minus' }, emfVolts: 12.2 } as CircuitPart,
        lamp('L', 'house', 'minus', 6),
      ],
      [off, { id: 'engine', name: 'Engine', key: 'run', engineRunning: true }],
    );
    expect(at('off').on('C')).toBe(false);
    expect(at('off').volts('house')).toBeCloseTo((12.2 * 6) / 6.1, 6);
    expect(at('engine').on('C')).toBe(true);
    expect(at('engine').volts('house')).toBeGreaterThan(13);
  });

  test('24 V and a return that is not the chassis', () => {
    const circuit = circuitOf({
      parts: [
        {
          id: 'B',
          kind: 'battery',
          name: 'Pack',
          pins: { plus: 'p', minus: 'minus' },
          emfVolts: 25.2,
          innerOhms: 0.02,
        },
        wire('W1', 'p', 'a', 0.1),
        lamp('L', 'a', 'r', 10),
        wire('W2', 'r', 'minus', 0.1),
        { id: 'G', kind: 'ground', name: 'Body bond', pins: { lug: 'minus', body: 'chassis' }, ohms: 1 },
      ],
    });
    const model = new CircuitModel({ ...circuit, nominalVolts: 24 });
    const point = model.sound('on');
    const amps = 25.2 / (0.02 + 0.1 + 10 + 0.1);
    expect(point.volts[model.network.nodeIndex.get('a')!]).toBeCloseTo(amps * 10.1, 9);
    expect(point.volts[model.network.nodeIndex.get('chassis')!]).toBeCloseTo(0, 9);
    // Coils, thresholds and loads scale with the nominal volts.
    const relay = new CircuitModel({
      ...circuitOf({
        parts: [
          BATTERY,
          {
            id: 'R',
            kind: 'relay',
            name: 'Relay',
            pins: { '30': 'plus', '87': 'o', '86': 'plus', '85': 'minus' },
          },
          { id: 'L', kind: 'lamp', name: 'Lamp', pins: { plus: 'o', minus: 'minus' }, watts: 48 },
        ],
      }),
      nominalVolts: 24,
    });
    expect(relay.network.sensors[0]?.onAbove).toBeCloseTo(13, 9);
    expect(relay.network.branches.find((one) => one.role === 'coil')?.ohms).toBeCloseTo(340, 9);
    expect(relay.network.loads.get('L')?.nominalAmps).toBeCloseTo(2, 9);
    // 12.6 V is not enough for a 24 V coil.
    expect(relay.sound('on').sensed[0]).toBe(0);
  });
});

describe('protection', () => {
  const short = (reset: 'manual' | 'automatic', ohms: number) =>
    look([
      BATTERY,
      { id: 'K', kind: 'breaker', name: 'Breaker', pins: { in: 'plus', out: 'a' }, ratingAmps: 10, reset },
      lamp('L', 'a', 'minus', ohms),
    ]).at('on');

  test('a breaker holds at 12 A, a manual one stays open at 20 A, an automatic one never rests', () => {
    expect(short('manual', 0.95).on('K')).toBe(false);
    const tripped = short('manual', 0.5);
    expect(tripped.on('K')).toBe(true);
    expect(tripped.volts('a')).toBeCloseTo(0, 6);
    expect(tripped.point.oscillating).toEqual([]);
    expect(short('automatic', 0.5).point.oscillating).toEqual(['K']);
  });

  test('a resettable fuse carries what it holds, trips into a trickle, stays hot, and is cold again without its load', () => {
    const fed = (ohms: number, more: readonly CircuitPart[] = []) =>
      look([
        BATTERY,
        {
          id: 'PF',
          kind: 'polyfuse',
          name: 'Resettable fuse',
          pins: { in: 'plus', out: 'a' },
          ratingAmps: 3,
        },
        lamp('L', 'a', 'minus', ohms),
        ...more,
      ]).at('on');
    // 3.1 A: a little over what it holds. 6.3 A and more: it trips.
    expect(fed(4).on('PF')).toBe(false);
    expect(fed(4).volts('a')).toBeCloseTo(12.6 * (4 / 4.15), 2);
    const tripped = fed(1);
    expect(tripped.on('PF')).toBe(true);
    expect(tripped.volts('a')).toBeLessThan(0.2);
    expect(tripped.point.oscillating).toEqual([]);
    // What still flows is what keeps it hot: about 1.5 W of it.
    const amps = tripped.volts('a') / 1;
    expect((12.6 - tripped.volts('a')) * amps).toBeGreaterThan(1);
    expect((12.6 - tripped.volts('a')) * amps).toBeLessThan(2);
    expect(fed(20_000).on('PF')).toBe(false);
  });

  test('a wire behind a resettable fuse has to bear more than the current that it holds', () => {
    const pins = { in: 'plus', out: 'a' };
    const polyfuse = { id: 'PF', kind: 'polyfuse', name: 'Resettable fuse', pins, ratingAmps: 4 } as const;
    // It lets 7.9 A through for good; a blade fuse that ends 8 A is one of 5.9 A.
    expect(ratedAs(polyfuse)).toBeCloseTo(5.93, 2);
    expect(ratedAs({ id: 'F', kind: 'fuse', name: 'Fuse', pins, ratingAmps: 4 })).toBe(4);
    expect(ratedAs({ id: 'F', kind: 'fuse', name: 'Fuse', pins })).toBeUndefined();
  });

  test('a cut-off lets go of a weak battery, and rests between its thresholds where it was', () => {
    const at = (emfVolts: number, starts: 'connected' | 'disconnected') =>
      look([
        { ...BATTERY, emfVolts } as CircuitPart,
        { id: 'C', kind: 'cut-off', name: 'Cut-off', pins: { in: 'plus', out: 'a', minus: 'minus' }, starts },
        lamp('L', 'a', 'minus', 12),
      ])
        .at('on')
        .volts('a');
    expect(at(12.6, 'connected')).toBeGreaterThan(12);
    expect(at(12.6, 'disconnected')).toBeCloseTo(0, 6);
    expect(at(13.2, 'disconnected')).toBeGreaterThan(12.5);
    expect(at(11.5, 'connected')).toBeCloseTo(0, 6);
  });
});

describe('switching by electronics', () => {
  test('a flasher is looked at in one phase at a time, and needs its earth where it has one', () => {
    const parts = (earth: string): CircuitPart[] => [
      BATTERY,
      { id: 'U', kind: 'flasher', name: 'Flasher', pins: { '49': 'plus', '49a': 'a', '31': earth } },
      lamp('L', 'a', 'minus', 6),
      lamp('X', earth, 'minus', 1e6),
    ];
    const conditions: Condition[] = [run, { ...run, id: 'dark', name: 'Dark half', phase: 'off' }];
    expect(look(parts('minus'), conditions).at('run').volts('a')).toBeGreaterThan(12);
    expect(look(parts('minus'), conditions).at('dark').volts('a')).toBeCloseTo(0, 6);
    // Its earth through a megohm: the electronics see next to nothing.
    expect(look(parts('lifted'), conditions).at('run').volts('a')).toBeCloseTo(0, 3);
  });

  const door: CircuitPart = {
    id: 'S',
    kind: 'switch',
    name: 'Door switch',
    pins: { a: 'door', b: 'minus' },
    positions: ['shut', 'open'],
    rest: 'shut',
    contacts: [{ from: 'a', to: 'b', closedIn: ['open'] }],
  };
  const output = (side: 'high' | 'low', extra: object = {}): CircuitPart =>
    ({
      id: 'M',
      kind: 'module-output',
      name: 'Lamp output',
      pins: { plus: 'plus', minus: 'minus', out: 'out', door: 'door' },
      side,
      pullUps: ['door'],
      rule: [{ inputs: { door: 'low' } }, { key: ['run'] }],
      ...extra,
    }) as CircuitPart;
  const conditions: Condition[] = [
    off,
    run,
    { id: 'door', name: 'Door open', key: 'off', switches: { S: 'open' } },
  ];

  test('a module output follows its rule over key and inputs, high side and low side', () => {
    const high = look([BATTERY, door, output('high'), lamp('L', 'out', 'minus', 6)], conditions).at;
    expect(high('off').volts('out')).toBeCloseTo(0, 6);
    expect(high('run').volts('out')).toBeGreaterThan(12);
    expect(high('door').volts('out')).toBeGreaterThan(12);
    const low = look([BATTERY, door, output('low'), lamp('L', 'plus', 'out', 6)], conditions).at;
    expect(low('off').volts('out')).toBeGreaterThan(12);
    expect(low('door').volts('out')).toBeLessThan(0.2);
  });

  test('without its supply it does nothing', () => {
    const { model } = look(
      [
        BATTERY,
        door,
        output('high'),
        lamp('L', 'out', 'minus', 6),
        fuse('F', 'plus', 'x', 5),
        lamp('Y', 'x', 'minus', 50),
      ],
      conditions,
    );
    const flat = faultAlteration(model.network, { part: 'B', mode: 'flat' });
    expect(model.solve('door', flat).volts[model.network.nodeIndex.get('out')!]).toBeLessThan(0.1);
  });

  test('a pulsed output is on in one half and off in the other', () => {
    const { model } = look(
      [BATTERY, door, output('high', { duty: 0.25 }), lamp('L', 'out', 'minus', 6)],
      conditions,
    );
    const out = model.network.nodeIndex.get('out')!;
    expect(model.duty).toBe(0.25);
    expect(model.sound('run').volts[out]).toBeGreaterThan(12);
    expect(model.solveBetweenPulses('run', UNALTERED)?.volts[out]).toBeCloseTo(0, 6);
  });
});

describe('loads', () => {
  test('an appliance draws only where it is plugged in', () => {
    const { model, at } = look(
      [
        BATTERY,
        {
          id: 'X',
          kind: 'socket',
          name: 'Socket',
          pins: { plus: 'plus', minus: 'minus' },
          appliances: [
            { id: 'cooler', name: 'Cool box', amps: 4 },
            { id: 'pump', name: 'Tyre pump', watts: 120 },
          ],
        },
      ],
      [off, { id: 'cool', name: 'Cool box in', key: 'off', pluggedIn: { X: 'cooler' } }],
      [{ id: 'cooling', name: 'Cool box', load: 'X:cooler' }],
    );
    // 12 V / 4 A = 3 ohm behind 0.1 and the socket's 0.01 ohm.
    expect(at('off').amps('B')).toBeCloseTo(0, 9);
    expect(-at('cool').amps('B')).toBeCloseTo(12.6 / 3.11, 6);
    expect(model.outcome(model.function('cooling'), model.sound('cool'))).toBe('works');
    expect(model.outcome(model.function('cooling'), model.sound('off'))).toBe('dead');
  });

  test('an LED lamp takes its nominal current at nominal volts, and nothing the wrong way round', () => {
    const led = (plus: string, minus: string): CircuitPart => ({
      id: 'L',
      kind: 'led',
      name: 'LED lamp',
      pins: { plus, minus },
      amps: 0.5,
    });
    const at12: CircuitPart = { ...BATTERY, emfVolts: 12, innerOhms: 1e-5 } as CircuitPart;
    expect(
      look([at12, led('plus', 'minus')])
        .at('on')
        .amps('L'),
    ).toBeCloseTo(0.5, 2);
    expect(
      Math.abs(
        look([at12, led('minus', 'plus')])
          .at('on')
          .amps('L'),
      ),
    ).toBeLessThan(1e-9);
  });

  test('a resistor steps a motor down', () => {
    const { at } = look([
      BATTERY,
      { id: 'Q', kind: 'resistor', name: 'Step', pins: { a: 'plus', b: 'low' }, ohms: 1.9 },
      { id: 'M', kind: 'motor', name: 'Blower', pins: { plus: 'low', minus: 'minus' }, ohms: 2 },
    ]);
    expect(at('on').volts('low')).toBeCloseTo((12.6 * 2) / 4, 9);
  });
});
