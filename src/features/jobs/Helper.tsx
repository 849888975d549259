'use client';

import { useEffect, useState } from 'react';
import type { Setting } from '#core/diagnosis';
import { readInTab, writeInTab } from '@/sync/drafts';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Caution, INPUT, Problem } from '@/ui/controls';

const NAME = 'helper';

/** Who is at the key, remembered in this browser; null while nobody helps. */
export function useHelper(): [string | null, (name: string | null) => void] {
  const [helper, setHelper] = useState<string | null>(null);
  useEffect(() => setHelper(readInTab(NAME)), []);
  return [
    helper,
    (name) => {
      writeInTab(NAME, name);
      setHelper(name);
    },
  ];
}

export const HELPER_CAUTION =
  'Immobilised, neutral, hands clear of fans, belts, ropes and lifts; only the named person turns the key, and only when told.';

/** Brings a helper in: a name, and the caution that is acknowledged once. */
export function HelperSwitch({
  helper,
  onHelper,
  onCaution,
}: {
  helper: string | null;
  onHelper: (name: string | null) => void;
  onCaution: (words: string) => void;
}) {
  const [asking, setAsking] = useState(false);
  const form = useKeptForm<{ name: string }>({
    keep: null,
    take: (values) => {
      const name = textOf(values.name);
      if (name === '') return { ok: false, message: 'Say who is at the key.', field: 'name' };
      onCaution(`${HELPER_CAUTION} At the key: ${name}`);
      onHelper(name);
      setAsking(false);
      return { ok: true };
    },
  });
  if (helper !== null) {
    return (
      <p className="flex flex-wrap items-center justify-between gap-2 text-sm">
        <span>
          At the key: <strong>{helper}</strong>
        </span>
        <Button onClick={() => onHelper(null)}>No helper now</Button>
      </p>
    );
  }
  if (!asking) return <Button onClick={() => setAsking(true)}>Somebody at the key</Button>;
  return (
    <form onSubmit={form.submit} className="rounded-md border-2 border-line p-3">
      <Caution>{HELPER_CAUTION}</Caution>
      <label className="mt-2 block">
        <span className="block text-sm font-semibold">Who is at the key</span>
        <input {...form.register('name')} className={INPUT} />
      </label>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <div className="mt-2 flex gap-2">
        <Button look="primary" type="submit">
          Understood, begin
        </Button>
        <Button onClick={() => setAsking(false)}>Leave it</Button>
      </div>
    </form>
  );
}

/** What to say to the person at the key before the reading is taken; the pad comes when it stands so. */
export function HelperPrompt({
  helper,
  settings,
  onStands,
}: {
  helper: string;
  settings: readonly Setting[];
  onStands: () => void;
}) {
  return (
    <div className="rounded-lg border-4 border-copper bg-copper-wash p-4" data-testid="helper-prompt">
      <p className="text-soft">Say to {helper}:</p>
      <ul className="text-2xl font-bold">
        {settings.map(({ words }) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
      <Button look="primary" className="mt-3 h-16 w-full text-xl" onClick={onStands}>
        It stands so
      </Button>
    </div>
  );
}
