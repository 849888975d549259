/** Who has a job before them at the moment, over all processes. */
import { and, eq, gt, lt } from 'drizzle-orm';
import PQueue from 'p-queue';
import type { Actor } from '@/access';
import { type Database, database } from '@/db/client';
import { tell } from '@/db/news';
import { jobs, people, presence } from '@/db/schema';

/** A page that was not heard of for so long is gone: three beats of its stream. */
const GONE_MS = 45_000;

export interface Here {
  readonly personId: string;
  readonly name: string;
}

export async function hasJob(actor: Pick<Actor, 'shopId'>, jobId: string): Promise<boolean> {
  return (await vehicleOfJob(actor, jobId)) !== null;
}

/** The id of the vehicle that a job is on; null where the shop has no such job. */
export async function vehicleOfJob(actor: Pick<Actor, 'shopId'>, jobId: string): Promise<string | null> {
  const [row] = await database()
    .select({ vehicleId: jobs.vehicleId })
    .from(jobs)
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)));
  return row?.vehicleId ?? null;
}

/** One after another: hundreds of pages that come or go at once take no connection from whoever records a reading. */
const noting = new PQueue({ concurrency: 1 });

/** A page has the job before it, still or from now on; told to others where its person is new there. */
export function isHere(actor: Actor, jobId: string, page: string): Promise<void> {
  return noting.add(() => come(actor, jobId, page));
}

/** A page has the job no more; told to others where it was the last of its person. */
export function isGone(jobId: string, page: string): Promise<void> {
  return noting.add(() => go(jobId, page));
}

async function come(actor: Actor, jobId: string, page: string): Promise<void> {
  const db = database();
  const seenAt = new Date().toISOString();
  const [known] = await db
    .update(presence)
    .set({ seenAt, personId: actor.personId })
    .where(and(eq(presence.jobId, jobId), eq(presence.page, page), eq(presence.shopId, actor.shopId)))
    .returning({ page: presence.page });
  if (known) return;
  await db
    .insert(presence)
    .values({ jobId, page, shopId: actor.shopId, personId: actor.personId, seenAt })
    .onConflictDoNothing();
  await db.delete(presence).where(lt(presence.seenAt, longAgo()));
  // Of two that come at once in two processes, each may see the other.
  if ((await pagesOf(db, jobId, actor.personId)) <= 2) await tell(db, jobId, 'here');
}

async function go(jobId: string, page: string): Promise<void> {
  const db = database();
  const [gone] = await db
    .delete(presence)
    .where(and(eq(presence.jobId, jobId), eq(presence.page, page)))
    .returning({ personId: presence.personId });
  if (gone && (await pagesOf(db, jobId, gone.personId)) === 0) await tell(db, jobId, 'here');
}

function pagesOf(db: Database, jobId: string, personId: string): Promise<number> {
  return db.$count(
    presence,
    and(eq(presence.jobId, jobId), eq(presence.personId, personId), gt(presence.seenAt, longAgo())),
  );
}

/** Who was heard of before it is gone. */
function longAgo(): string {
  return new Date(Date.now() - GONE_MS).toISOString();
}

/** Everybody who has the job before them, once each. */
export async function whoIsOn(jobId: string): Promise<readonly Here[]> {
  const rows = await database()
    .selectDistinct({ personId: people.id, name: people.name })
    .from(presence)
    .innerJoin(people, eq(people.id, presence.personId))
    .where(and(eq(presence.jobId, jobId), gt(presence.seenAt, longAgo())));
  return rows.sort((one, other) => one.name.localeCompare(other.name));
}
