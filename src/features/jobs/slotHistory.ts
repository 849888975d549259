/** What was seen in the slots of a vehicle, over all of its jobs. */
import { and, asc, eq } from 'drizzle-orm';
import { fromFileWords } from '#core/log';
import type { SlotStateEntry } from '#core/panel';
import type { Actor } from '@/access';
import { database, type Reader } from '@/db/client';
import { jobEvents, people, slotSightings } from '@/db/schema';

/** In the order in which it was seen; what was struck is left out. */
export async function slotHistory(
  actor: Actor,
  vehicleId: string,
  db: Reader = database(),
): Promise<SlotStateEntry[]> {
  const rows = await db
    .select({
      id: slotSightings.eventId,
      at: slotSightings.madeAt,
      inFile: jobEvents.personName,
      person: people.name,
      body: slotSightings.body,
    })
    .from(slotSightings)
    .innerJoin(people, eq(people.id, slotSightings.personId))
    .innerJoin(jobEvents, eq(jobEvents.id, slotSightings.eventId))
    .where(and(eq(slotSightings.shopId, actor.shopId), eq(slotSightings.vehicleId, vehicleId)))
    .orderBy(asc(slotSightings.madeAt), asc(slotSightings.seq));
  return rows.map(({ id, at, person, inFile, body: { kind: _kind, ...seen } }) => ({
    ...seen,
    id,
    at,
    person: inFile === null ? person : fromFileWords(inFile, person),
  }));
}
