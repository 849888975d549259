/** What the readings leave, as far as the sentence to the newest of them needs it. */
import type { CircuitModel } from '../../network';
import type { Hypothesis } from '../hypotheses/hypotheses';
import type { Remaining } from '../kinds/kind';

/** Amperes from which a point counts as loaded. */
const LOADED_AMPS = 0.05;
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
  ) {
    this.order = [...now.keys()].sort((one, other) => now[other]! - now[one]!);
  }

  get likely(): readonly Hypothesis[] {
    return this.order.filter((h) => this.now[h]! >= WORTH_A_WORD).map((h) => this.hypotheses[h]!);
  }

  flows(condition: string, nodeId: string): number {
    const node = this.model.network.nodeIndex.get(nodeId);
    let flowing = 0;
    let looked = 0;
    let seen = 0;
    for (const h of this.order) {
      seen += this.now[h]!;
      const { alteration } = this.hypotheses[h]!;
      if (alteration) {
        const { amps } = this.model.solve(condition, alteration);
        const flows = this.model.network.branches.some(
          ({ a, b }, e) => (a === node || b === node) && Math.abs(amps[e] ?? 0) > LOADED_AMPS,
        );
        looked += this.now[h]!;
        if (flows) flowing += this.now[h]!;
      }
      if (seen >= MOST_OF_IT) break;
    }
    return looked > 0 ? flowing / looked : 0;
  }
}
