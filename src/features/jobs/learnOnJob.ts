/** What is learned of a vehicle while a job is traced on it. */
import { and, desc, eq, inArray } from 'drizzle-orm';
import type { PartFact } from '#core/format';
import type { Actor } from '@/access';
import { once } from '@/db/once';
import { circuitVersions, jobCircuits } from '@/db/schema';
import { learnIn } from '@/features/vehicles/server';
import { lockedJob } from './lockedJob';
import { lostBy } from './takeNewest';

export type LearnedOnJob =
  | { readonly ok: true; readonly stays: string | null }
  | { readonly ok: false; readonly message: string };

/**
 * What was learned of a part while tracing: new versions of the vehicle's circuits. The job goes on with the newest of
 * all its circuits together, since circuits share parts. Every reading stays; so a map that no longer has what the job
 * was traced on is not taken, and `stays` says so: the fact is kept for the next job.
 */
export async function learnOnJob(actor: Actor, jobId: string, fact: PartFact): Promise<LearnedOnJob> {
  return once<LearnedOnJob>(actor, { id: fact.id, kind: `fact on job ${jobId}` }, async (tx) => {
    const job = await lockedJob(tx, actor, jobId);
    if (!job) return { ok: false as const, message: 'There is no such job in this shop.' };
    const learned = await learnIn(tx, actor, job.vehicleId, fact);
    if (!learned.ok) return learned;
    const held = await tx
      .select({
        position: jobCircuits.position,
        circuitId: circuitVersions.circuitId,
        file: circuitVersions.file,
      })
      .from(jobCircuits)
      .innerJoin(circuitVersions, eq(circuitVersions.id, jobCircuits.circuitVersionId))
      .where(eq(jobCircuits.jobId, jobId));
    const newest = await tx
      .selectDistinctOn([circuitVersions.circuitId], {
        id: circuitVersions.id,
        circuitId: circuitVersions.circuitId,
        file: circuitVersions.file,
      })
      .from(circuitVersions)
      .where(
        inArray(
          circuitVersions.circuitId,
          held.map((one) => one.circuitId),
        ),
      )
      .orderBy(circuitVersions.circuitId, desc(circuitVersions.version));
    const lost = lostBy(held, newest);
    if (lost !== null) {
      return {
        ok: true as const,
        stays: `Kept for the next job. This one stays on the map it began with, for “${lost}” has been taken out of the circuit since.`,
      };
    }
    for (const { position, circuitId } of held) {
      await tx
        .update(jobCircuits)
        .set({ circuitVersionId: newest.find((one) => one.circuitId === circuitId)!.id })
        .where(and(eq(jobCircuits.jobId, jobId), eq(jobCircuits.position, position)));
    }
    return { ok: true as const, stays: null };
  });
}
