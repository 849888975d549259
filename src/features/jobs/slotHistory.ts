/** What was seen in the slots of a vehicle, over all of its jobs. */
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { SlotStateEntry } from '#core/panel/slotStates';
import { database } from '@/db/client';
import { jobEvents, jobs, people } from '@/db/schema';
import type { Actor } from '@/features/shop/server';

/** In the order in which it was seen; what was struck is left out. */
export async function slotHistory(actor: Actor, vehicleId: string): Promise<SlotStateEntry[]> {
  const rows = await database()
    .select({ id: jobEvents.id, at: jobEvents.madeAt, person: people.name, body: jobEvents.body })
    .from(jobEvents)
    .innerJoin(jobs, eq(jobs.id, jobEvents.jobId))
    .innerJoin(people, eq(people.id, jobEvents.personId))
    .where(
      and(
        eq(jobEvents.shopId, actor.shopId),
        eq(jobs.vehicleId, vehicleId),
        inArray(jobEvents.kind, ['slot-state', 'correction']),
      ),
    )
    .orderBy(asc(jobEvents.madeAt), asc(jobEvents.seq));
  const struck = new Set(rows.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : [])));
  return rows.flatMap(({ id, at, person, body }): SlotStateEntry[] => {
    if (body.kind !== 'slot-state' || struck.has(id)) return [];
    const { kind: _kind, ...seen } = body;
    return [{ ...seen, id, at, person }];
  });
}
