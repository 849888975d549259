/** Plans played and taken back. */
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { KIND_CIRCUITS } from '../../testing/kindCircuits';
import { seeded } from '../../testing/randomCircuit';
import { checkCircuit } from '../circuit';
import type { CircuitFile, PlanEdit } from '../format';
import { CircuitModel } from '../network';
import { playPlan, touchedParts, undoAll, undoSteps } from '.';

const CIRCUITS: readonly (readonly [string, CircuitFile])[] = [
  ...DEMO_CIRCUITS.map((name) => [name, demoCircuit(name)] as const),
  ...KIND_CIRCUITS,
];

/** An edit of a random kind that a circuit may take, under names that no other has. */
function randomEdit(circuit: CircuitFile, random: () => number, number: number): PlanEdit {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const id = `e${number}`;
  const own = (name: string) => `${name}-${number}`;
  const node = () => pick(circuit.nodes).id;
  const part = pick(circuit.parts);
  const fuse = circuit.parts.find(({ kind }) => kind === 'fuse');
  const wire = pick(circuit.parts.filter(({ kind }) => kind === 'wire'));
  switch (Math.floor(random() * 7)) {
    case 0:
      return {
        kind: 'add',
        id,
        nodes: [{ id: own('n'), name: 'New point' }],
        parts: [{ id: own('W'), kind: 'wire', name: 'New wire', pins: { a: node(), b: own('n') } }],
      };
    case 1:
      if (fuse)
        return {
          kind: 'tap',
          id,
          fuse: fuse.id,
          side: pick(['supply', 'load']),
          family: 'mini',
          addedFuse: own('T'),
          addedAmps: 5,
          lead: own('lead'),
          name: 'Tap',
        };
      break;
    case 2:
      if (wire)
        return {
          kind: 'cut',
          id,
          wire: wire.id,
          rest: own('rest'),
          share: 0.3,
          nodes: { a: own('ca'), b: own('cb') },
          caps: { a: true, b: true },
        };
      break;
    case 3:
      return {
        kind: 'join',
        id,
        splice: own('SP'),
        name: 'Joint',
        one: node(),
        other: node(),
        joint: 'crimped-sleeve',
      };
    case 4:
      return { kind: 'move', id, part: part.id, pin: pick(Object.keys(part.pins)), to: node() };
    case 5:
      return { kind: 'take-out', id, part: part.id, kept: random() < 0.5 };
  }
  return { kind: 'label', id, on: 'the box', words: 'Changed' };
}

test('random plans over every circuit: taken back, each file is as it was, byte for byte', () => {
  let played = 0;
  const kinds = new Set<string>();
  for (const [name, circuit] of CIRCUITS) {
    const whole = JSON.stringify(circuit);
    for (let seed = 1; seed <= 25; seed++) {
      const random = seeded(seed * 101 + name.length);
      const edits: PlanEdit[] = [];
      let now = circuit;
      for (let number = 0; number < 12; number++) {
        const edit = randomEdit(now, random, number);
        const next = playPlan(now, [edit]);
        if (next.stuck) continue;
        edits.push(edit);
        now = next.after;
      }
      const plan = playPlan(circuit, edits);
      expect(plan.stuck).toBeNull();
      expect(JSON.stringify(plan.after)).toBe(JSON.stringify(now));
      expect(JSON.stringify(undoAll(plan))).toBe(whole);
      expect(JSON.stringify(circuit)).toBe(whole);
      expect(undoSteps(plan)).toHaveLength(edits.length);
      for (const { kind } of edits) kinds.add(kind);
      played += edits.length;
    }
  }
  expect(kinds.size).toBe(7);
  expect(played).toBeGreaterThan(3000);
});

describe('what an edit does', () => {
  const van = demoCircuit('van-hatch-fridge');
  const play = (...edits: PlanEdit[]) => playPlan(van, edits);
  const part = (circuit: CircuitFile, id: string) => circuit.parts.find((one) => one.id === id)!;
  const volts = (circuit: CircuitFile, node: string, key: 'off' | 'run' = 'off') => {
    const model = new CircuitModel(circuit);
    return model.solve(model.adopt({ key }), { changes: [], bridges: [] }).volts[
      model.network.nodeIndex.get(node)!
    ]!;
  };
  test('a tap on the supply side is fed with the original fuse out, one on the load side is not', () => {
    const tap = (side: 'supply' | 'load'): PlanEdit => ({
      kind: 'tap',
      id: 't',
      fuse: 'F34',
      side,
      family: 'mini',
      addedFuse: 'T1',
      addedAmps: 5,
      lead: 'lead',
      name: 'Tap',
    });
    const out: PlanEdit = { kind: 'take-out', id: 'o', part: 'F34', kept: true };
    expect(volts(play(tap('supply'), out).after, 'lead')).toBeGreaterThan(12);
    expect(volts(play(tap('load'), out).after, 'lead')).toBeLessThan(1);
    expect(volts(play(tap('load')).after, 'lead')).toBeGreaterThan(12);
    expect(play(tap('supply')).applied[0]!.words).toContain('its incoming leg on the supply side');
  });
  test('a wire in two: lengths add up, the far piece is dead, and a joint brings it back', () => {
    const cut: PlanEdit = {
      kind: 'cut',
      id: 'c',
      wire: 'W54',
      rest: 'W54x',
      share: 0.25,
      nodes: { a: 'ca', b: 'cb' },
      caps: { a: true, b: true },
    };
    const { after, applied } = play(cut);
    expect([part(after, 'W54'), part(after, 'W54x')]).toMatchObject([
      { lengthMetres: 0.75, pins: { b: 'ca' } },
      { lengthMetres: 2.25, pins: { a: 'cb', b: 'c14-box' } },
    ]);
    expect(touchedParts(applied[0]!.patch)).toEqual(['W54x', 'W54']);
    expect([volts(after, 'ca') > 12, volts(after, 'cb') < 1]).toEqual([true, true]);
    const join: PlanEdit = {
      kind: 'join',
      id: 'j',
      splice: 'SPn',
      name: 'Joint',
      one: 'ca',
      other: 'cb',
      joint: 'crimped-sleeve',
    };
    expect(volts(play(cut, join).after, 'c14-box')).toBeCloseTo(volts(van, 'c14-box'), 1);
  });
  test('a load that goes takes its function along, and what is left is a circuit', () => {
    const { after } = play({ kind: 'take-out', id: 'o', part: 'FR1', kept: false });
    expect(after.functions.map(({ load }) => load)).not.toContain('FR1');
    expect(checkCircuit(after).ok).toBe(true);
  });
  test.each([
    [
      {
        kind: 'tap',
        id: 't',
        fuse: 'W54',
        side: 'supply',
        family: 'mini',
        addedFuse: 'T',
        addedAmps: 5,
        lead: 'l',
        name: 'Tap',
      },
      'is no fuse',
    ],
    [
      {
        kind: 'cut',
        id: 'c',
        wire: 'F34',
        rest: 'x',
        share: 0.5,
        nodes: { a: 'p', b: 'q' },
        caps: { a: true, b: true },
      },
      'is no wire',
    ],
    [
      {
        kind: 'join',
        id: 'j',
        splice: 'F34',
        name: 'J',
        one: 'bat-plus',
        other: 'chassis',
        joint: 'soldered',
      },
      'is there already',
    ],
    [
      {
        kind: 'join',
        id: 'j',
        splice: 'S',
        name: 'J',
        one: 'bat-plus',
        other: 'bat-plus',
        joint: 'soldered',
      },
      'with itself',
    ],
    [{ kind: 'move', id: 'm', part: 'F34', pin: 'x', to: 'chassis' }, 'has no pin x'],
    [{ kind: 'move', id: 'm', part: 'F34', pin: 'in', to: 'nowhere' }, 'no point'],
    [{ kind: 'take-out', id: 'o', part: 'B1', kept: false }, 'battery stays'],
    [{ kind: 'take-out', id: 'o', part: 'none', kept: false }, 'no part'],
    [
      {
        kind: 'add',
        id: 'a',
        nodes: [],
        parts: [{ id: 'W9', kind: 'wire', name: 'W', pins: { a: 'bat-plus', b: 'void' } }],
      },
      'no point “void”',
    ],
  ] as const)('%j is refused in words, and nothing is changed', (edit, words) => {
    const { stuck, after, applied } = play(edit as unknown as PlanEdit);
    expect(stuck?.problem).toContain(words);
    expect([after, applied]).toEqual([van, []]);
  });
  test('what was changed again since is not undone over it', () => {
    const move = (to: string): PlanEdit => ({ kind: 'move', id: to, part: 'S9', pin: 'out', to });
    const first = play(move('chassis'));
    const later = playPlan(first.after, [move('bay-bus')]);
    expect(() => undoAll({ after: later.after, applied: first.applied })).toThrow('undo that first');
  });
  test('edits of different parts give the same in any order', () => {
    const edits: PlanEdit[] = [
      { kind: 'take-out', id: '1', part: 'L3', kept: true },
      {
        kind: 'cut',
        id: '2',
        wire: 'W54',
        rest: 'W54x',
        share: 0.5,
        nodes: { a: 'ca', b: 'cb' },
        caps: { a: true, b: false },
      },
      { kind: 'label', id: '3', on: 'Fuse 34', words: 'Hatch' },
    ];
    const sorted = ({ after }: { after: CircuitFile }) => ({
      parts: [...after.parts].sort((one, other) => one.id.localeCompare(other.id)),
      nodes: [...after.nodes].sort((one, other) => one.id.localeCompare(other.id)),
    });
    const orders = [
      [0, 1, 2],
      [2, 1, 0],
      [1, 2, 0],
      [0, 2, 1],
    ];
    for (const order of orders) {
      expect(sorted(play(...order.map((index) => edits[index]!)))).toEqual(sorted(play(...edits)));
    }
  });
});
