/** Tables over the kinds of parts: a kind that is missing in one does not compile. */
import type { CircuitPart, PartKind, PartOf } from './circuitSchema';

/** What is answered of a part, for each kind; `More` are further things that the answer needs. */
export type ByKind<Answer, More extends readonly unknown[] = []> = {
  readonly [K in PartKind]: (part: PartOf<K>, ...more: More) => Answer;
};

/** The answer for the kind of this part. */
export function byKind<Answer, More extends readonly unknown[]>(
  table: ByKind<Answer, More>,
  part: CircuitPart,
  ...more: More
): Answer {
  return (table[part.kind] as (part: CircuitPart, ...more: More) => Answer)(part, ...more);
}
