'use client';

import { type ChangeEvent, useRef, useState } from 'react';
import { FILE_LIMIT_BYTES, type Problem } from '#core/format';
import { postJson } from './post';
import { requestFor, type Tried } from './requestFor';

export type BroughtFile<Done> =
  | { readonly kind: 'done'; readonly answer: Done }
  | {
      readonly kind: 'problems';
      readonly name: string;
      readonly text: string;
      readonly problems: readonly Problem[];
    };

/**
 * Sends the text of a chosen file to a route that answers `{ ok: true, ... }` or `{ ok: false, problems }`. The same file
 * once more, after an answer that was lost, goes on with the same request.
 */
export function useBringFile<Done extends { readonly ok: true }>(
  url: string,
  onDone: (answer: Done) => void,
): {
  readonly outcome: BroughtFile<Done> | null;
  readonly busy: boolean;
  readonly bring: (event: ChangeEvent<HTMLInputElement>) => Promise<void>;
} {
  const [outcome, setOutcome] = useState<BroughtFile<Done> | null>(null);
  const [busy, setBusy] = useState(false);
  const request = useRef<Tried | null>(null);
  const bring = async (event: ChangeEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    const file = input.files?.[0];
    if (!file) return;
    const failed = (problems: readonly Problem[], text = '') =>
      setOutcome({ kind: 'problems', name: file.name, text, problems });
    if (file.size > FILE_LIMIT_BYTES) {
      input.value = '';
      const megabytes = (bytes: number) => String(Number((bytes / 1024 / 1024).toFixed(1)));
      const message = `The file has ${megabytes(file.size)} MB; at most ${megabytes(FILE_LIMIT_BYTES)} MB are read.`;
      return failed([{ code: 'too-large', path: '', message }]);
    }
    setBusy(true);
    setOutcome(null);
    const text = await file.text();
    request.current = requestFor(request.current, text);
    const posted = await postJson<Done | { ok?: false; problems: readonly Problem[] }>(url, {
      id: request.current.id,
      text,
    });
    input.value = '';
    setBusy(false);
    if (posted.kind === 'away') return failed([{ code: 'no-answer', path: '', message: posted.message }]);
    if (!posted.answer.ok) return failed(posted.answer.problems, text);
    // The same file once more is meant as another.
    request.current = null;
    setOutcome({ kind: 'done', answer: posted.answer });
    onDone(posted.answer);
  };
  return { outcome, busy, bring };
}
