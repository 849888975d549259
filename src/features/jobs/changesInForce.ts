/** What was done to a vehicle and how each of it is undone, and its pictures, over all of its jobs. */
import { and, desc, eq, sql } from 'drizzle-orm';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { jobEvents, jobs, photos } from '@/db/schema';
import { notStruck } from './notStruck';

export interface ChangeInForce {
  readonly id: string;
  readonly jobId: string;
  readonly words: string;
  readonly undo: string;
  readonly madeAt: string;
}

/** The latest first; those that somebody struck are none. */
export async function changesInForce(actor: Actor, vehicleId: string, limit = 20): Promise<ChangeInForce[]> {
  return database()
    .select({
      id: jobEvents.id,
      jobId: jobEvents.jobId,
      words: sql<string>`${jobEvents.body} ->> 'words'`,
      undo: sql<string>`${jobEvents.body} ->> 'undo'`,
      madeAt: jobEvents.madeAt,
    })
    .from(jobEvents)
    .innerJoin(jobs, eq(jobs.id, jobEvents.jobId))
    .where(
      and(
        eq(jobs.vehicleId, vehicleId),
        eq(jobs.shopId, actor.shopId),
        eq(jobEvents.kind, 'repair'),
        sql`${jobEvents.body} ->> 'undo' <> ''`,
        notStruck(),
      ),
    )
    .orderBy(desc(jobEvents.madeAt))
    .limit(limit);
}

/** Pictures of a vehicle, the latest first, each with its job. */
export async function photosOf(
  actor: Actor,
  vehicleId: string,
  limit = 12,
): Promise<{ readonly id: string; readonly jobId: string; readonly title: string }[]> {
  return database()
    .select({ id: photos.id, jobId: photos.jobId, title: jobs.title })
    .from(photos)
    .innerJoin(jobs, eq(jobs.id, photos.jobId))
    .where(and(eq(jobs.vehicleId, vehicleId), eq(jobs.shopId, actor.shopId)))
    .orderBy(desc(photos.madeAt))
    .limit(limit);
}
