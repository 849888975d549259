'use client';

import { useMemo, useState } from 'react';
import type { Slot } from '#core/format';
import { CSV_COLUMNS, type CsvColumn, csvChanges, previewCsv } from '#core/panel';
import { Check } from '@/ui/Check';
import { Button } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { Select } from '@/ui/Select';

/** Most slots that are named one by one; the rest is counted. */
const NAMED = 12;

const slotName = ({ type, number }: Slot) => `${type} ${number}`;
const counted = (count: number) => `${count} ${count === 1 ? 'slot' : 'slots'}`;

/**
 * Slots from CSV: columns matched, every problem by its row, what would change before it does; rows with problems are left
 * out, and slots that the file does not name taken out, only on purpose.
 */
export function CsvImport({
  before,
  onTake,
}: {
  /** The slots of the box as it is drawn. */
  before: readonly Slot[];
  /** Slots as they become, and those that go. */
  onTake: (slots: readonly Slot[], gone: readonly Slot[]) => void;
}) {
  const [text, setText] = useState('');
  const [matched, setMatched] = useState<readonly (CsvColumn | null)[] | null>(null);
  const [partial, setPartial] = useState(false);
  const [without, setWithout] = useState(false);
  const preview = useMemo(
    () => (text.trim() === '' ? null : previewCsv(text, matched, before)),
    [text, matched, before],
  );
  const unknown = preview?.matched.filter((one) => one === null).length ?? 0;
  /** Whether the file itself left a question; answering the last one folds nothing away under the hand. */
  const asks = useMemo(
    () => text.trim() !== '' && previewCsv(text, null, before).matched.includes(null),
    [text, before],
  );
  const changes = useMemo(() => (preview ? csvChanges(before, preview.slots) : null), [preview, before]);
  const read = (next: string) => {
    setText(next);
    setMatched(null);
    setPartial(false);
    setWithout(false);
  };
  const badRows = new Set(preview?.problems.map((one) => one.row) ?? []);
  const left = preview ? preview.rows - preview.slots.length : 0;
  const may = preview !== null && preview.slots.length > 0 && (left === 0 || partial);
  return (
    <section aria-labelledby="csv-title">
      <h2 id="csv-title" className="mb-2 border-b-2 border-line pb-1 text-lg">
        Slots from CSV
      </h2>
      <label className="inline-flex min-h-11 cursor-pointer items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold focus-within:outline-3 focus-within:outline-copper hover:border-ink">
        Choose a CSV file
        <input
          type="file"
          accept=".csv,text/csv,text/plain"
          className="sr-only"
          onChange={async (event) => {
            const file = event.currentTarget.files?.[0];
            if (file) read(await file.text());
          }}
        />
      </label>
      {preview ? (
        <div className="mt-3" data-testid="csv-preview">
          {/* Asked only where a heading is not known; otherwise what would change comes first. */}
          <Fold
            key={preview.headings.join()}
            first={asks}
            title={
              unknown === 0
                ? `All ${preview.headings.length} columns are known`
                : `${unknown} of ${preview.headings.length} columns are not known: say what they are, or leave them out`
            }
          >
            <div className="grid gap-2 sm:grid-cols-2">
              {preview.headings.map((heading, index) => (
                <label
                  key={`${heading} ${preview.headings.slice(0, index).length}`}
                  className="block text-sm"
                >
                  <span className="font-semibold">“{heading}” is</span>
                  <Select
                    value={preview.matched[index] ?? ''}
                    onChange={(event) => {
                      const column = CSV_COLUMNS.find((one) => one === event.target.value) ?? null;
                      setMatched(
                        preview.matched.map((one, at) =>
                          at === index ? column : one === column ? null : one,
                        ),
                      );
                    }}
                  >
                    <option value="">left out</option>
                    {CSV_COLUMNS.map((one) => (
                      <option key={one} value={one}>
                        {one}
                      </option>
                    ))}
                  </Select>
                </label>
              ))}
            </div>
          </Fold>
          <p className="mt-3 font-semibold" role="status">
            {preview.rows} rows: {preview.slots.length} can be taken, {left} cannot.
          </p>
          {preview.problems.length > 0 ? (
            <ul className="mt-1 max-h-56 space-y-1 overflow-auto text-sm" data-testid="csv-problems">
              {preview.problems.map((one) => (
                <li key={`${one.row} ${one.column} ${one.message}`}>
                  <strong>
                    {one.row === 0 ? 'The file' : `Row ${one.row}`}
                    {one.column ? `, ${one.column}` : ''}:
                  </strong>{' '}
                  {one.message}
                </li>
              ))}
            </ul>
          ) : null}
          {left > 0 && preview.slots.length > 0 ? (
            <Check checked={partial} onChange={setPartial} className="mt-2">
              Leave {badRows.size === 1 ? 'that row' : 'those rows'} out on purpose
            </Check>
          ) : null}
          {changes && preview.slots.length > 0 ? (
            <div className="mt-2 text-sm" data-testid="csv-changes">
              <p className="font-semibold">
                {changes.added.length} new, {changes.changed.length} changed, {changes.same} as they are
              </p>
              <ul className="mt-1 max-h-40 overflow-auto">
                {changes.changed.slice(0, NAMED).map(({ slot, fields }) => (
                  <li key={slot.id}>
                    {slotName(slot)}: {fields.join(', ')}
                  </li>
                ))}
                {changes.changed.length > NAMED ? <li>and {changes.changed.length - NAMED} more</li> : null}
              </ul>
            </div>
          ) : null}
          {changes && changes.unnamed.length > 0 && preview.slots.length > 0 ? (
            <Check checked={without} onChange={setWithout} className="mt-2">
              Take {counted(changes.unnamed.length)} out that the file does not name:{' '}
              {changes.unnamed.slice(0, NAMED).map(slotName).join(', ')}
              {changes.unnamed.length > NAMED ? ` and ${changes.unnamed.length - NAMED} more` : ''}
            </Check>
          ) : null}
          <div className="mt-2 flex gap-2">
            <Button
              look="primary"
              disabled={!may}
              onClick={() => {
                onTake(
                  preview.slots.map((one) => one.slot),
                  without ? (changes?.unnamed ?? []) : [],
                );
                read('');
              }}
            >
              Take {counted(preview.slots.length)}
            </Button>
            <Button onClick={() => read('')}>Leave it</Button>
          </div>
        </div>
      ) : null}
    </section>
  );
}
