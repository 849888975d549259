'use client';

import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './controls';

export interface DialogProps {
  readonly title: string;
  readonly says?: string;
  readonly open: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** What is shown of a dialog; the one that is asked for is `Dialog`. */
export function DialogSheet({ title, says, open, onClose, children }: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => (next ? null : onClose())}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Radix.Content
          {...(says === undefined ? { 'aria-describedby': undefined } : {})}
          className="fixed inset-x-0 bottom-0 z-50 mx-auto max-h-[88dvh] max-w-xl overflow-auto rounded-t-lg border-2 border-ink bg-sheet p-4 lg:inset-x-3 lg:top-[8dvh] lg:bottom-auto lg:rounded-lg lg:p-5"
        >
          <Radix.Title className="text-xl font-bold">{title}</Radix.Title>
          {says === undefined ? null : <Radix.Description className="text-soft">{says}</Radix.Description>}
          <div className="mt-2">{children}</div>
          <Radix.Close asChild>
            <Button className="mt-4">Close</Button>
          </Radix.Close>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
