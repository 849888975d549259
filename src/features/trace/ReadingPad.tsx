'use client';

import { Delete } from 'lucide-react';
import { type KeyboardEvent, type ReactNode, useEffect, useLayoutEffect, useRef } from 'react';
import type { AnswerKind, NumberAnswer, WordAnswer } from '#core/diagnosis';
import type { ReadingValue } from '#core/format';
import { parseReading, type Unit } from '#core/quantity';
import { Button, Problem } from '@/ui/controls';

export interface Answer {
  readonly value: ReadingValue;
  readonly raw: string;
  /** False when key and switches were not seen to stand as shown. */
  readonly setUpSeen?: boolean;
}

const WORD_ANSWERS = {
  lamp: [
    { key: 'l', word: 'Lit', sign: '●', value: { lamp: 'lit' } },
    { key: 'd', word: 'Dim', sign: '◐', value: { lamp: 'dim' } },
    { key: 'o', word: 'Off', sign: '○', value: { lamp: 'off' } },
  ],
  function: [
    { key: 'w', word: 'Works', value: { state: 'works' } },
    { key: 'k', word: 'Weak', value: { state: 'weak' } },
    { key: 'd', word: 'Dead', value: { state: 'dead' } },
    { key: 'c', word: 'Comes and goes', value: { state: 'comes-and-goes' } },
  ],
  click: [
    { key: 'c', word: 'Clicks', value: { click: 'clicks' } },
    { key: 's', word: 'Silent', value: { click: 'silent' } },
    { key: 'r', word: 'Chatters', value: { click: 'chatters' } },
  ],
  sound: [
    { key: 's', word: 'Silent', value: { sound: 'silent' } },
    { key: 'c', word: 'A click', value: { sound: 'clicks' } },
    { key: 'r', word: 'Chatters', value: { sound: 'chatters' } },
    { key: 'h', word: 'Hums', value: { sound: 'hums' } },
  ],
  look: [
    { key: 'w', word: 'Whole', value: { look: 'whole' } },
    { key: 'b', word: 'Broken', value: { look: 'broken' } },
  ],
  wiggle: [
    { key: 'c', word: 'Changes', value: { wiggle: 'changes' } },
    { key: 'x', word: 'No change', value: { wiggle: 'no change' } },
  ],
} as const satisfies Record<
  WordAnswer,
  readonly { key: string; word: string; sign?: string; value: ReadingValue }[]
>;

/** On a card in millivolts a bare number is millivolts; written units count as written. */
function withUnit(text: string, kind: AnswerKind): string {
  return kind === 'millivolts' && /^\s*[+−–-]?[\d.,]+\s*$/.test(text) ? `${text.trim()}m` : text;
}

/** What a number entry means on a card of this kind, or why it cannot be read. */
export function readAnswer(text: string, kind: AnswerKind): { answer: Answer } | { problem: string } {
  const unit = isNumber(kind) ? UNIT_OF[kind] : 'V';
  const parsed = parseReading(withUnit(text, kind), unit);
  if (!parsed.ok) return { problem: parsed.message };
  if ('overLimit' in parsed) return { answer: { value: { overLimit: true }, raw: text.trim() } };
  const values: Readonly<Record<Unit, ReadingValue>> = {
    V: { volts: parsed.value },
    Ω: { ohms: parsed.value },
    A: { amps: parsed.value },
  };
  const value = values[unit];
  return { answer: { value, raw: text.trim() } };
}

const UNIT_OF: Readonly<Record<NumberAnswer, Unit>> = {
  volts: 'V',
  millivolts: 'V',
  ohms: 'Ω',
  amps: 'A',
};

function isNumber(kind: AnswerKind): kind is NumberAnswer {
  return kind in UNIT_OF;
}

const UNIT_NAMES: Readonly<Record<Unit, string>> = { V: 'volts', Ω: 'ohms', A: 'amperes' };

export function ReadingPad({
  kind,
  draft,
  problem,
  onDraft,
  onAnswer,
  onKey,
  keysOn,
}: {
  kind: AnswerKind;
  draft: string;
  problem: string | null;
  onDraft: (text: string) => void;
  onAnswer: (answer: Answer | { text: string }) => void;
  /** A single-letter key that is not an entry: u, n, ?. Gives true when it was used. */
  onKey: (key: string) => boolean;
  keysOn: boolean;
}) {
  return isNumber(kind) ? (
    <NumberPad
      unit={UNIT_OF[kind]}
      milli={kind === 'millivolts'}
      draft={draft}
      problem={problem}
      onDraft={onDraft}
      onRecord={() => onAnswer({ text: draft })}
      onKey={onKey}
      keysOn={keysOn}
    />
  ) : (
    <WordPad kind={kind} onAnswer={onAnswer} onKey={onKey} keysOn={keysOn} />
  );
}

/** With nothing in focus the card has it: whatever is typed goes there, and nobody hunts for the field. */
function useKeysOfPage(onKeyDown: (event: globalThis.KeyboardEvent) => void): void {
  // Before the card is seen, not after: the first key must not be lost.
  const latest = useRef(onKeyDown);
  useLayoutEffect(() => {
    latest.current = onKeyDown;
  });
  useLayoutEffect(() => {
    const listen = (event: globalThis.KeyboardEvent) => {
      if (document.activeElement === document.body) latest.current(event);
    };
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, []);
}

function isTouch(): boolean {
  return window.matchMedia('(pointer: coarse)').matches;
}

function NumberPad({
  unit,
  milli,
  draft,
  problem,
  onDraft,
  onRecord,
  onKey,
  keysOn,
}: {
  unit: Unit;
  milli: boolean;
  draft: string;
  problem: string | null;
  onDraft: (text: string) => void;
  onRecord: () => void;
  onKey: (key: string) => boolean;
  keysOn: boolean;
}) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!isTouch()) input.current?.focus({ preventScroll: true });
  }, []);
  const keyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      onRecord();
    } else if (
      keysOn &&
      draft === '' &&
      !event.ctrlKey &&
      !event.metaKey &&
      !event.altKey &&
      onKey(event.key)
    ) {
      event.preventDefault();
    }
  };
  useKeysOfPage((event) => {
    if (event.key === 'Enter') onRecord();
    else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey) {
      if (keysOn && draft === '' && onKey(event.key)) event.preventDefault();
      else input.current?.focus({ preventScroll: true });
    }
  });
  const type = (text: string) => onDraft(draft + text);
  const sign = () => onDraft(draft.startsWith('-') ? draft.slice(1) : `-${draft}`);
  const digit = (key: string) => (
    <PadKey key={key} onPress={() => type(key)}>
      {key}
    </PadKey>
  );
  return (
    <div className="grid gap-1.5">
      {problem ? (
        <div id="reading-problem">
          <Problem>{problem}</Problem>
        </div>
      ) : null}
      <div className="grid grid-cols-5 gap-1.5 in-data-[side=left]:[direction:rtl]">
        {['1', '2', '3'].map(digit)}
        <PadKey onPress={() => onDraft(draft.slice(0, -1))} name="Take back one character">
          <Delete aria-hidden="true" className="mx-auto size-6" />
        </PadKey>
        <PadKey onPress={() => onDraft('OL')} name="Over limit">
          OL
        </PadKey>
        {['4', '5', '6', '.'].map(digit)}
        {unit === 'Ω' ? (
          <PadKey onPress={() => type('k')} name="kilo">
            k
          </PadKey>
        ) : (
          <PadKey onPress={() => type('m')} name="milli">
            m
          </PadKey>
        )}
        {['7', '8', '9', '0'].map(digit)}
        <PadKey onPress={sign} name="Change sign">
          +/−
        </PadKey>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_auto_minmax(0,1fr)] in-data-[side=left]:[direction:rtl]">
        <label className="sr-only" htmlFor="reading-entry">
          Reading, in {milli ? 'millivolts' : UNIT_NAMES[unit]}
        </label>
        <input
          ref={input}
          id="reading-entry"
          value={draft}
          onChange={(event) => onDraft(event.target.value)}
          onKeyDown={keyDown}
          autoComplete="off"
          inputMode={typeof window !== 'undefined' && isTouch() ? 'none' : 'decimal'}
          aria-invalid={problem !== null}
          aria-describedby={problem ? 'reading-problem' : undefined}
          className="reading h-[56px] w-full min-w-0 [direction:ltr] rounded-md border-2 border-ink bg-sheet px-2 text-[28px] font-bold"
        />
        <span className="reading flex min-w-9 items-center justify-center px-1 text-[22px] font-bold">
          {milli ? `m${unit}` : unit}
        </span>
        <Button look="primary" onClick={onRecord} className="h-[56px] text-[20px]">
          Record
        </Button>
      </div>
    </div>
  );
}

function PadKey({ onPress, name, children }: { onPress: () => void; name?: string; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-label={name}
      onClick={onPress}
      className="reading h-[56px] rounded-md border-2 [direction:ltr] border-line bg-sheet text-[20px] font-bold active:bg-copper-wash lg:h-[44px] low:h-[44px]"
    >
      {children}
    </button>
  );
}

function WordPad({
  kind,
  onAnswer,
  onKey,
  keysOn,
}: {
  kind: WordAnswer;
  onAnswer: (answer: Answer) => void;
  onKey: (key: string) => boolean;
  keysOn: boolean;
}) {
  const group = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!isTouch()) group.current?.focus({ preventScroll: true });
  }, []);
  const answers = WORD_ANSWERS[kind];
  const keyDown = (event: KeyboardEvent | globalThis.KeyboardEvent) => {
    if (!keysOn || event.ctrlKey || event.metaKey || event.altKey) return;
    const found = answers.find((one) => one.key === event.key.toLowerCase());
    if (found) {
      event.preventDefault();
      onAnswer({ value: found.value, raw: found.word.toLowerCase() });
    } else if (onKey(event.key)) event.preventDefault();
  };
  useKeysOfPage(keyDown);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: catches the letter keys of the buttons inside it
    <div
      ref={group}
      tabIndex={-1}
      onKeyDown={keyDown}
      className={`grid gap-2 focus:outline-none in-data-[side=left]:[direction:rtl] ${answers.length === 3 ? 'grid-cols-3' : 'grid-cols-2'}`}
    >
      {answers.map((one) => (
        <button
          key={one.word}
          type="button"
          onClick={() => onAnswer({ value: one.value, raw: one.word.toLowerCase() })}
          className="flex min-h-[84px] flex-col lg:min-h-[64px] items-center justify-center rounded-md border-2 border-ink bg-sheet px-1 text-[20px] leading-tight font-bold active:bg-copper-wash"
        >
          {'sign' in one ? (
            <span aria-hidden="true" className="text-[26px] leading-none text-copper">
              {one.sign}
            </span>
          ) : null}
          {one.word}
          <kbd className="reading hidden text-base font-normal text-soft lg:inline">{one.key}</kbd>
        </button>
      ))}
    </div>
  );
}
