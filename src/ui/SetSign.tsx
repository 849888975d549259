'use client';

import { CircleDot, Cog, KeyRound, type LucideIcon, Plug, ToggleRight } from 'lucide-react';
import type { Setting } from '#core/diagnosis';

const SIGNS: Readonly<Record<Setting['sign'], LucideIcon>> = {
  key: KeyRound,
  switch: ToggleRight,
  plug: Plug,
  engine: Cog,
  other: CircleDot,
};

/** One thing that has to stand so: in copper while it was not seen to, which is where to act now. */
export function SetSign({ setting: { sign, words }, anew }: { setting: Setting; anew: boolean }) {
  const Sign = SIGNS[sign];
  return (
    <li
      data-anew={anew}
      className={`flex items-center gap-1 rounded px-1.5 leading-snug font-semibold ${
        anew ? 'bg-copper-wash text-copper' : 'bg-sunk'
      }`}
    >
      <Sign aria-hidden="true" className="size-5 shrink-0" strokeWidth={2} />
      <span>
        {words}
        {anew ? null : <span className="sr-only">, as it stands</span>}
      </span>
    </li>
  );
}
