'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { CircuitFile } from '#core/format';
import type { CircuitAnswer, CircuitAnswers, CircuitQuestion, CircuitRequest } from './circuitMessages';

type Asked<Q extends CircuitQuestion> = CircuitAnswers[Q['ask']];
export type Ask = <Q extends CircuitQuestion>(question: Q) => Promise<Asked<Q>>;

/** A worker that holds one circuit and answers questions about it; what it cannot work out is thrown in words. */
export function useCircuitWorker(circuit: CircuitFile | null): Ask {
  const worker = useRef<Worker | null>(null);
  const told = useRef<CircuitFile | null>(null);
  const latest = useRef(0);
  const waiting = useRef(new Map<number, (answer: CircuitAnswer) => void>());
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
      told.current = null;
      waiting.current.clear();
    },
    [],
  );
  // Made with the first question: what is shown inside asks before whoever holds the worker is through mounting.
  const start = useCallback((): Worker => {
    if (worker.current) return worker.current;
    const made = new Worker(new URL('./circuit.worker.ts', import.meta.url));
    made.onmessage = ({ data }: MessageEvent<CircuitAnswer>) => {
      waiting.current.get(data.request)?.(data);
      waiting.current.delete(data.request);
    };
    made.onerror = () => {
      const problem = 'The computation stopped. Reload the page; nothing that was entered is lost.';
      for (const [request, answer] of waiting.current) answer({ request, problem });
      waiting.current.clear();
    };
    worker.current = made;
    return made;
  }, []);
  return useCallback(
    <Q extends CircuitQuestion>(question: Q) =>
      new Promise<Asked<Q>>((resolve, reject) => {
        if (!circuit) return;
        const made = start();
        latest.current += 1;
        const request = latest.current;
        waiting.current.set(request, (said) =>
          'problem' in said ? reject(new Error(said.problem)) : resolve(said.answer as Asked<Q>),
        );
        const news = told.current === circuit ? {} : { circuit };
        told.current = circuit;
        made.postMessage({ ...news, request, question } satisfies CircuitRequest);
      }),
    [circuit, start],
  );
}

/** The latest answer to a question; older answers never overwrite newer ones. Null until the first is there. */
export function useAnswer<Q extends CircuitQuestion>(
  ask: Ask,
  question: Q | null,
): { answer: Asked<Q> | null; problem: string | null } {
  const [state, setState] = useState<{ answer: Asked<Q> | null; problem: string | null }>({
    answer: null,
    problem: null,
  });
  useEffect(() => {
    if (!question) return;
    let old = false;
    ask(question).then(
      (answer) => {
        if (!old) setState({ answer, problem: null });
      },
      (error: Error) => {
        if (!old) setState((before) => ({ ...before, problem: error.message }));
      },
    );
    return () => {
      old = true;
    };
  }, [ask, question]);
  return state;
}
