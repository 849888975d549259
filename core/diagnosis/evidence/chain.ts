/**
 * The volts that a hypothesis has taken in, as one joint normal distribution: a Cholesky factor that grows by a row a
 * reading. Each new reading is judged given the others.
 */
import { voltmeterError } from '../../limits';
import type { Sensitivity } from './sensitivity';

export class Chain {
  private readonly moves: Sensitivity[] = [];
  private readonly rows: Float64Array[] = [];
  private readonly whitened: number[] = [];

  /** `scratch` has room for every branch and the supply, holds zeros, and may be shared. */
  constructor(private readonly scratch: Float64Array) {}

  get isEmpty(): boolean {
    return this.moves.length === 0;
  }

  copy(): Chain {
    const made = new Chain(this.scratch);
    made.moves.push(...this.moves);
    made.rows.push(...this.rows);
    made.whitened.push(...this.whitened);
    return made;
  }

  /** Volts expected of a reading, by its mean and how it moves, given the readings taken in; and their deviation. */
  expect(moves: Sensitivity, mean: number): { expected: number; deviation: number } {
    const { expected, deviation } = this.conditioned(moves, mean);
    return { expected, deviation };
  }

  /** Takes a reading of so many volts in. */
  join(moves: Sensitivity, mean: number, volts: number): void {
    const { row, expected, deviation } = this.conditioned(moves, mean);
    row[this.rows.length] = deviation;
    this.rows.push(row);
    this.moves.push(moves);
    this.whitened.push((volts - expected) / deviation);
  }

  private conditioned(moves: Sensitivity, mean: number) {
    const { scratch, rows, whitened } = this;
    let own = 0;
    for (let i = 0; i < moves.index.length; i++) {
      scratch[moves.index[i]!] = moves.volts[i]!;
      own += moves.volts[i]! ** 2;
    }
    const row = new Float64Array(rows.length + 1);
    let shift = 0;
    let explained = 0;
    for (let r = 0; r < rows.length; r++) {
      const other = this.moves[r]!;
      let covariance = 0;
      for (let i = 0; i < other.index.length; i++) covariance += other.volts[i]! * scratch[other.index[i]!]!;
      const below = rows[r]!;
      for (let c = 0; c < r; c++) covariance -= row[c]! * below[c]!;
      row[r] = covariance / below[r]!;
      shift += row[r]! * whitened[r]!;
      explained += row[r]! ** 2;
    }
    for (const index of moves.index) scratch[index] = 0;
    const variance = Math.max(1e-9, own - explained) + voltmeterError(mean) ** 2;
    return { row, expected: mean + shift, deviation: Math.sqrt(variance) };
  }
}
