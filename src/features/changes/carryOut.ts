/** A plan carried out: new versions of circuits and boxes and the entry of the ledger, all of it at once or nothing. */
import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { carryOut, type Ended, undoingPlan, withSlots } from '#core/change';
import { mergeCircuits } from '#core/circuit';
import { type CircuitFile, ENTRY_VERSION } from '#core/format';
import { jobState, type LogEvent } from '#core/log';
import type { Actor } from '@/access';
import { now } from '@/clock/now';
import type { Transaction } from '@/db/client';
import { once } from '@/db/once';
import { circuits, circuitVersions, jobCircuits, jobs, panelSetVersions } from '@/db/schema';
import { appendIn, loadJob, lockedJob, openJobIn } from '@/features/jobs/server';
import {
  importCircuit,
  importIn,
  lockedVehicle,
  newestCircuits,
  newestPanelSet,
} from '@/features/vehicles/server';

export type Carried =
  | { readonly ok: true; readonly job?: string }
  | { readonly ok: false; readonly message: string };

const NO_JOB = { ok: false, message: 'There is no such job in this shop.' } as const;

/** Circuits of the vehicle that a job is traced on, each in its newest version. */
async function filesOf(tx: Transaction, jobId: string, vehicleId: string): Promise<CircuitFile[]> {
  const held = await tx
    .select({ fileId: circuits.fileId })
    .from(jobCircuits)
    .innerJoin(circuitVersions, eq(circuitVersions.id, jobCircuits.circuitVersionId))
    .innerJoin(circuits, eq(circuits.id, circuitVersions.circuitId))
    .where(eq(jobCircuits.jobId, jobId));
  const own = new Set(held.map(({ fileId }) => fileId));
  return (await newestCircuits(tx, [vehicleId])).map(({ file }) => file).filter(({ id }) => own.has(id));
}

/** The entry of a change, in whatever job of the shop it was carried out. */
async function endedIn(
  tx: Transaction,
  actor: Actor,
  undoes: { readonly job: string; readonly plan: string } | undefined,
) {
  if (!undoes) return null;
  const job = await loadJob(actor, undoes.job, tx);
  const found = job ? jobState(job.events).plans.find(({ plan }) => plan.id === undoes.plan) : undefined;
  return found?.ended ?? null;
}

export function carryOutPlan(
  actor: Actor,
  jobId: string,
  input: { readonly id: string; readonly plan: string },
): Promise<Carried> {
  return once<Carried>(actor, { id: input.id, kind: `carry out on ${jobId}` }, async (tx) => {
    const row = await lockedJob(tx, actor, jobId);
    const vehicle = row ? await lockedVehicle(tx, actor, row.vehicleId) : null;
    const job = vehicle ? await loadJob(actor, jobId, tx) : null;
    if (!job || !vehicle) return NO_JOB;
    const state = jobState(job.events);
    const one = state.plans.find(({ plan }) => plan.id === input.plan);
    if (!one) return { ok: false, message: 'The job has no such plan.' };
    if (one.ended) return { ok: false, message: 'This plan is over already.' };
    const files = await filesOf(tx, jobId, vehicle.id);
    const panelSet = await newestPanelSet(tx, vehicle.id);
    const undone = await endedIn(tx, actor, one.plan.undoes);
    const made = carryOut(
      one.plan,
      files,
      panelSet?.file ?? null,
      {
        done: one.steps,
        kept: new Set(one.kept.keys()),
        isolated: state.isolated,
        testerProved: state.testerProvedAt !== null,
        wireReadings: state.wireReadings,
        slotReadings: state.slotReadings,
        panels: panelSet?.file.panels ?? [],
      },
      undone,
    );
    if (!made.ok) return made;
    const after = files.map((file) => made.files.find(({ circuit }) => circuit === file.id)?.after ?? file);
    const { problems } = mergeCircuits(
      one.plan.circuit ? [...files, ...made.files.map((each) => each.after)] : after,
    );
    if (problems.length > 0)
      return {
        ok: false,
        message: problems
          .map(({ message }) => message)
          .join(' ')
          .slice(0, 2000),
      };
    for (const [index, { circuit, after: file }] of made.files.entries()) {
      const { versionId } = await importCircuit(tx, actor, vehicle, file);
      await goOnWith(tx, actor, jobId, circuit, versionId, files.length + index);
    }
    if (panelSet && made.slots.length > 0) {
      const boxes = await importIn(tx, actor, vehicle.id, withSlots(panelSet.file, made.slots, 'after'));
      if (!boxes.ok) return { ok: false, message: boxes.problems.map(({ message }) => message).join(' ') };
      const [set] = await tx
        .select({ id: panelSetVersions.id })
        .from(panelSetVersions)
        .where(
          and(eq(panelSetVersions.panelSetId, panelSet.id), eq(panelSetVersions.version, boxes.version)),
        );
      if (set) await tx.update(jobs).set({ panelSetVersionId: set.id }).where(eq(jobs.id, jobId));
    }
    const kept = await append(tx, actor, jobId, job.events, [
      made.entry,
      ...made.owed.map((words) => ({ kind: 'watch' as const, words })),
    ]);
    return kept ? { ok: true } : { ok: false, message: 'The entry could not be kept.' };
  });
}

/** The job goes on with the version that it made; no other job moves. */
async function goOnWith(
  tx: Transaction,
  actor: Actor,
  jobId: string,
  fileId: string,
  versionId: string,
  position: number,
) {
  const [held] = await tx
    .select({ position: jobCircuits.position })
    .from(jobCircuits)
    .innerJoin(circuitVersions, eq(circuitVersions.id, jobCircuits.circuitVersionId))
    .innerJoin(circuits, eq(circuits.id, circuitVersions.circuitId))
    .where(and(eq(jobCircuits.jobId, jobId), eq(circuits.fileId, fileId)));
  if (held) {
    await tx
      .update(jobCircuits)
      .set({ circuitVersionId: versionId })
      .where(and(eq(jobCircuits.jobId, jobId), eq(jobCircuits.position, held.position)));
  } else {
    await tx
      .insert(jobCircuits)
      .values({ jobId, circuitVersionId: versionId, shopId: actor.shopId, position });
  }
}

async function append(
  tx: Transaction,
  actor: Actor,
  jobId: string,
  events: readonly LogEvent[],
  bodies: readonly Parameters<typeof appendIn>[2][number]['body'][],
) {
  const last = Math.max(-1, ...events.map(({ clientOrder }) => clientOrder));
  const appended = await appendIn(
    tx,
    actor,
    bodies.map((body, index) => ({
      id: randomUUID(),
      jobId,
      version: ENTRY_VERSION,
      madeAt: now().toISOString(),
      clientOrder: last + 1 + index,
      body,
    })),
  );
  return appended.ok;
}

/** A job of its own in which a change is taken back, step by step. */
export function startUndo(
  actor: Actor,
  vehicleId: string,
  input: { readonly id: string; readonly job: string; readonly plan: string },
): Promise<Carried> {
  return once<Carried>(actor, { id: input.id, kind: `undo on ${vehicleId}` }, async (tx) => {
    const held = await lockedJob(tx, actor, input.job);
    const vehicle = held ? await lockedVehicle(tx, actor, vehicleId) : null;
    const job = vehicle ? await loadJob(actor, input.job, tx) : null;
    if (!vehicle || !job || job.vehicle.id !== vehicle.id) return NO_JOB;
    const one = jobState(job.events).plans.find(({ plan }) => plan.id === input.plan);
    if (one?.ended?.how !== 'carried') return { ok: false, message: 'There is no such change to undo.' };
    const files = (await newestCircuits(tx, [vehicle.id])).map(({ file }) => file);
    const stated = undoingPlan(one.plan, one.ended as Ended, files, randomUUID(), job.id);
    if (!stated.ok) return stated;
    const id = input.id;
    const opened = await openJobIn(tx, actor, { id, vehicleId: vehicle.id, title: stated.plan.name });
    if (!opened.ok) return opened;
    const kept = await append(
      tx,
      actor,
      id,
      [],
      [
        { kind: 'complaint', words: stated.plan.name, work: 'change' },
        { kind: 'plan', plan: stated.plan },
      ],
    );
    return kept ? { ok: true, job: id } : { ok: false, message: 'The job could not be opened.' };
  });
}
