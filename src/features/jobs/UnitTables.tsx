'use client';

import { CELL_WORDS, type Cell, substitutionOf } from '#core/diagnosis';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Choice } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';

const ROWS: readonly { name: string; cells: readonly [Cell, Cell] }[] = [
  { name: 'This one', cells: ['own-here', 'own-there'] },
  { name: 'A known good one', cells: ['good-here', 'good-there'] },
];

const TRIED = [
  { id: 'works', name: 'works' },
  { id: 'fails', name: 'fails' },
];

/** Whole units tried between two vehicles: no circuit is needed, and no more is claimed than the cells allow. */
export function UnitTables() {
  const { job } = useJob();
  const names = [...job.units.keys()];
  return (
    <Fold
      title="A whole unit tried between two vehicles"
      first={names.length > 0}
      className="mt-5"
      testId="units"
    >
      {names.map((name) => (
        <UnitTable key={name} name={name} />
      ))}
      <UnitForm />
    </Fold>
  );
}

/** A table begins with its first cell: the unit fails here, or nobody would try it elsewhere. */
function UnitForm() {
  const { data, record } = useJob();
  const form = useKeptForm<{ unit: string }>({
    keep: `unit ${data.id}`,
    take: ({ unit }) => {
      const name = textOf(unit);
      if (name === '')
        return { ok: false, message: 'Say which unit, “pump with its plug” will do.', field: 'unit' };
      return record({ kind: 'unit-tried', unit: name, cell: 'own-here', state: 'fails' });
    },
  });
  return (
    <form onSubmit={form.submit} className="mt-2 flex flex-wrap items-end gap-2">
      <Field label="Which unit">
        <input {...form.register('unit')} maxLength={80} className={`${INPUT} w-64`} />
      </Field>
      <Button type="submit">It fails here: make its table</Button>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </form>
  );
}

function UnitTable({ name }: { name: string }) {
  const { job, record } = useJob();
  const { cells, claim, sentence, missing } = substitutionOf(job.units.get(name) ?? {});
  return (
    <section className="mt-3" data-testid="unit-table">
      <h3 className="font-bold">{name}</h3>
      <table className="mt-1 w-full max-w-2xl border-2 border-line text-left text-sm">
        <thead>
          <tr>
            <td />
            <th className="px-2 py-1">in this vehicle</th>
            <th className="px-2 py-1">where such a one works</th>
          </tr>
        </thead>
        <tbody>
          {ROWS.map((row) => (
            <tr key={row.name} className="border-t border-line">
              <th className="px-2 py-1 font-normal">{row.name}</th>
              {row.cells.map((cell) => (
                <td key={cell} className={`px-2 py-1 ${missing === cell ? 'bg-copper-wash' : ''}`}>
                  <Choice
                    legend={CELL_WORDS[cell]}
                    quiet
                    options={TRIED}
                    chosen={cells[cell] ?? null}
                    onChoose={(state) =>
                      record({ kind: 'unit-tried', unit: name, cell, state: state as 'works' | 'fails' })
                    }
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 max-w-prose">
        {sentence}
        {claim === 'vehicle side' || claim === 'both'
          ? ' Every fuse, wire, plug, earth and switch on that side is still unproved.'
          : ''}
      </p>
    </section>
  );
}
