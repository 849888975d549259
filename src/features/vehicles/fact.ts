/** What was learned of one part, put into it. */
import { fieldWords, type PartFact } from '#core/format';

type Fields = Readonly<Record<string, unknown>>;

/** The fields of a fact as the page showed them: null for what was not said. */
export function wasOf(part: { readonly id: string }, fields: Fields): Record<string, unknown> {
  const shown = part as unknown as Fields;
  return Object.fromEntries(Object.keys(fields).map((field) => [field, shown[field] ?? null]));
}

/** A part with what was learned of it; null takes a field away. */
export function withFact<P extends { readonly id: string }>(part: P, { fields }: PartFact): P {
  const kept = Object.entries({ ...part, ...fields }).filter(([, value]) => value !== null);
  return Object.fromEntries(kept) as unknown as P;
}

/**
 * Whether somebody else has changed a field of this fact since its page was made, in words with both values; null where
 * nobody has, or to the same. Other fields of the same part join by themselves.
 */
export function changedMeanwhile(
  part: { readonly id: string; readonly name: string },
  fact: PartFact,
): string | null {
  const now = part as unknown as Fields;
  const { was } = fact;
  if (!was) return null;
  for (const [field, value] of Object.entries(fact.fields)) {
    const moved = !same(now[field], was[field]) && !same(now[field], value);
    if (moved) {
      return `The ${fieldWords(field)} of ${part.name} was changed by somebody else to ${words(now[field])}; you have ${words(value)}. Nothing was overwritten.`;
    }
  }
  return null;
}

const same = (one: unknown, other: unknown) => JSON.stringify(one ?? null) === JSON.stringify(other ?? null);
const words = (value: unknown) => (value === undefined || value === null ? 'nothing' : JSON.stringify(value));
