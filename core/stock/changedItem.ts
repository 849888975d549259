/** An item that two people change at once: different fields are both kept, of the same field both values are said. */
import type { StockItem } from '../format';

const FIELDS = ['sort', 'name', 'unit', 'minimum', 'reorder', 'part'] as const;
type Field = (typeof FIELDS)[number];

const LABELS: Readonly<Record<Field, string>> = {
  sort: 'Sort',
  name: 'Name',
  unit: 'Counted in',
  minimum: 'Least',
  reorder: 'Ordered at once',
  part: 'Rating and type',
};

const same = (one: unknown, other: unknown) => JSON.stringify(one ?? null) === JSON.stringify(other ?? null);

function valueWords(item: StockItem, field: Field): string {
  if (field !== 'part') return `“${item[field]}”`;
  const { kind: _kind, ...values } = item.part ?? { kind: null };
  const words = Object.entries(values).map(([name, value]) => `${name} ${value}`);
  return words.length > 0 ? words.join(', ') : 'not known';
}

export type ChangedItem =
  | { readonly ok: true; readonly item: StockItem }
  | {
      readonly ok: false;
      readonly message: string;
      /** What is before the eyes after that: the fields that were said as they are now, all others as they were shown. */
      readonly seen: StockItem;
    };

/** `wanted` as somebody typed it over what the page showed (`was`), on what the item is now. */
export function changedItem(was: StockItem, now: StockItem, wanted: StockItem): ChangedItem {
  const mine = FIELDS.filter((field) => !same(wanted[field], was[field]));
  const both = mine.filter((field) => !same(now[field], was[field]) && !same(now[field], wanted[field]));
  if (both.length > 0) {
    const words = both.map(
      (field) =>
        `${LABELS[field]} was ${valueWords(was, field)}, is ${valueWords(now, field)} now, and you typed ${valueWords(wanted, field)}`,
    );
    const seen = { ...was, ...Object.fromEntries(both.map((field) => [field, now[field]])) };
    return {
      ok: false,
      seen,
      message: `Somebody else has changed this item meanwhile. ${words.join('. ')}. Keep it again and yours stands.`,
    };
  }
  const { part, ...rest } = now;
  const merged: StockItem = {
    ...rest,
    ...(part ? { part } : {}),
    ...Object.fromEntries(mine.map((field) => [field, wanted[field]])),
  };
  return { ok: true, item: merged };
}
