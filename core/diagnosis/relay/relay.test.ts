/** Relays by the roles of their pins, bridging, and what does not come out. */
import { BATTERY, circuitOf, DEMO_CIRCUITS, demoCircuit, fuse, lamp, wire } from '../../../testing/circuits';
import { KIND_CIRCUITS } from '../../../testing/kindCircuits';
import type { CircuitFile, CircuitPart, Condition, PartOf } from '../../format/circuitSchema';
import type { TestRef } from '../../format/readingsSchema';
import { CircuitModel } from '../../network/model';
import { circuitOfPattern, PATTERNS } from '../../notation/patterns';
import { compareCosts } from '../choice/costs';
import type { TakenReading } from '../evidence/readings';
import { mayBridge } from './bridging';
import { fixedSwitches, moduleVerdicts } from './moduleVerdicts';
import { relayDuty } from './relayDuty';
import { relayVerdicts } from './relayVerdicts';

const van = demoCircuit('van-proving-cabinet');
const volts = (
  circuit: CircuitFile,
  condition: string,
  at: Readonly<Record<string, number>>,
): TakenReading[] =>
  Object.entries(at).map(([node, value], index) => ({
    id: `r${index}`,
    test: { kind: 'volts', node, against: circuit.reference, condition },
    value: { volts: value },
  }));
const soundOf = (circuit: CircuitFile, condition: string): Record<string, number> => {
  const model = new CircuitModel(circuit);
  const point = model.sound(condition);
  return Object.fromEntries(
    circuit.nodes.map(({ id }) => [id, point.volts[model.network.nodeIndex.get(id)!]!]),
  );
};
const dutyOf = (circuit: CircuitFile, relay: string, condition: string) =>
  relayDuty(new CircuitModel(circuit), relay, condition)!;
const verdicts = (
  circuit: CircuitFile,
  relay: string,
  condition: string,
  readings: readonly TakenReading[],
) => relayVerdicts(circuit, relay, dutyOf(circuit, relay, condition), condition, readings);
const bridge = (from: string, to: string, readings: readonly TakenReading[]) =>
  mayBridge(van, 'R4', from, to, dutyOf(van, 'R4', 'fan-on'), 'fan-on', readings);
const click: TakenReading = {
  id: 'c',
  test: { kind: 'click', part: 'R4', condition: 'fan-on' },
  value: { click: 'clicks' },
};
const standings = (readings: readonly TakenReading[]) =>
  Object.fromEntries(verdicts(van, 'R4', 'fan-on', readings).map((one) => [one.role, one.standing]));

describe('four verdicts', () => {
  test('nothing read, nothing said, and every role has its test', () => {
    const rows = verdicts(van, 'R4', 'fan-on', []);
    expect(rows.map((one) => [one.role, one.standing])).toEqual([
      ['feed', 'untested'],
      ['coil-feed', 'untested'],
      ['coil-return', 'untested'],
      ['output', 'untested'],
    ]);
    expect(rows.map((one) => (one.test as Extract<TestRef, { kind: 'volts' }>).node)).toEqual([
      'f31-out',
      'f33-out',
      'r4-85',
      'r4-87',
    ]);
  });
  test('a click passes the coil and never the contact', () => {
    expect(standings([click])).toEqual({
      feed: 'untested',
      'coil-feed': 'good',
      'coil-return': 'good',
      output: 'untested',
    });
    const dead = [click, ...volts(van, 'fan-on', { 'f31-out': 12.5, 'r4-87': 0 })];
    expect(standings(dead).output).toBe('bad');
    expect(verdicts(van, 'R4', 'fan-on', dead)[3]!.sentence).toContain('the contact is open');
  });
  test('a return that does not fall points at switch and wire, not at the relay', () => {
    const rows = verdicts(van, 'R4', 'fan-on', volts(van, 'fan-on', { 'f33-out': 12.5, 'r4-85': 12.4 }));
    expect(rows[2]).toMatchObject({ standing: 'bad' });
    expect(rows[2]!.sentence).toContain('not at the relay');
  });
  test.each([
    [12.46, 'good'],
    [12.35, 'watch'],
    [12.2, 'bad'],
  ] as const)('30 at 12.5 V and 87 at %s V: %s', (out, standing) => {
    expect(standings(volts(van, 'fan-on', { 'f31-out': 12.5, 'r4-87': out })).output).toBe(standing);
  });
  test('readings of another condition, and from before a repair, say nothing', () => {
    expect(standings(volts(van, 'all-off', { 'f31-out': 12.5 })).feed).toBe('untested');
    const old = volts(van, 'fan-on', { 'f31-out': 12.5 }).map((one) => ({ ...one, before: ['F31'] }));
    expect(standings(old).feed).toBe('untested');
  });
  test('the limits follow the nominal voltage', () => {
    const pattern = PATTERNS.find((one) => one.id === 'fuse-relay-load')!;
    for (const [nominalVolts, standing] of [
      [12, 'good'],
      [24, 'bad'],
    ] as const) {
      const { circuit, condition } = circuitOfPattern(pattern, { load: 'Fan', kind: 'motor', nominalVolts });
      const relay = circuit.parts.find((part): part is PartOf<'relay'> => part.kind === 'relay')!;
      const read = volts(circuit, condition, { [relay.pins['30']]: 12.5 });
      expect(verdicts(circuit, relay.id, condition, read)[0]!.standing).toBe(standing);
    }
  });
  test('a three-pin relay is completed: the shared pin counts for both roles', () => {
    const circuit = KIND_CIRCUITS.get('three-pin-relay')!;
    const relay = circuit.parts.find((part): part is PartOf<'relay'> => part.kind === 'relay')!;
    const condition = circuit.conditions.at(-1)!.id;
    const nodes = [...new Set(Object.values(relay.pins))];
    expect(nodes).toHaveLength(3);
    const at: Record<string, number> = {};
    for (const node of nodes) at[node] = node === relay.pins['85'] ? 0 : 12.5;
    const rows = verdicts(circuit, relay.id, condition, volts(circuit, condition, at));
    expect(rows.every((one) => one.standing === 'good')).toBe(true);
    expect(rows.some((one) => one.name.includes('one pin with'))).toBe(true);
  });
});

describe('every relay by its duty', () => {
  const AT_REST: Condition = { id: 'rest', name: 'Rest', key: 'run' };
  const PRESSED: Condition = { ...AT_REST, id: 'pressed', switches: { S: 'on' } };
  const button: CircuitPart = {
    id: 'S',
    kind: 'switch',
    name: 'Button',
    pins: { in: 'plus', out: 'command' },
    positions: ['off', 'on'],
    rest: 'off',
    contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
  };
  type Pins = PartOf<'relay'>['pins'];
  const switched = (pins: Pins, parts: CircuitPart[], more: object = {}) =>
    circuitOf({
      conditions: [AT_REST, PRESSED],
      parts: [
        BATTERY,
        button,
        fuse('F', 'plus', 'fed', 15),
        { id: 'K', kind: 'relay', name: 'Relay', pins, ...more } as CircuitPart,
        ...parts,
      ],
    });
  const coil = { '86': 'command', '85': 'minus' };
  const read = (circuit: CircuitFile, condition: string, at: Readonly<Record<string, number>>) =>
    Object.fromEntries(
      verdicts(circuit, 'K', condition, volts(circuit, condition, at)).map((one) => [
        `${one.role} ${one.pin}`,
        one.standing,
      ]),
    );

  test.each([
    ...DEMO_CIRCUITS.map((name) => [name, demoCircuit(name)] as const),
    ...[...KIND_CIRCUITS].filter(([, circuit]) => circuit.parts.some((part) => part.kind === 'relay')),
  ])('%s: what a sound relay shows is never called bad, in any condition', (_name, circuit) => {
    const model = new CircuitModel(circuit);
    for (const { id } of circuit.conditions) {
      const sound = soundOf(circuit, id);
      for (const relay of circuit.parts.filter((part) => part.kind === 'relay')) {
        const nodes = Object.values(relay.pins as Record<string, string>);
        const shown = volts(circuit, id, Object.fromEntries(nodes.map((node) => [node, sound[node]!])));
        const rows = relayVerdicts(circuit, relay.id, relayDuty(model, relay.id, id)!, id, shown);
        expect(rows.length).toBeGreaterThanOrEqual(4);
        expect(new Set(rows.map((one) => one.role + one.pin)).size).toBe(rows.length);
        expect(rows.filter((one) => one.standing === 'bad')).toEqual([]);
      }
    }
  });

  test('a contact that switches the earth side is read against earth', () => {
    const circuit = switched({ ...coil, '30': 'minus', '87': 'low' }, [lamp('L', 'fed', 'low', 6)]);
    expect(dutyOf(circuit, 'K', 'pressed').contacts).toEqual([
      { supply: '30', output: '87', rail: 'earth', supplied: true, closed: true, otherwise: false },
    ]);
    expect(read(circuit, 'pressed', { command: 12.4, low: 0.05 })).toMatchObject({
      'feed 30': 'good',
      'output 87': 'good',
    });
    expect(read(circuit, 'pressed', { command: 12.4, low: 12.3 })).toMatchObject({ 'output 87': 'bad' });
    expect(read(circuit, 'rest', { low: 12.3 })).toMatchObject({ 'output 87': 'good' });
    expect(read(circuit, 'rest', { low: 0.1 })).toMatchObject({ 'output 87': 'bad' });
  });

  test('a relay that turns a motor round is fed at 87 and earthed at 87a', () => {
    const other = { '86': 'never', '85': 'minus', '30': 'far', '87': 'fed', '87a': 'minus' };
    const circuit = switched({ ...coil, '30': 'near', '87': 'fed', '87a': 'minus' }, [
      lamp('M', 'near', 'far', 2),
      { id: 'K2', kind: 'relay', name: 'Other relay', pins: other } as CircuitPart,
      wire('W', 'never', 'minus', 1000),
    ]);
    expect(dutyOf(circuit, 'K', 'pressed').contacts).toMatchObject([
      { supply: '87', output: '30', rail: 'plus', closed: true, otherwise: false },
      { supply: '87a', output: '30', rail: 'earth', closed: false },
    ]);
    const good = { command: 12.4, fed: 12.3, near: 12.25 };
    expect(read(circuit, 'pressed', good)).toEqual({
      'feed 87': 'good',
      'feed 87a': 'good',
      'coil-feed 86': 'good',
      'coil-return 85': 'good',
      'output 30': 'good',
    });
    const dead = verdicts(circuit, 'K', 'pressed', volts(circuit, 'pressed', { ...good, near: 0.1 }));
    expect(dead.at(-1)).toMatchObject({ standing: 'bad' });
    expect(dead.at(-1)!.sentence).toContain('the contact is open');
  });

  test('a break contact carries at rest, and is dead while commanded', () => {
    const circuit = switched({ ...coil, '30': 'fed', '87a': 'out' }, [lamp('L', 'out', 'minus', 6)]);
    expect(read(circuit, 'rest', { fed: 12.4, out: 12.35, command: 0 })).toEqual({
      'feed 30': 'good',
      'coil-feed 86': 'good',
      'coil-return 85': 'good',
      'output 87a': 'good',
    });
    expect(read(circuit, 'rest', { fed: 12.4, out: 0 })['output 87a']).toBe('bad');
    expect(read(circuit, 'pressed', { out: 0 })['output 87a']).toBe('good');
    expect(read(circuit, 'pressed', { out: 12.3 })['output 87a']).toBe('bad');
  });

  test('a coil wired the other way round is no fault, unless a diode lies across it', () => {
    const turned = { '85': 'command', '86': 'minus', '30': 'fed', '87': 'out' };
    const circuit = switched(turned, [lamp('L', 'out', 'minus', 6)]);
    expect(dutyOf(circuit, 'K', 'pressed').coilFeed).toBe('85');
    expect(read(circuit, 'pressed', { command: 12.3 })).toMatchObject({
      'coil-feed 85': 'good',
      'coil-return 86': 'good',
    });
    const drawn = { ...coil, '30': 'fed', '87': 'out', '85': 'back' };
    const parts = [lamp('L', 'out', 'minus', 6), wire('W', 'back', 'minus', 0.01)];
    const exchanged = { command: 0.1, back: 12.2 };
    expect(read(switched(drawn, parts), 'pressed', exchanged)['coil-feed 86']).toBe('good');
    const diode = switched(drawn, parts, { suppression: 'diode' });
    expect(read(diode, 'pressed', exchanged)['coil-feed 86']).toBe('bad');
  });

  test('a feed that the key takes away is still the feed, with a load of a few tenths of an ohm behind 87', () => {
    const key: CircuitPart = {
      id: 'key',
      kind: 'key-contact',
      name: 'Key contact',
      pins: { in: 'plus', out: 'keyed' },
      closedIn: ['run'],
    };
    const off: Condition = { id: 'off', name: 'Off', key: 'off' };
    const circuit = {
      ...switched({ ...coil, '30': 'keyed', '87': 'out' }, [key, lamp('H', 'out', 'minus', 0.3)]),
      conditions: [AT_REST, PRESSED, off],
    };
    expect(dutyOf(circuit, 'K', 'off').contacts).toMatchObject([
      { supply: '30', output: '87', rail: 'plus', supplied: false, closed: false },
    ]);
    expect(dutyOf(circuit, 'K', 'pressed').contacts).toMatchObject([{ supply: '30', supplied: true }]);
    expect(read(circuit, 'off', { keyed: 0 })['feed 30']).toBe('good');
    expect(read(circuit, 'off', { keyed: 12.4 })['feed 30']).toBe('watch');
  });

  test('live although it should rest: contact, command and a second feed are told apart', () => {
    const circuit = switched({ ...coil, '30': 'fed', '87': 'out' }, [lamp('L', 'out', 'minus', 6)]);
    const stuck = read(circuit, 'rest', { fed: 12.4, out: 12.3, command: 0 });
    expect(stuck).toMatchObject({ 'coil-feed 86': 'good', 'output 87': 'bad' });
    expect(read(circuit, 'rest', { command: 12.4 })['coil-feed 86']).toBe('bad');
    const twice = switched({ ...coil, '30': 'fed', '87': 'out' }, [
      lamp('L', 'out', 'minus', 6),
      fuse('F2', 'plus', 'out', 10),
    ]);
    expect(read(twice, 'rest', { out: 12.3 })['output 87']).toBe('watch');
    expect(read(twice, 'pressed', { fed: 12.4, out: 12.35 })['output 87']).toBe('watch');
  });

  test('an output above its own supply is a slip or a second feed, not a good contact', () => {
    const circuit = switched({ ...coil, '30': 'fed', '87': 'out' }, [lamp('L', 'out', 'minus', 6)]);
    const rows = verdicts(circuit, 'K', 'pressed', volts(circuit, 'pressed', { fed: 12.0, out: 12.5 }));
    expect(rows.at(-1)).toMatchObject({ standing: 'watch' });
  });

  test('only the contact that closes is bridged, from the terminal seen to bring the supply', () => {
    const circuit = switched({ ...coil, '30': 'minus', '87': 'low', '87a': 'spare' }, [
      lamp('L', 'fed', 'low', 6),
      lamp('L2', 'fed', 'spare', 6),
    ]);
    const duty = dutyOf(circuit, 'K', 'pressed');
    const ask = (from: string, to: string) => mayBridge(circuit, 'K', from, to, duty, 'pressed', []);
    // 30 is the body itself, so nothing need be read.
    expect(ask('30', '87')).toMatchObject({ allowed: true });
    expect(ask('87', '30')).toMatchObject({ allowed: true });
    expect(ask('30', '87a')).toMatchObject({ allowed: false });
    expect(ask('87', '87a')).toMatchObject({ allowed: false });
  });
});

describe('bridging', () => {
  const live = volts(van, 'fan-on', { 'f31-out': 12.5 });
  test('a coil pin is blocked, whatever the other end is', () => {
    for (const [from, to] of [
      ['30', '86'],
      ['85', '87'],
      ['86', '85'],
    ] as const) {
      expect(bridge(from, to, live)).toMatchObject({ allowed: false });
    }
    expect(bridge('30', '86', live).sentence).toContain('86 is a coil pin');
  });
  test('the contact only after a reading has shown which hole is fed, with a lead no larger than the fuse', () => {
    expect(bridge('30', '87', [])).toMatchObject({ allowed: false });
    const answer = bridge('30', '87', live);
    expect(answer).toEqual({ allowed: true, sentence: expect.stringContaining('no more than 15 A') });
  });
});

describe('what does not come out', () => {
  const pattern = PATTERNS.find((one) => one.id === 'module-output')!;
  const { circuit, condition } = circuitOfPattern(pattern, { load: 'Pump', kind: 'pump', nominalVolts: 12 });
  const module = circuit.parts.find(
    (part): part is PartOf<'module-output'> => part.kind === 'module-output',
  )!;
  test('the module path is feed, earth, request, output', () => {
    expect(fixedSwitches(circuit, new Set(circuit.parts.map((part) => part.id)))).toEqual([module]);
    const rows = moduleVerdicts(circuit, module, soundOf(circuit, condition), condition, []);
    expect(rows.map((one) => one.role)).toEqual(['feed', 'earth', 'request', 'output']);
    const read = moduleVerdicts(
      circuit,
      module,
      soundOf(circuit, condition),
      condition,
      volts(circuit, condition, {
        [module.pins.plus!]: 12.5,
        [module.pins.minus!]: 0.02,
        [module.pins.request!]: 12.4,
        [module.pins.out!]: 0.1,
      }),
    );
    expect(read.map((one) => one.standing)).toEqual(['good', 'good', 'good', 'bad']);
    expect(read[3]!.sentence).toContain('fault memory');
  });
  test('a request that should be absent is no fault, and an output without one is', () => {
    const off = circuit.conditions.find((one) => Math.abs(soundOf(circuit, one.id)[module.pins.out!]!) < 1)!;
    const shown = (out: number, request: number) =>
      moduleVerdicts(
        circuit,
        module,
        soundOf(circuit, off.id),
        off.id,
        volts(circuit, off.id, {
          [module.pins.plus!]: 12.5,
          [module.pins.minus!]: 0.02,
          [module.pins.request!]: request,
          [module.pins.out!]: out,
        }),
      ).map((one) => one.standing);
    expect(shown(0, 0)).toEqual(['good', 'good', 'good', 'good']);
    expect(shown(12.3, 0)).toEqual(['good', 'good', 'good', 'bad']);
    expect(shown(12.3, 12.3)).toEqual(['good', 'good', 'bad', 'bad']);
  });
  test('two ways are totalled with own labour', () => {
    const { lines, cheapest } = compareCosts(60, [
      { name: 'Mend the wire', minutes: 45, price: 5 },
      { name: 'Whole module', minutes: 30, price: 240 },
    ]);
    expect(lines.map((one) => one.total)).toEqual([50, 270]);
    expect(cheapest).toBe('Mend the wire');
  });
});
