'use client';

import { useEffect, useRef, useState } from 'react';
import type { CircuitFile } from '#core/format';
import type { ReadText } from '#core/notation';
import type { Remark } from '#core/safety';
import type { TextRead, TextRequest } from '@/workers/notationMessages';
import { Restarted, STOPPED } from '@/workers/restarted';

/** What a text says, and of which text that is: the one being typed is read a moment later, beside the page. */
export interface ReadOf extends ReadText {
  readonly of: string | null;
  readonly remarks: readonly Remark[];
  /** All remarks are there; those on a large circuit come a moment after its text. */
  readonly whole: boolean;
}

const NOTHING: ReadOf = { circuit: null, problems: [], of: null, remarks: [], whole: true };

/** Reads the notation in a worker, always the newest text next; however long it is, typing goes on. */
export function useReadText(text: string, base: CircuitFile | null): ReadOf {
  const worker = useRef<{ readonly held: Restarted<TextRead>; next: () => void } | null>(null);
  const told = useRef<CircuitFile | null>(null);
  const busy = useRef(false);
  const wanted = useRef<string | null>(null);
  const latest = useRef('');
  const [read, setRead] = useState<ReadOf>(NOTHING);

  useEffect(() => {
    const held = new Restarted<TextRead>(
      () => new Worker(new URL('../../workers/notation.worker.ts', import.meta.url)),
      (said) => {
        busy.current = false;
        setRead({ ...said.read, of: said.text, remarks: said.remarks, whole: said.whole });
        next();
        return true;
      },
      (again) => {
        busy.current = false;
        if (again) {
          wanted.current ??= latest.current;
          next();
          return;
        }
        const problem = { line: 1, from: 0, to: 0, message: STOPPED };
        setRead({ ...NOTHING, of: latest.current, problems: [problem] });
      },
    );
    const next = () => {
      if (busy.current || wanted.current === null) return;
      busy.current = true;
      latest.current = wanted.current;
      wanted.current = null;
      held.post({ text: latest.current, base: told.current } satisfies TextRequest);
    };
    worker.current = { held, next };
    busy.current = false;
    next();
    return () => {
      worker.current = null;
      held.end();
    };
  }, []);

  useEffect(() => {
    told.current = base;
    wanted.current = text;
    worker.current?.next();
  }, [text, base]);

  return read;
}
