'use client';

import { useId, useMemo, useState } from 'react';
import type { Panel } from '#core/format';
import { RATING_ONLY, searchSlots } from '#core/panel';
import { INPUT } from '@/ui/controls';

/** Finds a slot by number with type, by label, meaning, synonym, function or colour and rating. */
export function SlotSearchBox({
  panels,
  onChoose,
}: {
  panels: readonly Panel[];
  onChoose: (panelId: string, slotId: string) => void;
}) {
  const [text, setText] = useState('');
  const id = useId();
  const hits = useMemo(() => searchSlots(panels, text, 12), [panels, text]);
  return (
    <search>
      <label htmlFor={id} className="mb-1 block font-semibold">
        Find a slot
      </label>
      <input
        id={id}
        type="search"
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder="fuse 14, H MIR, mirror heating …"
        className={INPUT}
        autoComplete="off"
      />
      {text.trim() === '' ? null : (
        <ul aria-label="Slots found" className="mt-2 border-t border-line">
          {hits.length === 0 ? (
            <li className="py-2 text-soft">
              No slot of this vehicle answers to “{text.trim()}”. Try the number, the printed label, or what
              it feeds.
            </li>
          ) : null}
          {hits.map((hit) => (
            <li key={`${hit.panel.id} ${hit.slot.id}`} className="border-b border-line">
              <button
                type="button"
                onClick={() => onChoose(hit.panel.id, hit.slot.id)}
                className="min-h-11 w-full py-2 text-left hover:bg-sunk"
              >
                <span className="font-semibold">
                  {hit.slot.type} {hit.slot.number}
                </span>{' '}
                · {hit.slot.meaning ?? hit.slot.label}
                <span className="block text-sm text-soft">
                  {hit.panel.name} — {hit.because}
                  {hit.score <= RATING_ONLY ? ' · candidate only: a rating proves no slot' : ''}
                </span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </search>
  );
}
