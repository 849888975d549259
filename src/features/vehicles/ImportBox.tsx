'use client';

import { useRouter } from 'next/navigation';
import { type ChangeEvent, useRef, useState } from 'react';
import { FILE_LIMIT_BYTES, type Problem as FileProblem } from '#core/format';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { Problem } from '@/ui/controls';

type Outcome =
  | { readonly kind: 'done'; readonly sentence: string }
  | { readonly kind: 'problems'; readonly name: string; readonly problems: readonly FileProblem[] };

/** Brings a circuit or panel-set file in; shows every problem at once and changes nothing until it is clean. */
export function ImportBox({ vehicleId }: { vehicleId: string }) {
  const router = useRouter();
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const [busy, setBusy] = useState(false);
  /** The request that another try of the same file goes on with. */
  const request = useRef<Tried | null>(null);
  const bring = async (event: ChangeEvent<HTMLInputElement>) => {
    const input = event.currentTarget;
    const file = input.files?.[0];
    if (!file) return;
    const failed = (problems: readonly FileProblem[]) =>
      setOutcome({ kind: 'problems', name: file.name, problems });
    if (file.size > FILE_LIMIT_BYTES) {
      input.value = '';
      const megabytes = (bytes: number) => String(Number((bytes / 1024 / 1024).toFixed(1)));
      const message = `The file has ${megabytes(file.size)} MB; at most ${megabytes(FILE_LIMIT_BYTES)} MB are read.`;
      return failed([{ code: 'too-large', path: '', message }]);
    }
    setBusy(true);
    setOutcome(null);
    const text = await file.text();
    request.current = requestFor(request.current, text);
    const posted = await postJson<
      { ok: true; sentence: string } | { ok?: false; problems: readonly FileProblem[] }
    >(`/api/vehicles/${vehicleId}/import`, { id: request.current.id, text });
    input.value = '';
    setBusy(false);
    if (posted.kind === 'away') return failed([{ code: 'no-answer', path: '', message: posted.message }]);
    if (!posted.answer.ok) return failed(posted.answer.problems);
    // The same file once more is meant as a new version.
    request.current = null;
    setOutcome({ kind: 'done', sentence: posted.answer.sentence });
    router.refresh();
  };
  return (
    <section aria-labelledby="import">
      <h2 id="import" className="border-b-2 border-line pb-2 text-xl">
        Bring a file in
      </h2>
      <p className="mt-3 max-w-prose text-soft">
        A circuit (JSON, or text as in the editor) or a panel-set file (JSON). A file that is here already
        becomes a new version; jobs keep the version they were traced on.
      </p>
      <label className="mt-3 inline-flex min-h-11 cursor-pointer items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold focus-within:outline-3 focus-within:outline-copper hover:border-ink">
        {busy ? 'Reading …' : 'Choose a file'}
        <input
          type="file"
          accept=".json,.txt,application/json,text/plain"
          onChange={bring}
          disabled={busy}
          className="sr-only"
        />
      </label>
      <div aria-live="polite" className="mt-3" data-testid="import-outcome">
        {outcome?.kind === 'done' ? (
          <p className="border-l-4 border-good pl-3 font-semibold">✓ {outcome.sentence}</p>
        ) : null}
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
    </section>
  );
}
