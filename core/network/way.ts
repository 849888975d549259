/**
 * How the sound circuit goes on from a state on its way to rest, and how far everything watched may move before an
 * altered one might go another way. Mostly it moves less: then nothing of that state need be found but what a few ports
 * draw.
 */
import type { Ports } from './ports';

/** Volts between which something watched may lie, both ends with it. */
export interface Band {
  readonly low: number;
  readonly high: number;
}

export const ANYWHERE: Band = { low: Number.NEGATIVE_INFINITY, high: Number.POSITIVE_INFINITY };
/** Too close to tell: to be found properly. */
export const NOWHERE: Band = { low: Number.POSITIVE_INFINITY, high: Number.NEGATIVE_INFINITY };

/** `Base`: a base of the condition, as `factorization.ts` makes them. */
export class Way<Base extends { readonly watchedVolts: ArrayLike<number> }> {
  /** The base of the state that follows, once it was chosen. */
  to: Base | null = null;
  private readonly low: Float64Array;
  private readonly high: Float64Array;

  constructor(
    /** States of the sensors, and those that follow. */
    readonly states: Uint8Array,
    readonly next: Uint8Array,
    /** Of the watched pairs, sensors before junctions. */
    bands: readonly Band[],
    /** 1 for a branch whose opening or current a sensor feels. */
    private readonly isFelt: Uint8Array,
  ) {
    this.low = Float64Array.from(bands, ({ low }) => low);
    this.high = Float64Array.from(bands, ({ high }) => high);
  }

  /** Whether what the ports draw leaves everything watched where the sound circuit goes the same way. */
  isKept(base: Base, ports: Ports): boolean {
    const { low, high, isFelt } = this;
    const { count, columns, drawn, element } = ports;
    for (let p = 0; p < count; p++) {
      const e = element[p]!;
      if (e >= 0 && isFelt[e] === 1) return false;
    }
    for (let i = 0; i < low.length; i++) {
      let volts = base.watchedVolts[i]!;
      for (let p = 0; p < count; p++) volts -= drawn[p]! * columns[p]!.watched[i]!;
      if (!(volts >= low[i]! && volts <= high[i]!)) return false;
    }
    return true;
  }
}
