'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { CircuitFile, PlanFile } from '#core/format';
import type { ChangeAnswer, ChangeRequest, PlanLooked } from './changeMessages';

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
  const worker = useRef<Worker | null>(null);
  /** Since when something is being worked out; null while nothing is. */
  const busy = useRef<number | null>(null);
  const latest = useRef(0);
  const asked = useRef<PlanFile | null>(null);
  const [state, setState] = useState<Looking>(NOTHING);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
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
    if (!worker.current) {
      const made = new Worker(new URL('./change.worker.ts', import.meta.url));
      made.onmessage = ({ data }: MessageEvent<ChangeAnswer>) => {
        if (data.request !== latest.current) return;
        if ('progress' in data) {
          setState((before) => ({ ...before, progress: data.progress }));
          return;
        }
        busy.current = null;
        setState((before) =>
          'problem' in data
            ? { ...before, progress: null, problem: data.problem }
            : { looked: data.answer, of: asked.current, progress: null, problem: null },
        );
      };
      made.onerror = () => {
        // One that was ended may still say that it was.
        if (worker.current !== made) return;
        stop();
        setState((before) => ({
          ...before,
          progress: null,
          problem: 'The computation stopped. Reload the page; nothing is lost.',
        }));
      };
      worker.current = made;
    }
    busy.current ??= performance.now();
    asked.current = plan;
    setState((before) => ({ ...before, progress: 0 }));
    worker.current.postMessage({ request: latest.current, circuit, plan, done } satisfies ChangeRequest);
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
