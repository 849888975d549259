/** Live settings and state tables. */
import { BATTERY, circuitOf, DEMO_CIRCUITS, demoCircuit, fuse, lamp, wire } from '../../testing/circuits';
import type { CircuitPart } from '../format/circuitSchema';
import { CircuitModel } from '../network/model';
import { settingOf } from './setting';
import { liveState } from './state';
import { conditionOf, dialsOf, MOST_ROWS, rowCount, stateTable, tableCsv } from './table';

const AS_IT_IS = { faults: [], done: [], fusesOpen: true } as const;

function switchPart(id: string, from: string, to: string): CircuitPart {
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

/** A lamp behind two switches in series, and one behind a third. */
const THREE = circuitOf({
  parts: [
    BATTERY,
    fuse('F1', 'plus', 'f', 10),
    switchPart('S1', 'f', 'a'),
    switchPart('S2', 'a', 'b'),
    lamp('L1', 'b', 'minus', 12),
    switchPart('S3', 'f', 'c'),
    wire('W3', 'c', 'd', 0.01),
    lamp('L2', 'd', 'minus', 12),
  ],
  functions: [
    { id: 'one', name: 'Lamp one', load: 'L1' },
    { id: 'two', name: 'Lamp two', load: 'L2' },
  ],
});

describe('state table', () => {
  const model = new CircuitModel(THREE);
  test('three switches of two positions give eight rows, each once', () => {
    const table = stateTable(model, ['S1', 'S2', 'S3'], {}, AS_IT_IS, null);
    expect(table.rows).toHaveLength(8);
    expect(new Set(table.rows.map((row) => JSON.stringify(row.at))).size).toBe(8);
    for (const { at, states } of table.rows) {
      expect(states).toEqual([
        at.S1 === 'on' && at.S2 === 'on' ? 'works' : 'dead',
        at.S3 === 'on' ? 'works' : 'dead',
      ]);
    }
  });
  test('a key that no contact feels is not turned', () => {
    expect(dialsOf(THREE).map((dial) => dial.id)).toEqual(['S1', 'S2', 'S3']);
    expect(dialsOf(demoCircuit('van-proving-cabinet'))[0]).toMatchObject({
      id: 'key',
      positions: ['off', 'run'],
    });
  });
  test('two circuits are compared cell by cell', () => {
    const pulled = { ...AS_IT_IS, done: [{ kind: 'pulled', part: 'F1' }] } as const;
    const table = stateTable(model, ['S3'], { S1: 'on', S2: 'on' }, AS_IT_IS, pulled);
    expect(table.rows.map((row) => [row.states, row.other])).toEqual([
      [
        ['works', 'dead'],
        ['dead', 'dead'],
      ],
      [
        ['works', 'works'],
        ['dead', 'dead'],
      ],
    ]);
    expect(tableCsv(table)).toBe(
      'Switch S3,Lamp one,Lamp two\noff,works / dead,dead\non,works / dead,works / dead',
    );
  });
  test('more rows than anybody reads are refused in words', () => {
    const many = circuitOf({
      parts: [
        BATTERY,
        ...Array.from({ length: 11 }, (_, i) => switchPart(`S${i}`, 'plus', `n${i}`)),
        ...Array.from({ length: 11 }, (_, i) => lamp(`L${i}`, `n${i}`, 'minus', 12)),
      ],
    });
    const dials = dialsOf(many);
    expect(rowCount(dials)).toBe(2048);
    expect(rowCount(dials)).toBeGreaterThan(MOST_ROWS);
    const ids = dials.map((dial) => dial.id);
    expect(() => stateTable(new CircuitModel(many), ids, {}, AS_IT_IS, null)).toThrow('Vary fewer switches');
  });
});

describe('live state', () => {
  test.each(DEMO_CIRCUITS)('%s shows in each of its conditions what the condition itself shows', (name) => {
    const model = new CircuitModel(demoCircuit(name));
    for (const condition of model.conditions) {
      const { nodes, functions } = liveState(model, settingOf(condition));
      const point = model.sound(condition.id);
      for (const { node, volts } of nodes) {
        expect(volts).toBeCloseTo(point.volts[model.network.nodeIndex.get(node)!]!, 9);
      }
      expect(functions.map((one) => one.state)).toEqual(
        model.circuit.functions.map((one) => model.outcome(one, point)),
      );
    }
  });
  test('a short opens the fuse before it, and without that it is named with its time', () => {
    const model = new CircuitModel(THREE);
    const condition = conditionOf(dialsOf(THREE), { S3: 'on' });
    const broken = { faults: [{ part: 'W3', mode: 'short-to-earth' }], done: [] } as const;
    const opened = liveState(model, { condition, ...broken, fusesOpen: true });
    expect(opened.blown).toEqual(['F1']);
    expect(opened.functions).toEqual([
      { function: 'one', state: 'dead' },
      { function: 'two', state: 'dead' },
    ]);
    const held = liveState(model, { condition, ...broken, fusesOpen: false });
    expect(held.overloaded[0]).toMatchObject({ part: 'F1', ratingAmps: 10 });
    expect(held.overloaded[0]!.amps).toBeGreaterThan(13.5);
  });
  test('settings that were long ago are forgotten, and still right when they come back', () => {
    const model = new CircuitModel(THREE);
    const first = liveState(model, { condition: { key: 'run' }, ...AS_IT_IS });
    for (let seconds = 0; seconds < 100; seconds++) {
      liveState(model, { condition: { key: 'run', secondsIn: seconds }, ...AS_IT_IS });
    }
    expect(liveState(model, { condition: { key: 'run' }, ...AS_IT_IS })).toEqual(first);
  });
});
