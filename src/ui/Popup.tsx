'use client';

import { Popover } from 'radix-ui';
import type { ReactNode, RefObject } from 'react';

/** A small sheet at what it belongs to, until something else is tapped. */
export function Popup({
  at,
  onClose,
  label,
  children,
}: {
  /** What it was opened from; the focus goes back there. */
  at: RefObject<HTMLElement | null>;
  onClose: () => void;
  label: string;
  children: ReactNode;
}) {
  return (
    <Popover.Root open onOpenChange={(open) => (open ? undefined : onClose())}>
      <Popover.Anchor virtualRef={at as RefObject<HTMLElement>} />
      <Popover.Portal>
        <Popover.Content
          aria-label={label}
          sideOffset={4}
          collisionPadding={8}
          onInteractOutside={(event) => {
            // The same button takes it away by itself.
            if (event.target instanceof Node && at.current?.contains(event.target)) event.preventDefault();
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            at.current?.focus();
          }}
          className="z-50 w-72 max-w-[calc(100vw-1rem)] rounded-lg border-2 border-ink bg-sheet p-3"
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
