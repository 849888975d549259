'use client';

import { useRef } from 'react';

/** Plain data that stays the same object for as long as it says the same; compared only where it is another object. */
export function useEqual<T>(value: T): T {
  const kept = useRef<{ raw: T; text: string; value: T } | null>(null);
  if (kept.current && Object.is(kept.current.raw, value)) return kept.current.value;
  const text = JSON.stringify(value);
  if (kept.current?.text === text) kept.current.raw = value;
  else kept.current = { raw: value, text, value };
  return kept.current.value;
}
