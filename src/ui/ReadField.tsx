'use client';

import { type ReactNode, useEffect, useId, useRef, useState } from 'react';
import { INPUT, Problem } from './controls';

/** Where a field keeps what is typed in it and not taken yet. */
export interface FieldDrafts {
  read(field: string): string | null;
  /** Null takes it away. */
  write(field: string, text: string | null): void;
}

/**
 * A field that is read when it is left, by whatever: another field, another thing chosen, the page gone. What cannot be
 * read stays in it, with the reason below, and changes nothing; with `drafts` it is there again when the field is. What
 * changes elsewhere, as by an undo, shows in it.
 */
export function ReadField<T>({
  label,
  hint,
  text,
  read,
  onRead,
  rows,
  decimal,
  drafts,
}: {
  label: string;
  hint?: string;
  drafts?: FieldDrafts;
  /** What stands in it while it is as it was. */
  text: string;
  read: (
    text: string,
  ) => { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };
  onRead: (value: T) => void;
  /** Several lines. */
  rows?: number;
  /** Numbers are typed: the pad of digits opens. */
  decimal?: boolean;
}) {
  const id = useId();
  const [left] = useState(() => drafts?.read(label) ?? null);
  const [problem, setProblem] = useState<string | null>(null);
  const typed = useRef<string | null>(left);
  /** Takes what was typed, or says why not and keeps it. */
  const leave = () => {
    const now = typed.current;
    if (now === null) return;
    const answer = now.trim() === text.trim() ? null : read(now);
    if (answer && !answer.ok) {
      setProblem(answer.message);
      drafts?.write(label, now);
      return;
    }
    typed.current = null;
    setProblem(null);
    drafts?.write(label, null);
    if (answer) onRead(answer.value);
  };
  const latest = useRef(leave);
  latest.current = leave;
  useEffect(() => {
    // Typed before a reload and never left: it is taken now, or its reason is shown.
    latest.current();
    return () => latest.current();
  }, []);
  const shared = {
    defaultValue: typed.current ?? text,
    onInput: (event: { currentTarget: { value: string } }) => {
      typed.current = event.currentTarget.value;
      drafts?.write(label, typed.current);
    },
    onBlur: leave,
    'aria-invalid': problem !== null,
    ...(problem === null ? {} : { 'aria-describedby': id }),
    className: INPUT,
  };
  return (
    // Beside others it takes the whole row while its reason has to be read.
    <div className="has-[[aria-invalid=true]]:col-span-full">
      <Labelled name={label}>
        {rows === undefined ? (
          <input key={text} {...shared} {...(decimal ? { inputMode: 'decimal' as const } : {})} />
        ) : (
          <textarea key={text} rows={rows} {...shared} />
        )}
        {hint ? <span className="mt-1 block text-sm text-soft">{hint}</span> : null}
      </Labelled>
      {problem === null ? null : (
        <div id={id} className="mt-1">
          <Problem>{problem}</Problem>
        </div>
      )}
    </div>
  );
}

/** A control with a small name above it, in forms of many fields. */
export function Labelled({ name, children }: { name: ReactNode; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is the child
    <label className="block">
      <span className="mb-0.5 block text-sm font-semibold">{name}</span>
      {children}
    </label>
  );
}

/** A text of one line; where it may not be empty, `required` says why. */
export function readText(required?: string) {
  return (text: string): { ok: true; value: string } | { ok: false; message: string } => {
    const value = text.trim();
    return value === '' && required !== undefined ? { ok: false, message: required } : { ok: true, value };
  };
}

/** Lines of text, empty ones left out. */
export function readList(text: string): { ok: true; value: readonly string[] } {
  const lines = text.split('\n').map((one) => one.trim());
  return { ok: true, value: lines.filter((one) => one !== '') };
}
