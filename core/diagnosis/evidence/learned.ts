/**
 * What each hypothesis has learned of the tolerances from the volts that it takes for right. Where a block of readings begins
 * it is kept, so that later readings build on it.
 */
import { Chain } from './chain';
import { type JudgedReading, voltsOf } from './judgedReading';
import type { Sensitivity } from './sensitivity';

/** How a reading moves under a hypothesis; null where it is no volts, or they hang. */
export function movesOf({ id, reading: { test }, from }: JudgedReading, h: number): Sensitivity | null {
  return test.kind === 'volts' ? from.sensitivity(id, test, h) : null;
}

export class Learned {
  private readonly scratch: Float64Array;
  private known: (Chain | undefined)[] = [];
  private begun = 0;

  /** `entries` in canonical order, read live; `unknowns`: how many tolerances there are. */
  constructor(
    private readonly entries: readonly JudgedReading[],
    unknowns: number,
  ) {
    this.scratch = new Float64Array(unknowns);
  }

  /** Nothing learned yet. */
  nothing(): Chain {
    return new Chain(this.scratch);
  }

  /** What comes before a place is settled; before an earlier one than the last, it is learned anew. */
  beginBlock(at: number): void {
    if (at < this.begun) this.known = [];
    for (const [h, chain] of this.known.entries()) if (chain) this.join(chain, h, this.begun, at);
    this.begun = at;
  }

  /** What a hypothesis has learned from the volts before a place of the block. */
  until(h: number, place: number): Chain {
    let known = this.known[h];
    if (!known) {
      known = this.nothing();
      this.join(known, h, 0, this.begun);
      this.known[h] = known;
    }
    const chain = known.copy();
    this.join(chain, h, this.begun, place);
    return chain;
  }

  private join(chain: Chain, h: number, from: number, until: number): void {
    for (let index = from; index < until; index++) {
      const entry = this.entries[index]!;
      if (entry.joins[h] === 0) continue;
      const moves = movesOf(entry, h);
      if (moves) chain.join(moves, entry.prediction.volts!.mean[h]!, voltsOf(entry));
    }
  }
}
