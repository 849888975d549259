/** The stock as pages read it: items, places, and what is where. */
import { and, asc, desc, eq } from 'drizzle-orm';
import { STOCK_SORTS, type StockItem, type StockPlace } from '#core/format';
import { isShort, type Level, levelsOf, type Stock } from '#core/stock';
import type { Actor } from '@/access';
import { database, type Reader } from '@/db/client';
import { iso } from '@/db/instant';
import { jobs, people, stockItems, stockLevels, stockMoves, stockPlaces } from '@/db/schema';

function itemOf(row: typeof stockItems.$inferSelect): StockItem {
  const { id, sort, name, part, unit, minimum, reorder } = row;
  return { id, sort, name, unit, minimum, reorder, ...(part ? { part } : {}) };
}

const NATURAL = new Intl.Collator('en', { numeric: true });

/** Sort by sort, and by name as people count: 5 A before 10 A. */
function asRead(one: StockItem, other: StockItem): number {
  const sorts = STOCK_SORTS.indexOf(one.sort) - STOCK_SORTS.indexOf(other.sort);
  return sorts || NATURAL.compare(one.name, other.name) || NATURAL.compare(one.id, other.id);
}

export async function stockItemsOf(db: Reader, actor: Actor): Promise<StockItem[]> {
  const rows = await db.select().from(stockItems).where(eq(stockItems.shopId, actor.shopId));
  return rows.map(itemOf).sort(asRead);
}

export async function stockPlacesOf(db: Reader, actor: Actor): Promise<StockPlace[]> {
  const rows = await db
    .select()
    .from(stockPlaces)
    .where(eq(stockPlaces.shopId, actor.shopId))
    .orderBy(asc(stockPlaces.name));
  return rows.map(({ id, name, sort, vehicleId }) => ({
    id,
    name,
    sort,
    ...(vehicleId === null ? {} : { vehicleId }),
  }));
}

/** What each place has of each item, by the name of the place; of one item or all. */
export async function sumsOf(db: Reader, actor: Actor, item?: string) {
  return db
    .select({ item: stockLevels.itemId, place: stockLevels.placeId, count: stockLevels.count })
    .from(stockLevels)
    .innerJoin(stockPlaces, eq(stockPlaces.id, stockLevels.placeId))
    .where(
      and(
        eq(stockLevels.shopId, actor.shopId),
        item === undefined ? undefined : eq(stockLevels.itemId, item),
      ),
    )
    .orderBy(asc(stockPlaces.name));
}

export async function stockOf(actor: Actor): Promise<Stock> {
  const db = database();
  const [items, places, sums] = await Promise.all([
    stockItemsOf(db, actor),
    stockPlacesOf(db, actor),
    sumsOf(db, actor),
  ]);
  return { levels: levelsOf(items, sums), places };
}

/** What Today says of it. */
export async function shortItems(actor: Actor): Promise<Level[]> {
  return (await stockOf(actor)).levels.filter(isShort);
}

export interface MoveLine {
  readonly id: string;
  readonly sort: string;
  readonly count: number;
  readonly place: string;
  readonly person: string;
  readonly madeAt: string;
  readonly words: string;
  readonly job: { readonly id: string; readonly title: string } | null;
}

/** The latest moves of an item, newest first. */
export async function movesOf(actor: Actor, item: string, limit = 50): Promise<MoveLine[]> {
  const rows = await database()
    .select({ move: stockMoves, place: stockPlaces.name, person: people.name, title: jobs.title })
    .from(stockMoves)
    .innerJoin(stockPlaces, eq(stockPlaces.id, stockMoves.placeId))
    .innerJoin(people, eq(people.id, stockMoves.personId))
    .leftJoin(jobs, eq(jobs.id, stockMoves.jobId))
    .where(and(eq(stockMoves.shopId, actor.shopId), eq(stockMoves.itemId, item)))
    .orderBy(desc(stockMoves.madeAt), desc(stockMoves.id))
    .limit(limit);
  return rows.map(({ move, place, person, title }) => ({
    id: move.id,
    sort: move.sort,
    count: move.count,
    place,
    person,
    madeAt: iso(move.madeAt),
    words: move.words,
    job: move.jobId && title ? { id: move.jobId, title } : null,
  }));
}
