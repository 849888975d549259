/** Vehicles and their maps: circuits and panel sets, versioned, brought in from files. */
import { randomUUID } from 'node:crypto';
import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { cache } from 'react';
import { mergeCircuits } from '#core/circuit/merge';
import { checkCircuit } from '#core/format/checkCircuit';
import { checkPanelSet } from '#core/format/checkPanelSet';
import type { CircuitFile } from '#core/format/circuitSchema';
import type { PanelSetFile } from '#core/format/panelSchema';
import { type Problem, readJson } from '#core/format/problem';
import { forSister } from '#core/panel/sister';
import { database, type Transaction } from '@/db/client';
import { circuits, circuitVersions, panelSets, panelSetVersions, vehicles } from '@/db/schema';
import type { Actor } from '@/features/shop/server';

export type Vehicle = typeof vehicles.$inferSelect;

export async function listVehicles(actor: Actor): Promise<Vehicle[]> {
  return database()
    .select()
    .from(vehicles)
    .where(eq(vehicles.shopId, actor.shopId))
    .orderBy(asc(vehicles.name));
}

export interface VehicleMaps {
  readonly vehicle: Vehicle;
  readonly circuits: readonly { id: string; version: number; madeAt: string; file: CircuitFile }[];
  readonly panelSet: { id: string; version: number; madeAt: string; file: PanelSetFile } | null;
}

/** A vehicle with the newest version of each map; null when the shop has none such. */
export const loadVehicle = cache(async (actor: Actor, vehicleId: string): Promise<VehicleMaps | null> => {
  if (!/^[0-9a-f-]{36}$/.test(vehicleId)) return null;
  const db = database();
  const [vehicle] = await db
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId)));
  if (!vehicle) return null;
  const [maps, panels] = await Promise.all([newestCircuits(db, [vehicleId]), newestPanelSet(db, vehicleId)]);
  return { vehicle, circuits: maps, panelSet: panels };
});

async function newestCircuits(db: Pick<Transaction, 'selectDistinctOn'>, vehicleIds: readonly string[]) {
  const rows = await db
    .selectDistinctOn([circuitVersions.circuitId], {
      id: circuits.id,
      name: circuits.name,
      version: circuitVersions.version,
      madeAt: circuitVersions.madeAt,
      file: circuitVersions.file,
    })
    .from(circuitVersions)
    .innerJoin(circuits, eq(circuits.id, circuitVersions.circuitId))
    .where(inArray(circuits.vehicleId, [...vehicleIds]))
    .orderBy(circuitVersions.circuitId, desc(circuitVersions.version));
  return rows.sort((one, other) => (one.name < other.name ? -1 : 1));
}

async function newestPanelSet(db: Pick<Transaction, 'select'>, vehicleId: string) {
  const [row] = await db
    .select({
      id: panelSets.id,
      version: panelSetVersions.version,
      madeAt: panelSetVersions.madeAt,
      file: panelSetVersions.file,
    })
    .from(panelSetVersions)
    .innerJoin(panelSets, eq(panelSets.id, panelSetVersions.panelSetId))
    .where(eq(panelSets.vehicleId, vehicleId))
    .orderBy(desc(panelSetVersions.version))
    .limit(1);
  return row ?? null;
}

export type ImportResult =
  | { readonly ok: true; readonly sentence: string }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/**
 * Brings a circuit or panel-set file to a vehicle as a new version. Nothing is written when the file has
 * any problem, or when it disagrees with the vehicle's other circuits about a part they share.
 */
export async function importFile(actor: Actor, vehicleId: string, text: string): Promise<ImportResult> {
  const json = readJson(text);
  if (!json.ok) return json;
  const format = (json.value as { format?: unknown } | null)?.format;
  const isPanelSet = format === 'every-trace/panel-set';
  const checked = isPanelSet ? checkPanelSet(json.value) : checkCircuit(json.value);
  if (!checked.ok) return checked;
  return database().transaction(async (tx) => {
    // The vehicle row is locked, so that two imports give two versions one after the other.
    const [vehicle] = await tx
      .select()
      .from(vehicles)
      .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId)))
      .for('update');
    if (!vehicle) {
      return {
        ok: false as const,
        problems: [{ code: 'unknown-vehicle', path: '', message: 'There is no such vehicle in this shop.' }],
      };
    }
    const file = checked.value;
    if ('panels' in file) return importPanelSet(tx, actor, vehicleId, file);
    const others = (await newestCircuits(tx, [vehicleId]))
      .map((one) => one.file)
      .filter((one) => one.id !== file.id);
    const { problems } = mergeCircuits([...others, file]);
    if (problems.length > 0) return { ok: false as const, problems };
    if (vehicle.nominalVolts === null) {
      await tx.update(vehicles).set({ nominalVolts: file.nominalVolts }).where(eq(vehicles.id, vehicleId));
    } else if (vehicle.nominalVolts !== file.nominalVolts) {
      return {
        ok: false as const,
        problems: [
          {
            code: 'other-voltage',
            path: '/nominalVolts',
            message: `The file is for a ${file.nominalVolts} V system; this vehicle is recorded as ${vehicle.nominalVolts} V.`,
          },
        ],
      };
    }
    return importCircuit(tx, actor, vehicleId, file);
  });
}

async function importCircuit(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  file: CircuitFile,
): Promise<ImportResult> {
  const row = { id: randomUUID(), shopId: actor.shopId, vehicleId, fileId: file.id, name: file.name };
  const [circuit] = await tx
    .insert(circuits)
    .values(row)
    .onConflictDoUpdate({ target: [circuits.vehicleId, circuits.fileId], set: { name: file.name } })
    .returning();
  const [last] = await tx
    .select({ version: sql<number>`coalesce(max(${circuitVersions.version}), 0)`.mapWith(Number) })
    .from(circuitVersions)
    .where(eq(circuitVersions.circuitId, circuit!.id));
  const version = (last?.version ?? 0) + 1;
  await tx.insert(circuitVersions).values({
    id: randomUUID(),
    shopId: actor.shopId,
    circuitId: circuit!.id,
    version,
    file,
    madeBy: actor.personId,
  });
  return { ok: true, sentence: `${file.name} is in as version ${version}: ${file.parts.length} parts.` };
}

async function importPanelSet(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
  file: PanelSetFile,
): Promise<ImportResult> {
  const row = { id: randomUUID(), shopId: actor.shopId, vehicleId, fileId: file.id, name: file.name };
  const [set] = await tx
    .insert(panelSets)
    .values(row)
    .onConflictDoUpdate({ target: panelSets.vehicleId, set: { name: file.name, fileId: file.id } })
    .returning();
  const [last] = await tx
    .select({ version: sql<number>`coalesce(max(${panelSetVersions.version}), 0)`.mapWith(Number) })
    .from(panelSetVersions)
    .where(eq(panelSetVersions.panelSetId, set!.id));
  const version = (last?.version ?? 0) + 1;
  await tx.insert(panelSetVersions).values({
    id: randomUUID(),
    shopId: actor.shopId,
    panelSetId: set!.id,
    version,
    file,
    madeBy: actor.personId,
  });
  const slots = file.panels.reduce((sum, panel) => sum + panel.slots.length, 0);
  return {
    ok: true,
    sentence: `${file.name} is in as version ${version}: ${file.panels.length} boxes, ${slots} slots.`,
  };
}

export { type ShopSlot, searchShop } from './slotSearch';

/** Brings the newest boxes of one vehicle to a sister as a first map: every fact unverified there. */
export async function copyToSister(actor: Actor, fromId: string, toId: string): Promise<ImportResult> {
  const from = await loadVehicle(actor, fromId);
  if (!from?.panelSet) {
    const message = 'That vehicle has no boxes to copy.';
    return { ok: false, problems: [{ code: 'nothing-to-copy', path: '', message }] };
  }
  const to = await loadVehicle(actor, toId);
  if (to?.panelSet && to.panelSet.file.id !== from.panelSet.file.id) {
    const message = 'This vehicle has boxes of its own already. Nothing was changed.';
    return { ok: false, problems: [{ code: 'has-boxes', path: '', message }] };
  }
  return importFile(actor, toId, JSON.stringify(forSister(from.panelSet.file, from.vehicle.name)));
}
