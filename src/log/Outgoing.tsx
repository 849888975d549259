'use client';

import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { jobPlace } from '@/http/places';
import { useSignedOut } from '@/sync/who';
import { useLater } from '@/ui/useLater';
import { sender } from './sender';

interface Standing {
  readonly counts: ReadonlyMap<string, number>;
  readonly heldFor: readonly string[];
}

const NOTHING: Standing = { counts: new Map(), heldFor: [] };
/** Fetched once the page has come to rest, so that it is there when the server is not. */
const loadStrip = () => import('./OutgoingStrip').then((loaded) => loaded.OutgoingStrip);

/**
 * Sends what was recorded in this browser from whatever page is open, and says how much of which jobs stands still, and
 * for whom. The pages of a job say it of their own job themselves.
 */
export function Outgoing() {
  const [{ counts, heldFor }, setStanding] = useState(NOTHING);
  const path = usePathname();
  const signedOut = useSignedOut();
  const own = jobPlace(path)?.jobId;
  const router = useRouter();
  /** A page of the server was made before these arrived: it is made anew, and what is typed in it stays. */
  const refresh = useRef<(() => void) | null>(null);
  refresh.current = own === undefined ? () => router.refresh() : null;
  useEffect(() => {
    const here = sender();
    let arrived = false;
    const look = () => setStanding({ counts: here.standing(), heldFor: here.heldFor() });
    const deaf = here.subscribe((news) => {
      look();
      arrived ||= news.length > 0;
      if (!arrived || here.standing().size > 0) return;
      arrived = false;
      refresh.current?.();
    });
    const stop = here.start();
    look();
    return () => {
      deaf();
      stop();
    };
  }, []);
  const others = [...counts].filter(([job]) => job !== own);
  const entries = others.reduce((sum, [, count]) => sum + count, 0);
  const said = entries > 0 || signedOut;
  const Strip = useLater(loadStrip, said);
  if (!said || !Strip) return null;
  return <Strip entries={entries} jobs={others.length} heldFor={heldFor} signedOut={signedOut} path={path} />;
}
