/**
 * Somebody at the key with a phone of their own. The technician's card asks for a state; the phone joins by a code, three
 * digits of the workshop and six of the card, sees that state and nothing else of the shop, and says when it stands so. The code is good for the card it was
 * made for, an hour at most; the phone that has joined follows until the technician needs nobody, an hour at most.
 */
import { and, desc, eq, gt, isNull } from 'drizzle-orm';
import type { HelperRequest } from '#core/format';
import {
  type Actor,
  clientAddress,
  givenBack,
  hashOf,
  newCode,
  newToken,
  type Refused,
  refused,
  triedOnce,
  waitWords,
} from '@/access';
import { now } from '@/clock/now';
import { database } from '@/db/client';
import { tell } from '@/db/news';
import { helpers, jobs, vehicles } from '@/db/schema';

export const HELPER_MS = 3_600_000;
export const HELPER_COOKIE = 'every-trace.helper';

/** What the technician's screen knows of the person at the key. */
export interface HelperNow {
  /** While nobody has joined: the code of this card, told when it is made. */
  readonly code?: string;
  /** Who is at the key, once a phone has joined. */
  readonly name: string | null;
  /** The card for which it stands so, and since when. */
  readonly standsFor: string | null;
  readonly standsAt: string | null;
}

const NOBODY: HelperNow = { name: null, standsFor: null, standsAt: null };

/** The one of a technician on a job that is not over. */
async function openHelper(actor: Actor, jobId: string) {
  const [row] = await database()
    .select()
    .from(helpers)
    .where(
      and(
        eq(helpers.jobId, jobId),
        eq(helpers.shopId, actor.shopId),
        eq(helpers.madeBy, actor.personId),
        isNull(helpers.endedAt),
        gt(helpers.expiresAt, now().toISOString()),
      ),
    )
    .orderBy(desc(helpers.madeAt))
    .limit(1);
  return row ?? null;
}

type Row = NonNullable<Awaited<ReturnType<typeof openHelper>>>;

const asKnown = (row: Row): HelperNow => ({
  name: row.name,
  standsFor: row.standsFor,
  standsAt: row.standsAt,
});

export async function helperNow(actor: Actor, jobId: string): Promise<HelperNow> {
  const row = await openHelper(actor, jobId);
  return row ? asKnown(row) : NOBODY;
}

/** A card asks, is answered, or nobody is needed any more. */
export async function changeHelper(actor: Actor, jobId: string, request: HelperRequest): Promise<HelperNow> {
  const db = database();
  const row = await openHelper(actor, jobId);
  if (request.kind === 'ask') {
    const { card, settings } = request;
    const asked = { card, settings };
    if (!row || row.tokenHash === null) {
      const code = newCode(actor.shopId);
      const codeHash = hashOf(code);
      const fresh = { asked, codeHash, standsFor: null, standsAt: null };
      if (row) await db.update(helpers).set(fresh).where(eq(helpers.id, row.id));
      else {
        await db.insert(helpers).values({
          id: crypto.randomUUID(),
          shopId: actor.shopId,
          jobId,
          madeBy: actor.personId,
          madeAt: now().toISOString(),
          expiresAt: new Date(now().getTime() + HELPER_MS).toISOString(),
          ...fresh,
        });
      }
      return { ...NOBODY, code };
    }
    // Whoever asks once more, also for the same, is told once more.
    await db.update(helpers).set({ asked, standsFor: null, standsAt: null }).where(eq(helpers.id, row.id));
    await tell(db, jobId, 'helper');
    return { name: row.name, standsFor: null, standsAt: null };
  }
  if (!row) return NOBODY;
  if (request.kind === 'answered') {
    // With the card its code is gone.
    if (row.asked?.card === request.card) {
      await db.update(helpers).set({ asked: null, codeHash: null }).where(eq(helpers.id, row.id));
    }
  } else {
    await db
      .update(helpers)
      .set({ endedAt: now().toISOString(), asked: null, codeHash: null })
      .where(eq(helpers.id, row.id));
  }
  await tell(db, jobId, 'helper');
  return request.kind === 'end' ? NOBODY : asKnown(row);
}

/** What the phone at the key sees: the state to set now, and nothing else of the shop. */
export interface AtTheKey {
  readonly jobId: string;
  readonly vehicle: string;
  readonly name: string;
  readonly asked: { readonly card: string; readonly settings: readonly string[] } | null;
  readonly stands: boolean;
}

/** A phone joins by the code; gives what it carries from then on. */
export async function joinByCode(
  headers: Headers,
  code: string,
  name: string,
): Promise<{ readonly ok: true; readonly token: string } | Refused> {
  const address = clientAddress(headers);
  const wait = await triedOnce('helper', address);
  if (wait !== null) return refused(429, waitWords(wait));
  const workshop = code.slice(0, -6);
  const waitOfShop = await triedOnce('helperOfShop', workshop);
  if (waitOfShop !== null) return refused(429, waitWords(waitOfShop));
  const token = newToken();
  const [row] = await database()
    .update(helpers)
    .set({ tokenHash: hashOf(token), codeHash: null, name })
    .where(
      and(
        eq(helpers.codeHash, hashOf(code)),
        isNull(helpers.endedAt),
        gt(helpers.expiresAt, now().toISOString()),
      ),
    )
    .returning({ jobId: helpers.jobId });
  if (!row)
    return refused(
      401,
      'This code is not good, or no longer. Ask for the one on the technician’s screen now.',
    );
  await givenBack('helper', address);
  await givenBack('helperOfShop', workshop);
  await tell(database(), row.jobId, 'helper');
  return { ok: true, token };
}

/** Null where it is over. */
export async function atTheKey(token: string): Promise<AtTheKey | null> {
  const [row] = await database()
    .select({ helper: helpers, vehicle: vehicles.name })
    .from(helpers)
    .innerJoin(jobs, eq(jobs.id, helpers.jobId))
    .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId))
    .where(
      and(
        eq(helpers.tokenHash, hashOf(token)),
        isNull(helpers.endedAt),
        gt(helpers.expiresAt, now().toISOString()),
      ),
    );
  if (!row) return null;
  const { jobId, name, asked, standsFor } = row.helper;
  return {
    jobId,
    vehicle: row.vehicle,
    name: name ?? '',
    asked,
    stands: asked !== null && standsFor === asked.card,
  };
}

/** The person at the key says that it stands as one card asks. A card that is over is not answered. */
export async function itStandsSo(token: string, card: string): Promise<AtTheKey | null> {
  const here = await atTheKey(token);
  if (here?.asked?.card !== card) return here;
  await database()
    .update(helpers)
    .set({ standsFor: card, standsAt: now().toISOString() })
    .where(eq(helpers.tokenHash, hashOf(token)));
  await tell(database(), here.jobId, 'helper');
  return { ...here, stands: true };
}
