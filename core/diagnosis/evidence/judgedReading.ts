/** A reading with what every hypothesis makes of it. */
import type { Predictions } from './predictions';
import type { TakenReading } from './readings';
import type { TestPrediction } from './testPrediction';

export interface JudgedReading {
  /** Id of its test, made once. */
  readonly id: string;
  readonly reading: TakenReading;
  readonly prediction: TestPrediction;
  readonly episode: number;
  /** What predicts it: the circuit of now, or as it was before parts were mended. */
  readonly from: Predictions;
  /** Canonical place: episode, then block, then name, then value. */
  readonly key: string;
  readonly wrong: number;
  /** Result of a test of states; -1 where it is volts, or comes and goes. */
  readonly outcome: number;
  /** Log-likelihood by hypothesis, given the entries before it. */
  readonly log: Float64Array;
  /** The best of them among the hypotheses on the map. */
  peak: number;
  /** Whether a hypothesis takes a volts reading for right, and so learns from it. */
  readonly joins: Uint8Array;
  /** Chance, after this entry, that a contact near its threshold stands the other way than predicted. */
  readonly stand: Float64Array;
  /** For faults that come and go: log-likelihood while there and while away, given the entries before. */
  readonly present: Float64Array;
  readonly absent: Float64Array;
}

/** Volts read, 0 where it is a state. */
export function voltsOf({ reading: { value } }: JudgedReading): number {
  return 'volts' in value ? value.volts : 0;
}

/** Whether it is judged as volts: they were read, and are predicted. */
export function isVolts({ reading: { value }, prediction }: JudgedReading): boolean {
  return 'volts' in value && prediction.volts !== null;
}
