/** The plan of a drawing: everything is in it once, terminals are those of the parts, the layout package agrees. */
import ELK from 'elkjs/lib/elk.bundled.js';
import { DEMO_CIRCUITS, demoCircuit } from '../../testing/circuits';
import { KIND_CIRCUITS } from '../../testing/kindCircuits';
import { vehicleCircuit } from '../../testing/vehicleCircuit';
import { planDiagram } from './graph';
import { type LayoutAnswer, laidDiagram } from './laid';
import { diagramSvg } from './svg';
import { symbolOf } from './symbols';

const CIRCUITS = [
  ...DEMO_CIRCUITS.map((name) => [name, demoCircuit(name)] as const),
  ...[...KIND_CIRCUITS].map(([name, circuit]) => [`kind ${name}`, circuit] as const),
  ['vehicle of 40 parts', vehicleCircuit(7, 40)] as const,
];

describe.each(CIRCUITS)('%s', (_name, circuit) => {
  const plan = planDiagram(circuit);
  test('every part is drawn once, wires as lines, and every symbol has the terminals of its part', () => {
    const boxes = [...plan.drawn.keys()];
    expect(new Set(boxes).size).toBe(boxes.length);
    for (const part of circuit.parts) {
      if (part.kind === 'wire') {
        expect([...plan.edges.values()].filter((edge) => edge.wire === part.id)).toHaveLength(1);
      } else expect(plan.drawn.has(part.id)).toBe(true);
      if (part.kind === 'wire' || part.kind === 'splice') continue;
      const pins = symbolOf(part).terminals.map((one) => one.pin);
      expect(pins).toEqual(expect.arrayContaining(Object.keys(part.pins).filter((pin) => pin !== 'body')));
    }
  });
  test('edges join what is there', () => {
    const ends = new Set(
      plan.graph.children.flatMap((child) => [child.id, ...child.ports.map((port) => port.id)]),
    );
    for (const edge of plan.graph.edges) {
      for (const end of [...edge.sources, ...edge.targets]) expect(ends.has(end)).toBe(true);
    }
  });
});

/** Things that were joined, by a name that they share. */
class Joined {
  private readonly over = new Map<string, string>();
  name(one: string): string {
    const above = this.over.get(one);
    return above === undefined ? one : this.name(above);
  }
  join(one: string, other: string): void {
    const [a, b] = [this.name(one), this.name(other)];
    if (a !== b) this.over.set(a, b);
  }
}

test.each(CIRCUITS)(
  '%s: what the drawing joins is what the circuit joins, and nothing else',
  (_name, circuit) => {
    const { graph, drawn, edges } = planDiagram(circuit);
    // In the circuit: points, the legs of a joint being one.
    const circuitJoins = new Joined();
    for (const part of circuit.parts) {
      if (part.kind !== 'splice') continue;
      const [first, ...others] = Object.values(part.pins);
      for (const other of others) circuitJoins.join(first!, other);
    }
    // In the drawing: terminals, dots and earth signs, the signs of one body being one.
    const drawnJoins = new Joined();
    for (const [id, one] of drawn) if (one.kind === 'earth') drawnJoins.join(id, `body ${one.node}`);
    const wires: { wire: string; ends: readonly string[] }[] = [];
    for (const { id, sources, targets } of graph.edges) {
      const { wire } = edges.get(id)!;
      const ends = [...sources, ...targets];
      if (wire === null) drawnJoins.join(ends[0]!, ends[1]!);
      else wires.push({ wire, ends });
    }
    const ends = circuit.parts.flatMap((part) =>
      part.kind === 'wire'
        ? []
        : Object.entries(part.pins as Record<string, string>)
            .filter(([pin]) => !(part.kind === 'ground' && pin === 'body'))
            .map(([pin, node]) => ({
              drawn: part.kind === 'splice' ? part.id : `${part.id}.${pin}`,
              point: circuitJoins.name(node),
            })),
    );
    const pointOf = new Map<string, string>();
    const nameOf = new Map<string, string>();
    for (const end of ends) {
      const name = drawnJoins.name(end.drawn);
      // One name, one point; one point, one name.
      expect(pointOf.get(name) ?? end.point).toBe(end.point);
      expect(nameOf.get(end.point) ?? name).toBe(name);
      pointOf.set(name, end.point);
      nameOf.set(end.point, name);
    }
    for (const { wire, ends: drawnEnds } of wires) {
      const { a, b } = circuit.parts.find((part) => part.id === wire)!.pins as Record<string, string>;
      for (const [index, node] of [a!, b!].entries()) {
        const known = nameOf.get(circuitJoins.name(node));
        const names = drawnEnds.map((end) => drawnJoins.name(end));
        // A point where only wires meet has no terminal of a part; then another wire of it has the same name.
        if (known !== undefined) expect(names).toContain(known);
        else nameOf.set(circuitJoins.name(node), names.find((name) => !pointOf.has(name)) ?? names[index]!);
      }
    }
  },
);

test('the layout puts the battery above, earths below, and nothing upon another', async () => {
  const circuit = demoCircuit('van-proving-cabinet');
  const plan = planDiagram(circuit);
  const answer = (await new ELK().layout(plan.graph as never)) as LayoutAnswer;
  const diagram = laidDiagram(plan, answer);
  const top = (id: string) => diagram.boxes.find((box) => box.id === id)!.y;
  for (const box of diagram.boxes) {
    if (box.drawn.kind === 'part' && box.id !== 'B1') expect(box.y).toBeGreaterThan(top('B1'));
  }
  for (const load of ['M1', 'L1', 'L2']) {
    expect(top('G4')).toBeGreaterThan(top(load));
    expect(top(load)).toBeGreaterThan(top('F31'));
  }
  const sizes = new Map(plan.graph.children.map((child) => [child.id, child]));
  for (const [index, one] of diagram.boxes.entries()) {
    for (const other of diagram.boxes.slice(index + 1)) {
      const [a, b] = [sizes.get(one.id)!, sizes.get(other.id)!];
      const apart =
        one.x + a.width <= other.x + 0.01 ||
        other.x + b.width <= one.x + 0.01 ||
        one.y + a.height <= other.y + 0.01 ||
        other.y + b.height <= one.y + 0.01;
      expect({ one: one.id, other: other.id, apart }).toEqual({ one: one.id, other: other.id, apart: true });
    }
  }
  const svg = diagramSvg(diagram, 'Fan & <lights>', new Map([['f31-out', '12.39 V']]));
  expect(svg).toContain('<title>Fan &amp; &lt;lights&gt;</title>');
  expect(svg).toContain('12.39 V');
  for (const part of circuit.parts) {
    if (part.kind !== 'wire' && part.kind !== 'splice') expect(svg).toContain(`>${part.id}`);
  }
});
