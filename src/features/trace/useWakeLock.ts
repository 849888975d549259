'use client';

import { useEffect } from 'react';

/** Keeps the screen awake while the page is in front; browsers that cannot do it are left alone. */
export function useWakeLock(): void {
  useEffect(() => {
    if (!('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const take = () => {
      if (document.visibilityState !== 'visible') return;
      navigator.wakeLock.request('screen').then(
        (taken) => {
          if (gone) void taken.release();
          else lock = taken;
        },
        // A low battery or a setting may refuse it; the trace goes on all the same.
        () => undefined,
      );
    };
    take();
    document.addEventListener('visibilitychange', take);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', take);
      void lock?.release();
    };
  }, []);
}
