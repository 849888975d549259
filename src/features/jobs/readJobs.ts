/** Jobs as lists and pages read them. Every call names the actor, whose shop bounds what is seen. */
import { and, asc, eq, gt } from 'drizzle-orm';
import type { PriorTable } from '#core/diagnosis';
import {
  type CircuitFile,
  ENTRY_VERSION,
  isUuid,
  type JobFile,
  type PanelSetFile,
  upgradedEntry,
} from '#core/format';
import { fromFileWords, type LogEvent } from '#core/log';
import { withSafetyAnswers } from '#core/panel';
import type { Actor } from '@/access';
import { database, type Reader } from '@/db/client';
import { iso } from '@/db/instant';
import {
  circuitVersions,
  jobCircuits,
  jobEvents,
  jobs,
  panelSetVersions,
  people,
  vehicles,
} from '@/db/schema';
import type { HeldJob } from '@/log/heldJob';
import { slotHistory } from './slotHistory';

export interface LoadedJob {
  readonly id: string;
  readonly title: string;
  readonly openedAt: string;
  readonly vehicle: typeof vehicles.$inferSelect;
  readonly circuits: readonly CircuitFile[];
  readonly panelSet: PanelSetFile | null;
}

export interface LoadedJobAndLog extends LoadedJob {
  readonly events: readonly (LogEvent & { readonly arrivedAt: string })[];
}

/** A job with its vehicle and the versions it is traced on; null when the shop has none such. */
export async function loadJobAlone(
  actor: Actor,
  jobId: string,
  db: Reader = database(),
): Promise<LoadedJob | null> {
  if (!isUuid(jobId)) return null;
  const [row] = await db
    .select()
    .from(jobs)
    .innerJoin(vehicles, eq(vehicles.id, jobs.vehicleId))
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)));
  if (!row) return null;
  const [maps, panelRows] = await Promise.all([
    db
      .select({ file: circuitVersions.file })
      .from(jobCircuits)
      .innerJoin(circuitVersions, eq(circuitVersions.id, jobCircuits.circuitVersionId))
      .where(eq(jobCircuits.jobId, jobId))
      .orderBy(asc(jobCircuits.position)),
    row.jobs.panelSetVersionId
      ? db
          .select({ file: panelSetVersions.file })
          .from(panelSetVersions)
          .where(eq(panelSetVersions.id, row.jobs.panelSetVersionId))
      : Promise.resolve([]),
  ]);
  const panelSet = panelRows[0]?.file ?? null;
  return {
    id: jobId,
    title: row.jobs.title,
    openedAt: iso(row.jobs.openedAt),
    vehicle: row.vehicles,
    circuits: maps.map((one) => one.file),
    panelSet: panelSet && {
      ...panelSet,
      panels: withSafetyAnswers(panelSet.panels, await slotHistory(actor, row.vehicles.id, db)),
    },
  };
}

/** A job with its whole log; null when the shop has none such. */
export async function loadJob(
  actor: Actor,
  jobId: string,
  db: Reader = database(),
): Promise<LoadedJobAndLog | null> {
  const job = await loadJobAlone(actor, jobId, db);
  return job && { ...job, events: await eventsOf(db, jobId) };
}

/** The job without its log, as a browser holds it. */
export function heldJob(job: LoadedJob, priors: PriorTable): HeldJob {
  const { id, name, make, model, year, plate, nominalVolts, odometerKm } = job.vehicle;
  return {
    id: job.id,
    title: job.title,
    openedAt: job.openedAt,
    vehicle: { id, name, make, model, year, plate, nominalVolts, odometerKm },
    circuits: job.circuits,
    panelSet: job.panelSet,
    priors,
  };
}

/** Entries of a job behind a place in its sequence; null where this shop has no such job. */
export async function eventsAfter(actor: Actor, jobId: string, seq: number): Promise<LogEvent[] | null> {
  const [job] = await database()
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)));
  return job ? eventsOf(database(), jobId, seq) : null;
}

/** Entries that are read at once: what else the server does goes on between two such reads of a long log. */
const AT_ONCE = 100;

async function eventsOf(
  db: Reader,
  jobId: string,
  after = 0,
): Promise<(LogEvent & { seq: number; arrivedAt: string })[]> {
  const events: Awaited<ReturnType<typeof someEvents>> = [];
  for (let last = after; ; ) {
    const read = await someEvents(db, jobId, last);
    events.push(...read);
    if (read.length < AT_ONCE) return events;
    last = read.at(-1)!.seq;
  }
}

async function someEvents(db: Reader, jobId: string, after: number) {
  const rows = await db
    .select({ event: jobEvents, person: people.name })
    .from(jobEvents)
    .innerJoin(people, eq(people.id, jobEvents.personId))
    .where(and(eq(jobEvents.jobId, jobId), gt(jobEvents.seq, after)))
    .orderBy(asc(jobEvents.seq))
    .limit(AT_ONCE);
  return rows.map(({ event, person }) => ({
    id: event.id,
    seq: event.seq,
    ...authorOf(event.personName, person),
    madeAt: iso(event.madeAt),
    arrivedAt: iso(event.arrivedAt),
    clientOrder: event.clientOrder,
    body: upgradedEntry(event.body, event.version),
  }));
}

/** Who made an entry. The name that a file gave is said to be that, and beside it who brought it in. */
function authorOf(inFile: string | null, person: string): Pick<LogEvent, 'person' | 'fromFile'> {
  if (inFile === null) return { person };
  return { person: fromFileWords(inFile, person), fromFile: inFile };
}

/** The job as an open file: everything needed to read it elsewhere. */
export function jobFile(job: LoadedJobAndLog): JobFile {
  return {
    format: 'every-trace/job',
    version: 2,
    job: { id: job.id, title: job.title, openedAt: job.openedAt },
    vehicle: {
      name: job.vehicle.name,
      make: job.vehicle.make,
      model: job.vehicle.model,
      year: job.vehicle.year,
      plate: job.vehicle.plate,
      nominalVolts: job.vehicle.nominalVolts as JobFile['vehicle']['nominalVolts'],
      odometerKm: job.vehicle.odometerKm,
    },
    circuits: [...job.circuits],
    panelSet: job.panelSet,
    events: job.events.map((event) => ({
      id: event.id,
      version: ENTRY_VERSION,
      seq: event.seq ?? 0,
      person: event.fromFile ?? event.person,
      madeAt: event.madeAt,
      arrivedAt: event.arrivedAt,
      clientOrder: event.clientOrder,
      body: event.body,
    })),
  };
}
