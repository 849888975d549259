'use client';

import { useSyncExternalStore } from 'react';

const WIDE = '(min-width: 64rem)';

function onChange(changed: () => void) {
  const query = window.matchMedia(WIDE);
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
}

/** Whether two things stand beside each other here; before the page knows its width, that they do. */
export function useWide(): boolean {
  return useSyncExternalStore(
    onChange,
    () => window.matchMedia(WIDE).matches,
    () => true,
  );
}
