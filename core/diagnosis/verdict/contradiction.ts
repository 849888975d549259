/**
 * Readings that do not fit together: which one disagrees with the others, whatever the order they came in, and
 * whether taking it away would leave the rest explained.
 */
import type { Hypothesis } from '../hypotheses/hypothesis';

export interface Contradiction {
  /** Index of the reading that disagrees most. */
  readonly reading: number;
  /** Without it the map explains the rest; otherwise the set as a whole fits nothing on the map. */
  readonly restFits: boolean;
}

/** From this log-likelihood below the best possible on, no hypothesis explains all readings well (about 1 in 30). */
const MISFIT = 3.4;

/**
 * The reading that disagrees most with the others; null while some hypothesis on the map explains all of them.
 * `logs` are the log-likelihoods by reading and hypothesis; readings that say nothing are null.
 */
export function findContradiction(
  hypotheses: readonly Hypothesis[],
  logs: readonly (Float64Array | null)[],
): Contradiction | null {
  const indices = [...logs.keys()].filter((r) => logs[r] !== null);
  const said = indices.map((r) => logs[r]!);
  const live = [...hypotheses.keys()].filter((h) => hypotheses[h]!.alteration !== null);
  if (said.length < 2) return null;
  // Sums over all readings, and each reading at its own best.
  const total = new Float64Array(hypotheses.length);
  let possible = 0;
  const peaks = said.map((log) => {
    let peak = Number.NEGATIVE_INFINITY;
    for (const h of live) {
      total[h] = total[h]! + log[h]!;
      if (log[h]! > peak) peak = log[h]!;
    }
    possible += peak;
    return peak;
  });
  /** Loss of the best hypothesis on the map against every reading at its own best, one reading left out. */
  const misfitWithout = (log: Float64Array | null, peak: number) => {
    let best = Number.NEGATIVE_INFINITY;
    for (const h of live) {
      const sum = total[h]! - (log ? log[h]! : 0);
      if (sum > best) best = sum;
    }
    return possible - peak - best;
  };
  if (misfitWithout(null, 0) < MISFIT) return null;
  let least = Number.POSITIVE_INFINITY;
  let odd = 0;
  said.forEach((log, r) => {
    const without = misfitWithout(log, peaks[r]!);
    if (without < least) {
      least = without;
      odd = r;
    }
  });
  return { reading: indices[odd]!, restFits: least < MISFIT };
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
