'use client';

import { usePathname } from 'next/navigation';
import { useEffect, useState } from 'react';
import { jobPlace } from '@/http/places';
import { sender } from './sender';

/**
 * Sends what was recorded in this browser from whatever page is open, and says how much of which jobs stands still. The
 * pages of a job say it of their own job themselves.
 */
export function Outgoing() {
  const [standing, setStanding] = useState<ReadonlyMap<string, number>>(new Map());
  const path = usePathname();
  useEffect(() => {
    const here = sender();
    const look = () => setStanding(here.standing());
    const deaf = here.subscribe(look);
    const stop = here.start();
    look();
    return () => {
      deaf();
      stop();
    };
  }, []);
  const own = jobPlace(path)?.jobId;
  const others = [...standing].filter(([job]) => job !== own);
  if (others.length === 0) return null;
  const entries = others.reduce((sum, [, count]) => sum + count, 0);
  return (
    <p
      role="status"
      className="no-print border-b-2 border-line bg-caution-wash px-4 py-2 font-semibold lg:px-6"
      data-testid="outgoing"
    >
      {entries} {entries === 1 ? 'entry' : 'entries'} of{' '}
      {others.length === 1 ? 'one job' : `${others.length} jobs`} kept in this browser, sent when the server
      takes {entries === 1 ? 'it' : 'them'}.
    </p>
  );
}
