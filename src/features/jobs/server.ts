/** Reading and writing jobs in the database. Every call names the actor, whose shop bounds what is seen. */

import { and, asc, desc, eq, gt, inArray, isNotNull, ne } from 'drizzle-orm';
import { cache } from 'react';
import type { CircuitFile } from '#core/format/circuitSchema';
import type { JobEvent, JobFile } from '#core/format/jobSchema';
import type { PanelSetFile } from '#core/format/panelSchema';
import { isUuid } from '#core/format/uuid';
import { database, type Transaction } from '@/db/client';
import {
  circuits,
  circuitVersions,
  jobCircuits,
  jobEvents,
  jobSummaries,
  jobs,
  panelSets,
  panelSetVersions,
  people,
  vehicles,
} from '@/db/schema';
import type { Actor } from '@/features/shop/server';
import { learnIn, type PartFact } from '@/features/vehicles/server';
import { type LogEvent, summarise } from './state';

export { summarise } from './state';

export interface LoadedJob {
  readonly id: string;
  readonly title: string;
  readonly openedAt: string;
  readonly vehicle: typeof vehicles.$inferSelect;
  readonly circuits: readonly CircuitFile[];
  readonly panelSet: PanelSetFile | null;
  readonly panelSetId: string | null;
  readonly events: readonly (LogEvent & { readonly arrivedAt: string })[];
}

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

const iso = (instant: string) => new Date(instant).toISOString();

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

/** Jobs that are not closed, the latest touched first. */
export async function openJobs(actor: Actor): Promise<JobRow[]> {
  return database()
    .select(jobRow)
    .from(jobSummaries)
    .innerJoin(jobs, eq(jobs.id, jobSummaries.jobId))
    .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId))
    .where(and(eq(jobSummaries.shopId, actor.shopId), ne(jobSummaries.stage, 'closed')))
    .orderBy(desc(jobSummaries.lastAt))
    .limit(100);
}

export async function closedJobs(actor: Actor, limit = 10): Promise<JobRow[]> {
  return database()
    .select(jobRow)
    .from(jobSummaries)
    .innerJoin(jobs, eq(jobs.id, jobSummaries.jobId))
    .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId))
    .where(and(eq(jobSummaries.shopId, actor.shopId), eq(jobSummaries.stage, 'closed')))
    .orderBy(desc(jobSummaries.lastAt))
    .limit(limit);
}

export async function jobsOfVehicle(actor: Actor, vehicleId: string): Promise<JobRow[]> {
  return database()
    .select(jobRow)
    .from(jobs)
    .innerJoin(jobSummaries, eq(jobs.id, jobSummaries.jobId))
    .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId))
    .where(and(eq(jobs.shopId, actor.shopId), eq(jobs.vehicleId, vehicleId)))
    .orderBy(desc(jobs.openedAt))
    .limit(100);
}

export async function followUps(
  actor: Actor,
): Promise<{ jobId: string; title: string; vehicleName: string; due: string; words: string }[]> {
  const rows = await database()
    .select({
      jobId: jobs.id,
      title: jobs.title,
      vehicleName: vehicles.name,
      due: jobSummaries.watchDue,
      words: jobSummaries.watchWords,
    })
    .from(jobSummaries)
    .innerJoin(jobs, eq(jobs.id, jobSummaries.jobId))
    .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId))
    .where(and(eq(jobSummaries.shopId, actor.shopId), isNotNull(jobSummaries.watchDue)))
    .orderBy(asc(jobSummaries.watchDue))
    .limit(20);
  return rows.map((row) => ({ ...row, due: row.due ?? '', words: row.words ?? '' }));
}

/** A job with its vehicle, the versions it is traced on and its whole log; null when the shop has none such. */
export const loadJob = cache(async (actor: Actor, jobId: string): Promise<LoadedJob | null> => {
  if (!isUuid(jobId)) return null;
  const db = database();
  const [row] = await db
    .select()
    .from(jobs)
    .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId))
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)));
  if (!row) return null;
  const [maps, panelRows, events] = await Promise.all([
    db
      .select({ file: circuitVersions.file })
      .from(jobCircuits)
      .innerJoin(circuitVersions, eq(circuitVersions.id, jobCircuits.circuitVersionId))
      .where(eq(jobCircuits.jobId, jobId))
      .orderBy(asc(jobCircuits.position)),
    row.jobs.panelSetVersionId
      ? db
          .select({ file: panelSetVersions.file, id: panelSetVersions.panelSetId })
          .from(panelSetVersions)
          .where(eq(panelSetVersions.id, row.jobs.panelSetVersionId))
      : Promise.resolve([]),
    eventsOf(db, jobId),
  ]);
  return {
    id: jobId,
    title: row.jobs.title,
    openedAt: iso(row.jobs.openedAt),
    vehicle: row.vehicles,
    circuits: maps.map((one) => one.file),
    panelSet: panelRows[0]?.file ?? null,
    panelSetId: panelRows[0]?.id ?? null,
    events,
  };
});

/** Entries of a job behind a place in its sequence; null where this shop has no such job. */
export async function eventsAfter(actor: Actor, jobId: string, seq: number): Promise<LogEvent[] | null> {
  const [job] = await database()
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)));
  return job ? eventsOf(database(), jobId, seq) : null;
}

async function eventsOf(
  db: Pick<Transaction, 'select'>,
  jobId: string,
  after = 0,
): Promise<(LogEvent & { seq: number; arrivedAt: string })[]> {
  const rows = await db
    .select({ event: jobEvents, person: people.name })
    .from(jobEvents)
    .innerJoin(people, eq(people.id, jobEvents.personId))
    .where(and(eq(jobEvents.jobId, jobId), gt(jobEvents.seq, after)))
    .orderBy(asc(jobEvents.seq));
  return rows.map(({ event, person }) => ({
    id: event.id,
    seq: event.seq,
    person,
    madeAt: iso(event.madeAt),
    arrivedAt: iso(event.arrivedAt),
    clientOrder: event.clientOrder,
    body: event.body,
  }));
}

export interface StoredReceipt {
  readonly id: string;
  readonly seq: number;
  readonly person: string;
}

export type AppendResult =
  | { readonly ok: true; readonly stored: readonly StoredReceipt[] }
  | { readonly ok: false; readonly code: 'unknown-job' | 'id-taken'; readonly message: string };

/**
 * Appends events of one or several jobs. An id that is there already changes nothing and gets its old
 * sequence back, so a batch may be sent again. Sequences are given under the job row's lock.
 */
export async function appendEvents(actor: Actor, events: readonly JobEvent[]): Promise<AppendResult> {
  const byJob = new Map<string, JobEvent[]>();
  for (const event of events) byJob.set(event.jobId, [...(byJob.get(event.jobId) ?? []), event]);
  const stored: StoredReceipt[] = [];
  let refused: AppendResult | null = null;
  await database()
    .transaction(async (tx) => {
      // Always the same order of locks, so that two batches never wait for each other.
      for (const jobId of [...byJob.keys()].sort()) {
        const result = await appendToJob(tx, actor, jobId, byJob.get(jobId) ?? []);
        if (!result.ok) {
          refused = result;
          throw new Refused();
        }
        stored.push(...result.stored);
      }
    })
    .catch((error: unknown) => {
      if (!(error instanceof Refused)) throw error;
    });
  return refused ?? { ok: true, stored };
}

class Refused extends Error {}

async function appendToJob(
  tx: Transaction,
  actor: Actor,
  jobId: string,
  events: readonly JobEvent[],
): Promise<AppendResult> {
  const [job] = await tx
    .select({ lastSeq: jobs.lastSeq, openedAt: jobs.openedAt })
    .from(jobs)
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)))
    .for('update');
  if (!job) return { ok: false, code: 'unknown-job', message: `There is no job ${jobId} in this shop.` };
  const known = await tx
    .select({ id: jobEvents.id, jobId: jobEvents.jobId, seq: jobEvents.seq })
    .from(jobEvents)
    .where(
      inArray(
        jobEvents.id,
        events.map((event) => event.id),
      ),
    );
  const seqOf = new Map(known.map((row) => [row.id, row.seq]));
  const foreign = known.find((row) => row.jobId !== jobId);
  if (foreign) {
    return { ok: false, code: 'id-taken', message: `The event id ${foreign.id} belongs to another job.` };
  }
  const fresh = events
    .filter(
      (event, index) => !seqOf.has(event.id) && events.findIndex((one) => one.id === event.id) === index,
    )
    .sort((one, other) => one.clientOrder - other.clientOrder);
  let seq = job.lastSeq;
  if (fresh.length > 0) {
    await tx.insert(jobEvents).values(
      fresh.map((event) => {
        seq += 1;
        seqOf.set(event.id, seq);
        return {
          id: event.id,
          shopId: actor.shopId,
          jobId,
          seq,
          personId: actor.personId,
          kind: event.body.kind,
          body: event.body,
          clientOrder: event.clientOrder,
          madeAt: event.madeAt,
        };
      }),
    );
    await tx.update(jobs).set({ lastSeq: seq }).where(eq(jobs.id, jobId));
    await writeSummary(tx, actor, jobId, job.openedAt);
  }
  return {
    ok: true,
    stored: events.map((event) => ({
      id: event.id,
      seq: seqOf.get(event.id) ?? 0,
      person: actor.personName,
    })),
  };
}

async function writeSummary(tx: Transaction, actor: Actor, jobId: string, openedAt: string): Promise<void> {
  const summary = summarise(await eventsOf(tx, jobId), iso(openedAt));
  const row = { jobId, shopId: actor.shopId, ...summary };
  await tx.insert(jobSummaries).values(row).onConflictDoUpdate({ target: jobSummaries.jobId, set: row });
}

/** Opens a job on the newest versions of a vehicle's circuits and panel set. */
export async function openJob(
  actor: Actor,
  input: {
    readonly id: string;
    readonly vehicleId: string;
    readonly title: string;
    readonly openedAt?: string;
    readonly circuitFileIds?: readonly string[];
  },
): Promise<{ ok: true } | { ok: false; message: string }> {
  const openedAt = input.openedAt ?? new Date().toISOString();
  return database().transaction(async (tx) => {
    const [vehicle] = await tx
      .select({ id: vehicles.id })
      .from(vehicles)
      .where(and(eq(vehicles.id, input.vehicleId), eq(vehicles.shopId, actor.shopId)));
    if (!vehicle) return { ok: false as const, message: 'There is no such vehicle in this shop.' };
    const maps = await tx
      .selectDistinctOn([circuitVersions.circuitId], {
        versionId: circuitVersions.id,
        fileId: circuits.fileId,
        name: circuits.name,
      })
      .from(circuitVersions)
      .innerJoin(circuits, eq(circuits.id, circuitVersions.circuitId))
      .where(eq(circuits.vehicleId, input.vehicleId))
      .orderBy(circuitVersions.circuitId, desc(circuitVersions.version));
    const wanted = input.circuitFileIds;
    const chosen = wanted
      ? wanted.flatMap((fileId) => maps.filter((map) => map.fileId === fileId))
      : maps.sort((one, other) => (one.name < other.name ? -1 : 1));
    const [panelSet] = await tx
      .select({ id: panelSetVersions.id })
      .from(panelSetVersions)
      .innerJoin(panelSets, eq(panelSets.id, panelSetVersions.panelSetId))
      .where(eq(panelSets.vehicleId, input.vehicleId))
      .orderBy(desc(panelSetVersions.version))
      .limit(1);
    await tx.insert(jobs).values({
      id: input.id,
      shopId: actor.shopId,
      vehicleId: input.vehicleId,
      title: input.title,
      openedBy: actor.personId,
      openedAt,
      panelSetVersionId: panelSet?.id ?? null,
    });
    if (chosen.length > 0) {
      await tx.insert(jobCircuits).values(
        chosen.map((map, position) => ({
          jobId: input.id,
          circuitVersionId: map.versionId,
          shopId: actor.shopId,
          position,
        })),
      );
    }
    await writeSummary(tx, actor, input.id, openedAt);
    return { ok: true as const };
  });
}

/** Ids that a job's readings may name. */
const namesIn = ({ parts, nodes }: CircuitFile): string[] => [...parts, ...nodes].map((one) => one.id);

/**
 * What was learned of a part while tracing: new versions of the vehicle's circuits. The job goes on with the newest of
 * all its circuits together, since circuits share parts. Every reading stays; so a map that no longer has what the job
 * was traced on is not taken.
 */
export async function learnOnJob(
  actor: Actor,
  jobId: string,
  fact: PartFact,
): Promise<{ ok: true } | { ok: false; message: string }> {
  if (!isUuid(jobId)) return { ok: false, message: 'There is no such job in this shop.' };
  return database().transaction(async (tx) => {
    const [job] = await tx
      .select({ vehicleId: jobs.vehicleId })
      .from(jobs)
      .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)))
      .for('update');
    if (!job) return { ok: false as const, message: 'There is no such job in this shop.' };
    const learned = await learnIn(tx, actor, job.vehicleId, fact);
    if (!learned.ok) return learned;
    const held = await tx
      .select({
        position: jobCircuits.position,
        circuitId: circuitVersions.circuitId,
        file: circuitVersions.file,
      })
      .from(jobCircuits)
      .innerJoin(circuitVersions, eq(circuitVersions.id, jobCircuits.circuitVersionId))
      .where(eq(jobCircuits.jobId, jobId));
    const newest = await tx
      .selectDistinctOn([circuitVersions.circuitId], {
        id: circuitVersions.id,
        circuitId: circuitVersions.circuitId,
        file: circuitVersions.file,
      })
      .from(circuitVersions)
      .where(
        inArray(
          circuitVersions.circuitId,
          held.map((one) => one.circuitId),
        ),
      )
      .orderBy(circuitVersions.circuitId, desc(circuitVersions.version));
    const names = new Set(newest.flatMap((one) => namesIn(one.file)));
    const lost = held.flatMap((one) => namesIn(one.file)).find((id) => !names.has(id));
    if (lost !== undefined) {
      return {
        ok: false as const,
        message: `Kept for the next job. This one stays on the map it began with, for “${lost}” has been taken out of the circuit since.`,
      };
    }
    for (const { position, circuitId } of held) {
      await tx
        .update(jobCircuits)
        .set({ circuitVersionId: newest.find((one) => one.circuitId === circuitId)!.id })
        .where(and(eq(jobCircuits.jobId, jobId), eq(jobCircuits.position, position)));
    }
    return { ok: true as const };
  });
}

/** The job as an open file: everything needed to read it elsewhere. */
export function jobFile(job: LoadedJob): JobFile {
  return {
    format: 'every-trace/job',
    version: 1,
    job: { id: job.id, title: job.title, openedAt: job.openedAt },
    vehicle: {
      name: job.vehicle.name,
      make: job.vehicle.make,
      model: job.vehicle.model,
      year: job.vehicle.year,
      plate: job.vehicle.plate,
    },
    circuits: [...job.circuits],
    panelSet: job.panelSet,
    events: job.events.map((event) => ({
      id: event.id,
      seq: event.seq ?? 0,
      person: event.person,
      madeAt: event.madeAt,
      arrivedAt: event.arrivedAt,
      clientOrder: event.clientOrder,
      body: event.body,
    })),
  };
}

export { keepPhoto, readPhoto } from './photoStore';
export { slotHistory } from './slotHistory';
