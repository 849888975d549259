/** A volts reading as every hypothesis predicts it, and as chances of bins for choosing a test. */
import type { TestRef } from '../../format';
import { normalBelow } from '../../limits';
import { WRONG_READING } from './readings';
import type { TestPrediction, VoltsColumn } from './testPrediction';

/** Standard deviation of the battery around its assumed value, as a fraction (12.2 to 12.8 V on 12 V). */
export const EMF_SPREAD = 0.015;
/** Edges between voltage bins for a 12 V system; other systems scale them. */
export const BIN_EDGES_12V = [
  -0.3, 0.12, 0.35, 0.8, 1.6, 2.6, 4, 5.5, 7, 8.5, 9.7, 10.6, 11.2, 11.6, 11.9, 12.2, 12.5,
] as const;

/** How a hypothesis leaves the two points of a volts reading. */
export const JOINED = 0;
/** One of them hangs free, or only leakage decides its volts. */
export const FLOATS = 1;
/** What a meter shows on such a point: mostly nothing, or a little, or anything; shares and spreads in volts. */
export const FLOATING = {
  nothing: 0.6,
  nothingSpread: 0.03,
  little: 0.3,
  littleSpread: 0.5,
  anything: 0.1,
} as const;
/** The map cannot say. */
export const UNKNOWN = 2;

/** Volts as chances of bins, filled when a test is first weighed against others. */
export class VoltsPrediction implements TestPrediction {
  readonly outcomes: number;
  readonly tells: boolean;
  readonly swayed = null;
  readonly ofLooseness = false;
  private readonly zeroBin: number;
  private filled: { clean: Float32Array; chances: Float32Array } | null = null;

  constructor(
    readonly ref: TestRef,
    private readonly edges: readonly number[],
    readonly volts: VoltsColumn,
  ) {
    this.outcomes = edges.length + 1;
    this.zeroBin = edges.filter((edge) => edge <= 0).length;
    this.tells = this.differs();
  }

  get clean(): Float32Array {
    this.filled ??= this.fill();
    return this.filled.clean;
  }

  get chances(): Float32Array {
    this.filled ??= this.fill();
    return this.filled.chances;
  }

  private differs(): boolean {
    const { mean, spread, floating, otherChance } = this.volts;
    let low = Number.POSITIVE_INFINITY;
    let high = Number.NEGATIVE_INFINITY;
    let finest = Number.POSITIVE_INFINITY;
    let joined = 0;
    let floats = 0;
    for (let h = 0; h < mean.length; h++) {
      if (floating[h] === UNKNOWN) continue;
      if (floating[h] === FLOATS) {
        floats += 1;
        continue;
      }
      joined += 1;
      if (otherChance[h]! > 0) return true;
      low = Math.min(low, mean[h]!);
      high = Math.max(high, mean[h]!);
      finest = Math.min(finest, spread[h]!);
    }
    return (floats > 0 && joined > 0) || high - low > finest;
  }

  private fill(): { clean: Float32Array; chances: Float32Array } {
    const { mean, spread, supply, floating, otherChance, otherMean } = this.volts;
    const { outcomes } = this;
    const clean = new Float32Array(mean.length * outcomes);
    for (let h = 0; h < mean.length; h++) {
      const at = h * outcomes;
      if (floating[h] === UNKNOWN) clean.fill(1 / outcomes, at, at + outcomes);
      else if (floating[h] === FLOATS) {
        clean.fill(FLOATING.anything / outcomes, at, at + outcomes);
        this.addBins(clean, at, mean[h]!, FLOATING.nothingSpread, FLOATING.nothing);
        this.addBins(clean, at, mean[h]!, FLOATING.littleSpread, FLOATING.little);
      } else {
        const wide = (volts: number) => Math.hypot(spread[h]!, volts * supply[h]!);
        const other = otherChance[h]!;
        this.addBins(clean, at, mean[h]!, wide(mean[h]!), 1 - other);
        if (other > 0) this.addBins(clean, at, otherMean[h]!, wide(otherMean[h]!), other);
      }
    }
    return { clean, chances: this.withWrong(clean) };
  }

  /**
   * Chances of the bins where some hypotheses expect other volts, by what was read before; wrong readings included.
   * `expected` gives volts and deviation of a hypothesis, null where it is as ever.
   */
  given(
    rows: Int32Array,
    expected: (h: number) => { readonly expected: number; readonly deviation: number } | null,
  ): Float32Array {
    const { outcomes } = this;
    const chances = this.chances.slice();
    const clean = new Float32Array(outcomes);
    for (const h of rows) {
      const known = expected(h);
      if (!known) continue;
      clean.fill(0);
      this.addBins(clean, 0, known.expected, known.deviation, 1);
      chances.set(this.withWrong(clean), h * outcomes);
    }
    return chances;
  }

  /** Chances of right readings with the wrong ones mixed in. */
  private withWrong(clean: Float32Array): Float32Array {
    const { outcomes, zeroBin } = this;
    return clean.map((chance, index) => {
      const wrong = 0.4 / outcomes + (index % outcomes === zeroBin ? 0.6 : 0);
      return (1 - WRONG_READING) * chance + WRONG_READING * wrong;
    });
  }

  private addBins(into: Float32Array, at: number, mean: number, spread: number, share: number): void {
    let below = 0;
    for (let k = 0; k < this.edges.length; k++) {
      const z = (this.edges[k]! - mean) / spread;
      const next = z > 6 ? 1 : z < -6 ? 0 : normalBelow(z);
      into[at + k] = into[at + k]! + share * (next - below);
      below = next;
    }
    into[at + this.edges.length] = into[at + this.edges.length]! + share * (1 - below);
  }
}
