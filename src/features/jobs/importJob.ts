/**
 * A job file brought in: its vehicle, its maps, its log as it was made, each entry with the name that the file gives and
 * its moments. It stands under who brought it in.
 */
import { randomUUID } from 'node:crypto';
import { and, eq, inArray } from 'drizzle-orm';
import { type ImportRequest, type JobFile, type Problem, upgradedEntry } from '#core/format';
import { whyNotRecorded } from '#core/log';
import type { Actor } from '@/access';
import type { Transaction } from '@/db/client';
import { once } from '@/db/once';
import { makeAnew } from '@/db/projections/jobRows';
import { keepJob } from '@/db/projections/searchRows';
import {
  circuits,
  circuitVersions,
  jobCircuits,
  jobEvents,
  jobs,
  panelSets,
  panelSetVersions,
  vehicles,
} from '@/db/schema';
import { addVehicle, importIn, type Vehicle } from '@/features/vehicles/server';
import { readJob } from '@/workers/mapReader';

export type ImportedJob =
  | { readonly ok: true; readonly id: string; readonly sentence: string }
  | { readonly ok: false; readonly problems: readonly Problem[] };

const refused = (code: string, message: string): ImportedJob => ({
  ok: false,
  problems: [{ code, path: '', message }],
});

/** Brings a job in, all of it or nothing; asked again with the same id it answers what the first made. */
export async function importJob(
  actor: Actor,
  { id, text }: Pick<ImportRequest, 'id' | 'text'>,
): Promise<ImportedJob> {
  const read = await readJob(text);
  if (!read.ok) return read;
  // Brought in is recorded: what a person may not do by hand, a file does not do either.
  for (const { body, version } of read.value.events) {
    const message = whyNotRecorded(actor.role, upgradedEntry(body, version));
    if (message !== null) return refused('needs-word', message);
  }
  const made = await once<ImportedJob>(actor, { id, kind: 'import-job' }, (tx) =>
    bringIn(tx, actor, read.value),
  );
  return 'message' in made ? refused('id-taken', made.message) : made;
}

async function bringIn(tx: Transaction, actor: Actor, original: JobFile): Promise<ImportedJob> {
  const [own] = await tx
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.id, original.job.id), eq(jobs.shopId, actor.shopId)));
  if (own) return refused('is-here', 'This job is here already; nothing was changed.');
  const file = await withFreeIds(tx, original);
  const placed = await placeFor(tx, actor, file);
  if ('problems' in placed) return placed;
  const { vehicle, isNew, versions, boxes } = placed;
  const jobId = file.job.id;
  await tx.insert(jobs).values({
    id: jobId,
    shopId: actor.shopId,
    vehicleId: vehicle.id,
    title: file.job.title,
    openedBy: actor.personId,
    openedAt: file.job.openedAt,
    panelSetVersionId: boxes,
    lastSeq: file.events.length,
  });
  if (versions.length > 0) {
    await tx.insert(jobCircuits).values(
      versions.map((circuitVersionId, position) => ({
        jobId,
        circuitVersionId,
        shopId: actor.shopId,
        position,
      })),
    );
  }
  await keepEvents(tx, actor, file);
  const { shopId } = actor;
  await makeAnew(tx, { id: jobId, shopId, vehicleId: vehicle.id, openedAt: file.job.openedAt });
  await keepJob(tx, vehicle, { id: jobId, title: file.job.title });
  const pictures = file.events.filter(({ body }) => body.kind === 'photo').length;
  return {
    ok: true,
    id: jobId,
    sentence: [
      `${file.job.title} is in, on ${vehicle.name}${isNew ? ', which is new here' : ''}: ${file.events.length} entries.`,
      pictures > 0 ? `Its ${pictures} pictures are not in the file.` : '',
    ]
      .filter((one) => one !== '')
      .join(' '),
  };
}

/** The same file; where its ids are taken, in another shop of this database, every one of them is made anew. */
async function withFreeIds(tx: Transaction, file: JobFile): Promise<JobFile> {
  const ids = [file.job.id, ...file.events.map((event) => event.id)];
  const [job] = await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, file.job.id));
  const [event] = await tx
    .select({ id: jobEvents.id })
    .from(jobEvents)
    .where(inArray(jobEvents.id, ids))
    .limit(1);
  if (!job && !event) return file;
  const anew = new Map(ids.map((id) => [id, randomUUID() as string]));
  const renamed = (value: unknown): unknown => {
    if (typeof value === 'string') return anew.get(value) ?? value;
    if (Array.isArray(value)) return value.map(renamed);
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, renamed(one)]));
  };
  return {
    ...file,
    job: { ...file.job, id: anew.get(file.job.id)! },
    events: renamed(file.events) as JobFile['events'],
  };
}

interface Placed {
  readonly vehicle: Vehicle;
  readonly isNew: boolean;
  /** Circuit versions that the job is traced on. */
  readonly versions: readonly string[];
  readonly boxes: string | null;
}

type Refusal = Extract<ImportedJob, { ok: false }>;

/**
 * The vehicle with the plate of the file, where all maps of the job are among its own; otherwise a new one with the maps
 * of the file. Maps that are here are never changed by a job that comes in.
 */
async function placeFor(tx: Transaction, actor: Actor, file: JobFile): Promise<Placed | Refusal> {
  const { plate } = file.vehicle;
  const [known] = await tx
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.shopId, actor.shopId), eq(vehicles.plate, plate)))
    .for('update');
  const there = known ? await mapsThere(tx, known, file) : null;
  if (known && there) return { vehicle: known, isNew: false, ...there };
  return newPlace(tx, actor, file, known ? `${plate} (job file)` : plate);
}

/** Versions of a vehicle that are the maps of a job, to the letter; null where one of them is not there. */
async function mapsThere(
  tx: Transaction,
  vehicle: Vehicle,
  file: JobFile,
): Promise<Pick<Placed, 'versions' | 'boxes'> | null> {
  const rows = await tx
    .select({ id: circuitVersions.id, file: circuitVersions.file })
    .from(circuitVersions)
    .innerJoin(circuits, eq(circuits.id, circuitVersions.circuitId))
    .where(eq(circuits.vehicleId, vehicle.id));
  const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);
  const versions = file.circuits.map((circuit) => rows.find((row) => same(row.file, circuit))?.id ?? null);
  const sets = await tx
    .select({ id: panelSetVersions.id, file: panelSetVersions.file })
    .from(panelSetVersions)
    .innerJoin(panelSets, eq(panelSets.id, panelSetVersions.panelSetId))
    .where(eq(panelSets.vehicleId, vehicle.id));
  const boxes = file.panelSet ? (sets.find((row) => same(row.file, file.panelSet))?.id ?? null) : null;
  const all = versions.every((id) => id !== null) && (file.panelSet === null || boxes !== null);
  return all ? { versions: versions as string[], boxes } : null;
}

async function newPlace(
  tx: Transaction,
  actor: Actor,
  file: JobFile,
  plate: string,
): Promise<Placed | Refusal> {
  const { name, make, model, year, odometerKm } = file.vehicle;
  const id = randomUUID();
  const nominalVolts = file.vehicle.nominalVolts ?? file.circuits[0]?.nominalVolts ?? null;
  const added = await addVehicle(tx, actor, {
    id,
    name: name.slice(0, 80),
    plate,
    nominalVolts: nominalVolts ?? 12,
  });
  if (!added.ok) return refused('plate-taken', added.message) as Refusal;
  const [vehicle] = await tx
    .update(vehicles)
    .set({ make, model, year, odometerKm, nominalVolts })
    .where(eq(vehicles.id, id))
    .returning();
  for (const map of [...file.circuits, ...(file.panelSet ? [file.panelSet] : [])]) {
    const made = await importIn(tx, actor, id, map);
    if (!made.ok) return made;
  }
  const there = await mapsThere(tx, vehicle!, file);
  if (!there) throw new Error('The maps of a job that were just brought in are not there.');
  return { vehicle: vehicle!, isNew: true, ...there };
}

/** Entries at once: PostgreSQL takes no more than 65535 values in a statement. */
const AT_ONCE = 1000;

async function keepEvents(tx: Transaction, actor: Actor, file: JobFile): Promise<void> {
  // Whatever name a file gives: nobody here has recorded it but who brings it in.
  const rows = file.events.map((event) => ({
    id: event.id,
    shopId: actor.shopId,
    jobId: file.job.id,
    seq: event.seq,
    personId: actor.personId,
    personName: event.person,
    kind: event.body.kind,
    body: event.body,
    version: event.version,
    clientOrder: event.clientOrder,
    madeAt: event.madeAt,
    arrivedAt: event.arrivedAt,
  }));
  for (let from = 0; from < rows.length; from += AT_ONCE) {
    await tx.insert(jobEvents).values(rows.slice(from, from + AT_ONCE));
  }
}
