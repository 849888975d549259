'use client';

import { Moon, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';
import { isTheme, type Theme } from './theme';

/** One tap between the two; until the first tap the system decides. `theme` is null also where the document knows it. */
export function ThemeSwitch({ theme }: { theme: Theme | null }) {
  const [current, setCurrent] = useState(theme);
  useEffect(() => {
    const there = document.documentElement.dataset.theme;
    if (isTheme(there)) setCurrent(there);
  }, []);
  const change = () => {
    const dark =
      current === 'footwell' ||
      (current === null && window.matchMedia('(prefers-color-scheme: dark)').matches);
    const next: Theme = dark ? 'daylight' : 'footwell';
    document.documentElement.dataset.theme = next;
    // biome-ignore lint/suspicious/noDocumentCookie: the cookie store interface is not in every browser yet
    document.cookie = `theme=${next}; path=/; max-age=31536000; samesite=strict`;
    setCurrent(next);
  };
  return (
    <button
      type="button"
      onClick={change}
      className="flex min-h-14 min-w-12 flex-col items-center justify-center gap-0.5 px-1 text-xs sm:text-sm lg:min-w-16 lg:px-2"
    >
      {current === 'footwell' ? (
        <Sun aria-hidden="true" className="size-6" strokeWidth={1.8} />
      ) : (
        <Moon aria-hidden="true" className="size-6" strokeWidth={1.8} />
      )}
      {current === 'footwell' ? 'Daylight' : 'Footwell'}
    </button>
  );
}
