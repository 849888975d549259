'use client';

import { useMemo, useState } from 'react';
import { byColour, type LedgerRow, type WireEnd, wireLedger } from '#core/circuit';
import type { CircuitFile } from '#core/format';
import { spokenWord } from '#core/limits';
import { formatNumber } from '#core/quantity';
import { INPUT } from '@/ui/controls';
import { WireStripe } from '@/ui/WireStripe';

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
      <div className="flex items-end justify-between gap-3">
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
  const more = [
    row.state === 'in-use' ? '' : spokenWord(row.state),
    row.goesOn.length > 0 ? `goes on as ${row.goesOn.join(', ')}` : '',
    row.joints.length > 0 ? `joints: ${row.joints.join(', ')}` : '',
  ].filter((one) => one !== '');
  return (
    <li className="border-b border-line">
      <button
        type="button"
        aria-pressed={chosen}
        onClick={() => onSelect(row.wire)}
        className={`grid min-h-12 w-full grid-cols-[2.25rem_5.5rem_minmax(0,1fr)_minmax(0,1fr)] items-center gap-x-2 py-1 text-left ${chosen ? 'bg-copper-wash' : 'hover:bg-sunk'}`}
      >
        <WireStripe colour={row.colour} />
        <span className="truncate whitespace-nowrap">
          <span className="reading font-bold">{row.colour || '?'}</span>{' '}
          <span className="text-sm text-soft">
            {row.sizeMm2 === null ? '?' : formatNumber(row.sizeMm2)}
            <span className="sr-only"> mm²</span>
          </span>
          <span className="sr-only">, {row.wire}</span>
        </span>
        <End way="from" end={row.a} whole={chosen} />
        <End way="to" end={row.b} whole={chosen} />
        {chosen || row.open.length > 0 || more.length > 0 ? (
          <span className="col-start-2 col-end-5 text-sm">
            {chosen ? (
              <span className="block">
                <span className="reading">{row.wire}</span>
                {row.name === `Wire ${row.wire}` ? '' : ` · ${row.name}`} ·{' '}
                {row.sizeMm2 === null ? 'size not known' : `${formatNumber(row.sizeMm2)} mm²`}
              </span>
            ) : null}
            {more.join(' · ')}
            {row.open.map((words) => (
              <strong key={words} className="block text-caution">
                ▲ {words}
              </strong>
            ))}
          </span>
        ) : null}
      </button>
    </li>
  );
}

/** One end: by its short name in the line, whole where the wire is chosen and wherever there is room. */
function End({ way, end, whole }: { way: 'from' | 'to'; end: WireEnd; whole: boolean }) {
  if (end.words === null) return <strong className="text-sm text-caution">▲ not known</strong>;
  return (
    <span className={`min-w-0 leading-tight ${whole ? '' : 'truncate xl:whitespace-normal'}`}>
      <span className="sr-only">{way} </span>
      {way === 'to' ? <span aria-hidden="true">→ </span> : null}
      {whole ? (
        end.words
      ) : (
        <>
          <span className="xl:hidden">{end.short}</span>
          <span className="hidden xl:inline">{end.words}</span>
        </>
      )}
    </span>
  );
}
