import type { ChangeEvent } from 'react';
import { Problem } from './controls';

/** What became of a file that was chosen. */
export type FileOutcome =
  | { readonly kind: 'done' }
  | {
      readonly kind: 'problems';
      readonly name: string;
      readonly problems: readonly { readonly path: string; readonly message: string }[];
    };

/** A file chosen and sent, and below it the sentence or every problem. */
export function BringFile({
  accept,
  label = 'Choose a file',
  busy,
  bring,
  outcome,
  sentence,
}: {
  accept: string;
  label?: string;
  busy: boolean;
  bring: (event: ChangeEvent<HTMLInputElement>) => void;
  outcome: FileOutcome | null;
  /** What was done, in words. */
  sentence: string | null;
}) {
  return (
    <>
      <label className="mt-3 inline-flex min-h-11 cursor-pointer items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold focus-within:outline-3 focus-within:outline-copper hover:border-ink">
        {busy ? 'Reading …' : label}
        <input type="file" accept={accept} onChange={bring} disabled={busy} className="sr-only" />
      </label>
      <div aria-live="polite" className="mt-3" data-testid="import-outcome">
        {sentence !== null ? <p className="border-l-4 border-good pl-3 font-semibold">✓ {sentence}</p> : null}
        {outcome?.kind === 'problems' ? (
          <>
            <Problem>
              {outcome.name} was not brought in: {outcome.problems.length}{' '}
              {outcome.problems.length === 1 ? 'problem' : 'problems'}. Nothing was changed.
            </Problem>
            <ul className="mt-2 space-y-1">
              {outcome.problems.map((one) => (
                <li key={`${one.path} ${one.message}`}>
                  {one.path ? <code className="reading text-sm text-soft">{one.path}</code> : null}{' '}
                  {one.message}
                </li>
              ))}
            </ul>
          </>
        ) : null}
      </div>
    </>
  );
}
