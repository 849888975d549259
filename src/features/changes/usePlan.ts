'use client';

import { useCallback, useMemo, useState } from 'react';
import { PLAN_FORMAT, type PlanFile } from '#core/format';
import type { JobState, PlanOnJob } from '#core/log';
import { readDraft, writeDraft } from '@/sync/drafts';
import { newId } from '@/ui/newId';

/** A plan as it is being stated: with what it was, so that a step can be taken back and made again. */
interface Draft {
  readonly plan: PlanFile;
  readonly past: readonly PlanFile[];
  readonly future: readonly PlanFile[];
  /** The entry of the job that it began from; null where the job had none of it. */
  readonly base: string | null;
}

const MOST_PAST = 40;

export function emptyPlan(): PlanFile {
  return { format: PLAN_FORMAT, version: 1, id: newId(), name: 'Change', purpose: '', edits: [] };
}

function readDrafted(key: string): Draft | null {
  try {
    const kept = JSON.parse(readDraft(key) ?? 'null') as Partial<Draft> | null;
    if (kept?.plan?.format !== PLAN_FORMAT) return null;
    return { plan: kept.plan, past: kept.past ?? [], future: kept.future ?? [], base: kept.base ?? null };
  } catch {
    return null;
  }
}

/** A plan of this job is being stated in this browser. */
export function isDrafted(jobId: string): boolean {
  return readDrafted(`plan ${jobId}`) !== null;
}

export interface Planning {
  /** The plan as it stands on the screen. */
  readonly plan: PlanFile | null;
  /** What the job has of it. */
  readonly onJob: PlanOnJob | null;
  /** It differs from what the job has. */
  readonly changed: boolean;
  /** Somebody kept another version of it since this one was begun. */
  readonly meanwhile: boolean;
  /** With what it was before it, where a first statement is to be taken back too. */
  readonly begin: (plan: PlanFile, before?: PlanFile) => void;
  readonly change: (plan: PlanFile) => void;
  readonly undo: (() => void) | null;
  readonly redo: (() => void) | null;
  /** Forgets what is not kept on the job. */
  readonly forget: () => void;
  readonly keep: () => void;
}

/** The plan of a job that is worked on: its last that is not ended, or one that is being stated; kept while it is typed. */
export function usePlan(
  jobId: string,
  job: JobState,
  wanted: string | null,
  onKeep: (plan: PlanFile) => boolean,
): Planning {
  const key = `plan ${jobId}`;
  const [draft, setDraft] = useState<Draft | null>(() => readDrafted(key));
  const [chosen, choose] = useState<string | null>(wanted);
  const held =
    job.plans.find(({ plan }) => plan.id === chosen) ??
    job.plans.findLast(({ ended }) => ended === null) ??
    job.plans.at(-1) ??
    null;
  const isDrafted = draft !== null && (chosen === null || chosen === draft.plan.id);
  const plan = isDrafted ? draft.plan : (held?.plan ?? null);
  const onJob = job.plans.find((one) => one.plan.id === plan?.id) ?? null;
  const write = useCallback(
    (next: Draft | null) => {
      setDraft(next);
      writeDraft(key, next === null ? null : JSON.stringify(next));
    },
    [key],
  );
  const change = useCallback(
    (next: PlanFile) => {
      const before = isDrafted ? draft : null;
      const past = plan && plan.id === next.id ? [...(before?.past ?? []), plan].slice(-MOST_PAST) : [];
      write({ plan: next, past, future: [], base: before ? before.base : (onJob?.eventId ?? null) });
    },
    [draft, isDrafted, onJob, plan, write],
  );
  const changed = isDrafted && JSON.stringify(draft.plan) !== JSON.stringify(onJob?.plan ?? null);
  return useMemo(
    (): Planning => ({
      plan,
      onJob,
      changed,
      meanwhile: changed && onJob !== null && draft?.base !== onJob.eventId,
      begin: (next, before) => {
        choose(next.id);
        write({ plan: next, past: before ? [before] : [], future: [], base: null });
      },
      change,
      undo:
        isDrafted && draft.past.length > 0
          ? () =>
              write({
                ...draft,
                plan: draft.past.at(-1)!,
                past: draft.past.slice(0, -1),
                future: [draft.plan, ...draft.future],
              })
          : null,
      redo:
        isDrafted && draft.future.length > 0
          ? () =>
              write({
                ...draft,
                plan: draft.future[0]!,
                past: [...draft.past, draft.plan],
                future: draft.future.slice(1),
              })
          : null,
      forget: () => write(null),
      keep: () => {
        if (plan && onKeep(plan)) {
          choose(plan.id);
          write(null);
        }
      },
    }),
    [plan, onJob, changed, change, draft, isDrafted, write, onKeep],
  );
}
