/**
 * Sparse factorization of nodal matrices. Circuits of vehicles are nearly trees, so that with a
 * minimum-degree order the factor has hardly more entries than the matrix: factoring costs about O(n).
 *
 * Method: L·D·Lᵀ with the row surplus carried along instead of the diagonal (Alfa, Xue and Ye, "Accurate
 * computation of the smallest eigenvalue of a diagonally dominant M-matrix", 2002): no two nearly equal
 * numbers are ever subtracted, and a node that hangs on 1e-12 S is as exact as one on 100 S.
 */

/** Order and shape of the factor; made once for a network, used for every set of conductances. */
export class SparsePattern {
  /** Unknown by node, -1 for the datum. */
  readonly unknownOf: Int32Array;
  readonly nodeOf: Int32Array;
  readonly size: number;
  /** Entries of column k of L are from columnStart[k] to columnStart[k + 1]. */
  readonly columnStart: Int32Array;
  readonly row: Int32Array;
  /** For every pair of entries in a column, in order: the entry of L that it changes. */
  readonly updates: Int32Array;
  /** Entry of L that an element adds to, -1 where it reaches the datum or joins a node to itself. */
  readonly entryOf: Int32Array;

  constructor(
    readonly nodeCount: number,
    readonly datum: number,
    readonly a: ArrayLike<number>,
    readonly b: ArrayLike<number>,
    readonly elementCount: number,
  ) {
    const neighbours: Set<number>[] = Array.from({ length: nodeCount }, () => new Set());
    for (let e = 0; e < elementCount; e++) {
      const from = a[e]!;
      const to = b[e]!;
      if (from === to || from === datum || to === datum) continue;
      neighbours[from]!.add(to);
      neighbours[to]!.add(from);
    }
    const { order, columns } = eliminate(neighbours, datum);
    this.size = order.length;
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
    for (let k = 0; k < this.size; k++) {
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

/** Takes out the node with the fewest neighbours, joins these, and so on. */
function eliminate(
  neighbours: readonly Set<number>[],
  datum: number,
): { order: number[]; columns: number[][] } {
  const order: number[] = [];
  const columns: number[][] = [];
  const left = new Set(neighbours.keys());
  left.delete(datum);
  while (left.size > 0) {
    let best = -1;
    let fewest = Number.POSITIVE_INFINITY;
    for (const node of left) {
      const degree = neighbours[node]!.size;
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
  return { order, columns };
}

/** A factored nodal matrix. What stays the same from one factorization to the next is assembled once. */
export class SparseFactor {
  private readonly lower: Float64Array;
  private readonly diagonal: Float64Array;
  private readonly assembledLower: Float64Array;
  private readonly assembledDiagonal: Float64Array;
  private readonly work: Float64Array;

  constructor(readonly pattern: SparsePattern) {
    this.lower = new Float64Array(pattern.row.length);
    this.diagonal = new Float64Array(pattern.size);
    this.assembledLower = new Float64Array(pattern.row.length);
    this.assembledDiagonal = new Float64Array(pattern.size);
    this.work = new Float64Array(pattern.size);
  }

  /** Puts together ties, siemens from nodes to the datum, and all elements outside `from` to `to`. */
  assemble(siemens: ArrayLike<number>, ties: Float64Array, from: number, to: number): void {
    const { pattern, assembledLower, assembledDiagonal } = this;
    assembledLower.fill(0);
    // The diagonal holds the surplus: what leads to the datum.
    for (let k = 0; k < pattern.size; k++) assembledDiagonal[k] = ties[pattern.nodeOf[k]!]!;
    this.add(assembledLower, assembledDiagonal, siemens, 0, from);
    this.add(assembledLower, assembledDiagonal, siemens, to, pattern.elementCount);
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

  /**
   * Factors what was assembled, with the elements `from` to `to` besides. False when a node has no path to the
   * datum at all.
   */
  factor(siemens: ArrayLike<number>, from: number, to: number): boolean {
    const { pattern, lower, diagonal } = this;
    const { columnStart, row, updates, size } = pattern;
    lower.set(this.assembledLower);
    diagonal.set(this.assembledDiagonal);
    this.add(lower, diagonal, siemens, from, to);
    let t = 0;
    for (let k = 0; k < size; k++) {
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
    const { lower, diagonal, work } = this;
    const { columnStart, row, size, nodeOf, datum } = this.pattern;
    for (let k = 0; k < size; k++) work[k] = amps[nodeOf[k]!]!;
    for (let k = 0; k < size; k++) {
      const x = work[k]!;
      if (x === 0) continue;
      for (let p = columnStart[k]!; p < columnStart[k + 1]!; p++) {
        const i = row[p]!;
        work[i] = work[i]! - lower[p]! * x;
      }
    }
    for (let k = size - 1; k >= 0; k--) {
      let x = work[k]! / diagonal[k]!;
      for (let p = columnStart[k]!; p < columnStart[k + 1]!; p++) x -= lower[p]! * work[row[p]!]!;
      work[k] = x;
      into[nodeOf[k]!] = x;
    }
    into[datum] = 0;
  }
}
