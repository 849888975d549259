'use client';

import { Setting } from '@/ui/Check';

const KEYS = [
  ['0–9 . , − m OL', 'into the entry, on a volts or ohms card'],
  ['l  d  o', 'lit, dim, off, on a lamp card'],
  ['w  k  d  c', 'works, weak, dead, comes and goes'],
  ['Enter', 'records'],
  ['u', 'corrects the last reading (entry empty)'],
  ['n', 'another test (entry empty)'],
  ['?', 'this list (entry empty)'],
] as const;

/** The keys of a card, and the switch that turns the single letters off. */
export function KeyList({ keysOn, onKeysOn }: { keysOn: boolean; onKeysOn: (on: boolean) => void }) {
  return (
    <>
      <dl className="mt-3 grid grid-cols-[9rem_1fr] gap-y-2">
        {KEYS.map(([key, does]) => (
          <div key={key} className="contents">
            <dt className="reading font-bold">{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-4">
        <Setting on={keysOn} onChange={onKeysOn}>
          Single-letter keys on
        </Setting>
      </div>
    </>
  );
}
