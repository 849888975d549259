'use client';

import { useWho } from '@/sync/who';

/** Shop and person, as the server last said. */
export function WhoLine() {
  const who = useWho();
  if (!who) return <span aria-hidden="true">…</span>;
  return (
    <>
      {who.shopName}, {who.town} · <span className="text-ink">{who.personName}</span>
    </>
  );
}
