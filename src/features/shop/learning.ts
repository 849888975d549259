/** What a shop has learned from its own proved jobs: how often each form of a fault was found. */
import { and, count, desc, eq, gt } from 'drizzle-orm';
import { cache } from 'react';
import {
  type FaultCount,
  type LearnedWeight,
  learnWeights,
  type PriorTable,
  priorTable,
} from '#core/diagnosis';
import { FAULT_MODES, type FaultMode } from '#core/faults';
import type { PartKind } from '#core/format';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { findings, learningResets, people } from '@/db/schema';

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

/** Weights, counts and the last reset of the actor's shop. */
export async function learning(actor: Actor): Promise<Learning> {
  const reset = await lastReset(actor);
  const rows = await database()
    .select({ kind: findings.partKind, mode: findings.mode, of: count() })
    .from(findings)
    .where(
      and(
        eq(findings.shopId, actor.shopId),
        eq(findings.strength, 'proved'),
        ...(reset ? [gt(findings.arrivedAt, reset.at)] : []),
      ),
    )
    .groupBy(findings.partKind, findings.mode);
  const counts = rows.flatMap(({ kind, mode, of }): FaultCount[] =>
    kind !== null && FAULT_MODES.includes(mode as FaultMode)
      ? [{ kind: kind as PartKind, mode: mode as FaultMode, count: of }]
      : [],
  );
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
