/** Boxes and circuits that were drawn, or drawn anew, while a job is open: said, and taken up when somebody wants them. */

import { and, desc, eq, gt, inArray, min } from 'drizzle-orm';
import { type CircuitFile, isUuid } from '#core/format';
import type { Actor } from '@/access';
import { database, type Reader } from '@/db/client';
import { once } from '@/db/once';
import {
  circuits,
  circuitVersions,
  jobCircuits,
  jobEvents,
  jobs,
  panelSets,
  panelSetVersions,
} from '@/db/schema';
import type { NewerMaps } from '@/job/newerMapsOf';
import { lockedJob } from './lockedJob';

interface Held {
  readonly file: CircuitFile;
}

/** Ids that a job's readings may name. */
const namesIn = ({ parts, nodes }: CircuitFile): string[] => [...parts, ...nodes].map(({ id }) => id);

/** The first id that a job is traced on and newer circuits have no more; null where they have all of them. */
export function lostBy(held: readonly Held[], newest: readonly Held[]): string | null {
  const names = new Set(newest.flatMap(({ file }) => namesIn(file)));
  return held.flatMap(({ file }) => namesIn(file)).find((id) => !names.has(id)) ?? null;
}

/** The versions that a job is traced on, and the newest of the same circuits and of those that came since. */
async function mapsOf(db: Reader, jobId: string, vehicleId: string) {
  const held = await db
    .select({
      position: jobCircuits.position,
      versionId: circuitVersions.id,
      circuitId: circuitVersions.circuitId,
      file: circuitVersions.file,
    })
    .from(jobCircuits)
    .innerJoin(circuitVersions, eq(circuitVersions.id, jobCircuits.circuitVersionId))
    .where(eq(jobCircuits.jobId, jobId));
  const ids = held.map(({ circuitId }) => circuitId);
  // When the job came here, by the clock that the circuits have: what was drawn later is new to it.
  const [began] = await db
    .select({ at: min(jobEvents.arrivedAt) })
    .from(jobEvents)
    .where(eq(jobEvents.jobId, jobId));
  const firsts = !began?.at
    ? []
    : await db
        .select({ id: circuitVersions.circuitId })
        .from(circuitVersions)
        .innerJoin(circuits, eq(circuits.id, circuitVersions.circuitId))
        .where(
          and(
            eq(circuits.vehicleId, vehicleId),
            eq(circuitVersions.version, 1),
            gt(circuitVersions.madeAt, began.at),
          ),
        );
  const wanted = [...new Set([...ids, ...firsts.map(({ id }) => id)])];
  const newest =
    wanted.length === 0
      ? []
      : await db
          .selectDistinctOn([circuitVersions.circuitId], {
            versionId: circuitVersions.id,
            circuitId: circuitVersions.circuitId,
            file: circuitVersions.file,
          })
          .from(circuitVersions)
          .where(inArray(circuitVersions.circuitId, wanted))
          .orderBy(circuitVersions.circuitId, desc(circuitVersions.version));
  const [boxes] = await db
    .select({ versionId: panelSetVersions.id })
    .from(panelSets)
    .innerJoin(
      panelSetVersions,
      and(eq(panelSetVersions.panelSetId, panelSets.id), eq(panelSetVersions.version, panelSets.version)),
    )
    .where(eq(panelSets.vehicleId, vehicleId));
  return { held, newest, boxes: boxes?.versionId ?? null };
}

async function jobRow(db: Reader, actor: Actor, jobId: string) {
  const [job] = await db
    .select({ vehicleId: jobs.vehicleId, panelSetVersionId: jobs.panelSetVersionId })
    .from(jobs)
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)));
  return job ?? null;
}

/** Null where the job stands on the newest of everything, or there is no such job. */
export async function newerMaps(
  actor: Actor,
  jobId: string,
  db: Reader = database(),
): Promise<NewerMaps | null> {
  const job = isUuid(jobId) ? await jobRow(db, actor, jobId) : null;
  if (!job) return null;
  const { held, newest, boxes } = await mapsOf(db, jobId, job.vehicleId);
  const moved = newest.filter(({ versionId }) => !held.some((one) => one.versionId === versionId));
  const newer = {
    boxes: boxes !== null && boxes !== job.panelSetVersionId,
    circuits: moved.map(({ file }) => file.name),
    lost: moved.length > 0 ? lostBy(held, newest) : null,
  };
  return newer.boxes || newer.circuits.length > 0 ? newer : null;
}

export type TakenUp = { readonly ok: true } | { readonly ok: false; readonly message: string };

/** Takes up the newest boxes, and the newest circuits where nothing that the job names has gone; readings stay. */
export async function takeNewest(actor: Actor, jobId: string, requestId: string): Promise<TakenUp> {
  return once<TakenUp>(actor, { id: requestId, kind: `newest on job ${jobId}` }, async (tx) => {
    const job = await lockedJob(tx, actor, jobId);
    if (!job) return { ok: false as const, message: 'There is no such job in this shop.' };
    const newer = await newerMaps(actor, jobId, tx);
    if (!newer) return { ok: true as const };
    const { held, newest, boxes } = await mapsOf(tx, jobId, job.vehicleId);
    if (newer.boxes) {
      await tx.update(jobs).set({ panelSetVersionId: boxes }).where(eq(jobs.id, jobId));
    }
    if (newer.lost === null) {
      let position = Math.max(-1, ...held.map((one) => one.position));
      for (const { circuitId, versionId } of newest) {
        const before = held.find((one) => one.circuitId === circuitId);
        if (before) {
          await tx
            .update(jobCircuits)
            .set({ circuitVersionId: versionId })
            .where(and(eq(jobCircuits.jobId, jobId), eq(jobCircuits.position, before.position)));
        } else {
          position += 1;
          await tx
            .insert(jobCircuits)
            .values({ jobId, circuitVersionId: versionId, shopId: actor.shopId, position });
        }
      }
    }
    return { ok: true as const };
  });
}
