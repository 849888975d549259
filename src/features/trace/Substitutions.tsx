'use client';

import { memo } from 'react';
import { CELL_WORDS, type Cell, type SubstitutionTable, testId } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';

const ROWS: readonly { name: string; cells: readonly [Cell, Cell] }[] = [
  { name: 'This part', cells: ['own-here', 'own-there'] },
  { name: 'Known good part', cells: ['good-here', 'good-there'] },
];

/** Part by place, with what the entered cells allow to claim and the one still worth entering. */
export const Substitutions = memo(function Substitutions({
  circuit,
  tables,
  onChoose,
}: {
  circuit: CircuitFile;
  tables: readonly SubstitutionTable[];
  onChoose: (testId: string) => void;
}) {
  return tables.map((table) => (
    <section key={table.part} className="mt-5" data-testid="substitution">
      <h3 className="font-bold">
        {circuit.parts.find((part) => part.id === table.part)?.name ?? table.part}, exchanged
      </h3>
      <table className="mt-1 w-full border-2 border-line text-left text-sm">
        <thead>
          <tr>
            <td />
            <th className="px-2 py-1">here</th>
            <th className="px-2 py-1">where such a part works</th>
          </tr>
        </thead>
        <tbody>
          {ROWS.map(({ name, cells }) => (
            <tr key={name} className="border-t border-line">
              <th className="px-2 py-1 font-normal">{name}</th>
              {cells.map((cell) => {
                const state = table.cells[cell];
                const wanted = table.missing === cell && table.missingTest;
                return (
                  <td key={cell} className="px-2 py-1" aria-label={CELL_WORDS[cell]}>
                    {state ? (
                      <strong className={state === 'works' ? 'text-good' : 'text-bad'}>
                        {state === 'works' ? '✓ works' : '✗ fails'}
                      </strong>
                    ) : wanted ? (
                      <button
                        type="button"
                        onClick={() => onChoose(testId(wanted))}
                        className="min-h-11 rounded-md border-2 border-copper px-2 font-semibold text-copper"
                      >
                        Try it
                      </button>
                    ) : (
                      <span className="text-soft">not tried</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm">{table.sentence}</p>
      {table.unproved.length > 0 ? (
        <p className="mt-1 text-sm" data-testid="unproved">
          Not proved by this, any of them:{' '}
          {table.unproved.map((id) => circuit.parts.find((part) => part.id === id)?.name ?? id).join(', ')}.
        </p>
      ) : null}
    </section>
  ));
});
