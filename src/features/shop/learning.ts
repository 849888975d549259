/** What a shop has learned from its own proved jobs: how often each form of a fault was found. */
import { and, asc, desc, eq, gt, inArray } from 'drizzle-orm';
import { cache } from 'react';
import {
  type FaultCount,
  type LearnedWeight,
  learnWeights,
  type PriorTable,
  priorTable,
} from '#core/diagnosis/priors';
import { FAULT_MODES, type FaultMode } from '#core/faults/faults';
import type { PartKind } from '#core/format/circuitSchema';
import type { EventBody } from '#core/format/jobSchema';
import { database } from '@/db/client';
import { jobEvents, learningResets, people } from '@/db/schema';
import type { Actor } from './server';

export interface Learning {
  readonly weights: readonly LearnedWeight[];
  /** Proved jobs that count. */
  readonly jobs: number;
  readonly reset: { readonly at: string; readonly by: string } | null;
}

async function lastReset(actor: Actor) {
  const [row] = await database()
    .select({ at: learningResets.madeAt, by: people.name })
    .from(learningResets)
    .innerJoin(people, eq(people.id, learningResets.personId))
    .where(eq(learningResets.shopId, actor.shopId))
    .orderBy(desc(learningResets.madeAt))
    .limit(1);
  return row ?? null;
}

/** The last thing found in each job, if it was proved and stands, as a form of fault. */
export function formsFound(
  events: readonly { readonly jobId: string; readonly id: string; readonly body: EventBody }[],
): FaultCount[] {
  const struck = new Set(events.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : [])));
  const latest = new Map<string, Extract<EventBody, { kind: 'found' }>>();
  for (const { jobId, id, body } of events) {
    if (body.kind === 'found' && !struck.has(id)) latest.set(jobId, body);
  }
  const counts = new Map<string, FaultCount>();
  for (const { form, strength } of latest.values()) {
    if (!form || strength !== 'proved' || !FAULT_MODES.includes(form.mode as FaultMode)) continue;
    const key = `${form.kind}|${form.mode}`;
    const count = (counts.get(key)?.count ?? 0) + 1;
    counts.set(key, { kind: form.kind as PartKind, mode: form.mode as FaultMode, count });
  }
  return [...counts.values()];
}

/** Weights, counts and the last reset of the actor's shop. */
export async function learning(actor: Actor): Promise<Learning> {
  const reset = await lastReset(actor);
  const rows = await database()
    .select({ jobId: jobEvents.jobId, id: jobEvents.id, body: jobEvents.body })
    .from(jobEvents)
    .where(
      and(
        eq(jobEvents.shopId, actor.shopId),
        inArray(jobEvents.kind, ['found', 'correction']),
        ...(reset ? [gt(jobEvents.arrivedAt, reset.at)] : []),
      ),
    )
    .orderBy(asc(jobEvents.jobId), asc(jobEvents.seq));
  const counts = formsFound(rows);
  return {
    weights: learnWeights(counts),
    jobs: counts.reduce((sum, one) => sum + one.count, 0),
    reset,
  };
}

/** The weights as the diagnosis takes them. */
export const learnedPriors = cache(async (actor: Actor): Promise<PriorTable> => {
  return priorTable((await learning(actor)).weights.filter((one) => one.count > 0));
});

/** From now on only jobs proved later count; nothing is deleted. */
export async function resetLearning(actor: Actor, id: string): Promise<void> {
  await database()
    .insert(learningResets)
    .values({ id, shopId: actor.shopId, personId: actor.personId })
    .onConflictDoNothing();
}
