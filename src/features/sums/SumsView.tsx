'use client';

import { Check, Copy, Link2, Printer } from 'lucide-react';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { SUMS, type Sum, type SumResult, sumText } from '#core/sizing';
import { readKept, writeDraft } from '@/sync/drafts';
import { useAddress } from '@/ui/address';
import { Button } from '@/ui/controls';
import { Menu } from '@/ui/Menu';
import { SumAnswer } from './SumAnswer';
import { SumInputs } from './SumInputs';
import { searchOf, type Typed } from './sumAddress';

export interface Written {
  readonly sum: Sum;
  readonly typed: Typed;
  readonly result: SumResult;
  readonly text: string;
}

const NOTHING: Typed = {};
const keep = (sum: Sum) => `sum ${sum.id}`;

const keptOf = (sum: Sum): Typed => readKept<Record<string, string>>(keep(sum)) as Typed;

/**
 * Every sum of the trade on one page: what is typed is worked out while it is typed, kept in this browser, and stands in the
 * address. `addressOf` is where a sum lives here; `put` what can be done with its result besides.
 */
export function SumsView({
  first,
  addressOf,
  known = NOTHING,
  put,
  fill,
}: {
  first: { readonly sum: Sum; readonly typed: Typed };
  /** What the place knows and fields begin with: the volts of the vehicle. */
  known?: Typed;
  addressOf: (sum: Sum, search: string) => string;
  put?: (written: Written) => ReactNode;
  /** What the place can fill into the fields of a sum. */
  fill?: (sum: Sum, type: (field: string, text: string) => void) => ReactNode;
}) {
  const [sum, setSum] = useState(first.sum);
  const [own, setTyped] = useState<Typed>(first.typed);
  const typed = useMemo(() => {
    const begins = Object.entries(known).filter(([field]) => sum.fields[field]?.first !== undefined);
    return { ...Object.fromEntries(begins), ...own };
  }, [sum, known, own]);
  const now = useRef(sum);
  now.current = sum;
  const shown = useRef<{ sum: Sum; typed: Typed } | null>(null);
  // What was typed before and is not in the address comes back once the page runs; another address is another sum.
  useEffect(() => {
    if (shown.current === first) return;
    const begins = shown.current === null;
    shown.current = first;
    const named = Object.keys(first.typed).length > 0;
    if (!named && !begins && now.current === first.sum) return;
    setSum(first.sum);
    setTyped(named ? first.typed : keptOf(first.sum));
  }, [first]);
  const worked = useMemo(() => sum.work(typed), [sum, typed]);
  const address = addressOf(sum, searchOf(sum, typed));
  useAddress(address);
  const type = (field: string, text: string) => {
    const next = { ...own, [field]: text };
    setTyped(next);
    writeDraft(keep(sum), JSON.stringify(next));
  };
  const choose = (next: Sum) => {
    setSum(next);
    setTyped(keptOf(next));
  };
  const clear = () => {
    setTyped({});
    writeDraft(keep(sum), null);
  };
  const { result, missing } = worked;
  const main = result?.answers.find((one) => one.main);
  return (
    <div className="lg:grid lg:grid-cols-[13rem_minmax(20rem,26rem)_minmax(0,1fr)] lg:gap-6">
      <nav aria-label="Sums" className="no-print hidden lg:block">
        <ul>
          {SUMS.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                aria-current={one === sum ? 'page' : undefined}
                onClick={() => choose(one)}
                className={`min-h-11 w-full border-l-4 px-3 text-left ${one === sum ? 'border-copper bg-copper-wash font-bold' : 'border-transparent hover:bg-sunk'}`}
              >
                {one.name}
              </button>
            </li>
          ))}
        </ul>
      </nav>
      <section aria-labelledby="sum-title">
        <div className="flex items-center justify-between gap-2">
          <h2 id="sum-title" className="text-2xl">
            {sum.name}
          </h2>
          <span className="lg:hidden">
            <Menu
              name="Another sum ▾"
              items={SUMS.map((one) => ({ name: one.name, on: one === sum, onChoose: () => choose(one) }))}
            />
          </span>
        </div>
        <p className="mt-1 mb-3 text-soft">{sum.says}</p>
        {/* In the hand the figure stays in sight while the fields are typed. */}
        <p
          className="sticky top-[var(--head,0px)] z-10 mb-2 flex min-h-12 items-center gap-3 border-y-2 border-copper bg-paper px-1 py-1 lg:hidden"
          aria-hidden="true"
        >
          {main ? (
            <>
              <span className="text-soft">{main.name}</span>
              <span className="reading text-2xl font-bold">{main.words}</span>
            </>
          ) : (
            <span className="text-soft">{stillWanted(sum, missing)}</span>
          )}
        </p>
        <SumInputs sum={sum} typed={typed} worked={worked} onType={type} />
        {fill?.(sum, type)}
        <Button look="quiet" className="no-print mt-2" onClick={clear}>
          Empty the fields
        </Button>
      </section>
      <section
        aria-label="Result"
        className="mt-4 lg:mt-0 lg:border-l-2 lg:border-line lg:pl-6"
        aria-live="polite"
      >
        {result ? (
          <>
            <SumAnswer result={result} />
            <Deeds
              written={{ sum, typed, result, text: sumText(sum, typed, result) }}
              {...(put ? { put } : {})}
            />
          </>
        ) : (
          <p className="text-lg text-soft">{stillWanted(sum, missing)}</p>
        )}
      </section>
    </div>
  );
}

function stillWanted(sum: Sum, missing: readonly string[]): string {
  const names = missing.map((field) => sum.fields[field]!.name.toLowerCase());
  return names.length === 0 ? 'A field cannot be read.' : `Still wanted: ${names.join(', ')}.`;
}

/** What can be done with a result: copy, share, print, and what the place it is on adds. */
function Deeds({ written, put }: { written: Written; put?: (written: Written) => ReactNode }) {
  const [done, setDone] = useState<'copied' | 'shared' | 'refused' | null>(null);
  useEffect(() => {
    if (done === null) return;
    const timer = setTimeout(() => setDone(null), 3000);
    return () => clearTimeout(timer);
  }, [done]);
  const copy = (text: string, as: 'copied' | 'shared') =>
    navigator.clipboard.writeText(text).then(
      () => setDone(as),
      () => setDone('refused'),
    );
  return (
    <div className="no-print mt-4 flex flex-wrap items-center gap-2">
      {put?.(written)}
      <Button onClick={() => void copy(written.text, 'copied')}>
        {done === 'copied' ? (
          <Check aria-hidden="true" className="size-5" />
        ) : (
          <Copy aria-hidden="true" className="size-5" />
        )}
        {done === 'copied' ? 'Copied' : 'Copy'}
      </Button>
      <Button onClick={() => void copy(window.location.href, 'shared')}>
        {done === 'shared' ? (
          <Check aria-hidden="true" className="size-5" />
        ) : (
          <Link2 aria-hidden="true" className="size-5" />
        )}
        {done === 'shared' ? 'Address copied' : 'Copy its address'}
      </Button>
      <Button onClick={() => window.print()}>
        <Printer aria-hidden="true" className="size-5" />
        Print
      </Button>
      {done === 'refused' ? (
        <p role="status" className="basis-full text-bad">
          The browser allows no copying here: select the text instead.
        </p>
      ) : null}
    </div>
  );
}
