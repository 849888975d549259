'use client';

import { Tooltip } from 'radix-ui';
import type { ReactNode } from 'react';

/** What a sign means, for those who rest on it or come to it by key; never the only place where something is said. */
export function Hint({ says, children }: { says: string; children: ReactNode }) {
  return (
    <Tooltip.Provider delayDuration={400}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={6}
            collisionPadding={8}
            className="z-50 max-w-64 rounded border border-ink bg-ink px-2 py-1 text-sm text-paper"
          >
            {says}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
