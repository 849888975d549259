/** What changes the stock: each request once, each move an entry that stays, nothing taken below nothing unless it is said. */
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { StockItem, StockPlace, StockRequest } from '#core/format';
import { changedItem, itemKey, rounded, whyNotMoved } from '#core/stock';
import type { Actor } from '@/access';
import { now } from '@/clock/now';
import type { Transaction } from '@/db/client';
import { once } from '@/db/once';
import { stockItems, stockMoves, stockPlaces } from '@/db/schema';
import { stockItemsOf, stockPlacesOf, sumsOf } from './readStock';

export type StockAnswer =
  | { readonly ok: true }
  | {
      readonly ok: false;
      readonly message: string;
      /** It can be booked all the same, where somebody says so. */
      readonly allTheSame?: boolean;
      /** Where somebody else has changed the item: what whoever reads the message has seen of it. */
      readonly seen?: StockItem;
    };

const refuse = (message: string): StockAnswer => ({ ok: false, message });
const NO_ITEM = refuse('There is no such item in this stock.');
const NO_PLACE = refuse('There is no such place in this stock.');

export function changeStock(actor: Actor, request: StockRequest): Promise<StockAnswer> {
  return once(actor, { id: request.id, kind: `stock-${request.kind}` }, (tx) => change(tx, actor, request));
}

/** The same inside a transaction of somebody else. */
export function change(tx: Transaction, actor: Actor, request: StockRequest): Promise<StockAnswer> {
  switch (request.kind) {
    case 'item':
      return changeItem(tx, actor, request.item, request.was);
    case 'place':
      return keepPlace(tx, actor, request.place);
    case 'booked':
      return move(tx, actor, request, [{ place: request.place, count: request.count }]);
    case 'scrapped':
      return move(tx, actor, request, [{ place: request.place, count: -request.count }]);
    case 'moved':
      if (request.from === request.to)
        return Promise.resolve(refuse('It is there already: choose another place to move it to.'));
      return move(tx, actor, request, [
        { place: request.from, count: -request.count },
        { place: request.to, count: request.count },
      ]);
    case 'counted':
      return count(tx, actor, request.place, request.counts, request.id);
    case 'import':
      return bringIn(tx, actor, request);
  }
}

/** Whoever names things in a stock does it one after the other: two who take one name at once are not both given it. */
async function oneByOne(tx: Transaction, actor: Actor): Promise<void> {
  await tx.execute(
    sql`select pg_advisory_xact_lock(hashtextextended(${`names in the stock of ${actor.shopId}`}, 0))`,
  );
}

/** A new item, or one put right; `was` is what the page showed. */
async function changeItem(
  tx: Transaction,
  actor: Actor,
  item: StockItem,
  was: StockItem | undefined,
): Promise<StockAnswer> {
  await oneByOne(tx, actor);
  const known = await stockItemsOf(tx, actor);
  const there = was && known.find(({ id }) => id === item.id);
  if (!was || !there) return keepItem(tx, actor, item, known);
  const changed = changedItem(was, there, item);
  if (!changed.ok) return changed;
  return keepItem(tx, actor, changed.item, known);
}

async function keepItem(
  tx: Transaction,
  actor: Actor,
  item: StockItem,
  known: readonly StockItem[],
): Promise<StockAnswer> {
  return keepItems(tx, actor, [item], known);
}

/** Several at once, or none of them; none may have the name of another, of the stock or among them. */
async function keepItems(
  tx: Transaction,
  actor: Actor,
  items: readonly StockItem[],
  known: readonly StockItem[],
): Promise<StockAnswer> {
  const taken = new Map(known.map((one) => [itemKey(one), one.id]));
  for (const item of items) {
    const by = taken.get(itemKey(item));
    if (by !== undefined && by !== item.id)
      return refuse(`There is a ${item.sort} called “${item.name}” already.`);
    taken.set(itemKey(item), item.id);
  }
  // One row an id: the last of a list counts, as it would one after the other.
  const rows = [...new Map(items.map((item) => [item.id, item])).values()];
  const kept = await tx
    .insert(stockItems)
    .values(
      rows.map(({ part, ...item }) => ({
        ...item,
        shopId: actor.shopId,
        name: item.name.trim(),
        part: part ?? null,
      })),
    )
    .onConflictDoUpdate({
      target: stockItems.id,
      set: AS_SENT,
      setWhere: eq(stockItems.shopId, actor.shopId),
    })
    .returning({ id: stockItems.id });
  return kept.length === rows.length ? { ok: true } : NO_ITEM;
}

/** What is there of an item becomes what was sent of it. */
const AS_SENT = {
  sort: sql`excluded.sort`,
  name: sql`excluded.name`,
  unit: sql`excluded.unit`,
  minimum: sql`excluded.minimum`,
  reorder: sql`excluded.reorder`,
  part: sql`excluded.part`,
};

async function keepPlace(tx: Transaction, actor: Actor, place: StockPlace): Promise<StockAnswer> {
  await oneByOne(tx, actor);
  const name = place.name.trim();
  const known = await stockPlacesOf(tx, actor);
  if (known.some((one) => one.id !== place.id && one.name.toLowerCase() === name.toLowerCase()))
    return refuse(`There is a place called “${name}” already.`);
  const values = { name, sort: place.sort, vehicleId: place.vehicleId ?? null };
  const kept = await tx
    .insert(stockPlaces)
    .values({ id: place.id, shopId: actor.shopId, ...values })
    .onConflictDoUpdate({
      target: stockPlaces.id,
      set: values,
      setWhere: eq(stockPlaces.shopId, actor.shopId),
    })
    .returning({ id: stockPlaces.id });
  return kept.length > 0 ? { ok: true } : NO_PLACE;
}

/** Items, locked, so that two who take the last piece do it one after the other; always in the order of their ids. */
function lockedItems(tx: Transaction, actor: Actor, ids: readonly string[]) {
  return tx
    .select({ name: stockItems.name, unit: stockItems.unit })
    .from(stockItems)
    .where(and(inArray(stockItems.id, [...ids]), eq(stockItems.shopId, actor.shopId)))
    .orderBy(asc(stockItems.id))
    .for('update');
}

async function move(
  tx: Transaction,
  actor: Actor,
  request: Extract<StockRequest, { kind: 'booked' | 'scrapped' | 'moved' }>,
  changes: readonly { readonly place: string; readonly count: number }[],
): Promise<StockAnswer> {
  const [item] = await lockedItems(tx, actor, [request.item]);
  if (!item) return NO_ITEM;
  const places = await stockPlacesOf(tx, actor);
  const sums = await sumsOf(tx, actor, request.item);
  for (const one of changes) {
    const place = places.find(({ id }) => id === one.place);
    if (!place) return NO_PLACE;
    if (one.count > 0 || request.allTheSame) continue;
    const there = rounded(sums.find((sum) => sum.place === one.place)?.count ?? 0);
    const why = whyNotMoved(item, place, there, rounded(-one.count));
    if (why) return { ok: false, message: why, allTheSame: true };
  }
  await insertMoves(
    tx,
    actor,
    changes.map((one) => ({ ...one, item: request.item, sort: request.kind, words: request.words })),
    request.id,
  );
  return { ok: true };
}

/** What was counted becomes what is there, by a move of the difference. */
async function count(
  tx: Transaction,
  actor: Actor,
  placeId: string,
  counts: readonly { readonly item: string; readonly count: number }[],
  request: string,
): Promise<StockAnswer> {
  const places = await stockPlacesOf(tx, actor);
  if (!places.some(({ id }) => id === placeId)) return NO_PLACE;
  const items = new Map(counts.map((one) => [one.item, one.count]));
  if ((await lockedItems(tx, actor, [...items.keys()])).length < items.size) return NO_ITEM;
  const sums = new Map(
    (await sumsOf(tx, actor)).flatMap((sum) =>
      sum.place === placeId ? [[sum.item, sum.count] as const] : [],
    ),
  );
  const changes = [...items].flatMap(([item, counted]) => {
    const difference = rounded(counted - (sums.get(item) ?? 0));
    const words = `Counted ${counted}`;
    return difference === 0 ? [] : [{ item, place: placeId, count: difference, sort: 'counted', words }];
  });
  await insertMoves(tx, actor, changes, request);
  return { ok: true };
}

async function bringIn(
  tx: Transaction,
  actor: Actor,
  { id, place, items, counts }: Extract<StockRequest, { kind: 'import' }>,
): Promise<StockAnswer> {
  await oneByOne(tx, actor);
  const known = await stockItemsOf(tx, actor);
  const kept = items.length === 0 ? ({ ok: true } as const) : await keepItems(tx, actor, items, known);
  if (!kept.ok) return kept;
  return counts.length === 0 ? { ok: true } : count(tx, actor, place, counts, id);
}

async function insertMoves(
  tx: Transaction,
  actor: Actor,
  moves: readonly { item: string; place: string; count: number; sort: string; words: string }[],
  requestId: string,
): Promise<void> {
  if (moves.length === 0) return;
  const madeAt = now().toISOString();
  await tx.insert(stockMoves).values(
    moves.map(({ item, place, ...one }) => ({
      ...one,
      shopId: actor.shopId,
      itemId: item,
      placeId: place,
      personId: actor.personId,
      requestId,
      madeAt,
    })),
  );
}
