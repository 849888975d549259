/**
 * The volts that a hypothesis has taken in, as one joint normal distribution. Each new reading is judged given the others.
 *
 * A few readings are kept as a Cholesky factor that grows by a row a reading. Where there are more, what they have told of
 * the tolerances is kept instead (`knownTolerances.ts`): the same distribution, and it grows no further.
 */
import { voltmeterError } from '../../limits';
import { KnownTolerances } from './knownTolerances';
import type { Sensitivity } from './sensitivity';

/** Readings kept as rows. */
const MOST_ROWS = 32;
/** Variance that readings leave at the least, V². */
const LEAST_VARIANCE = 1e-9;

export class Chain {
  private readonly moves: Sensitivity[] = [];
  private readonly rows: Float64Array[] = [];
  private readonly whitened: number[] = [];
  /** Mean and volts of the readings that the rows stand for. */
  private readonly read: (readonly [number, number])[] = [];
  /** Null while there are few. */
  private told: KnownTolerances | null = null;

  /** `scratch` has room for every branch and the supply, holds zeros, and may be shared. */
  constructor(
    private readonly scratch: Float64Array,
    private readonly mostRows = MOST_ROWS,
  ) {}

  get isEmpty(): boolean {
    return this.moves.length === 0 && this.told === null;
  }

  copy(): Chain {
    const made = new Chain(this.scratch, this.mostRows);
    made.moves.push(...this.moves);
    made.rows.push(...this.rows);
    made.whitened.push(...this.whitened);
    made.read.push(...this.read);
    made.told = this.told?.copy() ?? null;
    return made;
  }

  /** Volts expected of a reading, by its mean and how it moves, given the readings taken in; and their deviation. */
  expect(moves: Sensitivity, mean: number): { expected: number; deviation: number } {
    if (this.told) {
      const { shift, variance } = this.told.of(moves);
      return { expected: mean + shift, deviation: deviationOf(variance, mean) };
    }
    const { expected, deviation } = this.conditioned(moves, mean);
    return { expected, deviation };
  }

  /** Takes a reading of so many volts in. */
  join(moves: Sensitivity, mean: number, volts: number): void {
    if (!this.told && this.rows.length === this.mostRows) this.told = this.whatRowsTell();
    if (this.told) {
      this.told.take(moves, volts - mean, voltmeterError(mean) ** 2);
      return;
    }
    const { row, expected, deviation } = this.conditioned(moves, mean);
    row[this.rows.length] = deviation;
    this.rows.push(row);
    this.moves.push(moves);
    this.whitened.push((volts - expected) / deviation);
    this.read.push([mean, volts]);
  }

  private whatRowsTell(): KnownTolerances {
    const told = new KnownTolerances();
    for (const [at, [mean, volts]] of this.read.entries()) {
      told.take(this.moves[at]!, volts - mean, voltmeterError(mean) ** 2);
    }
    for (const list of [this.moves, this.rows, this.whitened, this.read]) list.length = 0;
    return told;
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
    return { row, expected: mean + shift, deviation: deviationOf(own - explained, mean) };
  }
}

/** Of a reading whose tolerances leave it a variance, V², and whose meter errs by its volts. */
function deviationOf(variance: number, mean: number): number {
  return Math.sqrt(Math.max(LEAST_VARIANCE, variance) + voltmeterError(mean) ** 2);
}
