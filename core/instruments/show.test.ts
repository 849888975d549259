import { BATTERY, circuitOf, DEMO_CIRCUITS, demoCircuit, fuse, lamp, wire } from '../../testing/circuits';
import type { Fault } from '../faults/faults';
import { overloads } from '../faults/overload';
import type { CircuitPart, Condition } from '../format/circuitSchema';
import { INTERVENTION_FORMS, type Intervention, intervene, parseIntervention } from '../hands/interventions';
import { fuseDropAmps } from '../limits/instruments';
import { CircuitModel } from '../network/model';
import {
  clampShows,
  fuseDropShows,
  ledTesterShows,
  type Measured,
  ohmmeterShows,
  ohmmeterShowsOfPart,
  sound,
  testLampShows,
  voltmeterShows,
} from './show';

/** Battery, fuse, wire, plug, lamp of 6 ohm, earth. */
const PARTS: CircuitPart[] = [
  BATTERY,
  fuse('F', 'plus', 'f', 10, 0.0076),
  wire('W', 'f', 'a', 0.05),
  { id: 'P', kind: 'connector', name: 'Plug', pins: { a: 'a', b: 'b' }, ohms: 0.003 },
  lamp('L', 'b', 'e', 6),
  { id: 'G', kind: 'ground', name: 'Earth', pins: { lug: 'e', body: 'minus' }, ohms: 0.003 },
];
const model = new CircuitModel(circuitOf({ parts: PARTS }));

function measured(faults: Fault[] = [], interventions: Intervention[] = [], of = model): Measured {
  const condition = of.conditions[0]!.id;
  return { model: of, condition, alteration: intervene(of.network, faults, interventions) };
}

describe('volts', () => {
  test('of a sound circuit, and its drop between two points', () => {
    // 12.6 V / (0.1 + 0.0076 + 0.05 + 0.003 + 6 + 0.003) = 2.0442 A.
    const amps = 12.6 / 6.1636;
    expect(voltmeterShows(sound(model, 'on'), 'b', 'minus').volts).toBeCloseTo(amps * 6.003, 5);
    expect(voltmeterShows(sound(model, 'on'), 'f', 'b').volts).toBeCloseTo(amps * 0.053, 6);
    expect(voltmeterShows(sound(model, 'on'), 'b', 'f').volts).toBeCloseTo(-amps * 0.053, 6);
  });

  test('a floating wire is known as floating and reads nothing on a meter that pulls it down', () => {
    const cut: Fault[] = [
      { part: 'W', mode: 'open' },
      { part: 'G', mode: 'open' },
    ];
    const shown = voltmeterShows(measured(cut), 'b', 'minus');
    expect(shown.floating).toBe(true);
    expect(Math.abs(shown.volts)).toBeLessThan(0.01);
    expect(voltmeterShows(measured(cut), 'plus', 'minus').floating).toBe(false);
  });

  test('a bad joint reads full volts without load', () => {
    const corroded: Fault[] = [{ part: 'P', mode: 'high-resistance', ohms: 500 }];
    const unloaded: Intervention[] = [{ kind: 'pulled', part: 'L' }];
    expect(voltmeterShows(measured(corroded, unloaded), 'b', 'minus').volts).toBeGreaterThan(12.5);
    expect(testLampShows(measured(corroded, unloaded), 'b', 'minus')).toBe('off');
    expect(ledTesterShows(measured(corroded, unloaded), 'b', 'minus')).toBe('lit');
  });

  test('a point that only a blocked diode reaches is known to hang on leakage', () => {
    const diode = (anode: string, cathode: string): CircuitModel =>
      new CircuitModel(
        circuitOf({
          parts: [
            BATTERY,
            { id: 'D', kind: 'diode', name: 'Diode', pins: { anode, cathode } },
            lamp('L', 'plus', 'minus', 6),
          ],
        }),
      );
    // Blocked: 2 nA through 10 megohm make 20 mV. Forward: all but the volts that 1.2 µA need.
    const blocked = voltmeterShows(sound(diode('x', 'plus'), 'on'), 'x', 'minus');
    expect(blocked.floating).toBe(true);
    expect(blocked.volts).toBeCloseTo(0.02, 2);
    const forward = voltmeterShows(sound(diode('plus', 'x'), 'on'), 'x', 'minus');
    expect(forward.volts).toBeGreaterThan(11.8);
  });

  test('a pulsed output shows its mean to a meter, and glows to a lamp by its root mean square', () => {
    const pulsed = new CircuitModel(
      circuitOf({
        parts: [
          BATTERY,
          {
            id: 'M',
            kind: 'module-output',
            name: 'Dimmer',
            pins: { plus: 'plus', minus: 'minus', out: 'out' },
            side: 'high',
            rule: [{ key: ['run'] }],
            duty: 0.25,
          },
          lamp('L', 'out', 'minus', 6),
        ],
      }),
    );
    const full = pulsed.sound('on').volts[pulsed.network.nodeIndex.get('out')!]!;
    expect(voltmeterShows(sound(pulsed, 'on'), 'out', 'minus').volts).toBeCloseTo(full / 4, 2);
    // Root of a quarter is a half: dim, where a quarter would already be near off.
    expect(testLampShows(sound(pulsed, 'on'), 'out', 'minus')).toBe('dim');
    expect(clampShows(sound(pulsed, 'on'), 'L').amps).toBeCloseTo(full / 6 / 4, 2);
  });
});

describe('lamps', () => {
  test('lit, dim and off', () => {
    expect(testLampShows(sound(model, 'on'), 'b', 'minus')).toBe('lit');
    expect(testLampShows(measured([{ part: 'F', mode: 'open' }]), 'b', 'minus')).toBe('off');
    // 12 V / 4 W is 36 ohm: behind 25 ohm and beside the lamp of 6 it gets a fifth of the volts.
    const weak: Fault[] = [{ part: 'W', mode: 'high-resistance', ohms: 12 }];
    expect(testLampShows(measured(weak), 'b', 'minus')).toBe('dim');
  });

  test('in place of a fuse: bright on a short, dim on a load, off on an open, and off once the short is unplugged', () => {
    const across = (faults: Fault[], more: Intervention[] = []) => {
      const all: Intervention[] = [{ kind: 'lamp-in-place', part: 'F' }, ...more];
      const one = measured(faults, all);
      const point = one.model.solve('on', one.alteration);
      const { a, b } = one.alteration.bridges.at(-1)!;
      return Math.abs(point.volts[a]! - point.volts[b]!) / 12.6;
    };
    expect(across([{ part: 'L', mode: 'shorted' }])).toBeGreaterThan(0.95);
    expect(across([])).toBeLessThan(0.6);
    expect(across([{ part: 'L', mode: 'open' }])).toBeLessThan(0.01);
    expect(across([{ part: 'L', mode: 'shorted' }], [{ kind: 'unplugged', part: 'P' }])).toBeLessThan(0.01);
  });
});

describe('ohms', () => {
  const disconnected: Intervention[] = [{ kind: 'disconnected', part: 'B' }];

  test('are refused on a live circuit', () => {
    const shown = ohmmeterShows(sound(model, 'on'), 'b', 'minus');
    expect('liveVolts' in shown && shown.liveVolts).toBeGreaterThan(12);
  });

  test('a filament reads cold: a tenth of its hot ohms, and 0.3 of leads', () => {
    expect(ohmmeterShows(measured([], disconnected), 'b', 'e')).toEqual({ ohms: expect.closeTo(0.9, 6) });
  });

  test('a blown fuse in place reads the parallel path where there is one, and over limit where there is none', () => {
    const blown: Fault[] = [{ part: 'F', mode: 'open' }];
    expect(ohmmeterShows(measured(blown, disconnected), 'plus', 'f')).toEqual({ overLimit: true });
    // With the battery in circuit the path leads round through lamp, earth and battery.
    const round = ohmmeterShows(measured(blown, [{ kind: 'pulled', part: 'L' }]), 'plus', 'f');
    expect(round).toEqual({ overLimit: true });
    const twin = new CircuitModel(circuitOf({ parts: [...PARTS, lamp('L2', 'plus', 'b', 60)] }));
    const parallel = ohmmeterShows(measured(blown, disconnected, twin), 'plus', 'f');
    expect('ohms' in parallel && parallel.ohms).toBeCloseTo(60 / 10 + 0.053 + 0.3, 3);
  });

  test('of a part in the hand: fuse, coil, filament', () => {
    const demo = new CircuitModel(demoCircuit('van-demist'));
    expect(ohmmeterShowsOfPart(demo, 'R2', '86', '85', [])).toEqual({ ohms: expect.closeTo(85.3, 0) });
    expect(ohmmeterShowsOfPart(demo, 'R2', '86', '85', [{ part: 'R2', mode: 'coil-open' }])).toEqual({
      overLimit: true,
    });
    expect(ohmmeterShowsOfPart(model, 'F', 'in', 'out', [{ part: 'F', mode: 'open' }])).toEqual({
      overLimit: true,
    });
    const whole = ohmmeterShowsOfPart(model, 'F', 'in', 'out', [{ part: 'L', mode: 'open' }]);
    expect('ohms' in whole && whole.ohms).toBeLessThan(0.32);
    expect(() => ohmmeterShowsOfPart(model, 'F', 'in', 'up', [])).toThrow('has no pin up');
  });
});

describe('current', () => {
  test('a clamp shows it with 2 % and 0.1 A', () => {
    const { amps, errorAmps } = clampShows(sound(model, 'on'), 'W');
    expect(amps).toBeCloseTo(12.6 / 6.1636, 6);
    expect(errorAmps).toBeCloseTo(0.02 * amps + 0.1, 9);
  });

  test('0.76 mV over a 10 A fuse is about 0.1 A, with its band', () => {
    const read = fuseDropAmps(0.00076, 10, 'regular');
    expect(read).toMatchObject({ amps: expect.closeTo(0.1, 3) });
    if ('amps' in read) {
      expect(read.fromAmps).toBeLessThan(0.07);
      expect(read.toAmps).toBeGreaterThan(0.12);
    }
  });

  test('nothing is read from no drop, from less than the meter resolves, from an open fuse, from unknown families', () => {
    for (const refused of [
      fuseDropAmps(0, 10, 'regular'),
      fuseDropAmps(0.00005, 30, 'regular'),
      fuseDropAmps(6, 10, 'mini'),
      fuseDropAmps(0.01, 40, 'cartridge-low'),
    ]) {
      expect('nothing' in refused && refused.nothing.endsWith('.')).toBe(true);
    }
  });

  test('the band holds the current that the circuit has, on every fuse of the demo that carries any', () => {
    let read = 0;
    for (const name of DEMO_CIRCUITS) {
      const demo = new CircuitModel(demoCircuit(name));
      for (const condition of demo.conditions) {
        for (const part of demo.circuit.parts) {
          if (part.kind !== 'fuse') continue;
          const shown = fuseDropShows(sound(demo, condition.id), part.id).amps;
          const { amps } = clampShows(sound(demo, condition.id), part.id);
          if ('nothing' in shown) continue;
          read += 1;
          expect(shown.fromAmps).toBeLessThan(amps);
          expect(shown.toAmps).toBeGreaterThan(amps);
        }
      }
    }
    expect(read).toBeGreaterThan(5);
  });
});

describe('interventions', () => {
  test('a fused jumper carries the load, and is reported when it is overloaded', () => {
    const broken: Fault[] = [{ part: 'W', mode: 'open' }];
    const bridged = measured(broken, [{ kind: 'jumper', from: 'f', to: 'b', fuseAmps: 10 }]);
    expect(voltmeterShows(bridged, 'b', 'minus').volts).toBeGreaterThan(12);
    const small = measured(broken, [{ kind: 'jumper', from: 'f', to: 'b', fuseAmps: 1 }]);
    const point = model.solve('on', small.alteration);
    expect(overloads(model.network, point, small.alteration).map((one) => one.part)).toEqual(['jumper']);
  });

  test('feed and earth put on a point, a known good part, a plug of several pins', () => {
    const fed = measured([{ part: 'F', mode: 'open' }], [{ kind: 'feed', node: 'a', fuseAmps: 10 }]);
    expect(voltmeterShows(fed, 'b', 'minus').volts).toBeGreaterThan(12);
    const lifted: Fault[] = [{ part: 'G', mode: 'open' }];
    expect(voltmeterShows(measured(lifted), 'e', 'minus').volts).toBeGreaterThan(12);
    expect(voltmeterShows(measured(lifted, [{ kind: 'earth', node: 'e' }]), 'e', 'minus').volts).toBeLessThan(
      0.1,
    );
    const renewed = measured([{ part: 'F', mode: 'open' }], [{ kind: 'known-good', part: 'F' }]);
    expect(voltmeterShows(renewed, 'b', 'minus').volts).toBeGreaterThan(12);
    const plug = new CircuitModel(
      circuitOf({
        parts: [
          BATTERY,
          { id: 'P1', kind: 'connector', name: 'Pin 1', pins: { a: 'plus', b: 'x' }, plug: 'P' },
          { id: 'P2', kind: 'connector', name: 'Pin 2', pins: { a: 'y', b: 'minus' }, plug: 'P' },
          lamp('L', 'x', 'y', 6),
        ],
      }),
    );
    const apart = measured([], [{ kind: 'unplugged', part: 'P1' }], plug);
    const point = plug.solve('on', apart.alteration);
    expect(point.floating[plug.network.nodeIndex.get('y')!]).toBe(1);
  });

  test('each is read from text in its own form, and refused in words', () => {
    for (const form of INTERVENTION_FORMS) {
      const text = form.replace(/POINT|PART|CONNECTOR|BATTERY|FUSE/g, 'x').replace('AMPS', '10');
      expect(parseIntervention(text)).toHaveProperty('kind', form.split(':')[0]);
    }
    for (const text of ['', 'hit:F1', 'pulled', 'pulled:', 'jumper:a:b', 'jumper:a:b:-3', 'feed:a:x']) {
      const refused = parseIntervention(text);
      expect('error' in refused && refused.error.endsWith('.')).toBe(true);
    }
  });

  test('what does not exist is refused', () => {
    const doing = (one: Intervention) => () => intervene(model.network, [], [one]);
    expect(doing({ kind: 'pulled', part: 'F9' })).toThrow('no part F9');
    expect(doing({ kind: 'unplugged', part: 'F' })).toThrow('not a connector');
    expect(doing({ kind: 'earth', node: 'nowhere' })).toThrow('no point nowhere');
    expect(doing({ kind: 'known-good', part: 'F9' })).toThrow('no part F9');
  });
});

test('conditions name the phase that a meter looks at', () => {
  const beat: Condition[] = [
    { id: 'lit', name: 'Lit half', key: 'run' },
    { id: 'dark', name: 'Dark half', key: 'run', phase: 'off' },
  ];
  const flashing = new CircuitModel(
    circuitOf({
      parts: [
        BATTERY,
        { id: 'U', kind: 'flasher', name: 'Flasher', pins: { '49': 'plus', '49a': 'a' } },
        lamp('L', 'a', 'minus', 6),
      ],
      conditions: beat,
    }),
  );
  expect(testLampShows(sound(flashing, 'lit'), 'a', 'minus')).toBe('lit');
  expect(testLampShows(sound(flashing, 'dark'), 'a', 'minus')).toBe('off');
});
