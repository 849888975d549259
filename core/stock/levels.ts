/** What is there, what is short, what is to be ordered: sums of moves, and nothing else. */
import type { StockItem, StockPlace } from '../format';

/** A move of an item at a place; what goes out is negative. */
export interface Move {
  readonly item: string;
  readonly place: string;
  readonly count: number;
}

/** How many of an item there are, and where. */
export interface Level {
  readonly item: StockItem;
  /** Places that have had any of it. */
  readonly at: readonly { readonly place: string; readonly count: number }[];
  readonly total: number;
}

/** Counts are kept to the thousandth: metres and litres are measured no closer. */
export function rounded(count: number): number {
  return Math.round(count * 1000) / 1000 || 0;
}

export function levelsOf(items: readonly StockItem[], moves: readonly Move[]): Level[] {
  const sums = new Map<string, Map<string, number>>();
  for (const { item, place, count } of moves) {
    const own = sums.get(item) ?? new Map<string, number>();
    own.set(place, rounded((own.get(place) ?? 0) + count));
    sums.set(item, own);
  }
  return items.map((item) => {
    const at = [...(sums.get(item.id) ?? [])].map(([place, count]) => ({ place, count }));
    return { item, at, total: rounded(at.reduce((sum, { count }) => sum + count, 0)) };
  });
}

/** How many there should be: the minimum, and one at least of what was ever there. */
function wantedOf({ item, at }: Pick<Level, 'item' | 'at'>): number {
  return Math.max(item.minimum, at.length > 0 ? Math.min(1, item.reorder || 1) : 0);
}

/** Fewer than the minimum, or the last one gone. */
export function isShort(level: Pick<Level, 'item' | 'at' | 'total'>): boolean {
  return level.total < level.item.minimum || (level.at.length > 0 && level.total <= 0);
}

/** How many are to be ordered: at least what is missing, in the quantity that is ordered at once. */
export function toOrder(level: Pick<Level, 'item' | 'at' | 'total'>): number {
  if (!isShort(level)) return 0;
  const missing = rounded(wantedOf(level) - level.total);
  const { reorder } = level.item;
  if (reorder === 0) return missing;
  return rounded(Math.ceil(rounded(missing / reorder)) * reorder);
}

export interface OrderLine {
  readonly item: StockItem;
  readonly total: number;
  readonly order: number;
}

export function orderList(levels: readonly Level[]): OrderLine[] {
  return levels
    .map((level) => ({ item: level.item, total: level.total, order: toOrder(level) }))
    .filter(({ order }) => order > 0);
}

const UNIT = { piece: '', metre: ' m', litre: ' l' } as const;

/** "4", "12.5 m"; what is below nothing is said to be so. */
export function countWords(count: number, unit: StockItem['unit']): string {
  return `${count}${UNIT[unit]}`;
}

/** Why a move cannot be made without somebody's saying so; null where it can. */
export function whyNotMoved(
  { name, unit }: Pick<StockItem, 'name' | 'unit'>,
  { name: place }: Pick<StockPlace, 'name'>,
  there: number,
  count: number,
): string | null {
  if (count <= there) return null;
  return `${place} has ${countWords(there, unit)} of ${name}, not ${countWords(count, unit)}. Count it, or book it all the same.`;
}
