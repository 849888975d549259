/** Who has a job before them at the moment, over all processes. */
import { and, eq, gt, lt } from 'drizzle-orm';
import type { Actor } from '@/access';
import { database } from '@/db/client';
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

/** A page has the job before it, still or from now on; told to others where it is new. */
export async function isHere(actor: Actor, jobId: string, page: string): Promise<void> {
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
  await db.delete(presence).where(lt(presence.seenAt, new Date(Date.now() - GONE_MS).toISOString()));
  await tell(db, jobId, 'here');
}

export async function isGone(jobId: string, page: string): Promise<void> {
  const db = database();
  const gone = await db
    .delete(presence)
    .where(and(eq(presence.jobId, jobId), eq(presence.page, page)))
    .returning({ page: presence.page });
  if (gone.length > 0) await tell(db, jobId, 'here');
}

/** Everybody who has the job before them, once each. */
export async function whoIsOn(jobId: string): Promise<readonly Here[]> {
  const rows = await database()
    .selectDistinct({ personId: people.id, name: people.name })
    .from(presence)
    .innerJoin(people, eq(people.id, presence.personId))
    .where(and(eq(presence.jobId, jobId), gt(presence.seenAt, new Date(Date.now() - GONE_MS).toISOString())));
  return rows.sort((one, other) => one.name.localeCompare(other.name));
}
