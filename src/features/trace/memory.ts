'use client';

import { useSyncExternalStore } from 'react';

const draftKey = (jobId: string, testId: string) => `every-trace draft ${jobId} ${testId}`;

/** What was typed on a card and not yet recorded; a card left and opened again has it. */
export function readDraft(jobId: string, testId: string): string {
  return localStorage.getItem(draftKey(jobId, testId)) ?? '';
}

export function writeDraft(jobId: string, testId: string, text: string): void {
  if (text === '') localStorage.removeItem(draftKey(jobId, testId));
  else localStorage.setItem(draftKey(jobId, testId), text);
}

const KEYS_OFF = 'every-trace keys off';
const listeners = new Set<() => void>();

/** Whether single-letter keys act on cards; remembered in this browser. */
export function useKeysOn(): [boolean, (on: boolean) => void] {
  const on = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => localStorage.getItem(KEYS_OFF) === null,
    () => true,
  );
  const set = (next: boolean) => {
    if (next) localStorage.removeItem(KEYS_OFF);
    else localStorage.setItem(KEYS_OFF, 'yes');
    for (const listener of listeners) listener();
  };
  return [on, set];
}
