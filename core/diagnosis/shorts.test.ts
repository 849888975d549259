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
