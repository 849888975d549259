'use client';

import { type ReactNode, useMemo, useState } from 'react';
import type { CircuitFile } from '#core/format';
import {
  type DialPositions,
  dialsOf,
  type LiveSetting,
  MOST_ROWS,
  positionName,
  rowCount,
  type StateTable,
  tableCsv,
} from '#core/live';
import { Check } from '@/ui/Check';
import { Button, Problem } from '@/ui/controls';
import { type Column, LongTable } from '@/ui/LongTable';
import { saveFile } from '@/ui/saveFile';
import { useSay } from '@/ui/Toast';
import { type Ask, useAnswer } from '@/workers/useCircuitWorker';

type StateRow = StateTable['rows'][number];

const SIGN = { works: '● on', weak: '◐ weak', dead: '○ off' } as const;
const SOUND = { faults: [], done: [], fusesOpen: true } as const;

/** Off, weak, on: by this a column of states is sorted. */
const RANK = { dead: 0, weak: 1, works: 2 } as const;

/** What stands in the cell of a function; null for the sign of what the circuit does. */
export type CellOf = (row: StateRow, functionIndex: number) => ReactNode;

function columnsOf(
  circuit: CircuitFile,
  table: StateTable,
  cellOf: CellOf | null,
  first: string | undefined,
): Column<StateRow>[] {
  const dials = table.dials.map(
    (dial): Column<StateRow> => ({
      id: dial.id,
      name: dial.name,
      value: (row) => row.at[dial.id] ?? '',
      cell: (row) => <span className="text-soft">{positionName(circuit, dial, row.at[dial.id]!)}</span>,
    }),
  );
  const functions = table.functions.map(
    (one, index): Column<StateRow> => ({
      id: `function ${one.id}`,
      name: one.name,
      value: (row) => RANK[row.states[index]!],
      cell: (row) =>
        cellOf?.(row, index) ?? <StateCell state={row.states[index]!} other={row.other?.[index]} />,
    }),
  );
  const leads = ({ id }: Column<StateRow>) => Number(id === `function ${first}`);
  return [...dials, ...functions.sort((one, other) => leads(other) - leads(one))];
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
  cellOf = null,
  first,
  vary,
}: {
  circuit: CircuitFile;
  ask: Ask;
  at: DialPositions;
  setting: Pick<LiveSetting, 'faults' | 'done' | 'fusesOpen'>;
  cellOf?: CellOf | null;
  /** The function whose column comes first. */
  first?: string | undefined;
  /** What is turned until somebody chooses otherwise; all dials where not said. */
  vary?: readonly string[] | undefined;
}) {
  const say = useSay();
  const dials = useMemo(() => dialsOf(circuit), [circuit]);
  const [left, setLeft] = useState<readonly string[]>(() =>
    vary ? dials.map(({ id }) => id).filter((id) => !vary.includes(id)) : [],
  );
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
  const columns = useMemo(
    () => (table ? columnsOf(circuit, table, cellOf, first) : []),
    [circuit, table, cellOf, first],
  );
  const save = () => {
    if (!table) return;
    saveFile(`${circuit.id}-states.csv`, 'text/csv', tableCsv(table));
    say(`${circuit.id}-states.csv is saved`);
  };
  return (
    <section aria-labelledby="table-title">
      <div className="no-print flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 id="table-title" className="text-lg">
          Every combination
        </h2>
        {dials.map((dial) => (
          <Check
            key={dial.id}
            checked={!left.includes(dial.id)}
            onChange={(on) => setLeft(on ? left.filter((id) => id !== dial.id) : [...left, dial.id])}
          >
            {dial.name}
          </Check>
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
