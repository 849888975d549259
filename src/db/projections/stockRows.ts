/**
 * What a job takes out of the stock, and gives back where its entry is struck: moves like any other, each made once. The
 * levels are their sums; a trigger keeps them.
 */
import { and, eq, type SQL, sql } from 'drizzle-orm';
import type { Transaction, WithinShop } from '../client';
import { stockItems, stockLevels, stockMoves, stockPlaces } from '../schema';
import { transaction } from '../transaction';

interface OfJob {
  readonly id: string;
  readonly shopId: string;
}

/** Nothing where the shop has no such item or place: the job came from elsewhere. */
export async function takeFromStock(
  tx: Transaction,
  job: OfJob,
  entry: { readonly id: string; readonly personId: string; readonly madeAt: string },
  used: { readonly line: number; readonly item: string; readonly place: string; readonly count: number },
): Promise<void> {
  const [known] = await tx
    .select({ item: stockItems.id })
    .from(stockItems)
    .innerJoin(stockPlaces, eq(stockPlaces.shopId, stockItems.shopId))
    .where(
      and(eq(stockItems.id, used.item), eq(stockItems.shopId, job.shopId), eq(stockPlaces.id, used.place)),
    );
  if (!known) return;
  await tx
    .insert(stockMoves)
    .values({
      shopId: job.shopId,
      itemId: used.item,
      placeId: used.place,
      personId: entry.personId,
      sort: 'used',
      count: -used.count,
      jobId: job.id,
      eventId: entry.id,
      line: used.line,
    })
    .onConflictDoNothing();
}

/** Once for every line that an entry has taken. */
export async function giveBackToStock(tx: Transaction, eventId: string, personId: string): Promise<void> {
  await tx.execute(sql`
    insert into ${stockMoves} (shop_id, item_id, place_id, person_id, sort, count, words, job_id, event_id, line)
    select shop_id, item_id, place_id, ${personId}, 'given-back', -count, 'Its entry was struck', job_id, event_id, line
    from ${stockMoves} where event_id = ${eventId} and sort = 'used'
    on conflict do nothing`);
}

/** All levels anew, or those of one shop that a transaction is bringing in. */
export async function rebuildLevels(within?: WithinShop): Promise<void> {
  if (within) {
    await sumAnew(within.tx, sql`where shop_id = ${within.shopId}`);
    return;
  }
  await transaction(async (tx) => {
    // Nobody moves anything meanwhile.
    await tx.execute(sql`lock table ${stockMoves} in share row exclusive mode`);
    await sumAnew(tx, sql``);
  });
}

async function sumAnew(tx: Transaction, own: SQL): Promise<void> {
  await tx.execute(sql`delete from ${stockLevels} ${own}`);
  await tx.execute(sql`
    insert into ${stockLevels} (shop_id, item_id, place_id, count)
    select shop_id, item_id, place_id, sum(count) from ${stockMoves} ${own} group by shop_id, item_id, place_id`);
}
