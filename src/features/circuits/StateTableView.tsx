'use client';

import { useMemo, useState } from 'react';
import type { CircuitFile } from '#core/format';
import { dialsOf, type LiveSetting, MOST_ROWS, rowCount, tableCsv } from '#core/live';
import { Button, Problem } from '@/ui/controls';
import { saveFile } from '@/ui/saveFile';
import { type Ask, useAnswer } from '@/workers/useCircuitWorker';
import type { DialPositions } from './LivePanel';

const SIGN = { works: '● on', weak: '◐ weak', dead: '○ off' } as const;
const SOUND = { faults: [], done: [], fusesOpen: true } as const;

/** Every function over every combination; beside it, where the circuit as set differs from the sound one. */
export function StateTableView({
  circuit,
  ask,
  at,
  setting,
}: {
  circuit: CircuitFile;
  ask: Ask;
  at: DialPositions;
  setting: LiveSetting;
}) {
  const dials = useMemo(() => dialsOf(circuit), [circuit]);
  const [left, setLeft] = useState<readonly string[]>([]);
  const varied = useMemo(
    () => dials.map((dial) => dial.id).filter((id) => !left.includes(id)),
    [dials, left],
  );
  const altered = setting.faults.length > 0 || setting.done.length > 0;
  const { faults, done, fusesOpen } = setting;
  const question = useMemo(
    () => ({
      ask: 'table' as const,
      varied,
      at,
      one: SOUND,
      other: altered ? { faults, done, fusesOpen } : null,
    }),
    [varied, at, altered, faults, done, fusesOpen],
  );
  const { answer: table, problem } = useAnswer(ask, question);
  const rows = rowCount(dials.filter((dial) => varied.includes(dial.id)));
  const differs = table?.rows.filter((row) => row.other?.some((state, i) => state !== row.states[i])).length;
  const save = () => {
    if (table) saveFile(`${circuit.id}-states.csv`, 'text/csv', tableCsv(table));
  };
  return (
    <section aria-labelledby="table-title">
      <div className="no-print flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 id="table-title" className="text-lg">
          Every combination
        </h2>
        {dials.map((dial) => (
          <label key={dial.id} className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              checked={!left.includes(dial.id)}
              onChange={(event) =>
                setLeft(event.target.checked ? left.filter((id) => id !== dial.id) : [...left, dial.id])
              }
              className="size-5 accent-(--copper)"
            />
            {dial.name}
          </label>
        ))}
        <Button onClick={() => window.print()}>Print</Button>
        <Button onClick={save}>Save (CSV)</Button>
      </div>
      <p className="mt-1 text-soft" data-testid="table-count">
        {rows} {rows === 1 ? 'row' : 'rows'}
        {rows > MOST_ROWS ? `, of which at most ${MOST_ROWS} are shown: take a switch out` : ''}.
        {table && altered
          ? ` In ${differs} of them the circuit as set differs from the sound one: sound → as set.`
          : ''}
      </p>
      {problem ? <Problem>{problem}</Problem> : null}
      {table ? (
        <div className="mt-2 max-h-[70dvh] overflow-auto print:max-h-none">
          <table className="w-full text-left" data-testid="state-table">
            <thead className="sticky top-0 bg-paper">
              <tr className="border-b-2 border-ink">
                {[...table.dials, ...table.functions].map((one) => (
                  <th key={one.id} className="py-1 pr-4">
                    {one.name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {table.rows.map((row) => (
                <tr key={JSON.stringify(row.at)} className="border-b border-line">
                  {table.dials.map((dial) => (
                    <td key={dial.id} className="py-1 pr-4 text-soft">
                      {row.at[dial.id]}
                    </td>
                  ))}
                  {row.states.map((state, index) => {
                    const other = row.other?.[index];
                    const changed = other !== undefined && other !== state;
                    return (
                      <td
                        key={table.functions[index]!.id}
                        className={`py-1 pr-4 ${changed ? 'bg-caution-wash font-bold' : ''}`}
                      >
                        {SIGN[state]}
                        {changed ? ` → ${SIGN[other]}` : ''}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
    </section>
  );
}
