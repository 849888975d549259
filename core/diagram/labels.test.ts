/** No line of letters in a drawing covers another, whatever is written: volts, current, names, colours of wires. */
import ELK from 'elkjs/lib/elk.bundled.js';
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { vehicleCircuit } from '../../testing/vehicleCircuit';
import { planDiagram } from './graph';
import { type Letters, lettersOf } from './labels';
import { type LayoutAnswer, laidDiagram } from './laid';

const CIRCUITS = [
  ...DEMO_CIRCUITS.map((name) => [name, demoCircuit(name)] as const),
  ['vehicle of 40 parts', vehicleCircuit(7, 40)] as const,
  ['vehicle of 120 parts', vehicleCircuit(3, 120)] as const,
];

const covers = (one: Letters, other: Letters) =>
  one.x < other.x + other.width &&
  other.x < one.x + one.width &&
  one.y < other.y + other.height &&
  other.y < one.y + one.height;

test.each(CIRCUITS)('%s', async (_name, circuit) => {
  const plan = planDiagram(circuit);
  const answer = (await new ELK().layout(plan.graph as never)) as LayoutAnswer;
  const letters = lettersOf(laidDiagram(plan, answer));
  expect(letters.filter(({ kind }) => kind === 'volts').length).toBeGreaterThan(2);
  const covered = letters.flatMap((one, index) =>
    letters
      .slice(index + 1)
      .filter((other) => covers(one, other))
      .map((other) => `${one.kind} of ${one.of} and ${other.kind} of ${other.of}`),
  );
  expect(covered).toEqual([]);
});
