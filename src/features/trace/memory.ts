'use client';

import { useSyncExternalStore } from 'react';
import * as drafts from '@/sync/drafts';

const draftKey = (jobId: string, testId: string) => `card ${jobId} ${testId}`;

/** What was typed on a card and not yet recorded; a card left and opened again has it. */
export function readDraft(jobId: string, testId: string): string {
  return drafts.readDraft(draftKey(jobId, testId)) ?? '';
}

export function writeDraft(jobId: string, testId: string, text: string): void {
  drafts.writeDraft(draftKey(jobId, testId), text === '' ? null : text);
}

const KEYS_OFF = 'keys off';
const listeners = new Set<() => void>();

/** Whether single-letter keys act on cards; remembered in this browser. */
export function useKeysOn(): [boolean, (on: boolean) => void] {
  const on = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => drafts.readDraft(KEYS_OFF) === null,
    () => true,
  );
  const set = (next: boolean) => {
    drafts.writeDraft(KEYS_OFF, next ? null : 'yes');
    for (const listener of listeners) listener();
  };
  return [on, set];
}
