'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { CircuitFile, PlanFile } from '#core/format';
import type { ChangeAnswer, ChangeRequest, PlanLooked } from './changeMessages';
import { Restarted, STOPPED } from './restarted';

export interface Change {
  /** The latest answer; it stays until a newer one is there. */
  readonly looked: PlanLooked | null;
  /** How far the next one is, 0 to 1; null where nothing is being worked out. */
  readonly progress: number | null;
  readonly problem: string | null;
  /** What was looked at is this very plan, and not one before it. */
  readonly current: boolean;
  /** Ends the work on it; a change of the plan begins anew. */
  readonly cancel: () => void;
}

/** Longer than this the work on an older plan is not waited for. */
const LONG_MS = 1000;

const NOTHING = { looked: null, of: null, progress: null, problem: null };

interface Looking extends Omit<Change, 'cancel' | 'current'> {
  /** The plan that was looked at. */
  readonly of: PlanFile | null;
}

/** A plan played in a worker. A plan that changes meanwhile ends the work on the one before. */
export function useChange(
  circuit: CircuitFile | null,
  plan: PlanFile | null,
  done: readonly string[],
): Change {
  const worker = useRef<Restarted<ChangeAnswer> | null>(null);
  /** Asks about the plan as it stands, once more where a worker broke. */
  const ask = useRef<() => void>(() => undefined);
  /** Since when something is being worked out; null while nothing is. */
  const busy = useRef<number | null>(null);
  const latest = useRef(0);
  const asked = useRef<PlanFile | null>(null);
  const [state, setState] = useState<Looking>(NOTHING);
  const stop = useCallback(() => {
    worker.current?.end();
    busy.current = null;
  }, []);
  useEffect(() => stop, [stop]);
  useEffect(() => {
    latest.current += 1;
    if (!circuit || !plan) {
      setState(NOTHING);
      return;
    }
    // What is nearly done is waited for; what takes long is ended.
    if (busy.current !== null && performance.now() - busy.current > LONG_MS) stop();
    worker.current ??= new Restarted<ChangeAnswer>(
      () => new Worker(new URL('./change.worker.ts', import.meta.url)),
      (said) => {
        if (said.request !== latest.current) return !('progress' in said);
        if ('progress' in said) {
          setState((before) => ({ ...before, progress: said.progress }));
          return false;
        }
        busy.current = null;
        setState((before) =>
          'problem' in said
            ? { ...before, progress: null, problem: said.problem }
            : { looked: said.answer, of: asked.current, progress: null, problem: null },
        );
        return true;
      },
      (again) => {
        busy.current = null;
        if (again) ask.current();
        else setState((before) => ({ ...before, progress: null, problem: STOPPED }));
      },
    );
    const request = latest.current;
    const { current: playing } = worker;
    ask.current = () => {
      busy.current ??= performance.now();
      asked.current = plan;
      setState((before) => ({ ...before, progress: 0 }));
      playing.post({ request, circuit, plan, done } satisfies ChangeRequest);
    };
    ask.current();
  }, [circuit, plan, done, stop]);
  const cancel = useCallback(() => {
    stop();
    setState((before) => ({
      ...before,
      progress: null,
      problem: 'Stopped: what this plan shows is not worked out.',
    }));
  }, [stop]);
  return {
    looked: state.looked,
    progress: state.progress,
    problem: state.problem,
    current: state.of === plan,
    cancel,
  };
}
