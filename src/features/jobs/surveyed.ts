/** What was read in the slots of a vehicle, over all of its jobs: where current can be taken was surveyed once. */
import { and, desc, eq, ne } from 'drizzle-orm';
import { type BodyOf, upgradedEntry } from '#core/format';
import type { SlotReading } from '#core/limits';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { jobEvents, jobs } from '@/db/schema';
import { notStruck } from './notStruck';

/** The latest so many entries count. */
const MOST = 3000;

/** In the order in which they were made; those of one job may be left out, whose page has them itself. */
export async function surveyedSlots(
  actor: Actor,
  vehicleId: string,
  besides: string | null = null,
): Promise<SlotReading[]> {
  const rows = await database()
    .select({ id: jobEvents.id, body: jobEvents.body, version: jobEvents.version })
    .from(jobEvents)
    .innerJoin(jobs, eq(jobs.id, jobEvents.jobId))
    .where(
      and(
        eq(jobs.vehicleId, vehicleId),
        eq(jobs.shopId, actor.shopId),
        eq(jobEvents.kind, 'slot-reading'),
        ...(besides === null ? [] : [ne(jobs.id, besides)]),
        notStruck(),
      ),
    )
    .orderBy(desc(jobEvents.madeAt), desc(jobEvents.seq))
    .limit(MOST);
  return rows.reverse().flatMap(({ id, body, version }) => {
    const { kind: _kind, ends, ...read } = upgradedEntry(body, version) as BodyOf<'slot-reading'>;
    return ends.map(({ end, value }) => ({ ...read, id, end, value }));
  });
}
