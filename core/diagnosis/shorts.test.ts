/** An opened fuse, and what opened it: told apart by ohms behind the fuse, worked out by hand. */
import { circuitOf, fuse, lamp, ON, wire } from '../../testing/circuits';
import { breakCircuit, type Fault } from '../faults';
import type { CircuitPart, TestRef } from '../format';
import { CircuitModel } from '../network';
import { leadToEnd } from './followEngine';
import { complaintOf, readingOf } from './playback';
import { DiagnosisSession } from './session';

const B: CircuitPart = {
  id: 'B',
  kind: 'battery',
  name: 'Battery',
  pins: { plus: 'plus', minus: 'minus' },
  emfVolts: 12.6,
  innerOhms: 0.012,
};
const S: CircuitPart = {
  id: 'S',
  kind: 'switch',
  name: 'Switch',
  pins: { in: 'fed', out: 'sw' },
  positions: ['off', 'on'],
  rest: 'off',
  contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
};
const C: CircuitPart = { id: 'C', kind: 'connector', name: 'Plug', pins: { a: 'near', b: 'far' } };
/** Battery, fuse, wire, switch, wire, plug, wire, lamp of 4 ohm hot. */
const map = circuitOf({
  parts: [
    B,
    fuse('F', 'plus', 'f', 10),
    wire('W1', 'f', 'fed', 0.02),
    S,
    wire('W2', 'sw', 'near', 0.02),
    C,
    wire('W3', 'far', 'l', 0.02),
    lamp('L', 'l', 'minus', 4),
  ],
  conditions: [
    { ...ON, switches: { S: 'on' } },
    { id: 'rest', name: 'All off', key: 'off' },
  ],
  functions: [{ id: 'light', name: 'Light', load: 'L' }],
});
const model = new CircuitModel(map);

const behind = (condition: string, unplugged?: string): TestRef => ({
  kind: 'ohms-behind',
  part: 'F',
  condition,
  ...(unplugged ? { unplugged } : {}),
});
const shown = (faults: readonly Fault[], ref: TestRef) => readingOf(breakCircuit(model, faults), ref);
const SHORT = { ohms: 0.3 };
const NOTHING = { overLimit: true };

test.each<[string, Fault[], unknown, unknown, unknown, unknown]>([
  // Switch off; on; on with the plug apart; on with the lamp apart. The leads themselves read 0.3 ohm.
  ['a short before the switch', [{ part: 'W1', mode: 'short-to-earth' }], SHORT, SHORT, SHORT, SHORT],
  ['between switch and plug', [{ part: 'W2', mode: 'short-to-earth' }], NOTHING, SHORT, SHORT, SHORT],
  ['between plug and lamp', [{ part: 'W3', mode: 'short-to-earth' }], NOTHING, SHORT, NOTHING, SHORT],
  ['inside the lamp', [{ part: 'L', mode: 'shorted' }], NOTHING, SHORT, NOTHING, NOTHING],
])('%s shows where it is', (_, faults, off, on, plugApart, lampApart) => {
  const is = [behind('rest'), behind('on'), behind('on', 'C'), behind('on', 'L')].map((ref) =>
    shown(faults, ref),
  );
  expect(is.map((one) => ('ohms' in one ? { ohms: Math.round(one.ohms * 5) / 5 } : one))).toEqual(
    [off, on, plugApart, lampApart].map((one) => (one === SHORT ? { ohms: 0.4 } : one)),
  );
});

test('a fuse that opened by itself leaves a cold lamp behind it, and nothing with the lamp apart', () => {
  const cold = shown([{ part: 'F', mode: 'open' }], behind('on'));
  // A filament of 4 ohm hot is about a tenth of that cold, and the leads add 0.3.
  expect('ohms' in cold && cold.ohms).toBeGreaterThan(0.5);
  expect('ohms' in cold && cold.ohms).toBeLessThan(1.2);
  expect(shown([{ part: 'F', mode: 'open' }], behind('on', 'L'))).toEqual(NOTHING);
});

test.each<[Fault, string]>([
  [{ part: 'W1', mode: 'short-to-earth' }, 'W1'],
  [{ part: 'W3', mode: 'short-to-earth', ohms: 0.1 }, 'W3'],
  [{ part: 'L', mode: 'shorted' }, 'L'],
  [{ part: 'F', mode: 'open' }, 'F'],
])('%j is what the search ends at: not the fuse that it opened', (fault, part) => {
  const broken = breakCircuit(model, [fault]);
  const complaint = complaintOf(broken)!;
  const { assessment, trail } = leadToEnd(new DiagnosisSession(map, complaint), complaint, (ref) =>
    readingOf(broken, ref),
  );
  expect([assessment.suspects[0]?.forms[0]?.fault?.part, trail]).toEqual([part, trail]);
});

test('no ohms behind a fuse that feeds a safety function, or a point that must not be probed', () => {
  const offered = (file: typeof map) =>
    new DiagnosisSession(file, { function: 'light', condition: 'on' }).permitted.filter(
      ({ ref }) => ref.kind === 'ohms-behind',
    ).length;
  expect(offered(map)).toBeGreaterThan(0);
  const guarded = {
    ...map,
    parts: map.parts.map((one) => (one.id === 'L' ? { ...one, safetyCritical: true } : one)),
  };
  expect(offered(guarded as typeof map)).toBe(0);
  const nodes = map.nodes.map((one) =>
    one.id === 'near' ? { ...one, probe: 'do-not-probe' as const } : one,
  );
  expect(offered({ ...map, nodes })).toBe(0);
});

/** Two lamps of 4 ohm from one splice, the earth wire of the first drawn: 12.6 V, and a lamp of 48/7 ohm as the fuse. */
const forked = circuitOf({
  parts: [
    B,
    fuse('F', 'plus', 'f', 15),
    wire('W1', 'f', 'fork', 0.02),
    wire('W2', 'fork', 'one', 0.02),
    lamp('L1', 'one', 'back', 4),
    wire('W4', 'back', 'minus', 0.02),
    wire('W3', 'fork', 'two', 0.02),
    lamp('L2', 'two', 'minus', 4),
  ],
  conditions: [ON],
  functions: [
    { id: 'first', name: 'First lamp', load: 'L1' },
    { id: 'second', name: 'Second lamp', load: 'L2' },
  ],
});
const forkedModel = new CircuitModel(forked);
const inWire = (wireId: string): TestRef => ({
  kind: 'lamp-current',
  part: 'F',
  wire: wireId,
  condition: 'on',
});
/** 12.6 V over 48/7 ohm. */
const ALL = 1.8;

test.each<[string, Fault[], readonly number[]]>([
  ['trunk chafed', [{ part: 'W1', mode: 'short-to-earth' }], [ALL, 0, 0, 0]],
  ['first branch chafed', [{ part: 'W2', mode: 'short-to-earth' }], [ALL, ALL, 0, 0]],
  ['second branch chafed', [{ part: 'W3', mode: 'short-to-earth' }], [ALL, 0, 0, ALL]],
  ['first lamp shorted inside', [{ part: 'L1', mode: 'shorted' }], [ALL, ALL, ALL, 0]],
  // Two lamps of 4 ohm beside each other: 12.6 / (48/7 + 2) = 1.42 A, half of it each.
  ['nothing but the fuse', [{ part: 'F', mode: 'open' }], [1.4, 0.7, 0.7, 0.7]],
])('%s: the current with a lamp in place of the fuse shows the way', (_, faults, amps) => {
  const broken = breakCircuit(forkedModel, faults);
  const shownAmps = ['W1', 'W2', 'W4', 'W3'].map((id) => readingOf(broken, inWire(id)));
  shownAmps.forEach((one, index) => {
    // To what a clamp on its smallest range can tell: a tenth.
    expect('amps' in one && Math.abs(one.amps - amps[index]!)).toBeLessThan(0.11);
  });
});

test.each<[string, Fault, unknown]>([
  ['a chafed branch', { part: 'W2', mode: 'short-to-earth', ohms: 0.05 }, 0.4],
  ['a lamp shorted inside, which is apart too', { part: 'L1', mode: 'shorted' }, null],
  ['the fuse alone', { part: 'F', mode: 'open' }, null],
])('ohms behind the fuse with every load apart: %s', (_, fault, ohms) => {
  const value = readingOf(breakCircuit(forkedModel, [fault]), {
    kind: 'ohms-behind',
    part: 'F',
    condition: 'on',
    apart: 'loads',
  });
  if (ohms === null) expect(value).toEqual(NOTHING);
  else expect('ohms' in value && value.ohms).toBeCloseTo(ohms as number, 1);
});

test.each(['W1', 'W2', 'W3', 'W4', 'L1', 'L2'].map((id) => [id]))('a short in %s is named', (id) => {
  const mode = id.startsWith('W') ? 'short-to-earth' : 'shorted';
  const broken = breakCircuit(forkedModel, [{ part: id, mode, ohms: 0.05 }]);
  const complaint = complaintOf(broken);
  // The earth wire lies on earth anyway: chafed through it does nothing.
  if (id === 'W4') return expect(complaint).toBeNull();
  const { assessment, trail } = leadToEnd(new DiagnosisSession(forked, complaint!), complaint!, (ref) =>
    readingOf(broken, ref),
  );
  expect([assessment.suspects[0]?.forms[0]?.fault?.part, trail]).toEqual([id, trail]);
});

test('no lamp in place of a fuse is clamped behind where a load has a power that nobody knows', () => {
  const offered = (file: typeof map) =>
    new DiagnosisSession(file, { function: 'first', condition: 'on' }).permitted.filter(
      ({ ref }) => ref.kind === 'lamp-current',
    ).length;
  expect(offered(forked)).toBe(4);
  const unknown = forked.parts.map((part) => {
    if (part.id !== 'L2' || part.kind !== 'lamp') return part;
    const { ohms: _, watts: __, ...rest } = part;
    return rest;
  });
  expect(offered({ ...forked, parts: unknown as CircuitPart[] })).toBe(0);
});
