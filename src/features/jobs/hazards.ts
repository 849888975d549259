/** What is not as it should be on the shop's vehicles, until it is put right. */
import { and, asc, desc, eq, type SQL, sql } from 'drizzle-orm';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { hazards, people, vehicles } from '@/db/schema';

export interface Hazard {
  readonly id: string;
  readonly jobId: string;
  readonly vehicleName: string;
  readonly words: string;
  /** Of a temporary part: by when it is put right. */
  readonly due: string | null;
  /** Who made it so. */
  readonly person: string;
  readonly since: string;
}

const open = (actor: Actor, ...more: (SQL | undefined)[]) =>
  and(eq(hazards.shopId, actor.shopId), eq(hazards.over, false), ...more);

/** Those of the whole shop, or of one vehicle, the latest first; the count is of all there are. */
export async function openHazards(
  actor: Actor,
  { vehicleId, limit = 5 }: { readonly vehicleId?: string; readonly limit?: number } = {},
): Promise<{ readonly shown: readonly Hazard[]; readonly count: number }> {
  const where = open(actor, vehicleId === undefined ? undefined : eq(hazards.vehicleId, vehicleId));
  const [shown, count] = await Promise.all([
    database()
      .select({
        id: hazards.eventId,
        jobId: hazards.jobId,
        vehicleName: vehicles.name,
        words: hazards.words,
        due: hazards.due,
        person: sql<string>`coalesce(${people.name}, '')`,
        since: hazards.since,
      })
      .from(hazards)
      .innerJoin(vehicles, eq(vehicles.id, hazards.vehicleId))
      .leftJoin(people, eq(people.id, hazards.personId))
      .where(where)
      .orderBy(asc(hazards.due), desc(hazards.since), asc(hazards.eventId))
      .limit(limit),
    database().$count(hazards, where),
  ]);
  return { shown, count };
}
