'use client';

import { useEffect, useRef, useState } from 'react';
import type { CircuitFile } from '#core/format';
import type { FeedAnswer, FeedRequest, FoundFeeds } from './feedMessages';

type Question = Pick<FeedRequest, 'scene' | 'ask' | 'metres'>;

/** The feeds of a vehicle for a question; the latest answer stays until a newer one is there. Null where nothing is asked. */
export function useFeeds(
  circuits: readonly CircuitFile[],
  question: Question | null,
): { readonly found: FoundFeeds | null; readonly problem: string | null } {
  const worker = useRef<Worker | null>(null);
  const told = useRef<readonly CircuitFile[] | null>(null);
  const latest = useRef(0);
  const [answer, setAnswer] = useState<{ found: FoundFeeds | null; problem: string | null }>({
    found: null,
    problem: null,
  });
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
      told.current = null;
    },
    [],
  );
  useEffect(() => {
    latest.current += 1;
    if (question === null) {
      setAnswer({ found: null, problem: null });
      return;
    }
    if (!worker.current) {
      const made = new Worker(new URL('./feed.worker.ts', import.meta.url));
      made.onmessage = ({ data }: MessageEvent<FeedAnswer>) => {
        if (data.request !== latest.current) return;
        setAnswer((before) =>
          'problem' in data
            ? { found: before.found, problem: data.problem }
            : { found: data.answer, problem: null },
        );
      };
      made.onerror = () =>
        setAnswer({ found: null, problem: 'The computation stopped. Reload the page; nothing is lost.' });
      worker.current = made;
    }
    const news = told.current === circuits ? {} : { circuits };
    told.current = circuits;
    worker.current.postMessage({ ...news, request: latest.current, ...question } satisfies FeedRequest);
  }, [circuits, question]);
  return answer;
}
