/** What the readings leave, as far as sentences, pins and ticks need it. */

import type { Hypothesis } from '../hypotheses/hypothesis';
import { CARRIES_AMPS, type Remaining } from '../kinds/kind';
import { WORTH_A_WORD } from '../thresholds';
import type { Predictions } from './predictions';

/** Share of what is left that is looked at for currents. */
const MOST_OF_IT = 0.98;

export class Left implements Remaining {
  private readonly order: readonly number[];
  private readonly flowing = new Map<string, Float64Array>();

  constructor(
    private readonly predictions: Predictions,
    /** Chances of the hypotheses. */
    private readonly now: Float64Array,
    /** Chance that a fault that comes and goes is there now; by hypothesis. */
    private readonly presentNow: (hypothesis: number) => number,
  ) {
    this.order = [...now.keys()].sort((one, other) => now[other]! - now[one]!);
  }

  get lead(): number {
    return this.now[this.order[0]!] ?? 0;
  }

  get likely(): readonly Hypothesis[] {
    const { hypotheses } = this.predictions;
    return this.order.filter((h) => this.now[h]! >= WORTH_A_WORD).map((h) => hypotheses[h]!);
  }

  /** Parts that such a hypothesis has at fault. */
  get likelyParts(): readonly string[] {
    return [...new Set(this.likely.flatMap(({ parts }) => parts))];
  }

  flows(condition: string, nodeId: string): number {
    const { network } = this.predictions.model;
    const node = network.nodeIndex.get(nodeId);
    return this.most(condition, (branch) => {
      const { a, b } = network.branches[branch]!;
      return a === node || b === node;
    });
  }

  /** Chance that current flows through a part in a condition, 0 to 1. */
  flowsThrough(condition: string, part: string): number {
    const { network } = this.predictions.model;
    return this.most(condition, (branch) => network.branches[branch]!.part === part);
  }

  /** The largest chance of the branches that count. */
  private most(condition: string, counts: (branch: number) => boolean): number {
    const flowing = this.flowingIn(condition);
    let most = 0;
    for (let branch = 0; branch < flowing.length; branch++) {
      if (flowing[branch]! > most && counts(branch)) most = flowing[branch]!;
    }
    return most;
  }

  /** Chance by branch that it carries current. */
  private flowingIn(condition: string): Float64Array {
    const known = this.flowing.get(condition);
    if (known) return known;
    const { predictions } = this;
    const { hypotheses, model } = predictions;
    const flowing = new Float64Array(model.network.branches.length);
    const add = (amps: Float64Array, weight: number) => {
      for (let k = 0; k < flowing.length; k++) {
        if (Math.abs(amps[k]!) > CARRIES_AMPS) flowing[k] = flowing[k]! + weight;
      }
    };
    let looked = 0;
    let seen = 0;
    for (const h of this.order) {
      const chance = this.now[h]!;
      const { alteration, lasting } = hypotheses[h]!;
      seen += chance;
      if (alteration) {
        // What comes and goes leaves the circuit sound while it is away.
        const present = lasting === null ? 1 : this.presentNow(h);
        looked += chance;
        add(predictions.point(h, condition).amps, chance * present);
        if (present < 1) add(model.sound(condition).amps, chance * (1 - present));
      }
      if (seen >= MOST_OF_IT) break;
    }
    if (looked > 0) for (let k = 0; k < flowing.length; k++) flowing[k] = flowing[k]! / looked;
    this.flowing.set(condition, flowing);
    return flowing;
  }
}
