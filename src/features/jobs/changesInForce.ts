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
  /** How it is undone, the first thing first. */
  readonly undo: readonly string[];
  readonly madeAt: string;
  /** Of a plan that was carried out: its id, by which it can be undone step by step. */
  readonly plan: string | null;
}

/** The latest first; those that somebody struck, and plans that were taken back by another, are none. */
export async function changesInForce(actor: Actor, vehicleId: string, limit = 20): Promise<ChangeInForce[]> {
  const rows = await database()
    .select({
      id: jobEvents.id,
      jobId: jobEvents.jobId,
      kind: jobEvents.kind,
      body: jobEvents.body,
      madeAt: jobEvents.madeAt,
    })
    .from(jobEvents)
    .innerJoin(jobs, eq(jobs.id, jobEvents.jobId))
    .where(
      and(
        eq(jobs.vehicleId, vehicleId),
        eq(jobs.shopId, actor.shopId),
        sql`((${jobEvents.kind} = 'repair' and ${jobEvents.body} ->> 'undo' <> '')
          or (${jobEvents.kind} = 'plan-ended' and ${jobEvents.body} ->> 'how' = 'carried'))`,
        notStruck(),
      ),
    )
    .orderBy(desc(jobEvents.madeAt))
    .limit(limit * 2);
  const taken = new Set(
    rows.flatMap(({ body }) =>
      body.kind === 'plan-ended' && body.undoes ? [`${body.undoes.job} ${body.undoes.plan}`] : [],
    ),
  );
  return rows
    .flatMap(({ id, jobId, body, madeAt }): ChangeInForce[] => {
      if (body.kind === 'repair')
        return [{ id, jobId, words: body.words, undo: [body.undo ?? ''], madeAt, plan: null }];
      if (body.kind !== 'plan-ended' || body.undoes || taken.has(`${jobId} ${body.plan}`)) return [];
      return [{ id, jobId, words: body.name, undo: body.undo, madeAt, plan: body.plan }];
    })
    .slice(0, limit);
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
