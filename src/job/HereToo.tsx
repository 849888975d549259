'use client';

import { useEffect, useSyncExternalStore } from 'react';
import { type HereNow, liveNews } from '@/log/live';
import { jobOpener } from '@/log/openJob';
import { useWho } from '@/sync/who';
import { useJob } from './JobProvider';

const NOBODY: readonly HereNow[] = [];

/** Listens for what others record, and says who else has this job before them at the moment. */
export function HereToo() {
  const { data, store } = useJob();
  const live = liveNews(data.id);
  useEffect(() => {
    store.toldBy(() => live.open);
    const { lookAgain } = jobOpener(data.id);
    const ends = [live.on('entries', () => void store.catchUp()), live.on('held', lookAgain), live.start()];
    return () => {
      for (const end of ends) end();
    };
  }, [live, store, data.id]);
  const here = useSyncExternalStore(live.subscribe, live.readHere, () => NOBODY);
  const tooMany = useSyncExternalStore(live.subscribe, live.readTooMany, () => false);
  const self = useWho()?.personId;
  const others = here.filter(({ personId }) => personId !== self);
  if (tooMany) {
    return (
      <span role="status" className="text-sm">
        You have this job open on more than six pages. This one shows what others record a few seconds later.
      </span>
    );
  }
  if (others.length === 0) return null;
  const names = others.map(({ name }) => name).join(' and ');
  return (
    <span role="status" data-testid="here-too" className="flex items-center gap-1">
      {others.map(({ personId, name }) => (
        <span
          key={personId}
          aria-hidden="true"
          className="grid size-8 place-items-center rounded-full border-2 border-copper text-xs font-bold"
        >
          {initials(name)}
        </span>
      ))}
      <span className="sr-only text-sm lg:not-sr-only">
        {names} {others.length === 1 ? 'is' : 'are'} here too
      </span>
    </span>
  );
}

function initials(name: string): string {
  return name
    .split(/\s+/)
    .map((word) => [...word][0] ?? '')
    .join('')
    .slice(0, 2)
    .toUpperCase();
}
