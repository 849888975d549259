/**
 * A condition factored in one state of its sensors: the volts it gives, and the columns of its inverse by
 * which any few changed elements are solved. Columns are made when first asked for, and kept.
 */
import type { SparseFactor } from './sparse';
import type { Column, Watched } from './watched';
import type { Way } from './way';

/** Columns of bridges that a base keeps. */
const BRIDGES_KEPT = 128;

/** What opening one element does to the islands. */
export type Opening =
  /** Everything stays joined as it was. */
  | 'nothing'
  /** One side comes off; `side` lists its nodes. */
  | 'cuts'
  /** A junction may be left as the only way round; the whole graph has to be looked at. */
  | 'look';

/** Islands after some elements were opened or joined. */
export interface Shape {
  readonly roots: Int32Array;
  /** Junctions that nothing leads around any more. */
  readonly cut: readonly number[];
  /** Nodes whose tie goes, and nodes that get one. */
  readonly untied: readonly number[];
  readonly tied: readonly number[];
}

export interface FactoredState {
  readonly factor: SparseFactor;
  readonly volts: Float64Array;
  /** Branches, then junctions as the straight lines that stand for them. */
  readonly siemens: Float64Array;
  readonly injected: Float64Array;
  readonly junctionVolts: Float64Array;
  /** 1 for a junction that carries nothing and is held by a conductance which is not its own. */
  readonly heldIdle: Uint8Array;
  /** Lowest node of the island of every node. */
  readonly roots: Int32Array;
  /** Siemens of the tie at every node. */
  readonly ties: Float64Array;
  /** Of the branches that sensors move: 1 where closed. */
  readonly closed: Uint8Array;
}

export class Factorization implements FactoredState {
  readonly factor: SparseFactor;
  readonly volts: Float64Array;
  readonly siemens: Float64Array;
  readonly injected: Float64Array;
  readonly junctionVolts: Float64Array;
  readonly heldIdle: Uint8Array;
  readonly roots: Int32Array;
  readonly ties: Float64Array;
  readonly closed: Uint8Array;
  /** 1 where no path joins the node to the datum. */
  readonly floating: Uint8Array;
  readonly anyFloating: boolean;
  /** The state in which the sound circuit comes to rest. */
  isRest = false;
  /** How the sound circuit goes on from here. */
  way: Way<Factorization> | null = null;
  /** Branches that conduct. */
  readonly conducting: Int32Array;
  /** Volts of every watched pair. */
  readonly watchedVolts: Float64Array;
  /** Ampere through every branch. */
  readonly amps: Float64Array;
  private readonly columns: (Column | undefined)[];
  private readonly tieColumns: (Column | undefined)[];
  private readonly bridgeColumns = new Map<number, Column>();
  private readonly work: Float64Array;
  private ohms: Float64Array | null = null;
  private readonly order: Int32Array;
  private readonly enters: Int32Array;
  private readonly leaves: Int32Array;
  private readonly openings: Uint8Array;

  constructor(
    state: FactoredState,
    private readonly a: Int32Array,
    private readonly b: Int32Array,
    private readonly branchCount: number,
    datum: number,
    private readonly watched: Watched,
  ) {
    this.factor = state.factor;
    this.volts = state.volts;
    this.siemens = state.siemens;
    this.injected = state.injected;
    this.junctionVolts = state.junctionVolts;
    this.heldIdle = state.heldIdle;
    this.roots = state.roots;
    this.ties = state.ties;
    this.closed = state.closed;
    this.floating = Uint8Array.from(state.roots, (root) => (root === state.roots[datum] ? 0 : 1));
    this.anyFloating = this.floating.includes(1);
    this.watchedVolts = watched.read(state.volts, new Float64Array(watched.count));
    this.amps = new Float64Array(branchCount);
    this.branchAmps(state.volts, this.amps);
    this.columns = new Array(a.length);
    this.tieColumns = new Array(state.volts.length);
    this.work = new Float64Array(state.volts.length);
    this.conducting = Int32Array.from({ length: branchCount }, (_, e) => e).filter(
      (e) => state.siemens[e]! > 0,
    );
    const nodes = state.volts.length;
    const graph = new Graph(nodes, a, b, state.siemens);
    const whole = graph.bridges(-1, tieFirst(state));
    this.order = whole.order;
    this.enters = whole.enters;
    this.leaves = whole.leaves;
    this.openings = whole.isBridge.slice();
    // A junction that carries current must not become the only way to somewhere unnoticed.
    for (let e = branchCount; e < a.length; e++) {
      if (whole.isBridge[e]) continue;
      const without = graph.bridges(e, tieFirst(state)).isBridge;
      for (let other = 0; other < branchCount; other++) {
        if (without[other] && !whole.isBridge[other]) this.openings[other] = 2;
      }
    }
  }

  /** Ohms between every two junctions, row by row; made when first asked for. */
  get junctionOhms(): Float64Array {
    if (this.ohms) return this.ohms;
    const count = this.junctionVolts.length;
    const ohms = new Float64Array(count * count);
    for (let j = 0; j < count; j++) {
      ohms.set(this.column(this.branchCount + j).watched.subarray(this.watched.sensorCount), j * count);
    }
    this.ohms = ohms;
    return ohms;
  }

  /** Volts everywhere per ampere drawn into `a` and out of `b` of an element. */
  column(element: number): Column {
    const known = this.columns[element];
    if (known) return known;
    const column = this.columnBetween(this.a[element]!, this.b[element]!);
    this.columns[element] = column;
    return column;
  }

  /** Ampere through every branch as the base has it, at other volts. */
  branchAmps(volts: Float64Array, into: Float64Array): void {
    const { a, b, branchCount, siemens, injected } = this;
    for (let e = 0; e < branchCount; e++) {
      into[e] = siemens[e]! * (volts[a[e]!]! - volts[b[e]!]!) - injected[e]!;
    }
  }

  /** Ampere that every branch carries for the volts of a column. */
  ampsOf(volts: Float64Array): Float64Array {
    const { a, b, siemens } = this;
    return Float64Array.from(
      { length: this.branchCount },
      (_, e) => siemens[e]! * (volts[a[e]!]! - volts[b[e]!]!),
    );
  }

  /** The same for a node and the datum. */
  tieColumn(node: number, datum: number): Column {
    const known = this.tieColumns[node];
    if (known) return known;
    const column = this.columnBetween(node, datum);
    this.tieColumns[node] = column;
    return column;
  }

  /** The same for any two nodes; the latest are kept, since one test is asked of every suspect. */
  bridgeColumn(a: number, b: number): Column {
    const key = a * this.volts.length + b;
    const known = this.bridgeColumns.get(key);
    if (known) return known;
    if (this.bridgeColumns.size >= BRIDGES_KEPT) {
      this.bridgeColumns.delete(this.bridgeColumns.keys().next().value!);
    }
    const column = this.columnBetween(a, b);
    this.bridgeColumns.set(key, column);
    return column;
  }

  private columnBetween(a: number, b: number): Column {
    const column = new Float64Array(this.volts.length);
    this.work[a] = this.work[a]! + 1;
    this.work[b] = this.work[b]! - 1;
    this.factor.solve(this.work, column);
    this.work[a] = 0;
    this.work[b] = 0;
    return this.watched.column(column);
  }

  /** Volts everywhere for currents into the nodes, ampere. */
  raise(amps: Float64Array, into: Float64Array): void {
    this.factor.solve(amps, into);
  }

  /** What happens to the islands when this one branch opens and nothing else changes. */
  opening(branch: number): Opening {
    const kind = this.openings[branch]!;
    return kind === 0 ? 'nothing' : kind === 1 ? 'cuts' : 'look';
  }

  /** Marks the side that comes off with a branch, in `roots`, by its lowest node; gives that node. */
  cutOff(branch: number, roots: Int32Array): number {
    const a = this.a[branch]!;
    const b = this.b[branch]!;
    const below = this.enters[a]! > this.enters[b]! ? a : b;
    let lowest = below;
    for (let i = this.enters[below]!; i < this.leaves[below]!; i++) {
      lowest = Math.min(lowest, this.order[i]!);
    }
    for (let i = this.enters[below]!; i < this.leaves[below]!; i++) roots[this.order[i]!] = lowest;
    return lowest;
  }

  /** Islands and what follows from them, by what was opened and joined; kept for the next time. */
  readonly shapes = new Map<string, Shape>();

  /** Numbers stored: what memory grows with. */
  get storedNumbers(): number {
    const columns = [...this.columns, ...this.tieColumns, ...this.bridgeColumns.values()];
    return columns.reduce(
      (sum, column) =>
        sum + (column ? column.volts.length + column.watched.length + (column.amps?.length ?? 0) : 0),
      this.volts.length * 3,
    );
  }
}

/** Nodes in the order from which islands are walked: those that hold an island first. */
function tieFirst(state: FactoredState): number[] {
  const nodes = [...state.roots.keys()];
  return [...nodes.filter((node) => state.roots[node] === node), ...nodes];
}

class Graph {
  private readonly start: Int32Array;
  private readonly edge: Int32Array;

  constructor(
    private readonly nodeCount: number,
    private readonly a: Int32Array,
    private readonly b: Int32Array,
    siemens: Float64Array,
  ) {
    const degree = new Int32Array(nodeCount + 1);
    for (let e = 0; e < a.length; e++) {
      if (siemens[e] === 0) continue;
      degree[a[e]!] = degree[a[e]!]! + 1;
      degree[b[e]!] = degree[b[e]!]! + 1;
    }
    this.start = new Int32Array(nodeCount + 1);
    for (let node = 0; node < nodeCount; node++) this.start[node + 1] = this.start[node]! + degree[node]!;
    const at = this.start.slice();
    this.edge = new Int32Array(this.start[nodeCount]!);
    for (let e = 0; e < a.length; e++) {
      if (siemens[e] === 0) continue;
      for (const node of [a[e]!, b[e]!]) {
        this.edge[at[node]!] = e;
        at[node] = at[node]! + 1;
      }
    }
  }

  /**
   * Depth-first numbering of the graph without one element, and which elements are its bridges (Tarjan, "A note
   * on finding the bridges of a graph", 1974), without recursion.
   */
  bridges(
    except: number,
    roots: readonly number[],
  ): { order: Int32Array; enters: Int32Array; leaves: Int32Array; isBridge: Uint8Array } {
    const { nodeCount: n, start, edge, a, b } = this;
    const order = new Int32Array(n);
    const enters = new Int32Array(n).fill(-1);
    const leaves = new Int32Array(n);
    const low = new Int32Array(n);
    const isBridge = new Uint8Array(a.length);
    const cameBy = new Int32Array(n).fill(-1);
    const at = start.slice(0, n);
    let count = 0;
    for (const root of roots) {
      if (enters[root] !== -1) continue;
      const stack = [root];
      enters[root] = count;
      low[root] = count;
      order[count++] = root;
      while (stack.length > 0) {
        const node = stack[stack.length - 1]!;
        if (at[node]! < start[node + 1]!) {
          const e = edge[at[node]!]!;
          at[node] = at[node]! + 1;
          if (e === except || e === cameBy[node]) continue;
          const other = a[e] === node ? b[e]! : a[e]!;
          if (enters[other] !== -1) {
            low[node] = Math.min(low[node]!, enters[other]!);
            continue;
          }
          cameBy[other] = e;
          enters[other] = count;
          low[other] = count;
          order[count++] = other;
          stack.push(other);
          continue;
        }
        stack.pop();
        leaves[node] = count;
        const above = stack[stack.length - 1];
        if (above === undefined) continue;
        low[above] = Math.min(low[above]!, low[node]!);
        if (low[node]! > enters[above]!) isBridge[cameBy[node]!] = 1;
      }
    }
    return { order, enters, leaves, isBridge };
  }
}
