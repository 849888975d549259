'use client';

import { useCallback, useSyncExternalStore } from 'react';
import type { Turns } from '#core/panel';
import { readDraft, writeDraft } from '@/sync/drafts';

const listeners = new Set<() => void>();
const keyOf = (vehicleId: string, panelId: string) => `turn ${vehicleId} ${panelId}`;

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function stored(key: string): Turns {
  const value = Number(readDraft(key));
  return (value >= 1 && value <= 3 ? Math.trunc(value) : 0) as Turns;
}

/**
 * How a box of a vehicle is being held: remembered in this browser, the same wherever the box is drawn. Boxes of other
 * vehicles may have the same id, and are held as they are held.
 */
export function useTurns(vehicleId: string, panelId: string): [Turns, (turns: Turns) => void] {
  const key = keyOf(vehicleId, panelId);
  const turns = useSyncExternalStore(
    subscribe,
    () => stored(key),
    () => 0 as Turns,
  );
  const set = useCallback(
    (next: Turns) => {
      writeDraft(key, String(next));
      for (const listener of listeners) listener();
    },
    [key],
  );
  return [turns, set];
}
