/** Brings the demo workshop into an empty database; what that takes is read only where it is done. */
import { sql } from 'drizzle-orm';
import { shops } from '@/db/schema';
import { transaction } from '@/db/transaction';

/** Fills an empty database, all of it or nothing; leaves any other alone. Gives what was done, in a sentence. */
export async function bringDemo(folder: string): Promise<string> {
  return transaction(async (tx) => {
    // Two who bring it at once wait for each other here, and the later finds it done.
    await tx.execute(sql`lock table ${shops} in exclusive mode`);
    const existing = await tx.select({ id: shops.id }).from(shops).limit(1);
    if (existing.length > 0) return 'The database holds a shop already; it was left as it is.';
    const { bringShop } = await import('./bringShop');
    const { vehicles, jobs } = await bringShop(tx, folder);
    return `The demo workshop is in: ${vehicles} vehicles, ${jobs} jobs.`;
  });
}
