/**
 * How well each hypothesis explains the readings. The battery's true voltage is unknown but common to all
 * readings of a job, so every hypothesis carries its own estimate of it (mean and variance of a scale on
 * the predicted volts), corrected by each reading as by a one-parameter Kalman filter.
 */
import type { Reading } from '../format/readingsSchema';
import {
  EMF_SPREAD,
  outcomeIndex,
  type Predictions,
  type TestPrediction,
  WRONG_READING,
  WRONG_UNPROVED,
} from './predictions';

export interface TakenReading extends Reading {
  readonly id: string;
  readonly testerProved: boolean;
}

/** Range over which a wrong or floating volts reading may lie, as multiples of the supply. */
const WRONG_SPAN = 1.3;
/** A reading counts as unexplained by a hypothesis that gives it less than this of its best density. */
export const UNEXPLAINED = 0.02;

export class EvidenceState {
  readonly logWeight: Float64Array;
  private readonly scaleMean: Float64Array;
  private readonly scaleVariance: Float64Array;

  constructor(private readonly predictions: Predictions) {
    const count = predictions.hypotheses.length;
    this.logWeight = new Float64Array(count);
    this.scaleMean = new Float64Array(count).fill(1);
    this.scaleVariance = new Float64Array(count).fill(EMF_SPREAD ** 2);
    for (let h = 0; h < count; h++) this.logWeight[h] = Math.log(predictions.hypotheses[h]!.prior);
  }

  /**
   * Takes one reading in and gives its log-likelihood under each hypothesis, or null when the value says
   * nothing about the circuit.
   */
  take(prediction: TestPrediction, reading: TakenReading): Float64Array | null {
    const result =
      prediction.volts && 'volts' in reading.value
        ? this.volts(prediction, reading.value.volts, reading.testerProved)
        : this.state(prediction, reading);
    if (!result) return null;
    for (let h = 0; h < result.length; h++) this.logWeight[h] = this.logWeight[h]! + result[h]!;
    return result;
  }

  private volts(prediction: TestPrediction, volts: number, proved: boolean): Float64Array {
    const { mean, spread, floating } = prediction.volts!;
    const emf = this.predictions.model.emfVolts;
    const wrong = proved ? WRONG_READING : WRONG_UNPROVED;
    const flat = 1 / (WRONG_SPAN * emf);
    const nothing = density(volts, 0, 0.05);
    const wrongDensity = 0.6 * nothing + 0.4 * flat;
    const result = new Float64Array(mean.length);
    for (let h = 0; h < mean.length; h++) {
      if (floating[h] === 2) {
        result[h] = Math.log(0.3 * density(volts, 0, 0.15) + 0.7 * flat);
        continue;
      }
      if (floating[h] === 1) {
        const right = 0.75 * density(volts, 0, 0.15) + 0.25 * flat;
        result[h] = Math.log((1 - wrong) * right + wrong * wrongDensity);
        continue;
      }
      const m = mean[h]!;
      const s2 = this.scaleVariance[h]!;
      const expected = m * this.scaleMean[h]!;
      const variance = m * m * s2 + spread[h]! ** 2;
      const right = (1 - wrong) * density(volts, expected, Math.sqrt(variance));
      const total = right + wrong * wrongDensity;
      result[h] = Math.log(total);
      // Only as far as the reading is believed does it move the estimate of the battery.
      const gain = ((right / total) * (m * s2)) / variance;
      this.scaleMean[h] = this.scaleMean[h]! + gain * (volts - expected);
      this.scaleVariance[h] = s2 * (1 - gain * m);
    }
    return result;
  }

  private state(prediction: TestPrediction, reading: TakenReading): Float64Array | null {
    const { hypotheses, model } = this.predictions;
    const result = new Float64Array(hypotheses.length);
    if ('state' in reading.value && reading.value.state === 'comes-and-goes') {
      // Something loose comes and goes; a blown or burnt-out part does not.
      for (let h = 0; h < result.length; h++) {
        const loose = hypotheses[h]!.faults.some(
          (fault) => fault.mode === 'high-resistance' || fault.mode.startsWith('contact'),
        );
        result[h] = Math.log(loose || hypotheses[h]!.alteration === null ? 0.5 : 0.15);
      }
      return result;
    }
    const outcome = outcomeIndex(model, reading);
    if (outcome === null) return null;
    const wrong = reading.testerProved ? WRONG_READING : WRONG_UNPROVED;
    const { outcomes, clean } = prediction;
    for (let h = 0; h < result.length; h++) {
      result[h] = Math.log((1 - wrong) * clean[h * outcomes + outcome]! + wrong / outcomes);
    }
    return result;
  }
}

function density(x: number, mean: number, spread: number): number {
  const z = (x - mean) / spread;
  return Math.exp(-0.5 * z * z) / (spread * Math.sqrt(2 * Math.PI));
}

/** Probabilities from log weights; sums to one. */
export function normalise(logWeight: Float64Array): Float64Array {
  let top = Number.NEGATIVE_INFINITY;
  for (const value of logWeight) top = Math.max(top, value);
  const p = new Float64Array(logWeight.length);
  let sum = 0;
  for (let h = 0; h < p.length; h++) {
    p[h] = Math.exp(logWeight[h]! - top);
    sum += p[h]!;
  }
  for (let h = 0; h < p.length; h++) p[h] = p[h]! / sum;
  return p;
}
