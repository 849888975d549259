'use client';

import { useEffect } from 'react';
import { Button } from '@/ui/controls';

export interface JustRecorded {
  /** The entry, which undoing strikes. */
  readonly id: string;
  /** "12.4 V at Fuse 31, load side". */
  readonly words: string;
}

/** So long it is offered to take the last entry back at once, milliseconds. */
const STAYS_MS = 6000;

/** For some seconds after an entry: that it was taken, where the thumb is, and the way back. */
export function Recorded({
  just,
  onUndo,
  onGone,
}: {
  just: JustRecorded;
  onUndo: () => void;
  onGone: () => void;
}) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: its time begins with each entry anew
  useEffect(() => {
    const timer = setTimeout(onGone, STAYS_MS);
    return () => clearTimeout(timer);
  }, [just.id]);
  return (
    <div
      role="status"
      data-testid="recorded"
      className="absolute inset-x-0 bottom-full flex items-center justify-between gap-2 border-t-2 border-good bg-sheet pl-3 leading-tight 2xl:static 2xl:mb-2 2xl:border-0 2xl:pl-0"
    >
      <span className="min-w-0 truncate">
        <span className="font-bold text-good">✓</span> {just.words}
      </span>
      <Button look="quiet" className="shrink-0" onClick={onUndo}>
        Undo
      </Button>
    </div>
  );
}
