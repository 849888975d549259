/** What a job takes out of the stock, and gives back where its entry is struck: moves like any other, each made once. */
import { and, eq, sql } from 'drizzle-orm';
import type { Transaction } from '../client';
import { stockItems, stockMoves, stockPlaces } from '../schema';

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
