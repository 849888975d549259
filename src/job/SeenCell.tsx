'use client';

import { useRef, useState } from 'react';
import type { FunctionStateName } from '#core/format';
import { STATE_WORDS } from '#core/log';
import { Button } from '@/ui/controls';
import { Dialog } from '@/ui/Dialog';
import { useLater } from '@/ui/useLater';

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

const loadPopup = () => import('@/ui/Popup').then((loaded) => loaded.Popup);

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
  const button = useRef<HTMLButtonElement>(null);
  const Popup = useLater(loadPopup, open);
  const differs = seen !== undefined && seen !== 'not-tried' && should !== undefined && seen !== should;
  const shouldWords = should === undefined ? '…' : should === 'dead' ? 'off' : 'works';
  return (
    <>
      <button
        ref={button}
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
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
      </button>
      {open && Popup ? (
        <Popup at={button} onClose={() => setOpen(false)} label={`${functionName}, ${conditionName}`}>
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
        </Popup>
      ) : null}
    </>
  );
}

const SHORT = ['works', 'weak', 'dead'] as const;

/** The same as a row in the hand: the three usual answers at once, the others behind a fourth. */
export function FunctionRow({
  name,
  should,
  seen,
  complaint,
  onSay,
}: {
  name: string;
  should: 'works' | 'weak' | 'dead' | undefined;
  seen: FunctionStateName | undefined;
  complaint: boolean;
  onSay: (state: FunctionStateName) => void;
}) {
  const [more, setMore] = useState(false);
  const word = (state: FunctionStateName) =>
    state === 'dead' && should === 'dead' ? 'off' : STATE_WORDS[state];
  const rare = CHOICES.filter(({ state }) => !SHORT.some((one) => one === state));
  return (
    <li className="py-2">
      <p className="flex items-baseline justify-between gap-2 leading-tight">
        <span className={complaint ? 'font-bold text-copper' : 'font-semibold'}>{name}</span>
        <span className="shrink-0 text-sm text-soft">
          {should === undefined ? '…' : `expected ${should === 'dead' ? 'off' : 'to work'}`}
        </span>
      </p>
      <div className="mt-1 grid grid-cols-[1fr_1fr_1fr_3.5rem] gap-1.5">
        {SHORT.map((state) => (
          <button
            key={state}
            type="button"
            aria-pressed={seen === state}
            aria-label={`${name}: ${word(state)}`}
            onClick={() => onSay(state)}
            className="min-h-12 rounded-md border-2 border-line bg-sheet leading-tight aria-pressed:border-copper aria-pressed:bg-copper-wash aria-pressed:font-bold"
          >
            <span aria-hidden="true">{markOf(state)}</span> {word(state)}
          </button>
        ))}
        <Button aria-label={`${name}: something else`} onClick={() => setMore(true)} className="px-0">
          <span className="text-lg leading-none font-bold">
            {rare.some(({ state }) => state === seen) ? markOf(seen!) : '…'}
          </span>
        </Button>
      </div>
      <Dialog title={name} open={more} onClose={() => setMore(false)}>
        <div className="grid gap-2">
          {rare.map(({ state, mark }) => (
            <Button
              key={state}
              aria-pressed={seen === state}
              onClick={() => {
                onSay(state);
                setMore(false);
              }}
            >
              <span aria-hidden="true">{mark}</span> {STATE_WORDS[state]}
            </Button>
          ))}
        </div>
      </Dialog>
    </li>
  );
}
