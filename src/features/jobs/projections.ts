/**
 * The rows that lists read, kept by small steps in the transaction that writes the entries: each entry is added to what
 * stands, and only an entry that strikes one of the telling kinds makes a job's rows anew from its log.
 */
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { EventBody } from '#core/format';
import { database, type Transaction } from '@/db/client';
import type { JobProgress } from '@/db/progress';
import { findings, followUps, jobEvents, jobSummaries, jobs, slotSightings } from '@/db/schema';
import { cellKey, expectedOf, isProved, stageOf } from '@/log/state';
import { iso } from './readJobs';

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

interface Row {
  readonly complaint: string;
  readonly found: string | null;
  readonly readings: number;
  readonly lastSeq: number;
  readonly lastAt: string;
  readonly progress: JobProgress;
}

const begun = (openedAt: string): Row => ({
  complaint: '',
  found: null,
  readings: 0,
  lastSeq: 0,
  lastAt: iso(openedAt),
  progress: { state: 'open', repaired: false, asked: null, proofs: {}, early: [] },
});

/** The row behind one more entry that stands. */
function step(row: Row, body: EventBody): Row {
  const progress = (more: Partial<JobProgress>): Row => ({ ...row, progress: { ...row.progress, ...more } });
  switch (body.kind) {
    case 'complaint': {
      const { function: of, condition, state } = body;
      const asked = of && condition ? { function: of, condition, unbidden: state === 'on-when-off' } : null;
      return { ...progress({ asked }), complaint: body.words };
    }
    case 'reading':
      return { ...row, readings: row.readings + 1 };
    case 'found':
      return { ...row, found: body.fault };
    case 'repair':
      return progress({ repaired: true, proofs: {} });
    case 'proof': {
      const { asked, proofs } = row.progress;
      const should =
        body.expected ??
        expectedOf(asked ? { ...asked, state: asked.unbidden ? 'on-when-off' : 'dead' } : null, body);
      return progress({
        proofs: { ...proofs, [cellKey(body.function, body.condition)]: body.state === should },
      });
    }
    case 'state':
      return progress({ state: body.state });
    default:
      return row;
  }
}

/** Kinds that an earlier one of their kind stands behind again when they are struck. */
const TELLING: readonly EventBody['kind'][] = [
  'complaint',
  'found',
  'repair',
  'proof',
  'state',
  'watch',
  'watch-done',
];

/** Adds entries to the rows of their job. They are in the log already, in this order. */
export async function addToProjections(
  tx: Transaction,
  job: ProjectedJob,
  entries: readonly LoggedEntry[],
): Promise<void> {
  const row = await rowOf(tx, job);
  const struck = entries.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : []));
  const early = row ? row.progress.early : [];
  const met = await kindsOf(tx, job.id, struck);
  const anew =
    row === null ||
    entries.some(({ id }) => early.includes(id)) ||
    // Struck in the very batch that brings it: rare, and read from the log.
    struck.some((id) => entries.some((entry) => entry.id === id)) ||
    [...met.values()].some((kind) => TELLING.includes(kind));
  if (anew) return makeAnew(tx, job);
  const unmet = struck.filter((id) => !met.has(id));
  const readingsStruck = new Set(struck.filter((id) => met.get(id) === 'reading'));
  let now = row;
  for (const { body } of entries) now = step(now, body);
  const fewer = await alreadyStruck(tx, job.id, readingsStruck, entries);
  now = {
    ...now,
    readings: now.readings - (readingsStruck.size - fewer),
    progress: { ...now.progress, early: [...now.progress.early, ...unmet] },
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
  const log = await tx
    .select({
      id: jobEvents.id,
      seq: jobEvents.seq,
      personId: jobEvents.personId,
      madeAt: jobEvents.madeAt,
      arrivedAt: jobEvents.arrivedAt,
      body: jobEvents.body,
    })
    .from(jobEvents)
    .where(eq(jobEvents.jobId, job.id))
    .orderBy(asc(jobEvents.seq));
  await tx.delete(findings).where(eq(findings.jobId, job.id));
  await tx.delete(followUps).where(eq(followUps.jobId, job.id));
  await tx.delete(slotSightings).where(eq(slotSightings.jobId, job.id));
  const ids = new Set(log.map((entry) => entry.id));
  const struck = new Set(log.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : [])));
  const standing = log.filter((entry) => !struck.has(entry.id));
  let row = begun(job.openedAt);
  for (const { body } of standing) row = step(row, body);
  const early = [...struck].filter((id) => !ids.has(id));
  await write(tx, job, { ...row, progress: { ...row.progress, early } }, log.at(-1) ?? null);
  for (const entry of standing) await writeBeside(tx, job, entry);
}

/** The rows of every job anew, of all shops: what they mean may have changed with the program. */
export async function rebuildProjections(): Promise<number> {
  const every = await database()
    .select({ id: jobs.id, shopId: jobs.shopId, vehicleId: jobs.vehicleId, openedAt: jobs.openedAt })
    .from(jobs);
  for (const job of every) await database().transaction((tx) => makeAnew(tx, job));
  return every.length;
}

async function rowOf(tx: Transaction, job: ProjectedJob): Promise<Row | null> {
  const [kept] = await tx.select().from(jobSummaries).where(eq(jobSummaries.jobId, job.id));
  // A row of an earlier version has no progress yet.
  return kept?.progress ? { ...kept, progress: kept.progress } : null;
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

async function write(tx: Transaction, job: ProjectedJob, row: Row, last: LoggedEntry | null): Promise<void> {
  const { complaint, found, readings, progress } = row;
  const { asked, proofs, repaired, state } = progress;
  const proved =
    repaired &&
    isProved(asked ? cellKey(asked.function, asked.condition) : null, new Map(Object.entries(proofs)));
  const values = {
    jobId: job.id,
    shopId: job.shopId,
    stage: stageOf({ state, repaired, proved, found: found !== null, tested: readings > 0 }),
    complaint,
    found,
    readings,
    lastSeq: last?.seq ?? 0,
    lastAt: last ? iso(last.madeAt) : iso(job.openedAt),
    progress,
  };
  await tx
    .insert(jobSummaries)
    .values(values)
    .onConflictDoUpdate({ target: jobSummaries.jobId, set: values });
}

/** What an entry leaves in the tables beside the job's own row. */
async function writeBeside(tx: Transaction, job: ProjectedJob, entry: LoggedEntry): Promise<void> {
  const { body } = entry;
  const own = { eventId: entry.id, shopId: job.shopId, jobId: job.id };
  if (body.kind === 'watch') {
    await tx.insert(followUps).values({ ...own, words: body.words, due: body.due ?? null, done: false });
  } else if (body.kind === 'watch-done') {
    await tx
      .update(followUps)
      .set({ done: true })
      .where(and(eq(followUps.eventId, body.of), eq(followUps.jobId, job.id)));
  } else if (body.kind === 'found') {
    const { form, strength } = body;
    const row = {
      ...own,
      partKind: form?.kind ?? null,
      mode: form?.mode ?? null,
      strength,
      arrivedAt: entry.arrivedAt,
    };
    await tx.insert(findings).values(row).onConflictDoUpdate({ target: findings.jobId, set: row });
  } else if (body.kind === 'slot-state') {
    const { personId, seq, madeAt } = entry;
    await tx.insert(slotSightings).values({ ...own, vehicleId: job.vehicleId, personId, seq, madeAt, body });
  }
}
