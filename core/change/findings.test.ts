/** Changes planted by hand: the unsafe ones are found and named for their reason, the sound ones are left in peace. */
import { demoCircuit } from '../../testing/circuits';
import type { CircuitFile, CircuitPart, PlanEdit } from '../format';
import { type Finding, findingsOf, playPlan } from '.';

const HATCH = demoCircuit('van-hatch-fridge');
const CABINET = demoCircuit('van-proving-cabinet');

const wire = (id: string, a: string, b: string, sizeMm2: number, lengthMetres = 2): CircuitPart => ({
  id,
  kind: 'wire',
  name: `Wire ${id}`,
  pins: { a, b },
  lengthMetres,
  sizeMm2,
});
const lamp = (id: string, plus: string, watts: number): CircuitPart => ({
  id,
  kind: 'lamp',
  name: `Lamp ${id}`,
  pins: { plus, minus: 'chassis' },
  watts,
});
const heater = (id: string, plus: string, onSeconds: number): CircuitPart => ({
  id,
  kind: 'heater',
  name: `Heater ${id}`,
  pins: { plus, minus: 'chassis' },
  watts: 100,
  onSeconds,
});
const button = (id: string, from: string, to: string, momentary: boolean): CircuitPart => ({
  id,
  kind: 'switch',
  name: `Switch ${id}`,
  pins: { in: from, out: to },
  positions: ['off', 'on'],
  rest: 'off',
  momentary,
  contacts: [{ from: 'in', to: 'out', closedIn: ['on'] }],
});
const withSafety = (circuit: CircuitFile, id: string): CircuitFile => ({
  ...circuit,
  parts: circuit.parts.map((part) => (part.id === id ? { ...part, safetyCritical: true } : part)),
});
let count = 0;
const add = (nodes: readonly string[], ...parts: CircuitPart[]): PlanEdit => ({
  kind: 'add',
  id: `a${count++}`,
  nodes: nodes.map((id) => ({ id, name: `Point ${id}` })),
  parts,
});
const tap = (fuse: string, side: 'supply' | 'load' = 'supply', addedAmps = 5): PlanEdit => ({
  kind: 'tap',
  id: `t${count++}`,
  fuse,
  side,
  family: 'mini',
  addedFuse: `T-${fuse}`,
  addedAmps,
  lead: 'lead',
  name: `Tap at ${fuse}`,
});
const join = (one: string, other: string): PlanEdit => ({
  kind: 'join',
  id: `j${count++}`,
  splice: `SP-${count}`,
  name: 'New joint',
  one,
  other,
  joint: 'crimped-sleeve',
});
const cut = (id: string): PlanEdit => ({
  kind: 'cut',
  id: `c${count++}`,
  wire: id,
  rest: `${id}-far`,
  share: 0.5,
  nodes: { a: `${id}-near-end`, b: `${id}-far-end` },
  caps: { a: true, b: true },
});
const out = (part: string): PlanEdit => ({ kind: 'take-out', id: `o${count++}`, part, kept: true });

const found = (circuit: CircuitFile, edits: readonly PlanEdit[]): readonly Finding[] => {
  const played = playPlan(circuit, edits);
  expect(played.stuck).toBeNull();
  return findingsOf(played);
};

const UNSAFE: readonly (readonly [string, CircuitFile, readonly PlanEdit[], string, string])[] = [
  [
    'constant and accessory feed joined',
    CABINET,
    [join('f32-out', 'f33-out')],
    'back-feeds',
    'two sources meet',
  ],
  ['a lamp cut off at its switch, the feed left on', HATCH, [cut('W51')], 'live-ends', 'open end with 12'],
  ['the load taken out, its wire left', HATCH, [out('FR1')], 'live-ends', 'open end'],
  [
    'a thin wire behind a large fuse',
    HATCH,
    [add(['x'], wire('N1', 'f35-out', 'x', 0.5), lamp('N2', 'x', 10))],
    'protection',
    'which carries 11 A',
  ],
  [
    'a lead straight from the battery',
    HATCH,
    [add(['x'], wire('N1', 'bat-plus', 'x', 2.5), lamp('N2', 'x', 10))],
    'protection',
    'without a fuse over 2 m',
  ],
  [
    'a tap with a fuse above its wire',
    HATCH,
    [tap('F34', 'supply', 20), add(['x'], wire('N1', 'lead', 'x', 0.75), lamp('N2', 'x', 10))],
    'protection',
    'which carries 14 A',
  ],
  [
    'a tap turned round: the original fuse carries both',
    HATCH,
    [tap('F34', 'load', 10), add(['x'], wire('N1', 'lead', 'x', 2.5), lamp('N2', 'x', 100))],
    'overloads',
    'Fuse 34',
  ],
  [
    'two half loads on one weak feed',
    CABINET,
    [
      add(
        ['x', 'y'],
        wire('N1', 'f33-in', 'x', 1.5),
        lamp('N2', 'x', 60),
        wire('N3', 'f33-in', 'y', 1.5),
        lamp('N4', 'y', 60),
      ),
    ],
    'overloads',
    'Fuse 5',
  ],
  [
    'the switch bridged',
    HATCH,
    [join('s9-in', 's9-out')],
    'functions',
    'Serving-hatch lamp: off before, on after',
  ],
  ['the earth of two lamps lost', CABINET, [out('W38')], 'functions', 'shelf light'],
  ['the tap itself turned round', HATCH, [tap('F34', 'load')], 'taps', 'wrong way round'],
  [
    'a tap of another family',
    HATCH,
    [{ ...tap('F34'), family: 'regular' } as PlanEdit],
    'taps',
    'does not seat',
  ],
  ['a tap on what feeds the brakes', withSafety(HATCH, 'L3'), [tap('F34')], 'taps', 'a safety function'],
  [
    'the old fuse only pulled, its circuit fed from elsewhere',
    CABINET,
    [out('F32'), join('f32-out', 'f33-out')],
    'second-break',
    'once somebody puts it back',
  ],
  [
    'a heater for seconds on a switch that stays',
    HATCH,
    [add(['x', 'y'], button('N1', 'f35-out', 'x', false), wire('N2', 'x', 'y', 4), heater('N3', 'y', 20))],
    'short-time',
    'stays on by itself',
  ],
  [
    'a heavy load on a shared earth',
    CABINET,
    [
      add([], {
        ...heater('N1', 'bat-plus', 3600),
        pins: { plus: 'bat-plus', minus: 'sp2-earth' },
        watts: 500,
      } as CircuitPart),
    ],
    'returns',
    'what is new shares it',
  ],
  [
    'a module on a feed that never dies',
    HATCH,
    [
      add([], {
        id: 'N1',
        kind: 'module',
        name: 'Tracker',
        pins: { plus: 'f35-out', minus: 'chassis' },
        watts: 1,
      } as CircuitPart),
    ],
    'sleep',
    'Tracker',
  ],
];

test.each(UNSAFE)('%s', (_, circuit, edits, kind, words) => {
  const all = found(circuit, edits);
  expect(all.map((one) => one.kind)).toContain(kind);
  const own = all.filter((one) => one.kind === kind);
  expect(own.map((one) => one.words).join(' ')).toContain(words);
  for (const one of own) {
    expect(one.remedy.length).toBeGreaterThan(10);
    expect(one.words).not.toMatch(/NaN|undefined|null/);
  }
});

const SOUND: readonly (readonly [string, CircuitFile, readonly PlanEdit[]])[] = [
  ['a label', HATCH, [{ kind: 'label', id: 'l', on: 'Fuse 34', words: 'Hatch lamp' }]],
  [
    'a tap on the supply side with a lamp',
    HATCH,
    [tap('F34'), add(['x'], wire('N1', 'lead', 'x', 1), lamp('N2', 'x', 10))],
  ],
  ['a lamp more on the hatch circuit', HATCH, [add(['x'], wire('N1', 's9-out', 'x', 1), lamp('N2', 'x', 5))]],
  [
    'a fused lead from the battery',
    HATCH,
    [
      add(
        ['p', 'q', 'x'],
        wire('N0', 'bat-plus', 'p', 2.5, 0.15),
        { id: 'NF', kind: 'fuse', name: 'New fuse', pins: { in: 'p', out: 'q' }, ratingAmps: 15 },
        wire('N1', 'q', 'x', 2.5),
        lamp('N2', 'x', 60),
      ),
    ],
  ],
  [
    'a heater for seconds on a switch that springs back',
    HATCH,
    [add(['x', 'y'], button('N1', 'f35-out', 'x', true), wire('N2', 'x', 'y', 4), heater('N3', 'y', 20))],
  ],
  ['a wire cut and joined again', HATCH, [cut('W54'), join('W54-near-end', 'W54-far-end')]],
  ['a thicker wire beside the fridge’s', HATCH, [add([], wire('N1', 'f35-out', 'c14-box', 4, 3))]],
];

test.each(SOUND)('%s shows no danger', (_, circuit, edits) => {
  const dangers = found(circuit, edits).filter(({ level }) => level === 'danger');
  expect(dangers.map(({ words }) => words)).toEqual([]);
});
