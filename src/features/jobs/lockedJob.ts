import { and, eq } from 'drizzle-orm';
import { isUuid } from '#core/format';
import type { Actor } from '@/access';
import type { Transaction } from '@/db/client';
import { jobs } from '@/db/schema';

/** The row of a job, locked, so that what is read of the job stays so until the end; null where this shop has none such. */
export async function lockedJob(
  tx: Transaction,
  actor: Actor,
  jobId: string,
): Promise<{ readonly vehicleId: string; readonly panelSetVersionId: string | null } | null> {
  if (!isUuid(jobId)) return null;
  const [job] = await tx
    .select({ vehicleId: jobs.vehicleId, panelSetVersionId: jobs.panelSetVersionId })
    .from(jobs)
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)))
    .for('update');
  return job ?? null;
}
