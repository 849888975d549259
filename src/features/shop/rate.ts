/** What an hour of the shop costs, in its own currency. */
import { eq } from 'drizzle-orm';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { type IdTaken, once } from '@/db/once';
import { shops } from '@/db/schema';

/** Null where nobody has said. */
export async function hourlyRate(actor: Actor): Promise<number | null> {
  const [row] = await database()
    .select({ rate: shops.hourlyRate })
    .from(shops)
    .where(eq(shops.id, actor.shopId));
  return row?.rate ?? null;
}

export function keepRate(
  actor: Actor,
  { id, rate }: { readonly id: string; readonly rate: number | null },
): Promise<{ ok: true } | IdTaken> {
  return once(actor, { id, kind: 'rate' }, async (tx) => {
    await tx.update(shops).set({ hourlyRate: rate }).where(eq(shops.id, actor.shopId));
    return { ok: true as const };
  });
}
