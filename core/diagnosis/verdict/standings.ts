/** Which faults the readings have cleared, part by part. */
import type { PartStanding } from '../assessment';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { WORTH_A_WORD } from '../thresholds';

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

  /** Parts that are cleared, by the same measure as their standing. */
  clearedParts(cumulative: Float64Array, p: Float64Array, loaded: (part: string) => boolean): string[] {
    return [...this.byPart.keys()].filter(
      (part) => this.kept(part, cumulative, p, loaded).standing === 'cleared',
    );
  }

  /** How every part stands; `clearedBy` has the reading that cleared it, `loaded` whether its current was seen to flow. */
  of(
    cumulative: Float64Array,
    p: Float64Array,
    clearedBy: ReadonlyMap<string, string>,
    loaded: (part: string) => boolean,
  ): PartStanding[] {
    return [...this.byPart.keys()].map((part) => {
      const { kept, chance, standing } = this.kept(part, cumulative, p, loaded);
      return {
        part,
        chance,
        standing,
        clearedBy: standing === 'cleared' ? (clearedBy.get(part) ?? null) : null,
        // Several sizes of one bad joint are one thing to a reader.
        remaining: [...new Set(kept.map((h) => this.hypotheses[h]!.words.replace(/ \(about [^)]*\)/, '')))],
      };
    });
  }

  /**
   * Faults of a part that remain, and how it stands by them. `cumulative`: log-likelihood of each hypothesis against
   * the best, priors left out; `p`: their chances.
   */
  private kept(part: string, cumulative: Float64Array, p: Float64Array, loaded: (part: string) => boolean) {
    const members = this.byPart.get(part)!;
    const limit = this.clearedBelow(cumulative);
    const chance = members.reduce((sum, h) => sum + p[h]!, 0);
    const kept = members.filter((h) => cumulative[h]! >= limit || p[h]! >= WORTH_A_WORD);
    const isOut = kept.length === 0 && chance < WORTH_A_WORD;
    const standing: PartStanding['standing'] = isOut
      ? loaded(part)
        ? 'cleared'
        : 'excluded'
      : kept.length < members.length
        ? 'partly'
        : 'open';
    return { kept, chance, standing };
  }
}
