'use client';

import { type ReactNode, useId } from 'react';
import { INPUT } from './controls';

/**
 * A field that is read while it is typed in: beneath it what is typical, or why it cannot be read, never both. Whoever shows it
 * holds its text.
 */
export function LiveField({
  name,
  unit,
  says,
  value,
  problem,
  rows,
  decimal,
  id: given,
  onType,
  children,
}: {
  name: ReactNode;
  unit?: string | undefined;
  /** A typical value. */
  says: string;
  value: string;
  problem?: string | null | undefined;
  /** Several lines. */
  rows?: number | undefined;
  /** Numbers are typed: the pad of digits opens. */
  decimal?: boolean | undefined;
  id?: string;
  onType: (text: string) => void;
  /** Another control than an input; it gets the same id and description. */
  children?: (shared: { id: string; 'aria-describedby': string; 'aria-invalid': boolean }) => ReactNode;
}) {
  const own = useId();
  const id = given ?? own;
  const shared = { id, 'aria-describedby': `${id}-says`, 'aria-invalid': Boolean(problem) };
  const look = `${INPUT} reading aria-[invalid=true]:border-bad`;
  return (
    <div className={rows !== undefined || problem ? 'col-span-full' : ''}>
      <label htmlFor={id} className="mb-0.5 block text-sm font-semibold">
        {name}
        {unit ? <span className="font-normal text-soft"> · {unit}</span> : null}
      </label>
      {children ? (
        children(shared)
      ) : rows === undefined ? (
        <input
          {...shared}
          value={value}
          autoComplete="off"
          onChange={(event) => onType(event.target.value)}
          {...(decimal ? { inputMode: 'decimal' as const } : {})}
          className={look}
        />
      ) : (
        <textarea
          {...shared}
          rows={rows}
          value={value}
          onChange={(event) => onType(event.target.value)}
          className={look}
        />
      )}
      <p id={`${id}-says`} className={`mt-0.5 text-sm ${problem ? 'font-semibold text-bad' : 'text-soft'}`}>
        {problem || says}
      </p>
    </div>
  );
}
