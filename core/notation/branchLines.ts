/** A circuit as lines of the notation: from the supply along every branch to where it ends. */
import type { CircuitFile, CircuitPart } from '../format';
import { type Way, wordsOfKind } from './words';

interface Step {
  readonly part: CircuitPart;
  readonly way: Way;
}

export interface BranchLine {
  /** Node it starts from; the steps; the node it ends at. */
  readonly from: string;
  readonly steps: readonly Step[];
  readonly to: string;
}

/** Ways that together touch every pin of a part. */
function waysOf(part: CircuitPart): Way[] {
  const pins = part.pins as Readonly<Record<string, string>>;
  const words = wordsOfKind(part.kind);
  const ways = words.ways.filter((way) => pins[way.enter] !== undefined && pins[way.leave] !== undefined);
  const touched = new Set(ways.flatMap((way) => [way.enter, way.leave]));
  const rest = Object.keys(pins).filter((pin) => !touched.has(pin));
  if (part.kind === 'switch' && part.contacts.length > 0) {
    const own = part.contacts
      .filter((one) => pins[one.from] !== undefined && pins[one.to] !== undefined)
      .map((one) => ({ enter: one.from, leave: one.to }));
    const unique = own.filter(
      (way, index) => own.findIndex((one) => one.enter === way.enter && one.leave === way.leave) === index,
    );
    const reached = new Set(unique.flatMap((way) => [way.enter, way.leave]));
    const left = Object.keys(pins).filter((pin) => !reached.has(pin));
    return [
      ...unique,
      ...left.map((pin) => ({ enter: unique[0]?.enter ?? Object.keys(pins)[0]!, leave: pin })),
    ];
  }
  if (ways.length === 0 && rest.length >= 2) {
    return rest.slice(1).map((pin) => ({ enter: rest[0]!, leave: pin }));
  }
  const hub = ways[0]?.enter ?? rest[0]!;
  return [...ways, ...rest.map((pin) => ({ enter: hub, leave: pin }))];
}

/** Every way of every part once, in lines that follow the current where they can. */
export function branchesOf(circuit: CircuitFile): BranchLine[] {
  return new LineMaker(circuit).make();
}

/** F5 before F31. */
const { compare: byName } = new Intl.Collator('en', { numeric: true });

interface OpenStep extends Step {
  done: boolean;
}

const pinsOf = (part: CircuitPart) => part.pins as Readonly<Record<string, string>>;
/** Parts that a line may go through from either end, when nothing leads to them the right way round. */
const TURNS: readonly CircuitPart['kind'][] = [
  'wire',
  'connector',
  'resistor',
  'ground',
  'fuse',
  'fusible-link',
];

class LineMaker {
  private readonly lines: BranchLine[] = [];
  private readonly steps: OpenStep[];
  private readonly byNode = new Map<string, OpenStep[]>();
  private readonly splices = new Map<string, { part: CircuitPart; passed: boolean }[]>();
  private readonly reached: string[] = [];

  constructor(private readonly circuit: CircuitFile) {
    // By name, so that the text depends on the circuit and not on the order of its file.
    const ordered = circuit.parts.slice().sort((one, other) => byName(one.id, other.id));
    this.steps = ordered
      .filter((part) => part.kind !== 'splice')
      .flatMap((part) => waysOf(part).map((way): OpenStep => ({ part, way, done: false })))
      .filter(({ way }) => way.enter !== way.leave);
    for (const step of this.steps) {
      for (const pin of [step.way.enter, step.way.leave])
        this.put(this.byNode, pinsOf(step.part)[pin]!, step);
    }
    for (const part of ordered) {
      if (part.kind !== 'splice') continue;
      const splice = { part, passed: false };
      for (const node of new Set(Object.values(pinsOf(part)))) this.put(this.splices, node, splice);
    }
  }

  private put<T>(map: Map<string, T[]>, key: string, value: T): void {
    map.set(key, [...(map.get(key) ?? []), value]);
  }

  make(): BranchLine[] {
    for (const step of this.steps) {
      if (step.part.kind === 'battery' && !step.done)
        this.follow(pinsOf(step.part)[step.way.enter]!, step, false);
    }
    // First along the current only; then what is left, from whichever end is known.
    for (const turning of [false, true]) {
      for (let index = 0; index < this.reached.length; index++) this.startAt(this.reached[index]!, turning);
    }
    for (const step of this.steps) {
      if (step.done) continue;
      this.follow(pinsOf(step.part)[step.way.enter]!, step, false);
      for (let index = 0; index < this.reached.length; index++) this.startAt(this.reached[index]!, true);
    }
    for (const splice of [...this.splices.values()].flat()) {
      if (!splice.passed) this.follow(Object.values(pinsOf(splice.part))[0]!, null, true);
    }
    return this.lines;
  }

  private reach(node: string): void {
    if (!this.reached.includes(node)) this.reached.push(node);
  }

  private startAt(node: string, turning: boolean): void {
    // What starts at the return of everything comes last, and turned round if need be.
    if (node === this.circuit.reference && !turning) return;
    while (this.openAt(node, turning) || this.spliceAt(node)) this.follow(node, null, turning);
  }

  private openAt(node: string, turning: boolean): OpenStep | undefined {
    const open = (this.byNode.get(node) ?? []).filter((step) => !step.done);
    return (
      open.find((step) => pinsOf(step.part)[step.way.enter] === node) ??
      (turning ? open.find((step) => TURNS.includes(step.part.kind)) : undefined)
    );
  }

  private spliceAt(node: string) {
    return (this.splices.get(node) ?? []).find((splice) => !splice.passed);
  }

  private follow(from: string, first: OpenStep | null, turning: boolean): void {
    const path: Step[] = [];
    let at = from;
    const legs: string[] = [];
    let forced = first;
    this.reach(from);
    for (;;) {
      const splice = forced ? undefined : this.spliceAt(at);
      const step = splice
        ? this.throughSplice(splice, at)
        : this.next(forced ?? this.openAt(at, turning), at);
      forced = null;
      if (!step) break;
      path.push(step);
      at = pinsOf(step.part)[step.way.leave]!;
      if (splice) legs.push(...Object.values(pinsOf(step.part)));
      // A point that was met before ends the branch by its name.
      if (this.reached.includes(at)) break;
      this.reach(at);
      // Earth ends a branch, and so does the point that everything returns to.
      if ((step.part.kind === 'ground' && step.way.leave === 'body') || at === this.circuit.reference) break;
    }
    for (const leg of legs) this.reach(leg);
    if (path.length > 0) this.lines.push({ from, steps: path, to: at });
  }

  private next(step: OpenStep | undefined, at: string): Step | null {
    if (!step) return null;
    step.done = true;
    const { part, way } = step;
    if (pinsOf(part)[way.enter] === at) return { part, way };
    return { part, way: { enter: way.leave, leave: way.enter } };
  }

  /** On by the leg that leads on, else by any other. */
  private throughSplice(splice: { part: CircuitPart; passed: boolean }, at: string): Step {
    splice.passed = true;
    const legs = Object.entries(pinsOf(splice.part)).sort(([one], [other]) => byName(one, other));
    const enter = legs.find(([, node]) => node === at)![0];
    const others = legs.filter(([pin]) => pin !== enter);
    const on = others.find(([, node]) => this.openAt(node, false)) ?? others[0]!;
    return { part: splice.part, way: { enter, leave: on[0] } };
  }
}
