'use client';

import { useMemo, useState } from 'react';
import type { CircuitFile } from '#core/format';
import { dialsOf, type LiveSetting, MOST_ROWS, rowCount, type StateTable, tableCsv } from '#core/live';
import { Button, Problem } from '@/ui/controls';
import { type Column, LongTable } from '@/ui/LongTable';
import { saveFile } from '@/ui/saveFile';
import { type Ask, useAnswer } from '@/workers/useCircuitWorker';
import type { DialPositions } from './LivePanel';

type StateRow = StateTable['rows'][number];

const SIGN = { works: '● on', weak: '◐ weak', dead: '○ off' } as const;
const SOUND = { faults: [], done: [], fusesOpen: true } as const;

/** Off, weak, on: by this a column of states is sorted. */
const RANK = { dead: 0, weak: 1, works: 2 } as const;

function columnsOf(table: StateTable): Column<StateRow>[] {
  return [
    ...table.dials.map(
      (dial): Column<StateRow> => ({
        id: dial.id,
        name: dial.name,
        value: (row) => row.at[dial.id] ?? '',
        cell: (row) => <span className="text-soft">{row.at[dial.id]}</span>,
      }),
    ),
    ...table.functions.map(
      (one, index): Column<StateRow> => ({
        id: `function ${one.id}`,
        name: one.name,
        value: (row) => RANK[row.states[index]!],
        cell: (row) => <StateCell state={row.states[index]!} other={row.other?.[index]} />,
      }),
    ),
  ];
}

function StateCell({ state, other }: { state: keyof typeof SIGN; other: keyof typeof SIGN | undefined }) {
  if (other === undefined || other === state) return SIGN[state];
  return (
    <span className="bg-caution-wash font-bold">
      {SIGN[state]} → {SIGN[other]}
    </span>
  );
}

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
  const columns = useMemo(() => (table ? columnsOf(table) : []), [table]);
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
        <LongTable
          columns={columns}
          rows={table.rows}
          keyOf={(row) => JSON.stringify(row.at)}
          testId="state-table"
        />
      ) : null}
    </section>
  );
}
