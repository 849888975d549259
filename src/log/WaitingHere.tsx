'use client';

import { type ChangeEvent, useEffect, useState } from 'react';
import { BringFile, type FileOutcome } from '@/ui/BringFile';
import { SaveWaiting } from './SaveWaiting';
import { sender } from './sender';

/** How much waits in this browser, kept up to date. */
function useWaitingCount(): number {
  const [count, setCount] = useState(0);
  useEffect(() => {
    const here = sender();
    const look = () => {
      const { events, pictures } = here.everything();
      setCount(events.length + pictures.length);
    };
    look();
    return here.subscribe(look);
  }, []);
  return count;
}

/** What waits in this browser, out as a file and in again. */
export function WaitingHere() {
  const count = useWaitingCount();
  const [busy, setBusy] = useState(false);
  const [outcome, setOutcome] = useState<FileOutcome | null>(null);
  const [sentence, setSentence] = useState<string | null>(null);
  const bring = async (event: ChangeEvent<HTMLInputElement>) => {
    const input = event.target;
    const file = input.files?.[0];
    if (!file) return;
    setBusy(true);
    setSentence(null);
    const { bringWaiting } = await import('./bringWaiting');
    const brought = await bringWaiting(sender(), await file.text());
    setBusy(false);
    input.value = '';
    if (!brought.ok) return setOutcome({ kind: 'problems', name: file.name, problems: brought.problems });
    setOutcome({ kind: 'done' });
    const { count: arrived } = brought.value;
    setSentence(
      `${arrived === 1 ? 'One thing is' : `${arrived} things are`} here now, and sent to the server.`,
    );
  };
  return (
    <section aria-labelledby="waiting" className="mt-8" data-testid="waiting-here">
      <h2 id="waiting" className="border-b-2 border-line pb-2 text-xl">
        What waits in this browser
      </h2>
      <p className="mt-3 max-w-prose">
        {count === 0
          ? 'Nothing: the server has everything that was recorded here.'
          : `${count === 1 ? 'One entry or photo is' : `${count} entries and photos are`} kept here until the server takes them.`}{' '}
        Where the program was reached by another address before, what waits there is saved as a file and read
        in here.
      </p>
      {count > 0 ? <SaveWaiting /> : null}
      <BringFile
        accept="application/json,.json"
        label="Read in what waited elsewhere"
        busy={busy}
        bring={(event) => void bring(event)}
        outcome={outcome}
        sentence={sentence}
      />
    </section>
  );
}
