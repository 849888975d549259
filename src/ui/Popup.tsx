'use client';

import { Popover, Tooltip } from 'radix-ui';
import type { ReactNode } from 'react';

/** A small sheet at what it belongs to, until something else is tapped. */
export function Popup({
  trigger,
  open,
  onOpen,
  label,
  children,
}: {
  /** One button. */
  trigger: ReactNode;
  open?: boolean;
  onOpen?: (open: boolean) => void;
  label: string;
  children: ReactNode;
}) {
  return (
    <Popover.Root
      {...(open === undefined ? {} : { open })}
      {...(onOpen === undefined ? {} : { onOpenChange: onOpen })}
    >
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label={label}
          sideOffset={4}
          collisionPadding={8}
          className="z-50 w-72 max-w-[calc(100vw-1rem)] rounded-lg border-2 border-ink bg-sheet p-3"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

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
