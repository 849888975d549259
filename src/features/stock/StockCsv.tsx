'use client';

import { useMemo, useState } from 'react';
import { previewStockCsv, STOCK_COLUMNS, type Stock, type StockColumn } from '#core/stock';
import { Check } from '@/ui/Check';
import { Button, Field, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { newId } from '@/ui/newId';
import { Select } from '@/ui/Select';
import { useStockPlace } from '@/ui/useStockPlace';
import type { Ask } from './ask';

/** Items from CSV: columns matched, every mistake by its row, what would change before it does. */
export function StockCsv({ stock, ask }: { stock: Stock; ask: Ask }) {
  const [text, setText] = useState('');
  const [matched, setMatched] = useState<readonly (StockColumn | null)[] | undefined>(undefined);
  const [partial, setPartial] = useState(false);
  const [said, setSaid] = useState<{ readonly good: boolean; readonly words: string } | null>(null);
  const [place, setPlace] = useStockPlace(stock.places);
  const known = useMemo(() => stock.levels.map(({ item }) => item), [stock]);
  const preview = useMemo(
    () => (text.trim() === '' ? null : previewStockCsv(text, known, newId, matched)),
    [text, known, matched],
  );
  const bad = new Set(preview?.problems.map(({ row }) => row) ?? []);
  const fresh = preview?.rows.filter(({ isNew }) => isNew).length ?? 0;
  const counts = preview?.rows.filter(({ count }) => count !== null).length ?? 0;
  const take = async () => {
    if (!preview || place === null) return;
    const answer = await ask({
      kind: 'import',
      place,
      items: preview.rows.map(({ item }) => item),
      counts: preview.rows.flatMap(({ item, count }) => (count === null ? [] : [{ item: item.id, count }])),
    });
    if (!answer.ok) return setSaid({ good: false, words: answer.message });
    setSaid({ good: true, words: `${preview.rows.length} items are in.` });
    setText('');
    setMatched(undefined);
    setPartial(false);
  };
  if (stock.places.length === 0) return <p>Say first where parts lie.</p>;
  return (
    <div className="grid max-w-xl gap-3">
      <label className="inline-flex min-h-11 w-fit cursor-pointer items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold focus-within:outline-3 focus-within:outline-copper hover:border-ink">
        Choose a CSV file
        <input
          type="file"
          accept=".csv,text/csv,text/plain"
          className="sr-only"
          onChange={async (event) => {
            const input = event.currentTarget;
            const file = input.files?.[0];
            if (!file) return;
            setText(await file.text());
            setMatched(undefined);
            setPartial(false);
            setSaid(null);
            input.value = '';
          }}
        />
      </label>
      {said ? (
        said.good ? (
          <p className="text-good">✓ {said.words}</p>
        ) : (
          <Problem>{said.words}</Problem>
        )
      ) : null}
      {preview ? (
        <div data-testid="stock-csv">
          <Field label="Counts are of">
            <Select value={place ?? ''} onChange={(event) => setPlace(event.target.value)}>
              {stock.places.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Select>
          </Field>
          <Fold
            title={`Columns: ${preview.matched.filter((one) => one !== null).length} of ${preview.headings.length} known`}
            first={preview.matched.includes(null)}
          >
            <div className="grid gap-2 sm:grid-cols-2">
              {preview.headings.map((heading, at) => (
                <Field key={`${heading} ${preview.headings.slice(0, at).length}`} label={`“${heading}” is`}>
                  <Select
                    value={preview.matched[at] ?? ''}
                    onChange={(event) => {
                      const column = STOCK_COLUMNS.find((one) => one === event.target.value) ?? null;
                      setMatched(
                        preview.matched.map((one, other) =>
                          other === at ? column : one === column ? null : one,
                        ),
                      );
                    }}
                  >
                    <option value="">left out</option>
                    {STOCK_COLUMNS.map((one) => (
                      <option key={one} value={one}>
                        {one}
                      </option>
                    ))}
                  </Select>
                </Field>
              ))}
            </div>
          </Fold>
          <p className="mt-2 font-semibold" role="status">
            {preview.rows.length} items can be taken: {fresh} new, {preview.rows.length - fresh} known,{' '}
            {counts} with a count.
          </p>
          {preview.problems.length > 0 ? (
            <ul className="mt-1 max-h-56 space-y-1 overflow-auto text-sm" data-testid="stock-csv-problems">
              {preview.problems.map(({ row, column, message }) => (
                <li key={`${row} ${column} ${message}`}>
                  <strong>
                    {row === 0 ? 'The file' : `Row ${row}`}
                    {column ? `, ${column}` : ''}:
                  </strong>{' '}
                  {message}
                </li>
              ))}
            </ul>
          ) : null}
          {bad.size > 0 && preview.rows.length > 0 ? (
            <Check checked={partial} onChange={setPartial}>
              Leave {bad.size === 1 ? 'that row' : `those ${bad.size} rows`} out on purpose
            </Check>
          ) : null}
          <Button
            look="primary"
            className="mt-2"
            disabled={preview.rows.length === 0 || (bad.size > 0 && !partial)}
            onClick={() => void take()}
          >
            Take {preview.rows.length} items in
          </Button>
        </div>
      ) : null}
    </div>
  );
}
