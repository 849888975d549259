'use client';

import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { FunctionStateName } from '#core/format';
import { STATE_WORDS } from '#core/log';

const CHOICES: readonly { state: FunctionStateName; mark: string }[] = [
  { state: 'works', mark: '●' },
  { state: 'weak', mark: '◐' },
  { state: 'dead', mark: '○' },
  { state: 'on-when-off', mark: '!' },
  { state: 'comes-and-goes', mark: '~' },
  { state: 'not-tried', mark: '–' },
];

function markOf(state: FunctionStateName): string {
  return CHOICES.find((one) => one.state === state)?.mark ?? '';
}

/** What is expected of one function in one setting, and what was seen of it; a tap says what is seen. */
export function SeenCell({
  functionName,
  conditionName,
  should,
  seen,
  complaint,
  onSay,
}: {
  functionName: string;
  conditionName: string;
  /** What a sound circuit does there; undefined while it is not worked out. */
  should: 'works' | 'weak' | 'dead' | undefined;
  seen: FunctionStateName | undefined;
  /** It is what the job is about. */
  complaint: boolean;
  onSay: (state: FunctionStateName) => void;
}) {
  const [open, setOpen] = useState(false);
  const differs = seen !== undefined && seen !== 'not-tried' && should !== undefined && seen !== should;
  const shouldWords = should === undefined ? '…' : should === 'dead' ? 'off' : 'works';
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`${functionName}, ${conditionName}: ${seen ? STATE_WORDS[seen] : 'not tried'}, expected ${shouldWords}`}
        className={`flex min-h-12 w-24 flex-col items-start justify-center rounded-md border-2 px-2 text-left text-sm leading-tight ${
          seen
            ? differs
              ? 'border-caution bg-caution-wash'
              : 'border-ink bg-sheet'
            : should === 'dead'
              ? 'border-line/60 border-dotted'
              : 'border-soft border-dashed'
        } ${complaint ? 'outline-2 outline-copper outline-offset-1' : ''}`}
      >
        {seen ? (
          <span className="font-bold">
            <span aria-hidden="true">{markOf(seen)}</span>{' '}
            {seen === 'dead' && should === 'dead' ? 'off' : STATE_WORDS[seen]}
            {differs ? (
              <span className="block font-normal">
                expected {should === 'dead' ? 'off' : STATE_WORDS[should]}
              </span>
            ) : null}
          </span>
        ) : (
          <span className={should === 'dead' ? 'text-soft' : 'font-semibold'}>
            {should === 'dead' ? 'off' : should === undefined ? '…' : 'should work'}
          </span>
        )}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          collisionPadding={8}
          className="z-40 w-64 rounded-lg border-2 border-ink bg-sheet p-2 shadow-lg"
        >
          <p className="px-1 pb-1 text-sm text-soft">
            {functionName} · {conditionName}
          </p>
          {CHOICES.map(({ state, mark }) => (
            <button
              key={state}
              type="button"
              onClick={() => {
                onSay(state);
                setOpen(false);
              }}
              className="flex min-h-11 w-full items-center gap-3 rounded px-2 text-left font-semibold hover:bg-sunk"
            >
              <span aria-hidden="true" className="w-5 text-center">
                {mark}
              </span>
              {state === 'dead' && should === 'dead' ? 'off, as it should be' : STATE_WORDS[state]}
            </button>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
