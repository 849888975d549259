/** Small dense systems, factored with partial pivoting and solved as often as wanted. Row-major, n by n. */
export class SmallSystem {
  matrix = new Float64Array(16);
  private swaps = new Int32Array(4);
  private room = 4;
  size = 0;

  /** Makes room for n unknowns; the matrix is then to be filled. */
  resize(n: number): void {
    this.size = n;
    if (n <= this.room) return;
    this.room = 2 * n;
    this.matrix = new Float64Array(this.room * this.room);
    this.swaps = new Int32Array(this.room);
  }

  /**
   * Factors in place. Gives the smallest pivot as a share of the largest entry of its column, 0 when the
   * system is singular: the smaller it is, the more digits are lost.
   */
  factor(): number {
    const { matrix, size: n, swaps } = this;
    if (n === 1) return this.factorOne(Math.abs(matrix[0]!));
    let smallest = 1;
    for (let k = 0; k < n; k++) {
      let best = k;
      let largest = Math.abs(matrix[k * n + k]!);
      for (let i = k + 1; i < n; i++) {
        const value = Math.abs(matrix[i * n + k]!);
        if (value > largest) {
          largest = value;
          best = i;
        }
      }
      if (!(largest > 1e-300) || largest === Number.POSITIVE_INFINITY) return 0;
      if (largest < smallest) smallest = largest;
      swaps[k] = best;
      if (best !== k) {
        for (let j = 0; j < n; j++) {
          const swap = matrix[k * n + j]!;
          matrix[k * n + j] = matrix[best * n + j]!;
          matrix[best * n + j] = swap;
        }
      }
      const inverse = 1 / matrix[k * n + k]!;
      for (let i = k + 1; i < n; i++) {
        const factor = matrix[i * n + k]! * inverse;
        matrix[i * n + k] = factor;
        if (factor === 0) continue;
        for (let j = k + 1; j < n; j++) matrix[i * n + j] = matrix[i * n + j]! - factor * matrix[k * n + j]!;
      }
    }
    return smallest;
  }

  private factorOne(size: number): number {
    return size > 1e-300 && size < Number.POSITIVE_INFINITY ? Math.min(1, size) : 0;
  }

  /** Solves in place for one right-hand side, `stride` apart from `offset` on. */
  solve(rhs: Float64Array, offset = 0, stride = 1): void {
    const { matrix, size: n, swaps } = this;
    if (n === 1) {
      rhs[offset] = rhs[offset]! / matrix[0]!;
      return;
    }
    for (let k = 0; k < n; k++) {
      const best = swaps[k]!;
      if (best === k) continue;
      const swap = rhs[offset + k * stride]!;
      rhs[offset + k * stride] = rhs[offset + best * stride]!;
      rhs[offset + best * stride] = swap;
    }
    for (let i = 1; i < n; i++) {
      let sum = rhs[offset + i * stride]!;
      for (let j = 0; j < i; j++) sum -= matrix[i * n + j]! * rhs[offset + j * stride]!;
      rhs[offset + i * stride] = sum;
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = rhs[offset + i * stride]!;
      for (let j = i + 1; j < n; j++) sum -= matrix[i * n + j]! * rhs[offset + j * stride]!;
      rhs[offset + i * stride] = sum / matrix[i * n + i]!;
    }
  }
}
