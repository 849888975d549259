'use client';

import { useEffect, useState } from 'react';
import { readInTab, writeInTab } from '@/sync/drafts';

/** Since when the key is off, as somebody said with a tap; milliseconds, null where nobody did. It outlives a reload. */
export function useKeyOff(jobId: string): readonly [number | null, (since: number | null) => void] {
  const name = `key off ${jobId}`;
  const [since, setSince] = useState<number | null>(null);
  useEffect(() => setSince(Number(readInTab(name)) || null), [name]);
  return [
    since,
    (next) => {
      writeInTab(name, next === null ? null : String(next));
      setSince(next);
    },
  ];
}

/** Seconds since a moment, counted on while it is looked at. */
export function useSecondsSince(since: number | null): number | null {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (since === null) return;
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [since]);
  return since === null ? null : Math.max(0, Math.round((now - since) / 1000));
}

export function clockWords(seconds: number): string {
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
