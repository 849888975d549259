'use client';

import { useCallback, useLayoutEffect, useRef } from 'react';

/** A function that stays the same for what it is handed to, and always does what it does now. */
export function useStable<A extends readonly unknown[], R>(now: (...args: A) => R): (...args: A) => R {
  const latest = useRef(now);
  useLayoutEffect(() => {
    latest.current = now;
  });
  return useCallback((...args: A) => latest.current(...args), []);
}
