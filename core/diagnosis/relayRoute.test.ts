/** Relays by the roles of their pins, bridging, and what does not come out. */
import { demoCircuit } from '../../testing/circuits';
import { KIND_CIRCUITS } from '../../testing/kindCircuits';
import type { CircuitFile, PartOf } from '../format/circuitSchema';
import type { TestRef } from '../format/readingsSchema';
import { circuitOfPattern, PATTERNS } from '../notation';
import type { TakenReading } from './evidence';
import { compareCosts, fixedSwitches, mayBridge, moduleVerdicts, relayVerdicts } from './relayRoute';

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
const click: TakenReading = {
  id: 'c',
  test: { kind: 'click', part: 'R4', condition: 'fan-on' },
  value: { click: 'clicks' },
};
const standings = (readings: readonly TakenReading[]) =>
  Object.fromEntries(relayVerdicts(van, 'R4', 'fan-on', readings).map((one) => [one.role, one.standing]));

describe('four verdicts', () => {
  test('nothing read, nothing said, and every role has its test', () => {
    const rows = relayVerdicts(van, 'R4', 'fan-on', []);
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
    expect(relayVerdicts(van, 'R4', 'fan-on', dead)[3]!.sentence).toContain('the contact is open');
  });
  test('a return that does not fall points at switch and wire, not at the relay', () => {
    const rows = relayVerdicts(van, 'R4', 'fan-on', volts(van, 'fan-on', { 'f33-out': 12.5, 'r4-85': 12.4 }));
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
    const truck = { ...van, nominalVolts: 24 } as CircuitFile;
    expect(relayVerdicts(truck, 'R4', 'fan-on', volts(van, 'fan-on', { 'f31-out': 12.5 }))[0]!.standing).toBe(
      'bad',
    );
  });
  test('a three-pin relay is completed: the shared pin counts for both roles', () => {
    const circuit = KIND_CIRCUITS.get('three-pin-relay')!;
    const relay = circuit.parts.find((part): part is PartOf<'relay'> => part.kind === 'relay')!;
    const condition = circuit.conditions.at(-1)!.id;
    const nodes = [...new Set(Object.values(relay.pins))];
    expect(nodes).toHaveLength(3);
    const at: Record<string, number> = {};
    for (const node of nodes) at[node] = node === relay.pins['85'] ? 0 : 12.5;
    const rows = relayVerdicts(circuit, relay.id, condition, volts(circuit, condition, at));
    expect(rows.every((one) => one.standing === 'good')).toBe(true);
    expect(rows.some((one) => one.name.includes('one pin with'))).toBe(true);
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
      expect(mayBridge(van, 'R4', from, to, 'fan-on', live)).toMatchObject({ allowed: false });
    }
    expect(mayBridge(van, 'R4', '30', '86', 'fan-on', live).sentence).toContain('86 is a coil pin');
  });
  test('the contact only after a reading has shown which hole is fed, with a lead no larger than the fuse', () => {
    expect(mayBridge(van, 'R4', '30', '87', 'fan-on', [])).toMatchObject({ allowed: false });
    const answer = mayBridge(van, 'R4', '30', '87', 'fan-on', live);
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
    const rows = moduleVerdicts(circuit, module, condition, []);
    expect(rows.map((one) => one.role)).toEqual(['feed', 'earth', 'request', 'output']);
    const read = moduleVerdicts(
      circuit,
      module,
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
  test('two ways are totalled with own labour', () => {
    const { lines, cheapest } = compareCosts(60, [
      { name: 'Mend the wire', minutes: 45, price: 5 },
      { name: 'Whole module', minutes: 30, price: 240 },
    ]);
    expect(lines.map((one) => one.total)).toEqual([50, 270]);
    expect(cheapest).toBe('Mend the wire');
  });
});
