/** What is still to be watched or put right, over all jobs of a shop, also after they are closed. */

import { randomBytes } from 'node:crypto';
import { and, asc, count, desc, eq, gt, gte, isNull, lt, or, type SQL } from 'drizzle-orm';
import type { Actor } from '@/access';
import { now } from '@/clock/now';
import { database } from '@/db/client';
import { type IdTaken, once } from '@/db/once';
import { followUps, jobs, shops, vehicles } from '@/db/schema';
import type { FollowUp } from './followUp';
import { followUpCalendar } from './followUpCalendar';

const open = (actor: Pick<Actor, 'shopId'>, ...more: (SQL | undefined)[]) =>
  and(eq(followUps.shopId, actor.shopId), eq(followUps.done, false), ...more);

function listed(where: SQL | undefined, limit: number, newest = false): Promise<FollowUp[]> {
  const order = newest ? desc : asc;
  return database()
    .select({
      id: followUps.eventId,
      jobId: jobs.id,
      title: jobs.title,
      vehicleName: vehicles.name,
      sort: followUps.sort,
      words: followUps.words,
      due: followUps.due,
    })
    .from(followUps)
    .innerJoin(jobs, eq(jobs.id, followUps.jobId))
    .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId))
    .where(where)
    .orderBy(order(followUps.due), order(followUps.eventId))
    .limit(limit);
}

/**
 * What Today shows: of the overdue the latest, for the old ones have been seen often; of the others the next. The
 * counts are of all there are.
 */
export async function dueFollowUps(actor: Actor, today: string, each = 5) {
  const overdue = open(actor, lt(followUps.due, today));
  const ahead = open(actor, or(gte(followUps.due, today), isNull(followUps.due)));
  const counted = (where: SQL | undefined) => database().select({ of: count() }).from(followUps).where(where);
  const [late, next, lateCount, nextCount] = await Promise.all([
    listed(overdue, each, true),
    listed(ahead, each),
    counted(overdue),
    counted(ahead),
  ]);
  return {
    overdue: { shown: late, count: lateCount[0]?.of ?? 0 },
    ahead: { shown: next, count: nextCount[0]?.of ?? 0 },
  };
}

/** Those of one vehicle, earliest due first. */
export function vehicleFollowUps(actor: Actor, vehicleId: string): Promise<FollowUp[]> {
  return listed(open(actor, eq(jobs.vehicleId, vehicleId)), FOLLOW_UP_PAGE);
}

/** Most that one page of the list holds. */
export const FOLLOW_UP_PAGE = 100;

/** All that stand open, earliest due first and those without a day last, from behind the one a page ended with. */
export async function allFollowUps(
  actor: Pick<Actor, 'shopId'>,
  after: string | null = null,
): Promise<FollowUp[]> {
  const [last] =
    after === null
      ? []
      : await database()
          .select({ id: followUps.eventId, due: followUps.due })
          .from(followUps)
          .where(and(eq(followUps.eventId, after), eq(followUps.shopId, actor.shopId)));
  return listed(open(actor, last ? behind(last.id, last.due) : undefined), FOLLOW_UP_PAGE);
}

/** Rows that come behind one in the order of the list, in which those without a day are last. */
function behind(id: string, due: string | null): SQL | undefined {
  const later = gt(followUps.eventId, id);
  if (due === null) return and(isNull(followUps.due), later);
  return or(isNull(followUps.due), gt(followUps.due, due), and(eq(followUps.due, due), later));
}

/** All of them as a calendar file, a page at a time. */
export async function calendarOfFollowUps(actor: Pick<Actor, 'shopId'>): Promise<string> {
  const items: FollowUp[] = [];
  for (let after: string | null = null; ; ) {
    const page: FollowUp[] = await allFollowUps(actor, after);
    items.push(...page);
    const last = page.at(-1);
    // Those without a day come last, and are in no calendar.
    if (!last || page.length < FOLLOW_UP_PAGE || last.due === null) break;
    after = last.id;
  }
  return followUpCalendar(items, now());
}

/** The address at which a calendar reads them, without the host; null while nobody has asked for one. */
export async function feedAddress(actor: Actor): Promise<string | null> {
  const [row] = await database()
    .select({ token: shops.feedToken })
    .from(shops)
    .where(eq(shops.id, actor.shopId));
  return row?.token ? `/api/follow-ups/feed/${row.token}` : null;
}

/** A new secret address; the one before leads nowhere from then on. */
export function renewFeed(actor: Actor, id: string): Promise<{ ok: true; address: string } | IdTaken> {
  return once(actor, { id, kind: 'follow-up-feed' }, async (tx) => {
    const token = randomBytes(24).toString('base64url');
    await tx.update(shops).set({ feedToken: token }).where(eq(shops.id, actor.shopId));
    return { ok: true as const, address: `/api/follow-ups/feed/${token}` };
  });
}

/** Whose follow-ups an address shows; null where it leads nowhere. */
export async function shopOfFeed(token: string): Promise<Pick<Actor, 'shopId'> | null> {
  const [row] = await database().select({ shopId: shops.id }).from(shops).where(eq(shops.feedToken, token));
  return row ?? null;
}
