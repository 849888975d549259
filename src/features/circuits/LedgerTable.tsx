'use client';

import { useMemo, useState } from 'react';
import { byColour, type LedgerRow, wireLedger } from '#core/circuit';
import type { CircuitFile } from '#core/format';
import { spokenWord } from '#core/limits';
import { formatNumber } from '#core/quantity';
import { INPUT } from '@/ui/controls';

/** Every wire of a circuit; one may be chosen. */
export function LedgerTable({
  circuit,
  selected,
  onSelect,
}: {
  circuit: CircuitFile;
  selected: string | null;
  onSelect: (wire: string) => void;
}) {
  const all = useMemo(() => wireLedger(circuit), [circuit]);
  const [colour, setColour] = useState('');
  const rows = byColour(all, colour);
  return (
    <section aria-labelledby="ledger-title" data-testid="ledger">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2 id="ledger-title" className="text-lg">
          Wires <span className="font-normal text-soft">({all.length})</span>
        </h2>
        <label className="block">
          <span className="block text-sm font-semibold">Colour, base/tracer</span>
          <input
            value={colour}
            onChange={(event) => setColour(event.target.value)}
            placeholder="GN/RD"
            className={`${INPUT} w-32`}
          />
        </label>
      </div>
      {rows.length === 0 ? (
        <p className="mt-2">
          {colour.trim() === ''
            ? 'This circuit has no wires yet.'
            : `No wire is ${colour.trim().toUpperCase()}. Base comes before tracer: BN/WH is not WH/BN.`}
        </p>
      ) : null}
      <ul className="mt-2">
        {rows.map((row) => (
          <Row key={row.wire} row={row} chosen={row.wire === selected} onSelect={onSelect} />
        ))}
      </ul>
    </section>
  );
}

function Row({
  row,
  chosen,
  onSelect,
}: {
  row: LedgerRow;
  chosen: boolean;
  onSelect: (wire: string) => void;
}) {
  return (
    <li className="border-b border-line">
      <button
        type="button"
        aria-pressed={chosen}
        onClick={() => onSelect(row.wire)}
        className={`grid w-full gap-x-4 py-2 text-left sm:grid-cols-[10rem_1fr_1fr] ${chosen ? 'bg-copper-wash' : 'hover:bg-sunk'}`}
      >
        <span>
          <span className="reading text-lg font-bold">{row.colour || '?'}</span>{' '}
          <span className="whitespace-nowrap text-soft">
            {row.sizeMm2 === null ? '? mm²' : `${formatNumber(row.sizeMm2)} mm²`}
          </span>
          <span className="block text-sm text-soft">{row.wire}</span>
        </span>
        <span>
          <span className="block text-sm text-soft">from</span>
          {row.a.words ?? <strong className="text-caution">▲ not known</strong>}
        </span>
        <span>
          <span className="block text-sm text-soft">to</span>
          {row.b.words ?? <strong className="text-caution">▲ not known</strong>}
        </span>
        <span className="text-sm sm:col-start-2 sm:col-end-4">
          {row.state === 'in-use' ? '' : `${spokenWord(row.state)} · `}
          {row.name === `Wire ${row.wire}` ? '' : row.name}
          {row.goesOn.length > 0 ? ` · goes on as ${row.goesOn.join(', ')}` : ''}
          {row.joints.length > 0 ? ` · joints: ${row.joints.join(', ')}` : ''}
          {row.open.map((words) => (
            <strong key={words} className="block text-caution">
              ▲ {words}
            </strong>
          ))}
        </span>
      </button>
    </li>
  );
}
