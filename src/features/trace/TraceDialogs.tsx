'use client';

import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from '@/ui/controls';

const KEYS = [
  ['0–9 . , − m OL', 'into the entry, on a volts or ohms card'],
  ['l  d  o', 'lit, dim, off, on a lamp card'],
  ['w  k  d  c', 'works, weak, dead, comes and goes'],
  ['Enter', 'records'],
  ['u', 'corrects the last reading (entry empty)'],
  ['n', 'another test (entry empty)'],
  ['?', 'this list (entry empty)'],
] as const;

/** Something beside the card, over it until it is closed. */
export function TraceDialog({
  title,
  says,
  open,
  onClose,
  children,
}: {
  title: string;
  says?: string;
  open: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => (next ? null : onClose())}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Dialog.Content
          {...(says === undefined ? { 'aria-describedby': undefined } : {})}
          className="fixed inset-x-3 top-[8dvh] z-50 mx-auto max-h-[84dvh] max-w-xl overflow-auto rounded-lg border-2 border-ink bg-sheet p-5"
        >
          <Dialog.Title className="text-xl font-bold">{title}</Dialog.Title>
          {says === undefined ? null : <Dialog.Description className="text-soft">{says}</Dialog.Description>}
          <div className="mt-2">{children}</div>
          <Dialog.Close asChild>
            <Button className="mt-4">Close</Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** The keys of a card, and the switch that turns the single letters off. */
export function KeyList({ keysOn, onKeysOn }: { keysOn: boolean; onKeysOn: (on: boolean) => void }) {
  return (
    <>
      <dl className="mt-3 grid grid-cols-[9rem_1fr] gap-y-2">
        {KEYS.map(([key, does]) => (
          <div key={key} className="contents">
            <dt className="reading font-bold">{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-4 flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          checked={keysOn}
          onChange={(event) => onKeysOn(event.target.checked)}
          className="size-6 accent-(--copper)"
        />
        Single-letter keys on
      </label>
    </>
  );
}
