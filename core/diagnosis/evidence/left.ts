/** What the readings leave, as far as the sentence to the newest of them needs it. */
import type { CircuitModel } from '../../network';
import type { Hypothesis } from '../hypotheses/hypotheses';
import { carries, type Remaining } from '../kinds/kind';

/** Share of what is left that is looked at for currents. */
const MOST_OF_IT = 0.98;
/** From this chance on a hypothesis is worth a word. */
const WORTH_A_WORD = 0.05;

export class Left implements Remaining {
  private readonly order: readonly number[];

  constructor(
    private readonly model: CircuitModel,
    private readonly hypotheses: readonly Hypothesis[],
    /** Chances of the hypotheses. */
    private readonly now: Float64Array,
    /** Chance that a fault that comes and goes is there now; by hypothesis. */
    private readonly presentNow: (hypothesis: number) => number,
  ) {
    this.order = [...now.keys()].sort((one, other) => now[other]! - now[one]!);
  }

  get likely(): readonly Hypothesis[] {
    return this.order.filter((h) => this.now[h]! >= WORTH_A_WORD).map((h) => this.hypotheses[h]!);
  }

  /** Parts that such a hypothesis has at fault. */
  get likelyParts(): readonly string[] {
    return [...new Set(this.likely.flatMap(({ parts }) => parts))];
  }

  flows(condition: string, nodeId: string): number {
    const { model } = this;
    const whileAway = Number(carries(model, model.sound(condition).amps, nodeId));
    let flowing = 0;
    let looked = 0;
    let seen = 0;
    for (const h of this.order) {
      const chance = this.now[h]!;
      const { alteration, lasting } = this.hypotheses[h]!;
      seen += chance;
      if (alteration) {
        // What comes and goes leaves the circuit sound while it is away.
        const present = lasting === null ? 1 : this.presentNow(h);
        const whilePresent = Number(carries(model, model.solve(condition, alteration).amps, nodeId));
        looked += chance;
        flowing += chance * (present * whilePresent + (1 - present) * whileAway);
      }
      if (seen >= MOST_OF_IT) break;
    }
    return looked > 0 ? flowing / looked : 0;
  }
}
