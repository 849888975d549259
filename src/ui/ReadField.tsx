'use client';

import { type ReactNode, useId, useState } from 'react';
import { INPUT, Problem } from './controls';

/**
 * A field that is read when it is left. What cannot be read stays in it, with the reason below, and changes nothing;
 * what changes elsewhere, as by an undo, shows in it.
 */
export function ReadField<T>({
  label,
  hint,
  text,
  read,
  onRead,
  rows,
  decimal,
}: {
  label: ReactNode;
  hint?: string;
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
  const [problem, setProblem] = useState<string | null>(null);
  const leave = (typed: string) => {
    if (typed.trim() === text.trim()) return setProblem(null);
    const answer = read(typed);
    setProblem(answer.ok ? null : answer.message);
    if (answer.ok) onRead(answer.value);
  };
  const shared = {
    defaultValue: text,
    onBlur: (event: { target: { value: string } }) => leave(event.target.value),
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
