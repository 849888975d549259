/** The one way into the log: sequences, repeats, refusals, and the rows that lists read. */
import { and, eq, inArray } from 'drizzle-orm';
import type { JobEvent } from '#core/format';
import type { Actor } from '@/access';
import type { Transaction } from '@/db/client';
import { dataRefusal } from '@/db/errors';
import { all } from '@/db/once';
import { addToProjections } from '@/db/projections/jobRows';
import { jobEvents, jobs, people } from '@/db/schema';

export interface StoredReceipt {
  readonly id: string;
  readonly seq: number;
  /** Who recorded it, who is not always the one who sent it. */
  readonly person: string;
}

export type AppendResult =
  | { readonly ok: true; readonly stored: readonly StoredReceipt[] }
  | {
      readonly ok: false;
      readonly code: 'unknown-job' | 'id-taken' | 'refused-by-database';
      /** The entry that is refused, where it is one. */
      readonly event?: string;
      readonly message: string;
    };

/**
 * Appends events of one or several jobs. An id that is there already changes nothing and gets its old
 * sequence back, so a batch may be sent again. Sequences are given under the job row's lock.
 */
export async function appendEvents(actor: Actor, events: readonly JobEvent[]): Promise<AppendResult> {
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
  const [job] = await tx
    .select({ lastSeq: jobs.lastSeq, openedAt: jobs.openedAt, vehicleId: jobs.vehicleId })
    .from(jobs)
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)))
    .for('update');
  if (!job) return { ok: false, code: 'unknown-job', message: `There is no job ${jobId} in this shop.` };
  const ids = events.map((event) => event.id);
  const known = await tx
    .select({ id: jobEvents.id, jobId: jobEvents.jobId, seq: jobEvents.seq, person: people.name })
    .from(jobEvents)
    .innerJoin(people, eq(people.id, jobEvents.personId))
    .where(inArray(jobEvents.id, ids));
  const foreign = known.find((row) => row.jobId !== jobId);
  if (foreign) {
    const message = `The event id ${foreign.id} belongs to another job.`;
    return { ok: false, code: 'id-taken', event: foreign.id, message };
  }
  const receipts = new Map(known.map(({ id, seq, person }) => [id, { id, seq, person }]));
  const fresh = new Map<string, JobEvent>();
  for (const event of events) {
    if (!receipts.has(event.id) && !fresh.has(event.id)) fresh.set(event.id, event);
  }
  const inTheirOrder = [...fresh.values()].sort((one, other) => one.clientOrder - other.clientOrder);
  if (inTheirOrder.length > 0) {
    const rows = inTheirOrder.map((event, index) => ({
      id: event.id,
      shopId: actor.shopId,
      jobId,
      seq: job.lastSeq + index + 1,
      personId: actor.personId,
      kind: event.body.kind,
      body: event.body,
      clientOrder: event.clientOrder,
      madeAt: event.madeAt,
    }));
    const arrived = await tx
      .insert(jobEvents)
      .values(rows)
      .returning({ id: jobEvents.id, arrivedAt: jobEvents.arrivedAt });
    const arrivedAt = new Map(arrived.map((one) => [one.id, one.arrivedAt]));
    await tx
      .update(jobs)
      .set({ lastSeq: job.lastSeq + rows.length })
      .where(eq(jobs.id, jobId));
    const entries = rows.map((row) => ({ ...row, arrivedAt: arrivedAt.get(row.id)! }));
    await addToProjections(
      tx,
      { id: jobId, shopId: actor.shopId, vehicleId: job.vehicleId, openedAt: job.openedAt },
      entries,
    );
    for (const { id, seq } of rows) receipts.set(id, { id, seq, person: actor.personName });
  }
  return { ok: true, stored: events.map((event) => receipts.get(event.id)!) };
}
