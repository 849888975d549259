'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { CircuitFile } from '#core/format';
import type { CircuitAnswer, CircuitAnswers, CircuitQuestion, CircuitRequest } from './circuitMessages';
import { Restarted, STOPPED } from './restarted';

type Asked<Q extends CircuitQuestion> = CircuitAnswers[Q['ask']];
export type Ask = <Q extends CircuitQuestion>(question: Q) => Promise<Asked<Q>>;

interface Open {
  readonly question: CircuitQuestion;
  readonly answer: (said: CircuitAnswer) => void;
}

/** A worker that holds one circuit, and the questions to it that are not answered yet. */
class CircuitAsked {
  private circuit: CircuitFile | null = null;
  private told: CircuitFile | null = null;
  private latest = 0;
  private readonly open = new Map<number, Open>();
  private readonly worker = new Restarted<CircuitAnswer>(
    () => new Worker(new URL('./circuit.worker.ts', import.meta.url)),
    (said) => {
      this.open.get(said.request)?.answer(said);
      return this.open.delete(said.request);
    },
    (again) => {
      this.told = null;
      if (again) {
        for (const [request, { question }] of this.open) this.post(request, question);
        return;
      }
      for (const [request, { answer }] of this.open) answer({ request, problem: STOPPED });
      this.open.clear();
    },
  );

  ask(circuit: CircuitFile, question: CircuitQuestion, answer: Open['answer']): void {
    this.circuit = circuit;
    this.latest += 1;
    this.open.set(this.latest, { question, answer });
    this.post(this.latest, question);
  }

  end(): void {
    this.worker.end();
    this.told = null;
    this.open.clear();
  }

  private post(request: number, question: CircuitQuestion): void {
    const news = this.told === this.circuit ? {} : { circuit: this.circuit! };
    this.told = this.circuit;
    this.worker.post({ ...news, request, question } satisfies CircuitRequest);
  }
}

/** Answers to questions about one circuit, worked out beside the page; what cannot be worked out is thrown in words. */
export function useCircuitWorker(circuit: CircuitFile | null): Ask {
  const asked = useRef<CircuitAsked | null>(null);
  useEffect(
    () => () => {
      asked.current?.end();
      asked.current = null;
    },
    [],
  );
  return useCallback(
    <Q extends CircuitQuestion>(question: Q) =>
      new Promise<Asked<Q>>((resolve, reject) => {
        if (!circuit) return;
        // Made with the first question: what is shown inside asks before whoever holds the worker is through mounting.
        asked.current ??= new CircuitAsked();
        asked.current.ask(circuit, question, (said) =>
          'problem' in said ? reject(new Error(said.problem)) : resolve(said.answer as Asked<Q>),
        );
      }),
    [circuit],
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
