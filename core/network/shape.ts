/**
 * The islands of a state: what hangs together once elements were opened or joined, which junctions are left
 * without a way round, and which node of each island is tied to the datum.
 */

import type { Elements } from './elements';
import type { Factorization, Shape } from './factorization';
import { flatten, join, rootOf, separate } from './islands';
import type { Ports } from './ports';

/** Conductance of the tie of an island. No current can flow through it, so its size changes nothing. */
export const TIE_SIEMENS = 1;
/** Volts across a junction below which it counts as one that carries nothing. */
const CARRYING_VOLTS = 1e-10;

export class ShapeFinder {
  /** Lowest node of the island of every node, in the present state. */
  get roots(): Int32Array {
    return this.present;
  }
  private present: Int32Array;
  /** To be written over; shapes of bases are looked at where they are. */
  private readonly own: Int32Array;
  private readonly marked: Uint8Array;
  private readonly joining: Int32Array;
  private readonly loose: Int32Array;
  private readonly islandSum: Float64Array;
  private readonly islandCount: Float64Array;

  constructor(
    private readonly elements: Elements,
    nodeCount: number,
    private readonly datum: number,
  ) {
    this.own = new Int32Array(nodeCount);
    this.present = this.own;
    this.marked = new Uint8Array(nodeCount);
    this.joining = new Int32Array(elements.junctionCount);
    this.loose = new Int32Array(nodeCount);
    this.islandSum = new Float64Array(nodeCount);
    this.islandCount = new Float64Array(nodeCount);
  }

  /** Every node alone, to be joined. */
  begin(): void {
    this.present = this.own;
    separate(this.own);
  }

  join(from: number, to: number): void {
    join(this.own, from, to);
  }

  /** Islands that are known: those of a base, or of a shape that was found before. */
  take({ roots }: { readonly roots: Int32Array }): void {
    this.present = roots;
  }

  /** The islands of a base with one branch opened that cuts one in two; gives the node that holds what comes off. */
  cut(base: Factorization, branch: number): number {
    this.present = this.own;
    this.own.set(base.roots);
    return base.cutOff(branch, this.own);
  }

  /** Joins what junctions join, and writes the tie of every island into `ties`. */
  finish(ties: Float64Array): void {
    this.joinByJunctions(null);
    flatten(this.roots);
    this.tieIslands(ties);
  }

  /** Siemens of the tie at every node: one for each island but that of the datum. */
  tieIslands(ties: Float64Array): void {
    const { roots, datum } = this;
    const main = roots[datum]!;
    for (let node = 0; node < roots.length; node++) {
      ties[node] = roots[node] === node && node !== main ? TIE_SIEMENS : 0;
    }
  }

  /** The shape of the present state from nothing: what the base has, less and more what the ports change. */
  ofPorts(base: Factorization, ports: Ports): Shape {
    this.begin();
    const { roots, elements } = this;
    const { a, b, movedAt, closed } = elements;
    for (let p = 0; p < ports.count; p++) {
      const e = ports.element[p]!;
      const conductsNow = e < 0 || base.siemens[e]! + ports.delta[p]! > 0;
      if (conductsNow) join(roots, ports.a[p]!, ports.b[p]!);
    }
    const { conducting } = base;
    for (let i = 0; i < conducting.length; i++) {
      const e = conducting[i]!;
      const at = movedAt[e]!;
      const changed = elements.isAltered(e) || (at >= 0 && closed[at] !== base.closed[at]);
      if (!changed || elements.siemens(e) > 0) join(roots, a[e]!, b[e]!);
    }
    const cut = this.joinByJunctions(base);
    flatten(roots);
    return { roots: roots.slice(), cut, ...this.movedTies(base) };
  }

  /** Joins what only junctions join; one that nothing leads around can carry no current, and is cut off. */
  private joinByJunctions(base: Factorization | null): number[] {
    const { joining, roots } = this;
    const { a, b, branchCount, junctionCount } = this.elements;
    const cut: number[] = [];
    let count = 0;
    for (let j = 0; j < junctionCount; j++) {
      const e = branchCount + j;
      if (rootOf(roots, a[e]!) !== rootOf(roots, b[e]!)) joining[count++] = j;
    }
    for (let i = 0; i < count && base; i++) {
      const j = joining[i]!;
      // One that carried nothing before, and is led around by nothing now, still carries nothing.
      if (Math.abs(base.junctionVolts[j]!) > CARRYING_VOLTS && !this.ledAround(i, count)) cut.push(j);
    }
    for (let i = 0; i < count; i++) {
      const e = branchCount + joining[i]!;
      join(roots, a[e]!, b[e]!);
    }
    return cut;
  }

  /** Whether the other joining junctions lead from one end of a junction to its other end. */
  private ledAround(except: number, count: number): boolean {
    const { joining, marked: reached, roots } = this;
    const { a, b, branchCount } = this.elements;
    const from = branchCount + joining[except]!;
    const goal = rootOf(roots, b[from]!);
    reached.fill(0);
    reached[rootOf(roots, a[from]!)] = 1;
    for (let grown = true; grown; ) {
      grown = false;
      for (let i = 0; i < count; i++) {
        if (i === except) continue;
        const e = branchCount + joining[i]!;
        const one = rootOf(roots, a[e]!);
        const other = rootOf(roots, b[e]!);
        if (reached[one] === reached[other]) continue;
        reached[one] = 1;
        reached[other] = 1;
        grown = true;
      }
      if (reached[goal] === 1) return true;
    }
    return false;
  }

  private movedTies(base: Factorization): { untied: number[]; tied: number[] } {
    const { roots, marked, datum } = this;
    const main = roots[datum]!;
    const untied: number[] = [];
    const tied: number[] = [];
    marked.fill(0);
    for (let node = 0; node < roots.length; node++) {
      if (base.ties[node] === 0) continue;
      const root = roots[node]!;
      if (root !== main && marked[root] === 0) marked[root] = 1;
      else untied.push(node);
    }
    for (let node = 0; node < roots.length; node++) {
      if (roots[node] === node && node !== main && marked[node] === 0) tied.push(node);
    }
    return { untied, tied };
  }

  /** Marks the nodes that nothing joins to the datum; whether there are any. */
  markFloating(floating: Uint8Array): boolean {
    const { roots, datum } = this;
    const main = roots[datum];
    let any = false;
    for (let node = 0; node < roots.length; node++) {
      const floats = roots[node] !== main;
      floating[node] = floats ? 1 : 0;
      if (floats) any = true;
    }
    return any;
  }

  /** An island leaks equally from every node, so that its nodes average to zero. */
  centre(volts: Float64Array): void {
    const { roots, islandSum, islandCount, loose } = this;
    const main = roots[this.datum]!;
    let count = 0;
    for (let node = 0; node < volts.length; node++) {
      if (roots[node] === main) continue;
      loose[count++] = node;
      islandSum[roots[node]!] = 0;
      islandCount[roots[node]!] = 0;
    }
    for (let i = 0; i < count; i++) {
      const root = roots[loose[i]!]!;
      islandSum[root] = islandSum[root]! + volts[loose[i]!]!;
      islandCount[root] = islandCount[root]! + 1;
    }
    for (let i = 0; i < count; i++) {
      const node = loose[i]!;
      const root = roots[node]!;
      volts[node] = volts[node]! - islandSum[root]! / islandCount[root]!;
    }
  }
}
