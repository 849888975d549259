'use client';

import { useEffect, useState } from 'react';
import { onItsWay, whenShown } from './atRest';

/** So long until what could not be fetched is fetched again, milliseconds. */
const RETRY_MS = 3000;

const here = new WeakMap<() => Promise<unknown>, unknown>();

/**
 * A part of the program that is fetched when it is wanted, or some time after all that is looked at is there, so that it is there when
 * the signal goes; null until it is. `load` is one function of its module and not made anew. A server that is away is
 * asked again.
 */
export function useLater<T>(load: () => Promise<T>, wanted = true, afterMs = 300): T | null {
  const [, setCount] = useState(0);
  useEffect(() => {
    if (here.has(load)) {
      // It may have come between the drawing and this.
      setCount((count) => count + 1);
      return;
    }
    let gone = false;
    let timer: ReturnType<typeof setTimeout>;
    const end = onItsWay(wanted ? 'looked at' : 'ahead');
    const get = () =>
      load().then(
        (loaded) => {
          here.set(load, loaded);
          if (!gone) setCount((count) => count + 1);
          end();
        },
        () => {
          if (!gone) timer = setTimeout(get, RETRY_MS);
          // A server that is away keeps nothing else waiting.
          end();
        },
      );
    if (wanted) void get();
    else {
      void whenShown().then(() => {
        if (!gone) timer = setTimeout(get, afterMs);
      });
    }
    return () => {
      gone = true;
      clearTimeout(timer);
      end();
    };
  }, [load, wanted, afterMs]);
  return (here.get(load) as T | undefined) ?? null;
}
