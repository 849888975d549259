'use client';

import { useEffect, useSyncExternalStore } from 'react';
import * as drafts from '@/sync/drafts';

const draftKey = (jobId: string, testId: string) => `card ${jobId} ${testId}`;

/** What was typed on a card and not yet recorded; a card left and opened again has it. */
export function readDraft(jobId: string, testId: string): string {
  return drafts.readDraft(draftKey(jobId, testId)) ?? '';
}

export function writeDraft(jobId: string, testId: string, text: string): void {
  drafts.writeDraft(draftKey(jobId, testId), text === '' ? null : text);
}

const listeners = new Set<() => void>();

/** Something that is on or off, remembered in this browser under its name. */
function useRemembered(name: string): [boolean, (on: boolean) => void] {
  const on = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => drafts.readDraft(name) !== null,
    () => false,
  );
  const set = (next: boolean) => {
    drafts.writeDraft(name, next ? 'yes' : null);
    for (const listener of listeners) listener();
  };
  return [on, set];
}

/** Whether single-letter keys act on cards. */
export function useKeysOn(): [boolean, (on: boolean) => void] {
  const [off, setOff] = useRemembered('keys off');
  return [!off, (on) => setOff(!on)];
}

/** Whether the answers lie for the left thumb; the page carries it for its styles. */
export function useLeftHand(): [boolean, (left: boolean) => void] {
  const [left, setLeft] = useRemembered('left hand');
  useEffect(() => {
    document.documentElement.dataset.side = left ? 'left' : '';
  }, [left]);
  return [left, setLeft];
}
