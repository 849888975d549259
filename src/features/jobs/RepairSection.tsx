'use client';

import { type FormEvent, useRef, useState } from 'react';
import { BOUNDS, type BodyOf } from '#core/format';
import { readNumber } from '#core/quantity';
import { useDraftState, useFormDraft } from '@/sync/useFormDraft';
import { Button, Field, INPUT, Problem, Section } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { useJob } from './JobProvider';
import { Photos } from './Photos';

export function RepairSection() {
  const { data, job, record } = useJob();
  const form = useRef<HTMLFormElement>(null);
  const [rows, setRows] = useDraftState(`repair ${data.id} rows`, 1);
  const [problem, setProblem] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const [temporary, setTemporary] = useState(false);
  const forget = useFormDraft(`repair ${data.id} ${job.repairs.length === 0 || adding}`, form);
  const save = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const written = new FormData(event.currentTarget);
    const text = (name: string) => String(written.get(name) ?? '').trim();
    const minutes = text('minutes') === '' ? null : readNumber(text('minutes'), BOUNDS.repairMinutes);
    if (text('words') === '') return setProblem('Say what was done.');
    if (minutes && !minutes.ok)
      return setProblem(`The minutes it took: ${minutes.message} They may stay empty.`);
    if (temporary && text('due') === '')
      return setProblem('A temporary repair needs a day by which it is put right.');
    const partsUsed: { name: string; count: number }[] = [];
    for (let row = 0; row < rows; row++) {
      const name = text(`part-${row}`);
      if (name === '') continue;
      const count = readNumber(text(`count-${row}`), BOUNDS.partCount);
      if (!count.ok) return setProblem(`How many of “${name}”? ${count.message}`);
      partsUsed.push({ name, count: count.value });
    }
    const repair: BodyOf<'repair'> = {
      kind: 'repair',
      words: text('words'),
      partsUsed,
      ...(minutes ? { minutes: minutes.value } : {}),
      temporary,
      ...(temporary ? { due: text('due') } : {}),
      ...(text('undo') === '' ? {} : { undo: text('undo') }),
    };
    const watch: BodyOf<'watch'>[] = temporary
      ? [{ kind: 'watch', words: `Temporary repair: ${text('words')}`, due: text('due') }]
      : [];
    const recorded = record(repair, ...watch);
    setProblem(recorded.ok ? null : recorded.message);
    if (!recorded.ok) return;
    forget();
    form.current?.reset();
    setAdding(false);
    setRows(1);
    setRows(null);
    setTemporary(false);
  };
  return (
    <Section id="repair" number={5} title="Repair" done={job.repairs.length > 0}>
      {job.repairs.map((repair) => (
        <div key={repair.words} className="mb-3">
          <p className="text-lg font-semibold">
            {repair.words}{' '}
            {repair.temporary ? (
              <span className="text-caution">
                (temporary{repair.due ? `, due ${dateWords(repair.due, 'year')}` : ''})
              </span>
            ) : null}
          </p>
          <p className="text-soft">
            {repair.partsUsed.map((part) => `${part.count} × ${part.name}`).join(', ')}
            {repair.minutes === undefined
              ? ''
              : `${repair.partsUsed.length > 0 ? ' · ' : ''}${repair.minutes} min`}
          </p>
        </div>
      ))}
      {job.repairs.length > 0 && !adding ? (
        <Button onClick={() => setAdding(true)}>Another repair</Button>
      ) : (
        <form ref={form} onSubmit={save} className="grid max-w-3xl gap-4 sm:grid-cols-2">
          <p className="border-l-4 border-line pl-3 text-soft sm:col-span-2">
            Same rating, same family, same slot for a fuse; a higher one never is a repair. The maker’s
            service information and local rules come first; licensed work is for licensed people.
          </p>
          <div className="sm:col-span-2">
            <Field label="What was done">
              <textarea name="words" rows={2} className={INPUT} />
            </Field>
          </div>
          <fieldset className="sm:col-span-2">
            <legend className="mb-1 font-semibold">Parts used</legend>
            {Array.from({ length: rows }, (_, row) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: rows are only ever added at the end
              <div key={row} className="mb-2 grid grid-cols-[1fr_6rem] gap-2">
                <input
                  name={`part-${row}`}
                  aria-label={`Part ${row + 1}`}
                  placeholder="Part or material"
                  className={INPUT}
                />
                <input
                  name={`count-${row}`}
                  aria-label={`How many of part ${row + 1}`}
                  defaultValue="1"
                  inputMode="decimal"
                  className={INPUT}
                />
              </div>
            ))}
            <Button onClick={() => setRows(rows + 1)}>One more part</Button>
          </fieldset>
          <Field label="Minutes" hint="May stay empty">
            <input name="minutes" inputMode="decimal" className={INPUT} />
          </Field>
          <Field label="How to undo it" hint="For the person after you; may stay empty">
            <input name="undo" className={INPUT} />
          </Field>
          <label className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              name="temporary"
              checked={temporary}
              onChange={(event) => setTemporary(event.target.checked)}
              className="size-6 accent-(--copper)"
            />
            This repair is temporary
          </label>
          {temporary ? (
            <Field label="To be put right by">
              <input name="due" type="date" className={INPUT} />
            </Field>
          ) : null}
          {problem ? (
            <div className="sm:col-span-2">
              <Problem>{problem}</Problem>
            </div>
          ) : null}
          <div className="sm:col-span-2">
            <Button look="primary" type="submit">
              Record the repair
            </Button>
          </div>
        </form>
      )}
      <Photos step="repair" />
    </Section>
  );
}
