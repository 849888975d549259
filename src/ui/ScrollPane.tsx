'use client';

import { ScrollArea } from 'radix-ui';
import type { ReactNode } from 'react';

/** A long list that scrolls by itself beside what it belongs to. `className` gives its height. */
export function ScrollPane({ className, children }: { className: string; children: ReactNode }) {
  return (
    <ScrollArea.Root type="auto" className={`overflow-hidden ${className}`}>
      {/* Whoever goes by keys comes here to move it. */}
      <ScrollArea.Viewport tabIndex={0} className="size-full pr-3 [&>div]:!block">
        {children}
      </ScrollArea.Viewport>
      <ScrollArea.Scrollbar orientation="vertical" className="flex w-2.5 touch-none bg-sunk p-px select-none">
        <ScrollArea.Thumb className="flex-1 rounded bg-soft" />
      </ScrollArea.Scrollbar>
    </ScrollArea.Root>
  );
}
