'use client';

import { useWho } from '@/sync/who';
import { WhoWords } from '@/ui/WhoWords';

/** Shop and person, as the server last said. */
export function WhoLine() {
  const who = useWho();
  if (!who) return <span aria-hidden="true">…</span>;
  return <WhoWords {...who} />;
}
