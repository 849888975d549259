/** Vehicles as lists show them: a page at a time, by key, with counts that are true. */
import { and, asc, count, desc, eq, exists, inArray, isNull, type SQL, sql } from 'drizzle-orm';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { circuits, jobSummaries, jobs, panelSets, vehicles } from '@/db/schema';
import type { Vehicle } from './readVehicles';
import { foundVehicles } from './search';

export const VEHICLE_PAGE = 50;

/** A page of all vehicles by name, from behind the one that the page before ended with. */
export async function listVehicles(actor: Actor, after: string | null = null): Promise<Vehicle[]> {
  const behind = await placeOf(actor, after);
  return database()
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.shopId, actor.shopId), isNull(vehicles.archivedAt), behind))
    .orderBy(asc(vehicles.name), asc(vehicles.id))
    .limit(VEHICLE_PAGE);
}

async function placeOf(actor: Actor, after: string | null): Promise<SQL | undefined> {
  if (after === null) return undefined;
  const [last] = await database()
    .select({ name: vehicles.name, id: vehicles.id })
    .from(vehicles)
    .where(and(eq(vehicles.id, after), eq(vehicles.shopId, actor.shopId)));
  return last ? sql`(${vehicles.name}, ${vehicles.id}) > (${last.name}, ${last.id})` : undefined;
}

export async function countVehicles(actor: Actor): Promise<number> {
  const [row] = await database()
    .select({ of: count() })
    .from(vehicles)
    .where(and(eq(vehicles.shopId, actor.shopId), isNull(vehicles.archivedAt)));
  return row?.of ?? 0;
}

/** What a choice of vehicles shows, and what a new job asks: the voltage, and whether any circuit is mapped. */
export interface KnownVehicle {
  readonly id: string;
  readonly name: string;
  readonly plate: string;
  readonly nominalVolts: number | null;
  readonly circuits: number;
  readonly hasBoxes: boolean;
}

/** Jobs looked through for the vehicles that were worked on last. */
const LATEST_JOBS = 60;

/** Those worked on last, filled up by name where there are fewer. */
export async function recentVehicles(actor: Actor, limit: number): Promise<KnownVehicle[]> {
  const latest = await database()
    .select({ id: jobs.vehicleId })
    .from(jobSummaries)
    .innerJoin(jobs, eq(jobs.id, jobSummaries.jobId))
    .where(eq(jobSummaries.shopId, actor.shopId))
    .orderBy(desc(jobSummaries.lastAt))
    .limit(LATEST_JOBS);
  const ids = [...new Set(latest.map((one) => one.id))].slice(0, limit);
  if (ids.length < limit) {
    const more = await listVehicles(actor);
    ids.push(...more.map((one) => one.id).filter((id) => !ids.includes(id)));
  }
  return knownVehicles(actor, ids.slice(0, limit));
}

/** Vehicles that answer to a text, or the latest where it is empty; those with boxes alone where that is asked. */
export async function chooseVehicles(
  actor: Actor,
  text: string,
  limit: number,
  withBoxes = false,
): Promise<KnownVehicle[]> {
  if (text.trim() !== '') {
    const found = await foundVehicles(actor, text, withBoxes ? 10 * limit : limit);
    const known = await knownVehicles(
      actor,
      found.map((one) => one.id),
    );
    return known.filter((one) => one.hasBoxes || !withBoxes).slice(0, limit);
  }
  if (!withBoxes) return recentVehicles(actor, limit);
  const mapped = await database()
    .select({ id: panelSets.vehicleId })
    .from(panelSets)
    .where(eq(panelSets.shopId, actor.shopId))
    .limit(limit);
  return knownVehicles(
    actor,
    mapped.map((one) => one.id),
  );
}

/** Vehicles of this shop, in the order of their ids as given. */
export async function knownVehicles(actor: Actor, ids: readonly string[]): Promise<KnownVehicle[]> {
  if (ids.length === 0) return [];
  const db = database();
  // Joined one by one: for a list in a condition the whole table would be read.
  const wanted = sql`unnest(${sql.param([...ids])}::uuid[]) with ordinality as wanted(id, place)`;
  return db
    .select({
      id: vehicles.id,
      name: vehicles.name,
      plate: vehicles.plate,
      nominalVolts: vehicles.nominalVolts,
      circuits: db.$count(circuits, eq(circuits.vehicleId, vehicles.id)),
      hasBoxes: sql<boolean>`${exists(
        db.select({ id: panelSets.id }).from(panelSets).where(eq(panelSets.vehicleId, vehicles.id)),
      )}`,
    })
    .from(wanted)
    .innerJoin(vehicles, sql`${vehicles.id} = wanted.id`)
    .where(and(eq(vehicles.shopId, actor.shopId), isNull(vehicles.archivedAt)))
    .orderBy(sql`wanted.place`);
}

/** Names of the circuits of some vehicles: what can be gone to. */
export async function circuitNames(actor: Actor, ids: readonly string[]) {
  if (ids.length === 0) return [];
  return database()
    .select({ vehicleId: circuits.vehicleId, fileId: circuits.fileId, name: circuits.name })
    .from(circuits)
    .where(and(eq(circuits.shopId, actor.shopId), inArray(circuits.vehicleId, [...ids])))
    .orderBy(asc(circuits.name));
}
