'use client';

import { useCallback, useSyncExternalStore } from 'react';
import type { Turns } from '#core/panel/turn';

const listeners = new Set<() => void>();
const keyOf = (panelId: string) => `every-trace turn ${panelId}`;

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function stored(panelId: string): Turns {
  const value = Number(localStorage.getItem(keyOf(panelId)));
  return (value >= 1 && value <= 3 ? Math.trunc(value) : 0) as Turns;
}

/** How a box is being held: remembered in this browser, the same wherever the box is drawn. */
export function useTurns(panelId: string): [Turns, (turns: Turns) => void] {
  const turns = useSyncExternalStore(
    subscribe,
    () => stored(panelId),
    () => 0 as Turns,
  );
  const set = useCallback(
    (next: Turns) => {
      localStorage.setItem(keyOf(panelId), String(next));
      for (const listener of listeners) listener();
    },
    [panelId],
  );
  return [turns, set];
}
