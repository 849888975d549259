'use client';

import { useEffect, useState } from 'react';
import type { Setting } from '#core/diagnosis';
import { HELPER_CAUTION } from '#core/safety';
import { readInTab, writeInTab } from '@/sync/drafts';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { useWho } from '@/sync/who';
import { Button, Caution, INPUT, Problem } from '@/ui/controls';
import { useJob } from './JobProvider';
import { endHelperPhone, type HelperPhone } from './useHelperPhone';

const NAME = 'helper';

/** Who is at the key, remembered in this browser; null while nobody helps. */
export function useHelper(): [string | null, (name: string | null) => void] {
  const { data } = useJob();
  const [helper, setHelper] = useState<string | null>(null);
  useEffect(() => setHelper(readInTab(NAME)), []);
  return [
    helper,
    (name) => {
      writeInTab(NAME, name);
      setHelper(name);
      if (name === null) void endHelperPhone(data.id);
    },
  ];
}

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
  phone,
  onStands,
}: {
  helper: string;
  settings: readonly Setting[];
  /** The phone of the person at the key. */
  phone: HelperPhone;
  onStands: () => void;
}) {
  return (
    <div className="rounded-lg border-4 border-copper bg-copper-wash p-4" data-testid="helper-prompt">
      <p className="text-soft">
        {phone.name === null ? `Say to ${helper}:` : `On the phone of ${phone.name}:`}
      </p>
      <ul className="text-2xl font-bold">
        {settings.map(({ words }) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
      <Button look="primary" className="mt-3 h-16 w-full text-xl" onClick={onStands}>
        It stands so
      </Button>
      <PhoneAtTheKey phone={phone} />
    </div>
  );
}

/** The way for a second phone: a code that is good for this card, and who has joined by one. */
function PhoneAtTheKey({ phone }: { phone: HelperPhone }) {
  const { code, name, problem } = phone;
  const share = useWho()?.share ?? null;
  if (name !== null) {
    return (
      <p role="status" className="mt-2 font-semibold" data-testid="phone-at-key">
        {name} sees it; the pad comes when it stands so.
      </p>
    );
  }
  if (code === null) {
    return (
      <>
        {problem ? <Problem>{problem}</Problem> : null}
        <Button look="quiet" onClick={phone.begin}>
          On a second phone
        </Button>
      </>
    );
  }
  return (
    <div className="mt-2 border-t-2 border-copper pt-2" data-testid="helper-code">
      <p>
        On the second phone open <strong className="reading">{phoneAddress(share)}/key</strong> and type
      </p>
      <p className="reading text-4xl font-bold tracking-wide">{code.replace(/(\d{3})(?=\d)/g, '$1 ')}</p>
      <p className="text-sm text-soft">Good for this card, an hour at most.</p>
      {share === null && isOnlyHere() ? (
        <p className="text-sm">
          No other phone reaches this machine yet: stop the program and start it with{' '}
          <span className="reading">npm start -- --share</span>.
        </p>
      ) : null}
    </div>
  );
}

/** Whether this page was opened by a name of this machine that nobody else reaches. */
function isOnlyHere(): boolean {
  return /^(127\.|localhost$|\[::1\])/.test(window.location.hostname);
}

/** As it is typed on a phone. */
function phoneAddress(share: string | null): string {
  return share !== null && isOnlyHere() ? share.replace(/^https:\/\//, '') : window.location.host;
}
