'use client';

import { Toast as Radix } from 'radix-ui';
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react';

interface Said {
  readonly key: number;
  readonly words: string;
  readonly undo?: () => void;
}

const Say = createContext<(words: string, undo?: () => void) => void>(() => undefined);

/** Says for some seconds what was just done, above the thumb, without taking anything away; with `undo` it can be taken back. */
export function useSay() {
  return useContext(Say);
}

export function Toasts({ children }: { children: ReactNode }) {
  const [said, setSaid] = useState<readonly Said[]>([]);
  const say = useCallback((words: string, undo?: () => void) => {
    setSaid((all) => [
      ...all.slice(-1),
      { key: (all.at(-1)?.key ?? 0) + 1, words, ...(undo ? { undo } : {}) },
    ]);
  }, []);
  const gone = (key: number) => setSaid((all) => all.filter((one) => one.key !== key));
  return (
    <Say value={useMemo(() => say, [say])}>
      <Radix.Provider duration={6000} swipeDirection="down">
        {children}
        {said.map((one) => (
          <Radix.Root
            key={one.key}
            onOpenChange={(open) => (open ? undefined : gone(one.key))}
            className="flex items-center justify-between gap-3 rounded-lg border-2 border-ink bg-sheet px-3 py-2"
          >
            <Radix.Description>{one.words}</Radix.Description>
            {one.undo ? (
              <Radix.Action
                altText="Undo"
                onClick={one.undo}
                className="min-h-11 px-3 font-semibold underline underline-offset-4"
              >
                Undo
              </Radix.Action>
            ) : null}
          </Radix.Root>
        ))}
        <Radix.Viewport className="no-print fixed inset-x-2 bottom-20 z-50 grid gap-2 focus:outline-none lg:inset-x-auto lg:right-6 lg:bottom-6 lg:w-96" />
      </Radix.Provider>
    </Say>
  );
}
