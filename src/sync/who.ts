'use client';

/** Who works in this browser, for which shop and in which zone: as the server last said, also while it is away. */
import { useSyncExternalStore } from 'react';
import type { Hand } from '#core/format';
import { readDraft, writeDraft } from './drafts';

export interface Who {
  readonly personName: string;
  readonly shopName: string;
  readonly town: string;
  /** Zone of the workshop, as `Europe/Dublin`. */
  readonly zone: string;
  /** What the person has at hand and is used to; not said by an older answer. */
  readonly hand?: Hand;
}

const KEPT = 'who';
const listeners = new Set<() => void>();
/** Undefined while the server is asked for the first time in this browser; null where it could not say. */
let known: Who | null | undefined;
let asked = false;

function read(): Who | null | undefined {
  known ??= kept();
  return known;
}

function kept(): Who | null | undefined {
  try {
    const text = readDraft(KEPT);
    const who = text === null ? known : (JSON.parse(text) as Who);
    if (who) document.documentElement.dataset.zone = who.zone;
    return who;
  } catch {
    return known;
  }
}

/** The name that stands beside an entry until the server has put it there. */
export function whoIsHere(): string {
  return (typeof window === 'undefined' ? null : read())?.personName ?? 'you';
}

async function ask(): Promise<void> {
  const told = await fetch('/api/me').then(
    async (response) => (response.ok ? ((await response.json()) as Who) : null),
    () => null,
  );
  const before = read();
  if (told === null ? before !== undefined : JSON.stringify(told) === JSON.stringify(before)) return;
  known = told;
  if (told) {
    document.documentElement.dataset.zone = told.zone;
    writeDraft(KEPT, JSON.stringify(told));
  }
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  if (!asked) void ask();
  asked = true;
  return () => listeners.delete(listener);
}

/** Asks the server again: something about the person has changed. */
export function askWhoAgain(): Promise<void> {
  return ask();
}

/** Undefined until it is known here; null where this browser was never told and the server does not say it now. */
export function useWho(): Who | null | undefined {
  return useSyncExternalStore(subscribe, read, () => undefined);
}
