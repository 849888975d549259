/** Links by which somebody without an account reads one sheet, until a day or until they are ended. */
import { and, desc, eq, gt, isNull } from 'drizzle-orm';
import type { GuestRequest } from '#core/format';
import { type Actor, hashOf, newToken, type Refused, refused } from '@/access';
import { now } from '@/clock/now';
import { database, type Reader, type Transaction } from '@/db/client';
import { iso } from '@/db/instant';
import { guestLinks, people, shops } from '@/db/schema';
import { transaction } from '@/db/transaction';
import type { SheetActor } from './jobPdf';
import { lockedJob } from './lockedJob';

const DAY_MS = 86_400_000;
/** Most links of one job that are open at once. */
const MOST = 20;
const NO_JOB = 'There is no such job in this shop.';

export interface GuestLink {
  readonly id: string;
  readonly sheet: 'technician' | 'customer';
  readonly forWhom: string;
  readonly by: string | null;
  readonly until: string;
}

const isOpen = () => and(isNull(guestLinks.endedAt), gt(guestLinks.expiresAt, now().toISOString()));

/** The open links of a job, the newest first. */
export async function guestsOf(
  actor: Actor,
  jobId: string,
  reader: Reader = database(),
): Promise<GuestLink[]> {
  const rows = await reader
    .select({
      id: guestLinks.id,
      sheet: guestLinks.sheet,
      forWhom: guestLinks.forWhom,
      by: people.name,
      until: guestLinks.expiresAt,
    })
    .from(guestLinks)
    .leftJoin(people, eq(people.id, guestLinks.madeBy))
    .where(and(eq(guestLinks.jobId, jobId), eq(guestLinks.shopId, actor.shopId), isOpen()))
    .orderBy(desc(guestLinks.madeAt))
    .limit(MOST);
  return rows.map((row) => ({ ...row, until: iso(row.until) }));
}

/** Makes a link, whose secret is told once, or ends one. */
export async function changeGuests(
  actor: Actor,
  jobId: string,
  request: GuestRequest,
): Promise<{ readonly ok: true; readonly token?: string } | Refused> {
  return transaction(async (tx) => {
    // Links that are made at once are counted one after the other.
    return (await lockedJob(tx, actor, jobId))
      ? await changeIn(tx, actor, jobId, request)
      : refused(404, NO_JOB);
  });
}

async function changeIn(
  tx: Transaction,
  actor: Actor,
  jobId: string,
  request: GuestRequest,
): Promise<{ readonly ok: true; readonly token?: string } | Refused> {
  if (request.kind === 'end') {
    await tx
      .update(guestLinks)
      .set({ endedAt: now().toISOString() })
      .where(
        and(
          eq(guestLinks.id, request.link),
          eq(guestLinks.jobId, jobId),
          eq(guestLinks.shopId, actor.shopId),
        ),
      );
    return { ok: true };
  }
  if ((await guestsOf(actor, jobId, tx)).length >= MOST) {
    return refused(409, `This job has ${MOST} open links. End one of them first.`);
  }
  const token = newToken();
  await tx.insert(guestLinks).values({
    id: crypto.randomUUID(),
    shopId: actor.shopId,
    jobId,
    sheet: request.sheet,
    forWhom: request.forWhom,
    tokenHash: hashOf(token),
    madeBy: actor.personId,
    madeAt: now().toISOString(),
    expiresAt: new Date(now().getTime() + request.days * DAY_MS).toISOString(),
  });
  return { ok: true, token };
}

/** What a link shows: which sheet of which job, and as whom the shop reads it. Null where it leads nowhere. */
export async function guestOf(token: string) {
  const [row] = await database()
    .select({ link: guestLinks, maker: people, shop: shops })
    .from(guestLinks)
    .innerJoin(shops, eq(shops.id, guestLinks.shopId))
    .innerJoin(people, eq(people.id, guestLinks.madeBy))
    .where(and(eq(guestLinks.tokenHash, hashOf(token)), isOpen()));
  if (!row) return null;
  const { link, maker, shop } = row;
  const reader: SheetActor = {
    guest: true,
    personId: maker.id,
    personName: maker.name,
    role: maker.role,
    shopId: shop.id,
    shopName: shop.name,
    town: shop.town,
    demo: shop.demo,
    account: null,
  };
  return { jobId: link.jobId, sheet: link.sheet, until: link.expiresAt, reader };
}
