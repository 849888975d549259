/**
 * A circuit as a graph for the layout: parts as boxes with fixed terminals, wires as edges with their colour, points
 * where three or more meet as dots, the body as an earth sign at every place that is bolted to it.
 */
import { PROTECTORS } from '../circuit';
import { type ByKind, byKind, type CircuitFile, type CircuitPart } from '../format';
import { formatNumber } from '../quantity';
import { GAP, LETTER, LINE } from './letters';
import { type PartSymbol, symbolOf } from './symbols';

interface LayoutPort {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly width: 0;
  readonly height: 0;
  readonly layoutOptions: Readonly<Record<string, string>>;
}

interface LayoutNode {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  readonly ports: readonly LayoutPort[];
  readonly layoutOptions: Readonly<Record<string, string>>;
}

interface LayoutEdge {
  readonly id: string;
  readonly sources: readonly string[];
  readonly targets: readonly string[];
  readonly labels?: readonly { readonly text: string; readonly width: number; readonly height: number }[];
}

/** What the layout package is given (its own JSON form). */
interface LayoutGraph {
  readonly id: 'root';
  readonly layoutOptions: Readonly<Record<string, string>>;
  readonly children: readonly LayoutNode[];
  readonly edges: readonly LayoutEdge[];
}

/** What stands in the drawing for a box of the graph. */
export type Drawn =
  | {
      readonly kind: 'part';
      readonly part: CircuitPart;
      readonly symbol: PartSymbol;
      readonly lines: readonly string[];
    }
  | { readonly kind: 'dot'; readonly node: string }
  | { readonly kind: 'earth'; readonly node: string };

export interface DrawnEdge {
  /** The point of the circuit at its upper and at its lower end; the same where no wire part lies between. */
  readonly from: string;
  readonly to: string;
  readonly wire: string | null;
}

export interface DiagramPlan {
  readonly graph: LayoutGraph;
  readonly drawn: ReadonlyMap<string, Drawn>;
  readonly edges: ReadonlyMap<string, DrawnEdge>;
}

/** Lines of letters beside a symbol: its name, what is known of it. */
function linesOf(part: CircuitPart): string[] {
  const fields = part as unknown as Readonly<Record<string, unknown>>;
  const facts = [
    amount(fields.ratingAmps, 'A'),
    part.kind === 'fuse' && part.ratingAmps === undefined ? '? A' : '',
    amount(fields.watts, 'W'),
    amount(fields.amps, 'A'),
    part.kind === 'resistor' ? amount(fields.ohms, 'Ω') : '',
    part.kind === 'connector' && part.cavity ? `cavity ${part.cavity}` : '',
    part.kind === 'key-contact' ? part.closedIn.join(' ') : '',
  ].filter((one) => one !== '');
  const name = part.name === part.id ? '' : short(part.name);
  return [[part.id, ...facts].join('  '), ...(name ? [name] : [])];
}

function amount(value: unknown, unit: string): string {
  return typeof value === 'number' ? `${formatNumber(value)} ${unit}` : '';
}

const MOST_LETTERS = 20;
function short(name: string): string {
  return name.length > MOST_LETTERS ? `${name.slice(0, MOST_LETTERS - 1)}…` : name;
}

function wireWords(part: Extract<CircuitPart, { kind: 'wire' }>): string {
  const size = part.sizeMm2 === undefined ? '' : `${formatNumber(part.sizeMm2)}`;
  return [part.colour ?? '', size].filter((one) => one !== '').join(' ') || part.id;
}

interface End {
  readonly id: string;
  readonly part: CircuitPart;
  /** Current is expected to come out of it. */
  readonly gives: boolean;
}

/** Kinds that look the same from either end. */
const EITHER_WAY: readonly CircuitPart['kind'][] = ['connector', 'resistor', ...PROTECTORS];

/** The symbol as it stands here: the end nearer to the battery above. */
function standing(part: CircuitPart, depth: ReadonlyMap<string, number>): PartSymbol {
  const symbol = symbolOf(part);
  const [upper, lower] = symbol.terminals;
  if (!EITHER_WAY.includes(part.kind) || !upper || !lower) return symbol;
  const pins = part.pins as Readonly<Record<string, string>>;
  const at = (pin: string) => depth.get(pins[pin]!) ?? 0;
  if (at(upper.pin) <= at(lower.pin)) return symbol;
  return {
    ...symbol,
    terminals: [
      { ...upper, pin: lower.pin },
      { ...lower, pin: upper.pin },
    ],
  };
}

/** Pins by which current usually leaves a part, from the terminals on its lower side. */
function endsOf(circuit: CircuitFile, depth: ReadonlyMap<string, number>): Map<string, End[]> {
  const ends = new Map<string, End[]>();
  for (const part of circuit.parts) {
    if (part.kind === 'wire') continue;
    for (const [pin, node] of Object.entries(part.pins)) {
      if (part.kind === 'ground' && pin === 'body') continue;
      const side = standing(part, depth).terminals.find((one) => one.pin === pin)?.side ?? 'SOUTH';
      const list = ends.get(node) ?? [];
      list.push({ id: `${part.id}.${pin}`, part, gives: side === 'SOUTH' });
      ends.set(node, list);
    }
  }
  return ends;
}

const allPins = ({ pins }: CircuitPart): string[] => Object.keys(pins);

/** Pins that are one way for the current, without going through anything that uses it up. */
const CONDUCTS: ByKind<readonly string[]> = {
  battery: () => [],
  'charging-source': () => [],
  fuse: allPins,
  'fusible-link': allPins,
  breaker: allPins,
  polyfuse: allPins,
  wire: allPins,
  connector: allPins,
  splice: allPins,
  ground: allPins,
  switch: allPins,
  'key-contact': allPins,
  relay: () => ['30', '87', '87a', '87b'],
  'latching-relay': () => ['30', '87', '87a'],
  solenoid: () => ['feed', 'load'],
  flasher: () => ['49', '49a'],
  'cut-off': () => ['in', 'out'],
  'module-output': ({ side }) => (side === 'high' ? ['plus', 'out'] : ['out', 'minus']),
  lamp: () => [],
  led: () => [],
  motor: () => [],
  pump: () => [],
  horn: () => [],
  heater: () => [],
  module: () => [],
  resistor: allPins,
  socket: () => [],
  diode: allPins,
};

/** Steps from some points to every other that is reached without going through a load. */
function stepsFrom(circuit: CircuitFile, start: readonly string[]): Map<string, number> {
  const steps = new Map(start.map((node) => [node, 0]));
  const queue = [...start];
  for (const node of queue) {
    for (const part of circuit.parts) {
      const pins = part.pins as Readonly<Record<string, string>>;
      const nodes = byKind(CONDUCTS, part).flatMap((pin) => (pins[pin] === undefined ? [] : [pins[pin]]));
      if (!nodes.includes(node)) continue;
      for (const next of nodes) {
        if (steps.has(next)) continue;
        steps.set(next, steps.get(node)! + 1);
        queue.push(next);
      }
    }
  }
  return steps;
}

/** Between two loads in series: below every feed, above every return. */
const BETWEEN = 10_000;

/** How far down a point belongs: feeds by their steps from the battery, returns by theirs to the body. */
function depths(circuit: CircuitFile): Map<string, number> {
  const bodies = bodyNodes(circuit);
  const plus = circuit.parts.flatMap((part) => (part.kind === 'battery' ? [part.pins.plus] : []));
  const down = stepsFrom(circuit, plus);
  const up = stepsFrom(circuit, [...bodies]);
  return new Map(
    circuit.nodes.map(({ id }) => {
      const [fed, back] = [down.get(id), up.get(id)];
      if (fed !== undefined && (back === undefined || fed <= back)) return [id, fed];
      return [id, back === undefined ? BETWEEN : 2 * BETWEEN - back];
    }),
  );
}

/** Points that are drawn as the body: the reference, and the metal behind every earth point. */
function bodyNodes(circuit: CircuitFile): ReadonlySet<string> {
  const nodes = new Set<string>();
  for (const part of circuit.parts) if (part.kind === 'ground') nodes.add(part.pins.body);
  if (nodes.size === 0) nodes.add(circuit.reference);
  return nodes;
}

const OPTIONS: Readonly<Record<string, string>> = {
  'elk.algorithm': 'layered',
  'elk.direction': 'DOWN',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.spacing.nodeNode': '14',
  'elk.spacing.edgeNode': '12',
  'elk.spacing.edgeEdge': '10',
  'elk.layered.spacing.nodeNodeBetweenLayers': '24',
  'elk.layered.spacing.edgeNodeBetweenLayers': '12',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.layered.nodePlacement.strategy': 'BRANDES_KOEPF',
  'elk.layered.nodePlacement.bk.edgeStraightening': 'IMPROVE_STRAIGHTNESS',
  'elk.edgeLabels.inline': 'false',
  'elk.layered.mergeEdges': 'true',
};

export function planDiagram(circuit: CircuitFile): DiagramPlan {
  const drawn = new Map<string, Drawn>();
  const edges = new Map<string, DrawnEdge>();
  const children: LayoutNode[] = [];
  const links: LayoutEdge[] = [];
  const depth = depths(circuit);
  const bodies = bodyNodes(circuit);
  const ends = endsOf(circuit, depth);
  let made = 0;

  const addPart = (part: CircuitPart) => {
    const symbol = standing(part, depth);
    const lines = part.kind === 'splice' ? [] : linesOf(part);
    const letters = Math.max(0, ...lines.map((line) => line.length)) * LETTER;
    const isDot = part.kind === 'splice';
    drawn.set(part.id, isDot ? { kind: 'dot', node: part.id } : { kind: 'part', part, symbol, lines });
    const first = part.kind === 'battery' || part.kind === 'charging-source';
    children.push({
      id: part.id,
      width: isDot ? 8 : symbol.width + GAP + letters,
      // A line more than it has: current, or what is wrong, is written there.
      height: isDot ? 8 : Math.max(symbol.height, (lines.length + 1) * LINE),
      ports: isDot
        ? []
        : symbol.terminals.map((terminal) => ({
            id: `${part.id}.${terminal.pin}`,
            x: terminal.x,
            y: terminal.side === 'NORTH' ? 0 : symbol.height,
            width: 0,
            height: 0,
            layoutOptions: { 'elk.port.side': terminal.side },
          })),
      layoutOptions: {
        'elk.portConstraints': isDot ? 'FREE' : 'FIXED_POS',
        ...(first ? { 'elk.layered.layering.layerConstraint': 'FIRST' } : {}),
        ...(part.kind === 'ground' ? { 'elk.layered.layering.layerConstraint': 'LAST' } : {}),
      },
    });
  };
  const addDot = (node: string, kind: 'dot' | 'earth'): string => {
    made += 1;
    const id = `${kind}:${node}:${made}`;
    drawn.set(id, { kind, node });
    children.push({
      id,
      width: kind === 'dot' ? 8 : 24,
      height: kind === 'dot' ? 8 : 24,
      ports: [],
      layoutOptions: { 'elk.portConstraints': 'FREE' },
    });
    return id;
  };
  const link = (from: string, to: string, between: DrawnEdge, words: string) => {
    made += 1;
    const id = `edge:${made}`;
    edges.set(id, between);
    links.push({
      id,
      sources: [from],
      targets: [to],
      ...(words === '' ? {} : { labels: [{ text: words, width: words.length * LETTER + 4, height: LINE }] }),
    });
  };
  const anchor = (end: End) => (end.part.kind === 'splice' ? end.part.id : end.id);

  for (const part of circuit.parts) if (part.kind !== 'wire') addPart(part);
  const wires = circuit.parts.filter((part) => part.kind === 'wire');
  const wireEnds = new Map<string, number>();
  for (const { pins } of wires) {
    for (const node of [pins.a, pins.b]) wireEnds.set(node, (wireEnds.get(node) ?? 0) + 1);
  }
  /** What an edge at a point is tied to: the one terminal there, a dot, or an earth sign of its own. */
  const hubs = new Map<string, string>();
  for (const { id: node } of circuit.nodes) {
    const here = ends.get(node) ?? [];
    const count = here.length + (wireEnds.get(node) ?? 0);
    if (bodies.has(node) || count === 0) continue;
    if (here.length === 1 && count === 2) {
      hubs.set(node, anchor(here[0]!));
      continue;
    }
    if (here.length === 2 && count === 2) {
      const [upper, lower] = here[0]!.gives || !here[1]!.gives ? [here[0]!, here[1]!] : [here[1]!, here[0]!];
      link(anchor(upper), anchor(lower), { from: node, to: node, wire: null }, '');
      continue;
    }
    if (here.length === 1 && count === 1) continue;
    const splice = here.find((end) => end.part.kind === 'splice');
    const hub = splice ? splice.part.id : addDot(node, 'dot');
    hubs.set(node, hub);
    for (const end of here) {
      if (end === splice) continue;
      const between = { from: node, to: node, wire: null };
      if (end.gives) link(anchor(end), hub, between, '');
      else link(hub, anchor(end), between, '');
    }
  }
  // Everything that sits on the body has an earth sign of its own; nobody follows a line across the page for it.
  for (const node of bodies) {
    for (const end of ends.get(node) ?? []) {
      const sign = addDot(node, 'earth');
      const between = { from: node, to: node, wire: null };
      if (end.gives) link(anchor(end), sign, between, '');
      else link(sign, anchor(end), between, '');
    }
  }
  for (const part of wires) {
    const [a, b] = [part.pins.a, part.pins.b];
    const down = (depth.get(a) ?? 0) <= (depth.get(b) ?? 0);
    const [from, to] = down ? [a, b] : [b, a];
    const tie = (node: string) =>
      bodies.has(node) ? addDot(node, 'earth') : (hubs.get(node) ?? addDot(node, 'dot'));
    link(tie(from), tie(to), { from, to, wire: part.id }, wireWords(part));
  }
  return { graph: { id: 'root', layoutOptions: OPTIONS, children, edges: links }, drawn, edges };
}
