/** How parts stand while the log is worked through: exchanged for one another, a known good one in the place of another. */
import type { BodyOf, EventBody, Reading } from '../format';
import type { JobState } from './state';

type Fitted = NonNullable<Reading['fitted']>;

export class FittedThen {
  private readonly swaps = new Map<string, BodyOf<'swapped'>>();
  private readonly knownGood = new Set<string>();

  /** Takes in what an entry changes. */
  step(id: string, body: EventBody): void {
    if (body.kind === 'swapped') this.swaps.set(id, body);
    else if (body.kind === 'swap-restored') this.swaps.delete(body.of);
    else if (body.kind === 'part-in-place') {
      if (body.sits === 'own') this.knownGood.delete(body.part);
      else this.knownGood.add(body.part);
    }
  }

  /** What stands elsewhere; nothing where every part stands in its own place. */
  get now(): { readonly fitted?: Fitted } {
    return fittedOf([...this.swaps.values()], [...this.knownGood]);
  }
}

function fittedOf(
  swaps: readonly { readonly one: string; readonly other: string }[],
  knownGood: readonly string[],
): { readonly fitted?: Fitted } {
  if (swaps.length === 0 && knownGood.length === 0) return {};
  return {
    fitted: { exchanged: swaps.map(({ one, other }) => ({ one, other })), knownGood: [...knownGood] },
  };
}

/** How parts stand now. */
export function fittedNow({ swaps, inPlace }: Pick<JobState, 'swaps' | 'inPlace'>): {
  readonly fitted?: Fitted;
} {
  return fittedOf(
    swaps,
    [...inPlace].flatMap(([part, sits]) => (sits === 'known-good' ? [part] : [])),
  );
}
