/** Rows of the table of combinations as conditions. */
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { withConditions } from '../circuit';
import { CircuitModel } from '../network';
import { conditionAt, conditionOfRow, positionsIn } from './row';
import { dialsOf, stateTable } from './table';

const SOUND = { faults: [], done: [], fusesOpen: false };

test.each(DEMO_CIRCUITS)(
  '%s: every row is a condition of the circuit or becomes one that does the same',
  (name) => {
    const circuit = demoCircuit(name);
    const model = new CircuitModel(circuit);
    const dials = dialsOf(circuit).map(({ id }) => id);
    const { rows } = stateTable(model, dials, {}, SOUND, null);
    let known = 0;
    for (const [index, { at, states }] of rows.entries()) {
      const found = conditionAt(circuit, at);
      if (found) known += 1;
      const made = found ?? conditionOfRow(circuit, at, `seen-${index}`);
      const grown = withConditions(circuit, [made]);
      expect(positionsIn(grown, made)).toEqual(at);
      // Once it is there it is found again, and nothing is added twice.
      expect(conditionAt(grown, at)?.id).toBe(made.id);
      expect(withConditions(grown, [made])).toBe(grown);
      const solved = new CircuitModel(grown);
      const point = solved.sound(made.id);
      expect(grown.functions.map((one) => solved.outcome(one, point))).toEqual(states);
    }
    // Conditions of their own: what differs in nothing but time or beat is no row.
    expect(known).toBeGreaterThan(0);
    expect(known).toBeLessThanOrEqual(circuit.conditions.length);
  },
);

test('a key position that no contact tells from another is that one', () => {
  const circuit = demoCircuit('van-proving-cabinet');
  const [first] = circuit.conditions;
  const at = positionsIn(circuit, { ...first!, key: 'lock' });
  expect(at.key).toBe('off');
  expect(positionsIn(circuit, { ...first!, key: 'run' }).key).toBe('run');
});

test('a condition that names a part which is gone is left out', () => {
  const circuit = demoCircuit('van-proving-cabinet');
  const gone = { id: 'seen-1', name: 'Old switch', key: 'run' as const, switches: { S99: 'on' } };
  expect(withConditions(circuit, [gone])).toBe(circuit);
});
