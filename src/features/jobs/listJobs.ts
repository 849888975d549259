/** Jobs as lists show them: a page at a time, by key, with counts that are true. */
import { and, count, desc, eq, ne, type SQL, sql } from 'drizzle-orm';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { jobSummaries, jobs, vehicles } from '@/db/schema';

export interface JobRow {
  readonly id: string;
  readonly title: string;
  readonly vehicleId: string;
  readonly vehicleName: string;
  readonly openedAt: string;
  readonly stage: string;
  readonly complaint: string;
  readonly found: string | null;
  readonly readings: number;
  readonly lastAt: string;
}

/** Which jobs a list is of. */
export type JobList = 'open' | 'closed' | { readonly vehicleId: string };

export const JOB_PAGE = 30;

const jobRow = {
  id: jobs.id,
  title: jobs.title,
  vehicleId: vehicles.id,
  vehicleName: vehicles.name,
  openedAt: jobs.openedAt,
  stage: jobSummaries.stage,
  complaint: jobSummaries.complaint,
  found: jobSummaries.found,
  readings: jobSummaries.readings,
  lastAt: jobSummaries.lastAt,
};

function within(actor: Actor, list: JobList): SQL | undefined {
  if (typeof list === 'object') return and(eq(jobs.shopId, actor.shopId), eq(jobs.vehicleId, list.vehicleId));
  const stage = list === 'open' ? ne(jobSummaries.stage, 'closed') : eq(jobSummaries.stage, 'closed');
  return and(eq(jobSummaries.shopId, actor.shopId), stage);
}

/** The order of a list: those of a vehicle by their opening, all others by what was done last. */
const placeIn = (list: JobList) => (typeof list === 'object' ? jobs.openedAt : jobSummaries.lastAt);

/** A page of jobs, the latest first, from behind the one that the page before ended with. */
export async function listJobs(
  actor: Actor,
  list: JobList,
  { after = null, limit = JOB_PAGE }: { readonly after?: string | null; readonly limit?: number } = {},
): Promise<JobRow[]> {
  const place = placeIn(list);
  const id = typeof list === 'object' ? jobs.id : jobSummaries.jobId;
  const from = () =>
    database()
      .select({ ...jobRow, place })
      .from(jobSummaries)
      .innerJoin(jobs, eq(jobs.id, jobSummaries.jobId))
      .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId));
  const [last] =
    after === null ? [] : await from().where(and(eq(jobs.id, after), eq(jobs.shopId, actor.shopId)));
  const behind = last ? sql`(${place}, ${id}) < (${last.place}, ${last.id})` : undefined;
  return from()
    .where(and(within(actor, list), behind))
    .orderBy(desc(place), desc(id))
    .limit(limit);
}

export async function countJobs(actor: Actor, list: JobList): Promise<number> {
  if (typeof list === 'object') return database().$count(jobs, within(actor, list));
  const [row] = await database().select({ of: count() }).from(jobSummaries).where(within(actor, list));
  return row?.of ?? 0;
}
