'use client';

import { useEffect, useRef, useState } from 'react';
import type { CircuitFile } from '#core/format';
import type { ReadText } from '#core/notation';
import type { Remark } from '#core/safety';
import type { TextRead, TextRequest } from '@/workers/notationMessages';

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
  const worker = useRef<Worker | null>(null);
  const told = useRef<CircuitFile | null>(null);
  const busy = useRef(false);
  const wanted = useRef<string | null>(null);
  const [read, setRead] = useState<ReadOf>(NOTHING);

  useEffect(() => {
    const made = new Worker(new URL('../../workers/notation.worker.ts', import.meta.url));
    worker.current = made;
    busy.current = false;
    const next = () => {
      if (busy.current || wanted.current === null) return;
      busy.current = true;
      const request: TextRequest = { text: wanted.current, base: told.current };
      wanted.current = null;
      made.postMessage(request);
    };
    made.onmessage = ({ data }: MessageEvent<TextRead>) => {
      busy.current = false;
      setRead({ ...data.read, of: data.text, remarks: data.remarks, whole: data.whole });
      next();
    };
    made.addEventListener('wanted', next);
    next();
    return () => {
      worker.current = null;
      made.terminate();
    };
  }, []);

  useEffect(() => {
    told.current = base;
    wanted.current = text;
    worker.current?.dispatchEvent(new Event('wanted'));
  }, [text, base]);

  return read;
}
