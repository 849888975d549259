/** What may be wrong, as the diagnosis weighs it. */
import type { Fault } from '../../faults';
import type { Alteration } from '../../network';

export interface Hypothesis {
  readonly id: string;
  readonly faults: readonly Fault[];
  /** What would be repaired: hypotheses of one unit have one remedy. Two units for a pair of faults. */
  readonly unit: string;
  readonly second?: string;
  readonly parts: readonly string[];
  readonly prior: number;
  /** Null where the map cannot predict. */
  readonly alteration: Alteration | null;
  /** Its fault has blown a fuse, and will blow the next. */
  readonly blows: boolean;
  /** Present in one episode, absent in another. */
  readonly intermittent: boolean;
  /** For a form that comes and goes: the index of the same fault when it stays. */
  readonly lasting: number | null;
  /** "Fuse 31 (15 A): blown". */
  readonly words: string;
}

/** One whose share of all is not known yet. */
export type Weighted = Omit<Hypothesis, 'prior'> & { readonly weight: number };
