/**
 * What volts have told of the tolerances: mean and covariance of every one that a reading moved with, in standard
 * deviations of its own, brought up to date by each reading (the measurement update of a Kalman filter; Kalman, "A new
 * approach to linear filtering and prediction problems", 1960). Its size goes by the tolerances, not by the readings.
 */
import type { Sensitivity } from './sensitivity';

/** Volts, and the variance of what the readings leave open, V²; the meter's own is not in it. */
export interface Left {
  readonly shift: number;
  readonly variance: number;
}

export class KnownTolerances {
  /** Place of each tolerance that a reading has moved with. */
  private readonly places = new Map<number, number>();
  private mean = new Float64Array(16);
  /** Square, row by row, `room` wide. */
  private covariance = new Float64Array(16 * 16);
  private room = 16;

  copy(): KnownTolerances {
    const made = new KnownTolerances();
    for (const [index, place] of this.places) made.places.set(index, place);
    made.mean = this.mean.slice();
    made.covariance = this.covariance.slice();
    made.room = this.room;
    return made;
  }

  /** How far the volts of a reading are moved by what is known, and how much of their variance is left. */
  of(moves: Sensitivity): Left {
    const { places, covariance, room } = this;
    let shift = 0;
    let variance = 0;
    const { index, volts } = moves;
    for (let i = 0; i < index.length; i++) {
      const place = places.get(index[i]!);
      if (place === undefined) {
        variance += volts[i]! ** 2;
        continue;
      }
      shift += volts[i]! * this.mean[place]!;
      for (let k = 0; k < index.length; k++) {
        const other = places.get(index[k]!);
        if (other !== undefined) variance += volts[i]! * covariance[place * room + other]! * volts[k]!;
      }
    }
    return { shift, variance };
  }

  /** Takes in that a reading lay so far above the volts of the middle of all tolerances, with a variance of its own, V². */
  take(moves: Sensitivity, above: number, own: number): void {
    for (const index of moves.index) if (!this.places.has(index)) this.begin(index);
    const { covariance, mean, room } = this;
    const count = this.places.size;
    const { shift, variance } = this.of(moves);
    const along = new Float64Array(count);
    for (let i = 0; i < moves.index.length; i++) {
      const from = this.places.get(moves.index[i]!)! * room;
      const volts = moves.volts[i]!;
      for (let place = 0; place < count; place++)
        along[place] = along[place]! + volts * covariance[from + place]!;
    }
    const whole = variance + own;
    for (let row = 0; row < count; row++) {
      const gain = along[row]! / whole;
      if (gain === 0) continue;
      mean[row] = mean[row]! + gain * (above - shift);
      const from = row * room;
      for (let place = 0; place < count; place++) {
        covariance[from + place] = covariance[from + place]! - gain * along[place]!;
      }
    }
  }

  private begin(index: number): void {
    const place = this.places.size;
    if (place === this.room) this.widen();
    this.places.set(index, place);
    this.covariance[place * this.room + place] = 1;
  }

  private widen(): void {
    const { covariance, mean, room } = this;
    this.room = 2 * room;
    this.mean = new Float64Array(this.room);
    this.mean.set(mean);
    this.covariance = new Float64Array(this.room * this.room);
    for (let row = 0; row < room; row++) {
      this.covariance.set(covariance.subarray(row * room, (row + 1) * room), row * this.room);
    }
  }
}
