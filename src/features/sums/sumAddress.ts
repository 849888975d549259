/** The address of a sum with what was typed in it, so that it can be gone back to, kept and shared. */
import { SUMS, type Sum } from '#core/sizing';

export type Typed = Readonly<Record<string, string>>;

/** What an address says was typed; fields that the sum has not are left alone. */
export function typedIn(sum: Sum, search: URLSearchParams): Typed {
  return Object.fromEntries(
    Object.keys(sum.fields).flatMap((field) => {
      const text = search.get(field);
      return text === null ? [] : [[field, text.slice(0, 4000)]];
    }),
  );
}

/** What was typed, as the end of an address; what stands in a field by itself is left out. */
export function searchOf(sum: Sum, typed: Typed): string {
  const search = new URLSearchParams();
  for (const [field, { first }] of Object.entries(sum.fields)) {
    const text = typed[field];
    if (text !== undefined && text !== (first ?? '')) search.set(field, text);
  }
  return search.toString();
}

export function sumNamed(id: string | null | undefined): Sum | null {
  return SUMS.find((one) => one.id === id) ?? null;
}
