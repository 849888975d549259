'use client';

import { useMemo } from 'react';

/** A small value of plain data that stays the same object for as long as it says the same. */
export function useEqual<T>(value: T): T {
  const text = JSON.stringify(value);
  return useMemo(() => JSON.parse(text) as T, [text]);
}
