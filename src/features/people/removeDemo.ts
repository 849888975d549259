/** Takes the demo out of an installation, whole; no other shop can be removed. */
import { eq, sql } from 'drizzle-orm';
import { type Actor, type Refused, refused } from '@/access';
import { shops } from '@/db/schema';
import { SHOP_TABLES } from '@/db/shopTables';
import { transaction } from '@/db/transaction';

export async function removeDemo(actor: Actor): Promise<{ readonly ok: true } | Refused> {
  if (actor.demo) return refused(409, 'The demo is removed from a shop of your own: begin one first.');
  return transaction(async (tx) => {
    const demos = await tx.select({ id: shops.id }).from(shops).where(eq(shops.demo, true)).for('update');
    for (const { id } of demos) {
      // The triggers of the log let a demo go that a transaction names, and nothing else.
      await tx.execute(sql`select set_config('every_trace.removing', ${id}, true)`);
      for (const { name, shop } of SHOP_TABLES.toReversed()) {
        await tx.execute(sql`delete from ${sql.identifier(name)} where ${sql.identifier(shop)} = ${id}`);
      }
    }
    return { ok: true };
  });
}
