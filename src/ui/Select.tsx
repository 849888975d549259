'use client';

import { ChevronDown } from 'lucide-react';
import type { ComponentProps } from 'react';
import { INPUT } from './controls';

/**
 * One of many by name. The list itself is the browser's: on a phone it is the system's own, at the thumb and as large as
 * the hand needs it, which no drawn list is; keyboard and screen reader come with it.
 */
export function Select({ className = '', children, ...rest }: ComponentProps<'select'>) {
  return (
    <span className="relative block min-w-0">
      <select className={`${INPUT} appearance-none truncate pr-10 ${className}`} {...rest}>
        {children}
      </select>
      <ChevronDown
        aria-hidden="true"
        className="pointer-events-none absolute top-1/2 right-3 size-5 -translate-y-1/2 text-copper"
      />
    </span>
  );
}
