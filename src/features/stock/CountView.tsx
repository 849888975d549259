'use client';

import { Delete } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { BOUNDS } from '#core/format';
import { readNumber } from '#core/quantity';
import { countWords, type Stock } from '#core/stock';
import { readDraft, writeDraft } from '@/sync/drafts';
import { Button, ButtonLink, Field, Problem } from '@/ui/controls';
import { Select } from '@/ui/Select';
import { useStockPlace } from '@/ui/useStockPlace';
import { useStock } from './useStock';

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '.', '0'] as const;
const keepUnder = (place: string) => `stock count ${place}`;

type Counts = Readonly<Record<string, string>>;

function keptCounts(place: string): Counts {
  try {
    const kept: unknown = JSON.parse(readDraft(keepUnder(place)) ?? '{}');
    return kept !== null && typeof kept === 'object' ? (kept as Counts) : {};
  } catch {
    return {};
  }
}

/** A place counted item by item with the thumb: what is there stands on the button, so that one tap says “as it is”. */
export function CountView({ first }: { first: Stock }) {
  const { stock, ask } = useStock(first);
  const [place, setPlace] = useStockPlace(stock.places);
  const [counts, setCounts] = useState<Counts>({});
  /** Which is being counted; null for the first that is not. */
  const [chosen, setAt] = useState<number | null>(null);
  const [typed, setTyped] = useState('');
  const [said, setSaid] = useState<{ readonly good: boolean; readonly words: string } | null>(null);
  useEffect(() => {
    if (place === null) return;
    setCounts(keptCounts(place));
    setAt(null);
    setTyped('');
  }, [place]);
  // What has ever been here comes first.
  const levels = useMemo(() => {
    const own = first.levels.filter(({ at: places }) => places.some((one) => one.place === place));
    return [...own, ...first.levels.filter((level) => !own.includes(level))].map(
      ({ item }) => stock.levels.find((level) => level.item.id === item.id)!,
    );
  }, [first, stock, place]);
  const open = levels.findIndex(({ item }) => counts[item.id] === undefined);
  const at = chosen ?? (open < 0 ? levels.length : open);
  const level = levels[at];
  const there = level?.at.find((one) => one.place === place)?.count ?? 0;
  const done = levels.filter(({ item }) => counts[item.id] !== undefined).length;
  const say = (value: string) => {
    if (!level || place === null) return;
    const next = { ...counts, [level.item.id]: value };
    setCounts(next);
    writeDraft(keepUnder(place), JSON.stringify(next));
    setTyped('');
    const ahead = levels.findIndex(({ item }, index) => index > at && next[item.id] === undefined);
    setAt(ahead >= 0 ? ahead : null);
  };
  const confirm = () => {
    const read = readNumber(typed, BOUNDS.stockCount);
    if (!read.ok) return setSaid({ good: false, words: read.message });
    setSaid(null);
    say(String(read.value));
  };
  const book = async () => {
    if (place === null) return;
    const listed = Object.entries(counts).map(([item, count]) => ({ item, count: Number(count) }));
    const answer = await ask({ kind: 'counted', place, counts: listed });
    if (!answer.ok) return setSaid({ good: false, words: answer.message });
    writeDraft(keepUnder(place), null);
    setCounts({});
    setAt(null);
    setSaid({ good: true, words: `${listed.length} items are booked as counted.` });
  };
  if (levels.length === 0 || place === null) {
    return (
      <div className="px-4 py-4">
        <h1 className="text-3xl">Count a place</h1>
        <p className="mt-2">There is nothing to count yet.</p>
        <ButtonLink href="/stock" className="mt-3">
          To the stock
        </ButtonLink>
      </div>
    );
  }
  return (
    <div className="mx-auto flex max-w-xl flex-col px-4 py-3">
      <div className="flex items-end justify-between gap-3">
        <h1 className="text-2xl">Count a place</h1>
        <span className="reading text-soft" data-testid="counted">
          {done} of {levels.length}
        </span>
      </div>
      <Field label="Which place">
        <Select value={place} onChange={(event) => setPlace(event.target.value)}>
          {stock.places.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
      </Field>
      {said ? (
        <div className="mt-2">
          {said.good ? <p className="text-good">✓ {said.words}</p> : <Problem>{said.words}</Problem>}
        </div>
      ) : null}
      {level ? (
        <div className="mt-3" data-testid="counting">
          <p className="text-sm text-soft capitalize">{level.item.sort}</p>
          <p className="text-xl leading-tight font-bold">{level.item.name}</p>
          <p className="reading mt-2 flex min-h-12 items-center justify-between rounded-md border-2 border-line bg-sheet px-3 text-2xl">
            <span>{typed === '' ? (counts[level.item.id] ?? '') : typed}</span>
            <span className="text-base text-soft">{level.item.unit}</span>
          </p>
          <Button className="mt-2 h-14 w-full text-lg" onClick={() => say(String(Math.max(0, there)))}>
            {countWords(Math.max(0, there), level.item.unit)}, as it is
          </Button>
          <div className="mt-2 grid grid-cols-3 gap-2">
            {KEYS.map((key) => (
              <Button
                key={key}
                className="reading h-14 text-xl"
                onClick={() => setTyped((now) => (now + key).slice(0, 9))}
              >
                {key}
              </Button>
            ))}
            <Button
              aria-label="Take the last figure back"
              className="h-14"
              onClick={() => setTyped((now) => now.slice(0, -1))}
            >
              <Delete aria-hidden="true" className="size-6" />
            </Button>
          </div>
          <div className="mt-2 grid grid-cols-[1fr_2fr_1fr] gap-2">
            <Button className="h-14" disabled={at === 0} onClick={() => setAt(at - 1)}>
              Back
            </Button>
            <Button look="primary" className="h-14 text-lg" disabled={typed === ''} onClick={confirm}>
              Counted
            </Button>
            <Button className="h-14" onClick={() => setAt(at + 1)}>
              Skip
            </Button>
          </div>
        </div>
      ) : null}
      <div className="mt-4 flex flex-wrap items-center gap-2">
        <Button look={level ? 'plain' : 'primary'} disabled={done === 0} onClick={() => void book()}>
          Book {done} as counted
        </Button>
        {level ? null : (
          <Button onClick={() => setAt(0)} disabled={levels.length === 0}>
            Look at them again
          </Button>
        )}
        <ButtonLink look="quiet" href="/stock">
          To the stock
        </ButtonLink>
      </div>
    </div>
  );
}
