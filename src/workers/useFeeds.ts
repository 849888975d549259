'use client';

import { useEffect, useRef, useState } from 'react';
import type { CircuitFile } from '#core/format';
import type { FeedAnswer, FeedRequest, FoundFeeds } from './feedMessages';
import { Restarted, STOPPED } from './restarted';

type Question = Pick<FeedRequest, 'scene' | 'ask' | 'metres'>;

/** The feeds of a vehicle for a question; the latest answer stays until a newer one is there. Null where nothing is asked. */
export function useFeeds(
  circuits: readonly CircuitFile[],
  question: Question | null,
): { readonly found: FoundFeeds | null; readonly problem: string | null } {
  const asking = useRef<{ readonly worker: Restarted<FeedAnswer>; ask: () => void } | null>(null);
  const told = useRef<readonly CircuitFile[] | null>(null);
  const latest = useRef(0);
  const [answer, setAnswer] = useState<{ found: FoundFeeds | null; problem: string | null }>({
    found: null,
    problem: null,
  });
  useEffect(
    () => () => {
      asking.current?.worker.end();
      asking.current = null;
      told.current = null;
    },
    [],
  );
  useEffect(() => {
    latest.current += 1;
    const request = latest.current;
    if (question === null) {
      setAnswer({ found: null, problem: null });
      return;
    }
    asking.current ??= {
      worker: new Restarted<FeedAnswer>(
        () => new Worker(new URL('./feed.worker.ts', import.meta.url)),
        (said) => {
          if (said.request !== latest.current) return true;
          setAnswer((before) =>
            'problem' in said
              ? { found: before.found, problem: said.problem }
              : { found: said.answer, problem: null },
          );
          return true;
        },
        (again) => {
          told.current = null;
          if (again) asking.current?.ask();
          else setAnswer({ found: null, problem: STOPPED });
        },
      ),
      ask: () => undefined,
    };
    const { worker } = asking.current;
    asking.current.ask = () => {
      const news = told.current === circuits ? {} : { circuits };
      told.current = circuits;
      worker.post({ ...news, request, ...question } satisfies FeedRequest);
    };
    asking.current.ask();
  }, [circuits, question]);
  return answer;
}
