/** The differences between a base and the state that is solved: struct of arrays, grown when needed. */
import { SmallSystem } from './smallSystem';
import type { Column } from './watched';

export class Ports {
  count = 0;
  a = new Int32Array(16);
  b = new Int32Array(16);
  /** Siemens more than in the base. */
  delta = new Float64Array(16);
  /** Ampere injected into `a` more than in the base. */
  inject = new Float64Array(16);
  /** Element that it changes, -1 for one that the base does not have. */
  element = new Int32Array(16);
  /** Ampere drawn from `a` to `b` beyond what the base draws there. */
  drawn = new Float64Array(16);
  readonly columns: Column[] = [];
  readonly system = new SmallSystem();

  clear(): void {
    this.count = 0;
  }

  add(a: number, b: number, delta: number, inject: number, element: number, column: Column): void {
    if (this.count === this.a.length) this.grow();
    const p = this.count++;
    this.a[p] = a;
    this.b[p] = b;
    this.delta[p] = delta;
    this.inject[p] = inject;
    this.element[p] = element;
    this.columns[p] = column;
  }

  private grow(): void {
    const room = 2 * this.a.length;
    const int = (old: Int32Array) => {
      const made = new Int32Array(room);
      made.set(old);
      return made;
    };
    const float = (old: Float64Array) => {
      const made = new Float64Array(room);
      made.set(old);
      return made;
    };
    this.a = int(this.a);
    this.b = int(this.b);
    this.element = int(this.element);
    this.delta = float(this.delta);
    this.inject = float(this.inject);
    this.drawn = float(this.drawn);
  }

  /**
   * What every port draws, by the Sherman-Morrison-Woodbury identity: (1 + D·M) y = D·u - s, with D the changes
   * of conductance, M the mutual ohms, u the volts of the base, s the changes of injection. Gives the smallest
   * pivot: the smaller, the more digits are lost; 0 when singular.
   */
  solve(volts: Float64Array): number {
    const { count: k, a, b, delta, inject, drawn, columns, system } = this;
    if (k === 0) return 1;
    system.resize(k);
    const { matrix } = system;
    for (let p = 0; p < k; p++) {
      const column = columns[p]!.volts;
      const d = delta[p]!;
      for (let q = 0; q < k; q++) {
        matrix[p * k + q] = d * (column[a[q]!]! - column[b[q]!]!) + (p === q ? 1 : 0);
      }
      drawn[p] = d * (volts[a[p]!]! - volts[b[p]!]!) - inject[p]!;
    }
    const smallest = system.factor();
    if (smallest > 0) system.solve(drawn);
    return smallest;
  }

  /** Volts between two nodes: the base's, less what the ports draw. */
  across(volts: Float64Array, from: number, to: number): number {
    let across = volts[from]! - volts[to]!;
    for (let p = 0; p < this.count; p++) {
      const column = this.columns[p]!.volts;
      across -= this.drawn[p]! * (column[from]! - column[to]!);
    }
    return across;
  }
}
