/** Vehicles and the newest versions of their maps, as pages read them. */
import { and, asc, eq, inArray } from 'drizzle-orm';
import { cache } from 'react';
import { type CircuitFile, isUuid, type PanelSetFile } from '#core/format';
import type { Actor } from '@/access';
import { database, type Transaction } from '@/db/client';
import { circuits, circuitVersions, panelSets, panelSetVersions, vehicles } from '@/db/schema';

export type Vehicle = typeof vehicles.$inferSelect;

export interface VehicleMaps {
  readonly vehicle: Vehicle;
  readonly circuits: readonly { id: string; version: number; madeAt: string; file: CircuitFile }[];
  readonly panelSet: { id: string; version: number; madeAt: string; file: PanelSetFile } | null;
}

/** A vehicle with the newest version of each map; null when the shop has none such. */
export const loadVehicle = cache(async (actor: Actor, vehicleId: string): Promise<VehicleMaps | null> => {
  if (!isUuid(vehicleId)) return null;
  const db = database();
  const [vehicle] = await db
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId)));
  if (!vehicle) return null;
  const [maps, panels] = await Promise.all([newestCircuits(db, [vehicleId]), newestPanelSet(db, vehicleId)]);
  return { vehicle, circuits: maps, panelSet: panels };
});

/** What a vehicle does, by its newest circuits: what a complaint can be about. */
export function functionsOf({ circuits: maps }: VehicleMaps): { id: string; name: string }[] {
  return maps.flatMap(({ file }) => file.functions.map(({ id, name }) => ({ id, name })));
}

export async function newestCircuits(db: Pick<Transaction, 'select'>, vehicleIds: readonly string[]) {
  return db
    .select({
      id: circuits.id,
      name: circuits.name,
      version: circuitVersions.version,
      madeAt: circuitVersions.madeAt,
      file: circuitVersions.file,
    })
    .from(circuits)
    .innerJoin(
      circuitVersions,
      and(eq(circuitVersions.circuitId, circuits.id), eq(circuitVersions.version, circuits.version)),
    )
    .where(inArray(circuits.vehicleId, [...vehicleIds]))
    .orderBy(asc(circuits.name), asc(circuits.id));
}

export async function newestPanelSet(db: Pick<Transaction, 'select'>, vehicleId: string) {
  const [row] = await db
    .select({
      id: panelSets.id,
      version: panelSetVersions.version,
      madeAt: panelSetVersions.madeAt,
      file: panelSetVersions.file,
    })
    .from(panelSets)
    .innerJoin(
      panelSetVersions,
      and(eq(panelSetVersions.panelSetId, panelSets.id), eq(panelSetVersions.version, panelSets.version)),
    )
    .where(eq(panelSets.vehicleId, vehicleId));
  return row ?? null;
}
