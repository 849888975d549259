'use client';

import { useState } from 'react';
import { type ChangeTable, cellWords, changeCsv, type Played } from '#core/change';
import { LiveSetting } from '@/features/circuits';
import { Choice } from '@/ui/Choice';
import { Button } from '@/ui/controls';
import { SideScroll } from '@/ui/SideScroll';
import { saveFile } from '@/ui/saveFile';
import type { PlanLooked } from '@/workers/changeMessages';
import { PartDeeds } from './PartDeeds';

const NOTHING_SET = {};

/** Rows beyond which nobody reads; the file has all of them. */
const MOST_SHOWN = 200;

/** Both drawings live in one setting, and the table of all settings. */
export function BeforeAfter({
  played,
  table,
  settings,
  onIntent,
}: {
  played: Pick<Played, 'before' | 'after'>;
  table: ChangeTable | null;
  settings: PlanLooked['settings'] | null;
  /** Something is wanted of a part that was chosen in the drawing. */
  onIntent: (answers: Record<string, string>) => void;
}) {
  const [only, setOnly] = useState<'differs' | 'all'>('differs');
  // Only functions that differ somewhere, where only what differs is wanted.
  const shown = (table?.functions ?? []).map(
    (_, index) =>
      only === 'all' ||
      table?.rows.some(({ cells }) => cells[index]!.before !== cells[index]!.after) === true,
  );
  const rows = table?.rows.filter(({ differs }) => only === 'all' || differs) ?? [];
  return (
    <div className="grid gap-6">
      <LiveSetting
        before={played.before}
        after={played.after}
        at={NOTHING_SET}
        deeds={(part) => <PartDeeds circuit={played.after} part={part} onIntent={onIntent} />}
      />
      {table ? (
        <section aria-labelledby="change-table">
          <div className="flex flex-wrap items-center justify-between gap-2">
            <h2 id="change-table" className="text-xl">
              Setting by setting
            </h2>
            <Choice
              legend="Rows"
              quiet
              options={[
                { id: 'differs', name: 'what differs' },
                { id: 'all', name: `all ${settings?.looked ?? ''}` },
              ]}
              chosen={only}
              onChoose={(id) => setOnly(id as 'differs' | 'all')}
            />
            <Button onClick={() => saveFile('settings.csv', 'text/csv', changeCsv(table))}>
              Save all (CSV)
            </Button>
          </div>
          {rows.length === 0 ? (
            <p className="mt-2 text-lg">No function differs in any setting.</p>
          ) : (
            <SideScroll label="Setting by setting">
              <table className="mt-2 w-full text-left" data-testid="change-table">
                <thead>
                  <tr className="border-b-2 border-line">
                    <th className="py-1 pr-3">Setting</th>
                    {table.functions.map(({ id, name }, index) =>
                      shown[index] ? (
                        <th key={id} className="px-2 py-1">
                          {name}
                        </th>
                      ) : null,
                    )}
                  </tr>
                </thead>
                <tbody>
                  {rows.slice(0, MOST_SHOWN).map((row) => (
                    <tr key={row.words} className="border-b border-line">
                      <th scope="row" className="py-1 pr-3 font-normal">
                        {row.words}
                      </th>
                      {row.cells.map((cell, index) => {
                        if (!shown[index]) return null;
                        const differs = cell.before !== cell.after;
                        return (
                          <td
                            key={table.functions[index]!.id}
                            className={`px-2 py-1 whitespace-nowrap ${differs ? (cell.asked ? 'font-bold' : 'font-bold text-bad') : 'text-soft'}`}
                          >
                            {differs ? (cell.asked ? '✓ ' : '▲ ') : ''}
                            {cellWords(cell)}
                          </td>
                        );
                      })}
                    </tr>
                  ))}
                </tbody>
              </table>
            </SideScroll>
          )}
          {rows.length > MOST_SHOWN ? (
            <p className="mt-1 text-soft">{rows.length - MOST_SHOWN} more rows stand in the file.</p>
          ) : null}
        </section>
      ) : null}
    </div>
  );
}
