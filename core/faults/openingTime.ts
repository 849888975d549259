/** How soon a fuse opens: bands for regular blade fuses after ISO 8820-3. Other families need the maker's curve. */
import { hasOpeningBand } from '../limits';

export interface OpeningTime {
  /** Seconds after which it may open, and after which it will have opened; Infinity where it may hold. */
  readonly fromSeconds: number;
  readonly toSeconds: number;
}

/** Ratio of current to rating, shortest and longest opening time in seconds. */
const BANDS: readonly (readonly [ratio: number, from: number, to: number])[] = [
  [1.35, 0.75, 600],
  [1.6, 0.25, 50],
  [2, 0.15, 5],
  [3.5, 0.04, 0.5],
  [6, 0.02, 0.1],
];
/** Up to this ratio it holds for 100 hours at least. */
const HOLDS_UP_TO = 1.1;
const HOLDS_SECONDS = 100 * 3600;

function between(low: readonly number[], high: readonly number[], ratio: number, column: number): number {
  const share = Math.log(ratio / low[0]!) / Math.log(high[0]! / low[0]!);
  return low[column]! * (high[column]! / low[column]!) ** share;
}

/**
 * Opening time of a regular blade fuse that carries this many times its rating; log-log between the tabled
 * ratios. Null at and below the rating, where it does not open, and for families without a public band.
 */
export function openingTime(ratio: number, family: string | undefined): OpeningTime | null {
  if (!hasOpeningBand(family)) return null;
  if (!(ratio > 1)) return null;
  if (ratio <= HOLDS_UP_TO) return { fromSeconds: HOLDS_SECONDS, toSeconds: Number.POSITIVE_INFINITY };
  const first = BANDS[0]!;
  if (ratio < first[0]) return { fromSeconds: first[1], toSeconds: Number.POSITIVE_INFINITY };
  const last = BANDS[BANDS.length - 1]!;
  if (ratio >= last[0]) return { fromSeconds: 0, toSeconds: last[2] };
  const upper = BANDS.findIndex(([at]) => at > ratio);
  const low = BANDS[upper - 1]!;
  const high = BANDS[upper]!;
  return { fromSeconds: between(low, high, ratio, 1), toSeconds: between(low, high, ratio, 2) };
}

function secondsWords(seconds: number): string {
  if (seconds < 1) return `${Math.round(seconds * 1000)} ms`;
  if (seconds < 100) return `${Number(seconds.toPrecision(2))} s`;
  if (seconds < 6000) return `${Math.round(seconds / 60)} min`;
  return `${Math.round(seconds / 3600)} h`;
}

/** The band in words: "opens within 150 ms to 5 s". */
export function openingTimeWords(time: OpeningTime | null): string {
  if (!time) return 'no opening time known for this family: the maker’s curve decides';
  if (time.toSeconds === Number.POSITIVE_INFINITY) {
    return time.fromSeconds >= HOLDS_SECONDS
      ? `holds for ${secondsWords(time.fromSeconds)} at least`
      : `may open from ${secondsWords(time.fromSeconds)} on, or hold`;
  }
  return time.fromSeconds === 0
    ? `opens within ${secondsWords(time.toSeconds)}`
    : `opens after ${secondsWords(time.fromSeconds)} to ${secondsWords(time.toSeconds)}`;
}
