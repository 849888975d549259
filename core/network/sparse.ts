/**
 * Sparse factorization of nodal matrices. Circuits of vehicles are nearly trees, so that with a
 * minimum-degree order the factor has hardly more entries than the matrix: factoring costs about O(n).
 *
 * Method: L·D·Lᵀ with the row surplus carried along instead of the diagonal (Alfa, Xue and Ye, "Accurate
 * computation of the smallest eigenvalue of a diagonally dominant M-matrix", 2002): no two nearly equal
 * numbers are ever subtracted, and a node that hangs on 1e-12 S is as exact as one on 100 S.
 */

/** Elements from one to another: those whose conductance changes from one factorization to the next. */
export interface Varying {
  readonly from: number;
  readonly to: number;
}

/** Order and shape of the factor; made once for a network, used for every set of conductances. */
export class SparsePattern {
  /** Unknown by node, -1 for the datum. */
  readonly unknownOf: Int32Array;
  readonly nodeOf: Int32Array;
  readonly size: number;
  /** Unknowns before this one come out the same whatever varies: they are taken out once. */
  readonly firstVarying: number;
  /** Entries of column k of L are from columnStart[k] to columnStart[k + 1]. */
  readonly columnStart: Int32Array;
  readonly row: Int32Array;
  /** For every pair of entries in a column, in order: the entry of L that it changes. */
  readonly updates: Int32Array;
  /** Of these the first of a column that varies. */
  readonly firstUpdate: number;
  /** Entry of L that an element adds to, -1 where it reaches the datum or joins a node to itself. */
  readonly entryOf: Int32Array;

  constructor(
    readonly nodeCount: number,
    readonly datum: number,
    readonly a: ArrayLike<number>,
    readonly b: ArrayLike<number>,
    readonly elementCount: number,
    readonly varying: Varying,
  ) {
    const touched = new Uint8Array(nodeCount);
    for (let e = varying.from; e < varying.to; e++) {
      touched[a[e]!] = 1;
      touched[b[e]!] = 1;
    }
    const neighbours: Set<number>[] = Array.from({ length: nodeCount }, () => new Set());
    for (let e = 0; e < elementCount; e++) {
      const from = a[e]!;
      const to = b[e]!;
      if (from === to || from === datum || to === datum) continue;
      neighbours[from]!.add(to);
      neighbours[to]!.add(from);
    }
    const { order, columns, firstVarying } = eliminate(neighbours, datum, touched);
    this.size = order.length;
    this.firstVarying = firstVarying;
    this.nodeOf = Int32Array.from(order);
    this.unknownOf = new Int32Array(nodeCount).fill(-1);
    order.forEach((node, k) => {
      this.unknownOf[node] = k;
    });
    const entryAt = new Map<number, number>();
    const key = (row: number, column: number) => row * this.size + column;
    this.columnStart = new Int32Array(this.size + 1);
    const rows: number[] = [];
    columns.forEach((nodes, k) => {
      const sorted = nodes.map((node) => this.unknownOf[node]!).sort((x, y) => x - y);
      for (const row of sorted) {
        entryAt.set(key(row, k), rows.length);
        rows.push(row);
      }
      this.columnStart[k + 1] = rows.length;
    });
    this.row = Int32Array.from(rows);
    const updates: number[] = [];
    this.firstUpdate = 0;
    for (let k = 0; k < this.size; k++) {
      if (k === this.firstVarying) this.firstUpdate = updates.length;
      const end = this.columnStart[k + 1]!;
      for (let p = this.columnStart[k]!; p < end; p++) {
        for (let q = p + 1; q < end; q++) updates.push(entryAt.get(key(rows[q]!, rows[p]!))!);
      }
    }
    this.updates = Int32Array.from(updates);
    this.entryOf = new Int32Array(elementCount).fill(-1);
    for (let e = 0; e < elementCount; e++) {
      const from = this.unknownOf[a[e]!]!;
      const to = this.unknownOf[b[e]!]!;
      if (from < 0 || to < 0 || from === to) continue;
      this.entryOf[e] = entryAt.get(key(Math.max(from, to), Math.min(from, to)))!;
    }
  }
}

interface Elimination {
  /** Nodes as they are taken out. */
  readonly order: readonly number[];
  /** Of each: the neighbours that it has then. */
  readonly columns: readonly (readonly number[])[];
  /** Those before this one neither are touched nor come after one that is and changes them. */
  readonly firstVarying: number;
}

/**
 * Takes out the node with the fewest neighbours, joins these, and so on; of those with as few one that is not touched.
 * What comes out the same whatever the touched nodes have is then put first: to take it out earlier changes nothing
 * else.
 */
function eliminate(neighbours: readonly Set<number>[], datum: number, touched: Uint8Array): Elimination {
  const order: number[] = [];
  const columns: number[][] = [];
  const left = new Set(neighbours.keys());
  left.delete(datum);
  while (left.size > 0) {
    let best = -1;
    let fewest = Number.POSITIVE_INFINITY;
    for (const node of left) {
      const degree = Math.max(1, neighbours[node]!.size) + touched[node]! / 2;
      if (degree < fewest) {
        fewest = degree;
        best = node;
        if (degree <= 1) break;
      }
    }
    const around = [...neighbours[best]!];
    for (const one of around) {
      neighbours[one]!.delete(best);
      for (const other of around) if (other !== one) neighbours[one]!.add(other);
    }
    left.delete(best);
    order.push(best);
    columns.push(around);
  }
  // A node changes those of its neighbours that are left; all of them hang on the first of these to go.
  const varies = touched.slice();
  order.forEach((node, k) => {
    if (varies[node] === 1) for (const next of columns[k]!) varies[next] = 1;
  });
  const sorted = [0, 1].flatMap((last) => [...order.keys()].filter((k) => varies[order[k]!] === last));
  return {
    order: sorted.map((k) => order[k]!),
    columns: sorted.map((k) => columns[k]!),
    firstVarying: order.filter((node) => varies[node] === 0).length,
  };
}

/** A factored nodal matrix. What stays the same from one factorization to the next is taken out once. */
export class SparseFactor {
  private readonly lower: Float64Array;
  private readonly diagonal: Float64Array;
  private readonly assembledLower: Float64Array;
  private readonly assembledDiagonal: Float64Array;
  private readonly work: Float64Array;
  /** Currents that stay the same, taken through what stays the same. */
  private readonly begun: Float64Array;
  private assembled = false;

  constructor(readonly pattern: SparsePattern) {
    this.lower = new Float64Array(pattern.row.length);
    this.diagonal = new Float64Array(pattern.size);
    this.assembledLower = new Float64Array(pattern.row.length);
    this.assembledDiagonal = new Float64Array(pattern.size);
    this.work = new Float64Array(pattern.size);
    this.begun = new Float64Array(pattern.size);
  }

  /** Puts together ties and siemens of all that does not vary, and takes out the nodes that touch nothing else. */
  assemble(siemens: ArrayLike<number>, ties: Float64Array): void {
    const { pattern, assembledLower, assembledDiagonal, lower, diagonal } = this;
    const { varying, size, elementCount, columnStart, firstVarying } = pattern;
    assembledLower.fill(0);
    // The diagonal holds the surplus: what leads to the datum.
    for (let k = 0; k < size; k++) assembledDiagonal[k] = ties[pattern.nodeOf[k]!]!;
    this.add(assembledLower, assembledDiagonal, siemens, 0, varying.from);
    this.add(assembledLower, assembledDiagonal, siemens, varying.to, elementCount);
    this.assembled = this.takeOut(assembledLower, assembledDiagonal, 0, firstVarying);
    // Those columns stay as they are.
    const fixed = columnStart[firstVarying]!;
    for (let p = 0; p < fixed; p++) lower[p] = assembledLower[p]!;
    for (let k = 0; k < firstVarying; k++) diagonal[k] = assembledDiagonal[k]!;
  }

  private add(
    lower: Float64Array,
    diagonal: Float64Array,
    siemens: ArrayLike<number>,
    from: number,
    to: number,
  ): void {
    const { a, b, entryOf, unknownOf, datum } = this.pattern;
    for (let e = from; e < to; e++) {
      const g = siemens[e]!;
      if (g === 0) continue;
      const entry = entryOf[e]!;
      if (entry >= 0) lower[entry] = lower[entry]! - g;
      else if (a[e] !== b[e]) {
        const k = unknownOf[a[e] === datum ? b[e]! : a[e]!]!;
        diagonal[k] = diagonal[k]! + g;
      }
    }
  }

  /** Factors what was assembled, with what varies. False when a node has no path to the datum at all. */
  factor(siemens: ArrayLike<number>): boolean {
    const { pattern, lower, diagonal, assembledLower, assembledDiagonal } = this;
    const { columnStart, firstVarying, size, varying } = pattern;
    if (!this.assembled) return false;
    const end = columnStart[size]!;
    for (let p = columnStart[firstVarying]!; p < end; p++) lower[p] = assembledLower[p]!;
    for (let k = firstVarying; k < size; k++) diagonal[k] = assembledDiagonal[k]!;
    this.add(lower, diagonal, siemens, varying.from, varying.to);
    return this.takeOut(lower, diagonal, firstVarying, size);
  }

  /** Takes out the unknowns `from` to `to`. */
  private takeOut(lower: Float64Array, diagonal: Float64Array, from: number, to: number): boolean {
    const { columnStart, row, updates, firstUpdate } = this.pattern;
    let t = from === 0 ? 0 : firstUpdate;
    for (let k = from; k < to; k++) {
      const start = columnStart[k]!;
      const end = columnStart[k + 1]!;
      const surplus = diagonal[k]!;
      let pivot = surplus;
      for (let p = start; p < end; p++) pivot -= lower[p]!;
      if (!(pivot > 0) || pivot === Number.POSITIVE_INFINITY) return false;
      diagonal[k] = pivot;
      const inverse = 1 / pivot;
      for (let p = start; p < end; p++) {
        const share = lower[p]! * inverse;
        if (share === 0) {
          t += end - p - 1;
          continue;
        }
        const i = row[p]!;
        diagonal[i] = diagonal[i]! - share * surplus;
        for (let q = p + 1; q < end; q++) {
          const target = updates[t++]!;
          lower[target] = lower[target]! - share * lower[q]!;
        }
        // No later entry of this column needs this one unscaled.
        lower[p] = share;
      }
    }
    return true;
  }

  /** Node voltages for currents into the nodes, ampere; the datum stands at 0. `into` may be `amps`. */
  solve(amps: ArrayLike<number>, into: Float64Array): void {
    const { work } = this;
    const { size, nodeOf } = this.pattern;
    for (let k = 0; k < size; k++) work[k] = amps[nodeOf[k]!]!;
    this.forwards(work, 0, size);
    this.backwards(size, 0, into);
  }

  /** Takes in the currents into the nodes that stay the same while others vary. */
  begin(amps: ArrayLike<number>): void {
    const { begun } = this;
    const { size, nodeOf, firstVarying } = this.pattern;
    for (let k = 0; k < size; k++) begun[k] = amps[nodeOf[k]!]!;
    this.forwards(begun, 0, firstVarying);
  }

  /**
   * Voltages of the nodes that something varying touches, for the currents taken in and so many more into these nodes;
   * the datum stands at 0. `complete` then gives all others.
   */
  solveVarying(more: ArrayLike<number>, into: Float64Array): void {
    const { work, begun } = this;
    const { size, nodeOf, firstVarying } = this.pattern;
    for (let k = 0; k < firstVarying; k++) work[k] = begun[k]!;
    for (let k = firstVarying; k < size; k++) work[k] = begun[k]! + more[nodeOf[k]!]!;
    this.forwards(work, firstVarying, size);
    this.backwards(size, firstVarying, into);
  }

  complete(into: Float64Array): void {
    this.backwards(this.pattern.firstVarying, 0, into);
  }

  private forwards(work: Float64Array, from: number, to: number): void {
    const { lower } = this;
    const { columnStart, row } = this.pattern;
    for (let k = from; k < to; k++) {
      const x = work[k]!;
      if (x === 0) continue;
      const end = columnStart[k + 1]!;
      for (let p = columnStart[k]!; p < end; p++) {
        const i = row[p]!;
        work[i] = work[i]! - lower[p]! * x;
      }
    }
  }

  private backwards(from: number, to: number, into: Float64Array): void {
    const { lower, diagonal, work } = this;
    const { columnStart, row, nodeOf, datum } = this.pattern;
    for (let k = from - 1; k >= to; k--) {
      let x = work[k]! / diagonal[k]!;
      const end = columnStart[k + 1]!;
      for (let p = columnStart[k]!; p < end; p++) x -= lower[p]! * work[row[p]!]!;
      work[k] = x;
      into[nodeOf[k]!] = x;
    }
    into[datum] = 0;
  }
}
