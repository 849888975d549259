'use client';

import { useState } from 'react';
import { STOCK_SORTS } from '#core/format';
import { kindWords } from '#core/repair';
import { countWords, isShort, type Level, orderList, type Stock, toOrder } from '#core/stock';
import { Button, ButtonLink, INPUT } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { Pressed } from '@/ui/Pressed';
import { ItemForm } from './ItemForm';
import { ItemSheet } from './ItemSheet';
import { PlaceForm } from './PlaceForm';
import { StockCsv } from './StockCsv';
import { useStock } from './useStock';

/** What the shop has, sort by sort; what is short first to be seen. */
export function StockView({ first }: { first: Stock }) {
  const { stock, ask } = useStock(first);
  const [open, setOpen] = useState<string | null>(null);
  const [words, setWords] = useState('');
  const [shortOnly, setShortOnly] = useState(false);
  const wanted = words.trim().toLowerCase();
  const shown = stock.levels.filter(
    (level) =>
      (!shortOnly || isShort(level)) &&
      (wanted === '' ||
        `${level.item.name} ${level.item.sort} ${level.item.part ? kindWords(level.item.part) : ''}`
          .toLowerCase()
          .includes(wanted)),
  );
  const short = stock.levels.filter(isShort).length;
  const orders = orderList(stock.levels);
  const chosen = stock.levels.find(({ item }) => item.id === open);
  return (
    <div className="mx-auto max-w-6xl px-4 py-4 lg:px-6 lg:py-6">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1 className="text-3xl">Stock</h1>
        {stock.places.length > 0 && stock.levels.length > 0 ? (
          <span className="no-print">
            <ButtonLink look="primary" href="/stock/count">
              Count a place
            </ButtonLink>
          </span>
        ) : null}
      </div>
      {stock.levels.length > 0 ? (
        <div className="no-print sticky top-0 z-10 -mx-4 flex flex-wrap items-center gap-2 bg-ground px-4 py-2">
          <input
            value={words}
            onChange={(event) => setWords(event.target.value)}
            aria-label="Find in the stock"
            placeholder="Find: mini 15, relay, 2.5 mm² …"
            className={`${INPUT} max-w-sm flex-1`}
          />
          <Pressed pressed={shortOnly} onPressed={setShortOnly}>
            Short ({short})
          </Pressed>
        </div>
      ) : (
        <p className="mt-3 max-w-prose">
          Nothing is kept yet. Say where parts lie, then what lies there: one by one, or from a list as CSV.
          From then on a card says whether the right fuse is in the van, and a repair takes it out.
        </p>
      )}
      {orders.length > 0 ? (
        <Fold title={`To be ordered: ${orders.length}`} className="mt-2" testId="orders">
          <ul className="max-w-2xl divide-y divide-line">
            {orders.map(({ item, total, order }) => (
              <li key={item.id} className="flex justify-between gap-3 py-1.5">
                <span>{item.name}</span>
                <span className="reading whitespace-nowrap">
                  {countWords(total, item.unit)} of {countWords(item.minimum, item.unit)} → order{' '}
                  {countWords(order, item.unit)}
                </span>
              </li>
            ))}
          </ul>
          <p className="no-print mt-2 flex flex-wrap items-center gap-3">
            <Button onClick={() => window.print()}>Print the order list</Button>
            <a
              href="/api/stock/orders"
              download
              className="inline-flex min-h-11 items-center underline underline-offset-4"
            >
              Order list (CSV)
            </a>
          </p>
        </Fold>
      ) : null}
      <div className="no-print mt-3 grid gap-x-10 lg:grid-cols-2">
        {STOCK_SORTS.map((sort) => {
          const own = shown.filter(({ item }) => item.sort === sort);
          return own.length === 0 ? null : (
            <section key={sort} aria-labelledby={`sort-${sort}`} className="mt-4">
              <h2 id={`sort-${sort}`} className="border-b-2 border-line pb-1 text-lg capitalize">
                {sort}
              </h2>
              <ul>
                {own.map((level) => (
                  <StockRow key={level.item.id} level={level} stock={stock} onOpen={setOpen} />
                ))}
              </ul>
            </section>
          );
        })}
      </div>
      {stock.levels.length > 0 && shown.length === 0 ? (
        <p className="mt-4">Nothing answers to that.</p>
      ) : null}
      <div className="no-print mt-8 grid gap-3 lg:grid-cols-2">
        <Fold title="A new item" first={stock.places.length > 0 && stock.levels.length === 0}>
          <ItemForm ask={ask} />
        </Fold>
        <Fold title={`Places (${stock.places.length})`} first={stock.places.length === 0}>
          <PlaceForm places={stock.places} ask={ask} />
        </Fold>
        <Fold title="From a list (CSV)">
          <StockCsv stock={stock} ask={ask} />
        </Fold>
        <p>
          <a
            href="/api/stock/csv"
            download
            className="inline-flex min-h-11 items-center underline underline-offset-4"
          >
            The stock as CSV
          </a>
        </p>
      </div>
      {chosen ? <ItemSheet level={chosen} stock={stock} ask={ask} onClose={() => setOpen(null)} /> : null}
    </div>
  );
}

function StockRow({ level, stock, onOpen }: { level: Level; stock: Stock; onOpen: (id: string) => void }) {
  const { item, at, total } = level;
  const short = isShort(level);
  return (
    <li className="border-b border-line" data-item={item.name}>
      <button
        type="button"
        onClick={() => onOpen(item.id)}
        className="flex min-h-14 w-full items-center justify-between gap-3 py-2 text-left hover:bg-sunk"
      >
        <span className="min-w-0">
          <span className="block font-semibold">{item.name}</span>
          <span className="block text-sm text-soft">
            {at
              .filter(({ count }) => count !== 0)
              .map(
                ({ place, count }) =>
                  `${stock.places.find(({ id }) => id === place)?.name ?? 'elsewhere'} ${countWords(count, item.unit)}`,
              )
              .join(' · ') || 'none anywhere'}
          </span>
        </span>
        <span className={`reading text-right whitespace-nowrap ${short ? 'font-bold text-bad' : ''}`}>
          <span className="text-lg">{countWords(total, item.unit)}</span>
          {short ? (
            <span className="block text-xs font-normal">
              {total < 0 ? 'more used than booked' : `at least ${item.minimum}`}
              {toOrder(level) > 0 ? `, order ${countWords(toOrder(level), item.unit)}` : ''}
            </span>
          ) : null}
        </span>
      </button>
    </li>
  );
}
