/** What every hypothesis predicts for one test. */
import type { TestRef } from '../../format';

export interface VoltsColumn {
  readonly mean: Float64Array;
  readonly spread: Float64Array;
  /** Volts that it goes to and fro between where a contact chatters; 0 where it rests. */
  readonly swing: Float64Array;
  /** How far the supply may lie from what is supposed, as a fraction: a fault of its own leaves it wide open. */
  readonly supply: Float64Array;
  readonly floating: Uint8Array;
  /** A contact near its threshold may stand the other way: with this chance, and then these volts. */
  readonly otherChance: Float64Array;
  readonly otherMean: Float64Array;
  readonly anySway: boolean;
}

export interface TestPrediction {
  readonly ref: TestRef;
  readonly outcomes: number;
  /** Chances, hypothesis by hypothesis, wrong readings included. */
  readonly chances: Float32Array;
  /** Chances without wrong readings, for judging a reading that was taken. */
  readonly clean: Float32Array;
  readonly volts: VoltsColumn | null;
  /** Clean chances of a test of states while a contact near its threshold stands the other way; null where none does. */
  readonly swayed: Float32Array | null;
  /** It asks what a part is like, not what the circuit does just now: a fault that is away shows all the same. */
  readonly ofLooseness: boolean;
  /** Whether any two hypotheses of the map predict clearly different results. */
  readonly tells: boolean;
}
