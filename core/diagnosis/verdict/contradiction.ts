/**
 * Readings that do not fit together: which one disagrees with the others, whatever the order they came in, and
 * whether taking it away would leave the rest explained.
 */
import type { Hypothesis } from '../hypotheses/hypothesis';
import { MOST_OF_ONE } from '../thresholds';

export interface Contradiction {
  /** Index of the reading that disagrees most. */
  readonly reading: number;
  /** Without it the map explains the rest; otherwise the set as a whole fits nothing on the map. */
  readonly restFits: boolean;
}

/** From this log-likelihood below the best possible on, no hypothesis explains all readings well (about 1 in 30). */
const MISFIT = 3.4;

/** What one reading says: log-likelihood by hypothesis, and the best of those on the map. */
export interface Said {
  readonly log: Float64Array;
  readonly peak: number;
}

/**
 * The reading that disagrees most with the others; null while some hypothesis on the map explains all of them. Readings that
 * say nothing are null. `totals`: what all readings say of each hypothesis, log-likelihood.
 */
export function findContradiction(
  hypotheses: readonly Hypothesis[],
  readings: readonly (Said | null)[],
  totals: Float64Array,
): Contradiction | null {
  const indices = [...readings.keys()].filter((r) => readings[r] !== null);
  if (indices.length < 2) return null;
  let possible = 0;
  for (const r of indices) possible += readings[r]!.peak;
  let top = Number.NEGATIVE_INFINITY;
  const onMap = (h: number) => hypotheses[h]!.alteration !== null;
  for (const [h, total] of totals.entries()) if (onMap(h)) top = Math.max(top, total);
  const inReach = [...totals.keys()].filter((h) => totals[h]! >= top - MOST_OF_ONE && onMap(h));
  /** Loss of the best hypothesis on the map against every reading at its own best, one reading left out. */
  const misfitWithout = (log: Float64Array | null, peak: number) => {
    let best = Number.NEGATIVE_INFINITY;
    for (const h of inReach) {
      const sum = totals[h]! - (log ? log[h]! : 0);
      if (sum > best) best = sum;
    }
    return possible - peak - best;
  };
  if (misfitWithout(null, 0) < MISFIT) return null;
  let least = Number.POSITIVE_INFINITY;
  let odd = 0;
  for (const r of indices) {
    const { log, peak } = readings[r]!;
    const without = misfitWithout(log, peak);
    if (without < least) {
      least = without;
      odd = r;
    }
  }
  return { reading: odd, restFits: least < MISFIT };
}

/** What to do about the reading that disagrees most; `what` names it, taken so many times. */
export function contradictionWords(what: string, restFits: boolean, timesTaken: number): string {
  if (restFits && timesTaken < 2) {
    return `The reading that disagrees with the others is ${what}. Repeat it; check the spot, the key and the switches.`;
  }
  return restFits
    ? `It still disagrees after a repeat: ${what}. The fault may lie in something that this map does not contain: a splice, a feed or a part behind that point.`
    : `These readings together fit nothing on this map; ${what} disagrees most. Look for what the map does not contain: a splice, a feed or a part that somebody added.`;
}
