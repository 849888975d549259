/** The one way into the log: sequences, repeats, refusals, and the rows that lists read. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import { type JobEvent, upgradedEntry } from '#core/format';
import { whyNotRecorded } from '#core/log';
import type { Actor } from '@/access';
import type { Transaction } from '@/db/client';
import { dataRefusal } from '@/db/errors';
import { iso } from '@/db/instant';
import { all } from '@/db/once';
import {
  addToProjections,
  type JobRowNow,
  type LoggedEntry,
  type ProjectedJob,
  rowNow,
} from '@/db/projections/jobRows';
import { jobEvents, jobSummaries, jobs, people } from '@/db/schema';

interface StoredReceipt {
  readonly id: string;
  readonly seq: number;
  /** Who recorded it, who is not always the one who sent it. */
  readonly person: string;
  readonly arrivedAt: string;
}

export type AppendResult =
  | { readonly ok: true; readonly stored: readonly StoredReceipt[] }
  | {
      readonly ok: false;
      readonly code: 'unknown-job' | 'id-taken' | 'refused-by-database' | 'needs-word';
      /** The entry that is refused, where it is one. */
      readonly event?: string;
      readonly message: string;
    };

/**
 * Appends events of one or several jobs. An id that is there already changes nothing and gets its old
 * sequence back, so a batch may be sent again. Sequences are given under the job row's lock.
 */
export async function appendEvents(actor: Actor, events: readonly JobEvent[]): Promise<AppendResult> {
  for (const { id, body } of events) {
    const message = whyNotRecorded(actor.role, body);
    if (message !== null) return { ok: false, code: 'needs-word', event: id, message };
  }
  try {
    return await all((tx) => appendIn(tx, actor, events));
  } catch (error) {
    if (dataRefusal(error) === null) throw error;
    return (await whichRefused(actor, events)) ?? Promise.reject(error);
  }
}

/** The same inside a transaction of somebody else, who keeps nothing when it is refused. */
export async function appendIn(
  tx: Transaction,
  actor: Actor,
  events: readonly JobEvent[],
): Promise<AppendResult> {
  const byJob = new Map<string, JobEvent[]>();
  for (const event of events) {
    const known = byJob.get(event.jobId);
    if (known) known.push(event);
    else byJob.set(event.jobId, [event]);
  }
  const stored: StoredReceipt[] = [];
  // Always the same order of locks, so that two batches never wait for each other.
  for (const jobId of [...byJob.keys()].sort()) {
    const result = await appendToJob(tx, actor, jobId, byJob.get(jobId) ?? []);
    if (!result.ok) return result;
    stored.push(...result.stored);
  }
  return { ok: true, stored };
}

/** The first entry that the database refuses for what it is; tried one by one, and nothing of it is kept. */
async function whichRefused(
  actor: Actor,
  events: readonly JobEvent[],
): Promise<Extract<AppendResult, { ok: false }> | null> {
  const { refused } = await all(async (tx) => {
    for (const event of events) {
      try {
        await tx.transaction((savepoint) => appendIn(savepoint, actor, [event]));
      } catch (error) {
        const reason = dataRefusal(error);
        if (reason === null) throw error;
        const message = `The entry ${event.id} cannot be kept. ${reason}`;
        return {
          ok: false,
          refused: { ok: false, code: 'refused-by-database', event: event.id, message } as const,
        };
      }
    }
    return { ok: false, refused: null };
  });
  return refused;
}

async function appendToJob(
  tx: Transaction,
  actor: Actor,
  jobId: string,
  events: readonly JobEvent[],
): Promise<AppendResult> {
  const job = await lockedWithRow(tx, actor, jobId);
  if (!job) return { ok: false, code: 'unknown-job', message: `There is no job ${jobId} in this shop.` };
  const once = [...new Map(events.toReversed().map((event) => [event.id, event])).values()].toReversed();
  const fresh = await insertFresh(tx, actor, job, once);
  const receipts = new Map(
    fresh.map(({ id, seq, arrivedAt }) => [id, { id, seq, person: actor.personName, arrivedAt }]),
  );
  if (fresh.length < once.length) {
    const rest = once.map((event) => event.id).filter((id) => !receipts.has(id));
    const known = await tx
      .select({
        id: jobEvents.id,
        jobId: jobEvents.jobId,
        seq: jobEvents.seq,
        person: people.name,
        arrivedAt: jobEvents.arrivedAt,
      })
      .from(jobEvents)
      .innerJoin(people, eq(people.id, jobEvents.personId))
      .where(inArray(jobEvents.id, rest));
    const foreign = known.find((row) => row.jobId !== jobId);
    if (foreign) {
      const message = `The event id ${foreign.id} belongs to another job.`;
      return { ok: false, code: 'id-taken', event: foreign.id, message };
    }
    for (const { id, seq, person, arrivedAt } of known)
      receipts.set(id, { id, seq, person, arrivedAt: iso(arrivedAt) });
  }
  if (fresh.length > 0) await addToProjections(tx, job, job.row, fresh);
  return { ok: true, stored: events.map((event) => receipts.get(event.id)!) };
}

type LockedJob = ProjectedJob & { readonly row: JobRowNow | null };

/** The job and its row, both locked, so that those who append to one job do it one after the other. */
async function lockedWithRow(tx: Transaction, actor: Actor, jobId: string): Promise<LockedJob | null> {
  const [found] = await tx
    .select({ openedAt: jobs.openedAt, vehicleId: jobs.vehicleId, row: jobSummaries })
    .from(jobs)
    .innerJoin(jobSummaries, eq(jobSummaries.jobId, jobs.id))
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)))
    .for('update');
  if (!found) return null;
  const { openedAt, vehicleId, row } = found;
  return { id: jobId, shopId: actor.shopId, vehicleId, openedAt, row: rowNow(row) };
}

/** Puts those into the log that are not there yet, in the order of their client, and counts the job's sequence on. */
async function insertFresh(
  tx: Transaction,
  actor: Actor,
  job: LockedJob,
  events: readonly JobEvent[],
): Promise<LoggedEntry[]> {
  const given = JSON.stringify(
    events.map(({ id, madeAt, clientOrder, body, version }) => ({
      id,
      made_at: madeAt,
      client_order: clientOrder,
      kind: body.kind,
      body,
      version: version ?? 1,
    })),
  );
  const { rows } = await tx.execute<{ id: string; seq: number; arrived_at: string }>(sql`
    with fresh as (
      select given.*, row_number() over (order by client_order, place) as place_in_batch
      from rows from (json_to_recordset(${given}::json)
        as (id uuid, made_at timestamptz, client_order integer, kind text, body json, version integer))
        with ordinality as given(id, made_at, client_order, kind, body, version, place)
      where not exists (select 1 from ${jobEvents} as known where known.id = given.id)
    ), counted as (
      update ${jobs} set last_seq = last_seq + (select count(*) from fresh)::integer
      where id = ${job.id} returning last_seq - (select count(*) from fresh)::integer as last_seq
    )
    insert into ${jobEvents} (id, shop_id, job_id, seq, person_id, kind, body, client_order, made_at, version)
    select fresh.id, ${actor.shopId}, ${job.id}, counted.last_seq + place_in_batch, ${actor.personId}, kind, body,
      client_order, made_at, version
    from fresh, counted order by place_in_batch
    returning id, seq, arrived_at`);
  const byId = new Map(events.map((event) => [event.id, event]));
  return rows.map(({ id, seq, arrived_at }) => ({
    id,
    seq,
    personId: actor.personId,
    madeAt: byId.get(id)!.madeAt,
    arrivedAt: new Date(arrived_at).toISOString(),
    body: upgradedEntry(byId.get(id)!.body, byId.get(id)!.version ?? 1),
  }));
}
