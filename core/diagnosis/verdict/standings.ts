/** Which faults the readings have cleared, part by part. */
import type { PartStanding } from '../assessment';
import type { Hypothesis } from '../hypotheses/hypotheses';

/** Likelihood ratio to the best below which a fault counts as cleared. */
const CLEARED = 0.02;

export class Standings {
  private readonly byPart: ReadonlyMap<string, readonly number[]>;

  constructor(private readonly hypotheses: readonly Hypothesis[]) {
    const byPart = new Map<string, number[]>();
    hypotheses.forEach(({ parts: [part], second }, h) => {
      if (part !== undefined && second === undefined) byPart.set(part, [...(byPart.get(part) ?? []), h]);
    });
    this.byPart = byPart;
  }

  /** Log-likelihood below which a hypothesis counts as cleared. */
  private clearedBelow(cumulative: Float64Array): number {
    let best = Number.NEGATIVE_INFINITY;
    for (const value of cumulative) best = Math.max(best, value);
    return best + Math.log(CLEARED);
  }

  /** Parts that are cleared of every fault. `cumulative`: log-likelihood of each hypothesis against the best, priors left out. */
  clearedParts(cumulative: Float64Array): string[] {
    const limit = this.clearedBelow(cumulative);
    return [...this.byPart]
      .filter(([, members]) => members.every((h) => cumulative[h]! < limit))
      .map(([part]) => part);
  }

  /** How every part stands; `clearedBy` has the reading that cleared it. */
  of(cumulative: Float64Array, p: Float64Array, clearedBy: ReadonlyMap<string, string>): PartStanding[] {
    const limit = this.clearedBelow(cumulative);
    return [...this.byPart].map(([part, members]) => {
      const kept = members.filter((h) => cumulative[h]! >= limit);
      return {
        part,
        chance: members.reduce((sum, h) => sum + p[h]!, 0),
        standing: kept.length === 0 ? 'cleared' : kept.length < members.length ? 'partly' : 'open',
        clearedBy: clearedBy.get(part) ?? null,
        // Several sizes of one bad joint are one thing to a reader.
        remaining: [...new Set(kept.map((h) => this.hypotheses[h]!.words.replace(/ \(about [^)]*\)/, '')))],
      };
    });
  }
}
