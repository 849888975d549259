/** What a person has at hand and is used to. */
import { and, eq } from 'drizzle-orm';
import { type Hand, type HandRequest, USUAL_HAND } from '#core/format';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { type IdTaken, once } from '@/db/once';
import { people } from '@/db/schema';

const own = ({ personId, shopId }: Actor) => and(eq(people.id, personId), eq(people.shopId, shopId));

/** The usual where the person has said nothing. */
export async function handOf(actor: Actor): Promise<Hand> {
  const [row] = await database().select({ hand: people.hand }).from(people).where(own(actor));
  return row?.hand ?? USUAL_HAND;
}

/** Keeps it for the person; the same request again changes nothing that came later. */
export function keepHand(actor: Actor, { id, hand }: HandRequest): Promise<{ ok: true } | IdTaken> {
  return once(actor, { id, kind: 'hand' }, async (tx) => {
    await tx.update(people).set({ hand }).where(own(actor));
    return { ok: true as const };
  });
}
