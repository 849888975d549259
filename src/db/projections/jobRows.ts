/**
 * The rows that lists read, kept by small steps in the transaction that writes the entries: each entry is added to what
 * stands, and only an entry that strikes one of the telling kinds makes a job's rows anew from its log.
 */
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { type EventBody, upgradedEntry } from '#core/format';
import {
  BEGUN,
  type Kept,
  keptOf,
  momentOf,
  type Progress,
  stageOfRow,
  standsBehind,
  stepOf,
} from '#core/log';
import { database, type Transaction, type WithinShop } from '../client';
import { iso } from '../instant';
import { findings, followUps, hazards, jobEvents, jobSummaries, jobs, slotSightings } from '../schema';
import { transaction } from '../transaction';
import { giveBackToStock, takeFromStock } from './stockRows';

/** The job as its rows need it. */
export interface ProjectedJob {
  readonly id: string;
  readonly shopId: string;
  readonly vehicleId: string;
  readonly openedAt: string;
}

/** An entry as it stands in the log. */
export interface LoggedEntry {
  readonly id: string;
  readonly seq: number;
  readonly personId: string;
  readonly madeAt: string;
  readonly arrivedAt: string;
  readonly body: EventBody;
}

/** The row of a job, and entries that a correction struck before they came. */
export interface JobRowNow {
  readonly progress: Progress;
  readonly early: readonly string[];
}

/** Adds entries to the rows of their job, `row` being what stands. They are in the log already, in this order. */
export async function addToProjections(
  tx: Transaction,
  job: ProjectedJob,
  row: JobRowNow | null,
  entries: readonly LoggedEntry[],
): Promise<void> {
  const struck = entries.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : []));
  const met = await kindsOf(tx, job.id, struck);
  const anew =
    row === null ||
    entries.some(({ id }) => row.early.includes(id)) ||
    // Struck in the very batch that brings it: rare, and read from the log.
    struck.some((id) => entries.some((entry) => entry.id === id)) ||
    [...met.values()].some(standsBehind);
  if (anew) return makeAnew(tx, job);
  const readingsStruck = new Set(struck.filter((id) => met.get(id) === 'reading'));
  const fewer = readingsStruck.size - (await alreadyStruck(tx, job.id, readingsStruck, entries));
  const added = entries.reduce((now, { body }) => stepOf(now, body), row.progress);
  const now = {
    progress: { ...added, readings: added.readings - fewer },
    early: [...row.early, ...struck.filter((id) => !met.has(id))],
  };
  await write(tx, job, now, entries.at(-1)!);
  const seen = struck.filter((id) => met.get(id) === 'slot-state');
  if (seen.length > 0) await tx.delete(slotSightings).where(inArray(slotSightings.eventId, seen));
  for (const entry of entries) await writeBeside(tx, job, entry);
}

/** How many of some readings an earlier correction has struck already: each counts once. */
async function alreadyStruck(
  tx: Transaction,
  jobId: string,
  ids: ReadonlySet<string>,
  fresh: readonly LoggedEntry[],
): Promise<number> {
  if (ids.size === 0) return 0;
  const of = sql<string>`${jobEvents.body} ->> 'of'`;
  const rows = await tx
    .select({ id: jobEvents.id, of })
    .from(jobEvents)
    .where(and(eq(jobEvents.jobId, jobId), eq(jobEvents.kind, 'correction'), inArray(of, [...ids])));
  const now = new Set(fresh.map((entry) => entry.id));
  return new Set(rows.filter((one) => !now.has(one.id)).map((one) => one.of)).size;
}

/** Makes all rows of a job from its log. */
export async function makeAnew(tx: Transaction, job: ProjectedJob): Promise<void> {
  const rows = await tx
    .select({
      id: jobEvents.id,
      seq: jobEvents.seq,
      personId: jobEvents.personId,
      madeAt: jobEvents.madeAt,
      arrivedAt: jobEvents.arrivedAt,
      body: jobEvents.body,
      version: jobEvents.version,
    })
    .from(jobEvents)
    .where(eq(jobEvents.jobId, job.id))
    .orderBy(asc(jobEvents.seq));
  const log = rows.map(({ version, ...entry }) => ({ ...entry, body: upgradedEntry(entry.body, version) }));
  await tx.delete(findings).where(eq(findings.jobId, job.id));
  await tx.delete(followUps).where(eq(followUps.jobId, job.id));
  await tx.delete(hazards).where(eq(hazards.jobId, job.id));
  await tx.delete(slotSightings).where(eq(slotSightings.jobId, job.id));
  const ids = new Set(log.map((entry) => entry.id));
  const struck = new Set(log.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : [])));
  const standing = log.filter((entry) => !struck.has(entry.id));
  const progress = standing.reduce((now, { body }) => stepOf(now, body), BEGUN);
  const early = [...struck].filter((id) => !ids.has(id));
  await write(tx, job, { progress, early }, log.at(-1) ?? null);
  for (const entry of standing) await writeBeside(tx, job, entry);
  const strikers = log.filter(({ body }) => body.kind === 'correction');
  for (const one of strikers)
    if (one.body.kind === 'correction') await giveBackToStock(tx, one.body.of, one.personId);
}

/**
 * The rows of every job anew, of all shops: what they mean may have changed with the program. Or those of one shop, inside
 * a transaction of somebody else.
 */
export async function rebuildJobRows(within?: WithinShop): Promise<number> {
  const every = await (within?.tx ?? database())
    .select({ id: jobs.id, shopId: jobs.shopId, vehicleId: jobs.vehicleId, openedAt: jobs.openedAt })
    .from(jobs)
    .where(within ? eq(jobs.shopId, within.shopId) : undefined);
  for (const job of every) {
    if (within) await makeAnew(within.tx, job);
    else await transaction((tx) => makeAnew(tx, job));
  }
  return every.length;
}

/** A clock that cannot be right puts no job before the others, and nothing into the next century. */
const momentOfEntry = ({ madeAt, arrivedAt }: LoggedEntry) =>
  momentOf({ madeAt: iso(madeAt), arrivedAt: iso(arrivedAt) });

/** What a row says, as the next entry is added to it; null for a row of an earlier version, which has no progress yet. */
export function rowNow(kept: typeof jobSummaries.$inferSelect): JobRowNow | null {
  if (!kept.progress) return null;
  const { early, ...progress } = kept.progress;
  const { complaint, found, readings } = kept;
  return { progress: { ...progress, complaint, found, readings }, early };
}

async function kindsOf(
  tx: Transaction,
  jobId: string,
  ids: readonly string[],
): Promise<ReadonlyMap<string, EventBody['kind']>> {
  if (ids.length === 0) return new Map();
  const rows = await tx
    .select({ id: jobEvents.id, body: jobEvents.body })
    .from(jobEvents)
    .where(and(eq(jobEvents.jobId, jobId), inArray(jobEvents.id, [...ids])));
  return new Map(rows.map(({ id, body }) => [id, body.kind]));
}

async function write(
  tx: Transaction,
  job: ProjectedJob,
  row: JobRowNow,
  last: LoggedEntry | null,
): Promise<void> {
  const { complaint, found, readings, ...progress } = row.progress;
  const values = {
    jobId: job.id,
    shopId: job.shopId,
    stage: stageOfRow(row.progress),
    complaint,
    found,
    readings,
    lastSeq: last?.seq ?? 0,
    lastAt: last ? momentOfEntry(last) : iso(job.openedAt),
    progress: { ...progress, early: row.early },
  };
  await tx
    .insert(jobSummaries)
    .values(values)
    .onConflictDoUpdate({ target: jobSummaries.jobId, set: values });
}

/** What an entry leaves in the tables beside the row of its job. */
async function writeBeside(tx: Transaction, job: ProjectedJob, entry: LoggedEntry): Promise<void> {
  for (const kept of keptOf(entry.body)) await writeKept(tx, job, entry, kept);
}

async function writeKept(tx: Transaction, job: ProjectedJob, entry: LoggedEntry, kept: Kept): Promise<void> {
  const own = { eventId: entry.id, shopId: job.shopId, jobId: job.id };
  const followUp = (of: string) => and(eq(followUps.eventId, of), eq(followUps.jobId, job.id));
  switch (kept.row) {
    case 'follow-up': {
      const { words, due, sort } = kept;
      await tx.insert(followUps).values({ ...own, words, due, sort, done: false });
      return;
    }
    case 'follow-up-later':
      await tx.update(followUps).set({ due: kept.due }).where(followUp(kept.of));
      await tx
        .update(hazards)
        .set({ due: kept.due })
        .where(and(eq(hazards.eventId, kept.of), eq(hazards.jobId, job.id), eq(hazards.sort, 'temporary')));
      return;
    case 'follow-up-done':
      await tx.update(followUps).set({ done: true }).where(followUp(kept.of));
      return;
    case 'hazard': {
      const { words, sort, due } = kept;
      const { vehicleId } = job;
      const { personId } = entry;
      await tx
        .insert(hazards)
        .values({ ...own, vehicleId, personId, words, sort, due, since: momentOfEntry(entry), over: false });
      return;
    }
    case 'hazard-over':
      await tx
        .update(hazards)
        .set({ over: true })
        .where(
          and(
            eq(hazards.jobId, job.id),
            eq(hazards.sort, kept.sort),
            kept.of === null ? undefined : eq(hazards.eventId, kept.of),
          ),
        );
      return;
    case 'finding': {
      const { partKind, mode, strength } = kept;
      const row = { ...own, partKind, mode, strength, arrivedAt: entry.arrivedAt };
      await tx.insert(findings).values(row).onConflictDoUpdate({ target: findings.jobId, set: row });
      return;
    }
    case 'slot-sighting': {
      const { personId, seq } = entry;
      const madeAt = momentOfEntry(entry);
      const { body } = kept;
      await tx
        .insert(slotSightings)
        .values({ ...own, vehicleId: job.vehicleId, personId, seq, madeAt, body });
      return;
    }
    case 'stock-used':
      await takeFromStock(tx, job, entry, kept);
  }
}
