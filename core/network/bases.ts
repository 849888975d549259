/** The states of a condition that are factored: those that the sound circuit passes through on its way to rest. */
import type { Network } from '../circuit';
import { type Alteration, UNALTERED } from './alteration';
import type { Elements } from './elements';
import { Factorization } from './factorization';
import { equalStates } from './sensors';
import type { ShapeFinder } from './shape';
import type { Watched } from './watched';
import type { WholeMatrix } from './wholeMatrix';

/** States of the sensors for which a condition keeps a factorization. */
const LIMIT = 12;

export class Bases {
  private readonly list: Factorization[] = [];

  constructor(
    private readonly network: Network,
    private readonly elements: Elements,
    private readonly whole: WholeMatrix,
    private readonly shapes: ShapeFinder,
    private readonly watched: Watched,
  ) {}

  get first(): Factorization | null {
    return this.list[0] ?? null;
  }

  get storedNumbers(): number {
    return this.list.reduce((sum, base) => sum + base.storedNumbers, 0);
  }

  /** The present state is where the sound circuit comes to rest. */
  markRest(): void {
    const { closed } = this.elements;
    const rest = this.list.find((base) => equalStates(base.closed, closed));
    if (rest) rest.isRest = true;
  }

  /** The base of the present state, or the one that the fewest contacts tell from it; null when nothing settles. */
  choose(alteration: Alteration): Factorization | null {
    const { list } = this;
    const { closed } = this.elements;
    let best: Factorization | null = null;
    let fewest = Number.POSITIVE_INFINITY;
    for (let i = 0; i < list.length; i++) {
      const base = list[i]!;
      let differing = 0;
      for (let m = 0; m < closed.length && differing < fewest; m++) {
        if (base.closed[m] !== closed[m]) differing++;
      }
      if (differing === 0) return base;
      if (differing < fewest) {
        fewest = differing;
        best = base;
      }
    }
    if (best && (alteration !== UNALTERED || list.length >= LIMIT)) return best;
    if (alteration !== UNALTERED) return null;
    return this.make() ?? best;
  }

  private make(): Factorization | null {
    const { whole, elements, shapes, watched, list } = this;
    const found = whole.factor(list[list.length - 1] ?? null) ?? whole.factor(null);
    if (!found) return null;
    whole.holdIdle(found);
    const { a, b, branchCount, closed } = elements;
    const state = { ...found, roots: shapes.roots.slice(), closed: closed.slice() };
    const made = new Factorization(state, a, b, branchCount, this.network.datum, watched);
    list.push(made);
    return made;
  }
}
