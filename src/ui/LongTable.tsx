'use client';

import {
  createColumnHelper,
  createSortedRowModel,
  type RowData,
  rowSortingFeature,
  sortFn_alphanumeric,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type ReactNode, useEffect, useMemo, useRef, useState } from 'react';

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric },
});

export interface Column<Row> {
  readonly id: string;
  readonly name: string;
  /** What the column is sorted by. */
  readonly value: (row: Row) => string | number;
  readonly cell: (row: Row) => ReactNode;
}

/** With fewer rows all are drawn, so that the browser's own search finds them. */
const FEW_ROWS = 80;
const ROW_PX = 33;

/** While the page is printed every row has to be there. */
function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const before = () => setPrinting(true);
    const after = () => setPrinting(false);
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  }, []);
  return printing;
}

const ARROW = { asc: '▲', desc: '▼' } as const;
const SORTED = { asc: 'ascending', desc: 'descending' } as const;

/** A table that is sorted by its headings, and of which only the rows in sight are drawn where there are many. */
export function LongTable<Row extends RowData>({
  columns,
  rows,
  keyOf,
  testId,
}: {
  columns: readonly Column<Row>[];
  rows: readonly Row[];
  keyOf: (row: Row) => string;
  testId: string;
}) {
  const defined = useMemo(() => {
    const helper = createColumnHelper<typeof features, Row>();
    return helper.columns(
      columns.map(({ id, name, value, cell }) =>
        helper.accessor((row) => value(row), {
          id,
          header: name,
          sortFn: 'alphanumeric',
          cell: ({ row }) => cell(row.original),
        }),
      ),
    );
  }, [columns]);
  const data = useMemo(() => [...rows], [rows]);
  const table = useTable({ features, columns: defined, data, getRowId: keyOf });
  const all = table.getRowModel().rows;
  const frame = useRef<HTMLDivElement>(null);
  const printing = usePrinting();
  const whole = printing || all.length <= FEW_ROWS;
  const virtual = useVirtualizer({
    count: all.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
    enabled: !whole,
  });
  const seen = virtual.getVirtualItems();
  const shown = whole ? all : seen.flatMap((one) => all[one.index] ?? []);
  const above = whole ? 0 : (seen[0]?.start ?? 0);
  const below = whole ? 0 : virtual.getTotalSize() - (seen.at(-1)?.end ?? 0);
  return (
    <div ref={frame} className="mt-2 max-h-[70dvh] overflow-auto print:max-h-none">
      <table className="w-full text-left" data-testid={testId} aria-rowcount={all.length + 1}>
        <thead className="sticky top-0 bg-paper">
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} className="border-b-2 border-ink">
              {group.headers.map((header) => {
                const sorted = header.column.getIsSorted();
                return (
                  <th
                    key={header.id}
                    aria-sort={sorted ? SORTED[sorted] : 'none'}
                    className="pr-4 align-bottom"
                  >
                    <button
                      type="button"
                      onClick={header.column.getToggleSortingHandler()}
                      className="min-h-11 py-1 text-left font-bold"
                    >
                      <table.FlexRender header={header} />
                      {sorted ? <span aria-hidden="true"> {ARROW[sorted]}</span> : null}
                    </button>
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        <tbody>
          {above > 0 ? <tr style={{ height: above }} /> : null}
          {shown.map((row) => (
            <tr key={row.id} className="border-b border-line">
              {row.getAllCells().map((cell) => (
                <td key={cell.id} className="py-1 pr-4">
                  <table.FlexRender cell={cell} />
                </td>
              ))}
            </tr>
          ))}
          {below > 0 ? <tr style={{ height: below }} /> : null}
        </tbody>
      </table>
    </div>
  );
}
