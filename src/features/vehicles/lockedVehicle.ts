import { and, eq } from 'drizzle-orm';
import { isUuid } from '#core/format';
import type { Actor } from '@/access';
import type { Transaction } from '@/db/client';
import { vehicles } from '@/db/schema';
import type { Vehicle } from './readVehicles';

export const NO_SUCH_VEHICLE = 'There is no such vehicle in this shop.';

/** The vehicle row, locked, so that two who change its maps do it one after the other; null where there is none. */
export async function lockedVehicle(
  tx: Transaction,
  actor: Actor,
  vehicleId: string,
): Promise<Vehicle | null> {
  if (!isUuid(vehicleId)) return null;
  const [vehicle] = await tx
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.id, vehicleId), eq(vehicles.shopId, actor.shopId)))
    .for('update');
  return vehicle ?? null;
}
