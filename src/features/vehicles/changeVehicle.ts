/** The record of a vehicle put right, archived, merged; its customer kept apart and erased. Each request once. */
import { and, asc, eq, ne, sql } from 'drizzle-orm';
import type { VehicleChange, VehicleRecord } from '#core/format';
import { changedMeanwhile, type Known } from '#core/vehicle';
import type { Actor } from '@/access';
import { now } from '@/clock/now';
import { database, type Transaction } from '@/db/client';
import { once } from '@/db/once';
import { keepAllOf } from '@/db/projections/searchRows';
import {
  circuits,
  customers,
  hazards,
  jobEvents,
  jobs,
  panelSets,
  slotSightings,
  vehicles,
} from '@/db/schema';
import { newestCircuits } from './readVehicles';

export type VehicleAnswer =
  | { readonly ok: true; readonly message?: string }
  | { readonly ok: false; readonly message: string };

const refuse = (message: string): VehicleAnswer => ({ ok: false, message });
const NO_VEHICLE = refuse('There is no such vehicle in this shop.');

type Row = typeof vehicles.$inferSelect;

export function recordOf({
  name,
  make,
  model,
  year,
  plate,
  nominalVolts,
  odometerKm,
  notes,
  otherNames,
}: Row): VehicleRecord {
  return {
    name,
    make,
    model,
    year,
    plate,
    nominalVolts: nominalVolts as VehicleRecord['nominalVolts'],
    odometerKm,
    notes,
    otherNames,
  };
}

export function changeVehicle(
  actor: Actor,
  vehicleId: string,
  change: VehicleChange,
): Promise<VehicleAnswer> {
  return once(actor, { id: change.id, kind: `vehicle-${change.kind}` }, async (tx) => {
    if (change.kind === 'merge') await lockBoth(tx, actor, vehicleId, change.into);
    const row = await locked(tx, actor, vehicleId);
    if (!row) return NO_VEHICLE;
    switch (change.kind) {
      case 'correct':
        return correct(tx, actor, row, change);
      case 'archive':
        await tx
          .update(vehicles)
          .set({ archivedAt: change.archived ? now().toISOString() : null })
          .where(eq(vehicles.id, row.id));
        await keepAllOf(tx, row.id);
        return { ok: true };
      case 'merge':
        return merge(tx, actor, row, change.into);
      case 'customer':
        return keepCustomer(tx, actor, row, change);
      case 'erase-customer':
        return eraseCustomer(tx, row);
    }
  });
}

/** Everything that a merge moves, in the order in which all others take it: jobs, then vehicles, each by their ids. */
async function lockBoth(tx: Transaction, actor: Actor, from: string, into: string): Promise<void> {
  await tx
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.vehicleId, from), eq(jobs.shopId, actor.shopId)))
    .orderBy(asc(jobs.id))
    .for('update');
  for (const id of [from, into].sort()) await locked(tx, actor, id);
}

async function locked(tx: Transaction, actor: Actor, id: string): Promise<Row | null> {
  const [row] = await tx
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.id, id), eq(vehicles.shopId, actor.shopId)))
    .for('update');
  return row ?? null;
}

async function correct(
  tx: Transaction,
  actor: Actor,
  row: Row,
  { now: wanted, was }: Extract<VehicleChange, { kind: 'correct' }>,
): Promise<VehicleAnswer> {
  const stored = recordOf(row);
  const both = changedMeanwhile(was, wanted, stored);
  if (both.length > 0) return refuse(`Not saved. ${both.join('; ')}.`);
  // What only somebody else changed stays as they left it.
  const fields = Object.fromEntries(
    (Object.keys(wanted) as (keyof VehicleRecord)[])
      .filter((field) => wanted[field] !== was[field])
      .map((field) => [field, typeof wanted[field] === 'string' ? wanted[field].trim() : wanted[field]]),
  ) as Partial<VehicleRecord>;
  if (fields.name === '') return refuse('Give it a name.');
  if (fields.plate !== undefined) {
    if (fields.plate === '') fields.plate = `no plate (${row.id.slice(0, 4)})`;
    const [same] = await tx
      .select({ name: vehicles.name })
      .from(vehicles)
      .where(
        and(eq(vehicles.shopId, actor.shopId), eq(vehicles.plate, fields.plate), ne(vehicles.id, row.id)),
      );
    if (same) {
      return refuse(
        `The plate ${fields.plate} is that of ${same.name}. If the two are one vehicle, merge them instead.`,
      );
    }
  }
  if (Object.keys(fields).length > 0) await tx.update(vehicles).set(fields).where(eq(vehicles.id, row.id));
  await keepAllOf(tx, row.id);
  return { ok: true };
}

/**
 * Two records of one vehicle become one: jobs, what was seen, and the maps that the other has not go over; what both have
 * drawn stays with the old record, which is kept out of the lists.
 */
async function merge(tx: Transaction, actor: Actor, row: Row, intoId: string): Promise<VehicleAnswer> {
  if (intoId === row.id) return refuse('A vehicle cannot be merged into itself.');
  const into = await locked(tx, actor, intoId);
  if (!into || into.mergedInto) return refuse('There is no such vehicle to merge it into.');
  if (row.mergedInto) return refuse('It is merged already.');
  if (row.nominalVolts !== null && into.nominalVolts !== null && row.nominalVolts !== into.nominalVolts) {
    return refuse(
      `${row.name} is a ${row.nominalVolts} V vehicle and ${into.name} a ${into.nominalVolts} V one: put the wrong one right first.`,
    );
  }
  const taken = await tx
    .select({ fileId: circuits.fileId })
    .from(circuits)
    .where(eq(circuits.vehicleId, intoId));
  const names = new Set(taken.map(({ fileId }) => fileId));
  const own = await tx.select().from(circuits).where(eq(circuits.vehicleId, row.id));
  const over = own.filter(({ fileId }) => !names.has(fileId));
  for (const { id } of over) await tx.update(circuits).set({ vehicleId: intoId }).where(eq(circuits.id, id));
  const [boxes] = await tx
    .select({ id: panelSets.id })
    .from(panelSets)
    .where(eq(panelSets.vehicleId, intoId));
  if (!boxes) await tx.update(panelSets).set({ vehicleId: intoId }).where(eq(panelSets.vehicleId, row.id));
  const [left] = await tx.select({ id: panelSets.id }).from(panelSets).where(eq(panelSets.vehicleId, row.id));
  await tx.update(jobs).set({ vehicleId: intoId }).where(eq(jobs.vehicleId, row.id));
  await tx.update(hazards).set({ vehicleId: intoId }).where(eq(hazards.vehicleId, row.id));
  await tx.update(slotSightings).set({ vehicleId: intoId }).where(eq(slotSightings.vehicleId, row.id));
  const others = [
    into.otherNames,
    row.name,
    row.otherNames,
    row.plate.startsWith('no plate') ? '' : row.plate,
  ];
  await tx
    .update(vehicles)
    .set({
      otherNames: [...new Set(others.filter((one) => one !== ''))].join(', ').slice(0, 200),
      make: into.make || row.make,
      model: into.model || row.model,
      year: into.year ?? row.year,
      nominalVolts: into.nominalVolts ?? row.nominalVolts,
      odometerKm: Math.max(into.odometerKm ?? 0, row.odometerKm ?? 0) || null,
      notes: [into.notes, row.notes].filter((one) => one !== '').join(' '),
      customerId: into.customerId ?? row.customerId,
    })
    .where(eq(vehicles.id, intoId));
  await tx
    .update(vehicles)
    .set({ mergedInto: intoId, archivedAt: now().toISOString() })
    .where(eq(vehicles.id, row.id));
  await keepAllOf(tx, row.id);
  await keepAllOf(tx, intoId);
  const kept = own.length - over.length + (left ? 1 : 0);
  return {
    ok: true,
    message:
      kept === 0
        ? `Merged into ${into.name}.`
        : `Merged into ${into.name}. ${kept === 1 ? 'One map' : `${kept} maps`} that both had stayed with the old record.`,
  };
}

async function keepCustomer(
  tx: Transaction,
  actor: Actor,
  row: Row,
  { customerId, name, reach }: Extract<VehicleChange, { kind: 'customer' }>,
): Promise<VehicleAnswer> {
  const id = row.customerId ?? customerId;
  const values = { name: name.trim(), reach: reach.trim() };
  if (values.name === '') return refuse('Say the name of the customer.');
  const kept = await tx
    .insert(customers)
    .values({ id, shopId: actor.shopId, ...values })
    .onConflictDoUpdate({ target: customers.id, set: values, setWhere: eq(customers.shopId, actor.shopId) })
    .returning({ id: customers.id });
  if (kept.length === 0) return refuse('There is no such customer in this shop.');
  await tx.update(vehicles).set({ customerId: id }).where(eq(vehicles.id, row.id));
  await keepAllOf(tx, row.id);
  return { ok: true };
}

/** Gone from here for good, and from the words that the search knows; the record of the work stays. */
async function eraseCustomer(tx: Transaction, row: Row): Promise<VehicleAnswer> {
  if (row.customerId === null) return { ok: true };
  const own = await tx
    .select({ id: vehicles.id })
    .from(vehicles)
    .where(eq(vehicles.customerId, row.customerId));
  await tx.update(vehicles).set({ customerId: null }).where(eq(vehicles.customerId, row.customerId));
  await tx.delete(customers).where(eq(customers.id, row.customerId));
  for (const { id } of own) await keepAllOf(tx, id);
  return { ok: true };
}

/** What speaks against a change of the record: kilometres of its jobs, volts of its circuits, plates of the others. */
export async function knownOf(actor: Actor, vehicleId: string): Promise<Known> {
  const db = database();
  const [read, maps, plates] = await Promise.all([
    db
      .select({
        km: sql<number>`(${jobEvents.body} ->> 'odometerKm')::integer`,
        day: sql<string>`to_char(${jobEvents.madeAt}, 'YYYY-MM-DD')`,
      })
      .from(jobEvents)
      .innerJoin(jobs, eq(jobs.id, jobEvents.jobId))
      .where(
        and(
          eq(jobs.vehicleId, vehicleId),
          eq(jobs.shopId, actor.shopId),
          eq(jobEvents.kind, 'identity'),
          sql`${jobEvents.body} ->> 'odometerKm' is not null`,
        ),
      ),
    newestCircuits(db, [vehicleId]),
    db
      .select({ name: vehicles.name, plate: vehicles.plate })
      .from(vehicles)
      .where(and(eq(vehicles.shopId, actor.shopId), ne(vehicles.id, vehicleId))),
  ]);
  return {
    odometers: read,
    circuits: maps.map(({ name, file }) => ({ name, nominalVolts: file.nominalVolts })),
    plates,
  };
}

export async function customerOf(
  actor: Actor,
  id: string | null,
): Promise<{ readonly name: string; readonly reach: string } | null> {
  if (id === null) return null;
  const [row] = await database()
    .select({ name: customers.name, reach: customers.reach })
    .from(customers)
    .where(and(eq(customers.id, id), eq(customers.shopId, actor.shopId)));
  return row ?? null;
}
