/**
 * Nodal analysis with stored inverse: one factorization, then any few changed conductances cost a small
 * system of their own (Sherman-Morrison-Woodbury). Method: Ho, Ruehli and Brennan, "The modified nodal
 * approach to network analysis" (1975); every source here has resistance, so nodal form suffices.
 *
 * Nodes that nothing joins to the datum form islands. Each island is tied to the datum by one conductance
 * of 1 S at its lowest node; no current can flow through a tie, so the island's own voltages are exact.
 */

export const TIE_SIEMENS = 1;

/** A set of two-ended conductances with source injections: struct of arrays, `count` of them in use. */
export interface Elements {
  readonly count: number;
  readonly a: Int32Array;
  readonly b: Int32Array;
  /** Siemens; 0 where open. */
  readonly siemens: Float64Array;
  /** Ampere injected into `a` and drawn from `b`: source voltage times conductance. */
  readonly injected: Float64Array;
}

/** Components of the graph of conducting elements, by lowest node number (path-halving union-find). */
export function findIslands(nodeCount: number, elements: Elements, roots: Int32Array): void {
  for (let node = 0; node < nodeCount; node++) roots[node] = node;
  for (let e = 0; e < elements.count; e++) {
    if (elements.siemens[e] === 0) continue;
    let a = elements.a[e]!;
    let b = elements.b[e]!;
    while (roots[a] !== a) {
      roots[a] = roots[roots[a]!]!;
      a = roots[a]!;
    }
    while (roots[b] !== b) {
      roots[b] = roots[roots[b]!]!;
      b = roots[b]!;
    }
    if (a < b) roots[b] = a;
    else if (b < a) roots[a] = b;
  }
  for (let node = 0; node < nodeCount; node++) {
    let root = node;
    while (roots[root] !== root) root = roots[root]!;
    roots[node] = root;
  }
}

/**
 * Inverse of a symmetric positive definite matrix in place (row-major, n by n): Cholesky as L·D·Lᵀ, then
 * column by column. Returns false when a pivot is not positive, which means an untied island.
 */
export function invertInPlace(matrix: Float64Array, n: number): boolean {
  // Gauss-Jordan sweep: each pivot turns its row and column; the result is the negated inverse.
  const row = new Float64Array(n);
  for (let k = 0; k < n; k++) {
    const pivot = matrix[k * n + k]!;
    if (!(pivot > 0) || !Number.isFinite(pivot)) return false;
    const inverse = 1 / pivot;
    for (let j = 0; j < n; j++) row[j] = matrix[k * n + j]!;
    for (let i = 0; i < n; i++) {
      if (i === k) continue;
      const factor = matrix[i * n + k]! * inverse;
      if (factor === 0) continue;
      const at = i * n;
      for (let j = 0; j < n; j++) matrix[at + j] = matrix[at + j]! - factor * row[j]!;
      matrix[at + k] = factor;
    }
    for (let j = 0; j < n; j++) matrix[k * n + j] = row[j]! * inverse;
    matrix[k * n + k] = -inverse;
  }
  for (let i = 0; i < n * n; i++) matrix[i] = -matrix[i]!;
  return true;
}

/** The factored network of one condition: inverse of the nodal matrix and the voltages it gives. */
export class LinearBase {
  /** Ohms between node pairs, n by n with the datum's row and column zero. */
  readonly impedance: Float64Array;
  readonly volts: Float64Array;
  readonly siemens: Float64Array;
  readonly injected: Float64Array;
  /** 1 where a node is tied to the datum. */
  readonly tied: Uint8Array;

  constructor(
    readonly nodeCount: number,
    readonly datum: number,
    elements: Elements,
  ) {
    const n = nodeCount;
    this.siemens = elements.siemens.slice(0, elements.count);
    this.injected = elements.injected.slice(0, elements.count);
    this.tied = new Uint8Array(n);
    const roots = new Int32Array(n);
    findIslands(n, elements, roots);
    for (let node = 0; node < n; node++) {
      if (roots[node] === node && roots[datum] !== node) this.tied[node] = 1;
    }
    const matrix = new Float64Array(n * n);
    const add = (i: number, j: number, value: number) => {
      matrix[i * n + j] = matrix[i * n + j]! + value;
    };
    for (let e = 0; e < elements.count; e++) {
      const g = this.siemens[e]!;
      if (g === 0) continue;
      const a = elements.a[e]!;
      const b = elements.b[e]!;
      if (a === b) continue;
      add(a, a, g);
      add(b, b, g);
      add(a, b, -g);
      add(b, a, -g);
    }
    for (let node = 0; node < n; node++) if (this.tied[node]) add(node, node, TIE_SIEMENS);
    for (let i = 0; i < n; i++) {
      matrix[datum * n + i] = 0;
      matrix[i * n + datum] = 0;
    }
    matrix[datum * n + datum] = 1;
    if (!invertInPlace(matrix, n)) throw new Error('The nodal matrix has a node without any path.');
    matrix[datum * n + datum] = 0;
    this.impedance = matrix;
    this.volts = new Float64Array(n);
    for (let e = 0; e < elements.count; e++) {
      const amps = this.injected[e]!;
      if (amps === 0) continue;
      const a = elements.a[e]! * n;
      const b = elements.b[e]! * n;
      for (let i = 0; i < n; i++) {
        this.volts[i] = this.volts[i]! + amps * (matrix[a + i]! - matrix[b + i]!);
      }
    }
  }
}

/**
 * Solves a small dense system in place with partial pivoting. Gives the smallest pivot met, 0 when the system
 * is singular: the smaller it is, the more digits were lost.
 */
export function solveSmall(matrix: Float64Array, rhs: Float64Array, n: number): number {
  let smallest = 1;
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let i = k + 1; i < n; i++) {
      if (Math.abs(matrix[i * n + k]!) > Math.abs(matrix[best * n + k]!)) best = i;
    }
    const pivot = matrix[best * n + k]!;
    if (!(Math.abs(pivot) > 1e-13)) return 0;
    smallest = Math.min(smallest, Math.abs(pivot));
    if (best !== k) {
      for (let j = 0; j < n; j++) {
        const swap = matrix[k * n + j]!;
        matrix[k * n + j] = matrix[best * n + j]!;
        matrix[best * n + j] = swap;
      }
      const swap = rhs[k]!;
      rhs[k] = rhs[best]!;
      rhs[best] = swap;
    }
    for (let i = k + 1; i < n; i++) {
      const factor = matrix[i * n + k]! / pivot;
      if (factor === 0) continue;
      for (let j = k; j < n; j++) matrix[i * n + j] = matrix[i * n + j]! - factor * matrix[k * n + j]!;
      rhs[i] = rhs[i]! - factor * rhs[k]!;
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = rhs[i]!;
    for (let j = i + 1; j < n; j++) sum -= matrix[i * n + j]! * rhs[j]!;
    rhs[i] = sum / matrix[i * n + i]!;
  }
  return smallest;
}
