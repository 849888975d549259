'use client';

import { useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import { BOUNDS, type EventBody } from '#core/format';
import { readNumber } from '#core/quantity';
import { type Alike, judgeFuse } from '#core/repair';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { CheckField } from '@/ui/Check';
import { Button, Field, INPUT, Problem, Section } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { FuseFitted } from './FuseFitted';
import { useJob } from './JobProvider';
import { Photos } from './Photos';

export interface RepairWords {
  words: string;
  parts: { name: string; count: string }[];
  minutes: string;
  undo: string;
  temporary: boolean;
  due: string;
  /** A fuse that was fitted, by its id; empty where none was. */
  fuse: string;
  fuseAmps: string;
  reason: string;
}

/** The fuse that was fitted: like the design it is a repair, else a temporary part with a reason, or nothing. */
function fittedOf(
  values: RepairWords,
  judge: (fuse: string, ratingAmps: number) => Alike | null,
):
  | { ok: true; fields: { fitted?: { part: string; ratingAmps: number }[]; reason?: string } }
  | { ok: false; message: string; field: string } {
  const part = textOf(values.fuse);
  if (part === '') return { ok: true, fields: {} };
  const amps = readNumber(textOf(values.fuseAmps), BOUNDS.fuseRating);
  if (!amps.ok) return { ok: false, message: `The rating of the fuse: ${amps.message}`, field: 'fuseAmps' };
  const alike = judge(part, amps.value);
  const fitted = [{ part, ratingAmps: amps.value }];
  // What is not known to be alike is told, and not refused: nobody may have read the old one.
  if (!alike || alike.repair || alike.verdict === 'open') return { ok: true, fields: { fitted } };
  const why = alike.because.join('; ');
  if (!values.temporary) {
    const message = `${why}. That is no repair: say that it is temporary, until when, and why.`;
    return { ok: false, message, field: 'temporary' };
  }
  const reason = textOf(values.reason);
  if (reason === '') return { ok: false, message: `${why}. Say why it was fitted.`, field: 'reason' };
  return { ok: true, fields: { fitted, reason } };
}

/** The repair as entries of the log, or what of it cannot be taken. */
export function entriesOf(
  values: RepairWords,
  judge: (fuse: string, ratingAmps: number) => Alike | null = () => null,
): { ok: true; bodies: EventBody[] } | { ok: false; message: string; field: string } {
  const words = textOf(values.words);
  if (words === '') return { ok: false, message: 'Say what was done.', field: 'words' };
  const took = textOf(values.minutes);
  const minutes = took === '' ? null : readNumber(took, BOUNDS.repairMinutes);
  if (minutes && !minutes.ok) {
    const message = `The minutes it took: ${minutes.message} They may stay empty.`;
    return { ok: false, message, field: 'minutes' };
  }
  const due = textOf(values.due);
  if (values.temporary && due === '') {
    const message = 'A temporary repair needs a day by which it is put right.';
    return { ok: false, message, field: 'due' };
  }
  const fitted = fittedOf(values, judge);
  if (!fitted.ok) return fitted;
  const partsUsed: { name: string; count: number }[] = [];
  for (const [row, part] of values.parts.entries()) {
    const name = textOf(part.name);
    if (name === '') continue;
    const count = readNumber(textOf(part.count), BOUNDS.partCount);
    if (!count.ok) {
      return { ok: false, message: `How many of “${name}”? ${count.message}`, field: `parts.${row}.count` };
    }
    partsUsed.push({ name, count: count.value });
  }
  const undo = textOf(values.undo);
  const { temporary } = values;
  const repair: EventBody = {
    kind: 'repair',
    words,
    partsUsed,
    ...(minutes ? { minutes: minutes.value } : {}),
    temporary,
    ...(temporary ? { due } : {}),
    ...(undo === '' ? {} : { undo }),
    ...fitted.fields,
  };
  return {
    ok: true,
    bodies: temporary ? [repair, { kind: 'watch', words: `Temporary repair: ${words}`, due }] : [repair],
  };
}

export function RepairSection() {
  const { data, job, circuit, record } = useJob();
  const judge = (part: string, ratingAmps: number) =>
    circuit ? judgeFuse(circuit, { part, ratingAmps }) : null;
  const [adding, setAdding] = useState(false);
  const form = useKeptForm<RepairWords>({
    keep: `repair ${data.id}`,
    first: { parts: [{ name: '', count: '1' }], temporary: false, fuse: '' },
    take: (values) => {
      const read = entriesOf(values, judge);
      if (!read.ok) return read;
      const recorded = record(...read.bodies);
      if (recorded.ok) setAdding(false);
      return recorded;
    },
  });
  const { fields: parts, append } = useFieldArray({ control: form.control, name: 'parts' });
  const temporary = form.watch('temporary');
  return (
    <Section
      id="repair"
      number={job.complaint?.work ? 3 : 5}
      title={job.complaint?.work ? 'Done' : 'Repair'}
      done={job.repairs.length > 0}
    >
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
        <form onSubmit={form.submit} className="grid max-w-3xl gap-4 sm:grid-cols-2">
          <p className="border-l-4 border-line pl-3 text-soft sm:col-span-2">
            Same rating, same family, same slot for a fuse; a higher one never is a repair. The maker’s
            service information and local rules come first; licensed work is for licensed people.
          </p>
          <div className="sm:col-span-2">
            <Field label="What was done">
              <textarea {...form.register('words')} rows={2} className={INPUT} />
            </Field>
          </div>
          <fieldset className="sm:col-span-2">
            <legend className="mb-1 font-semibold">Parts used</legend>
            {parts.map((part, row) => (
              <div key={part.id} className="mb-2 grid grid-cols-[1fr_6rem] gap-2">
                <input
                  {...form.register(`parts.${row}.name`)}
                  aria-label={`Part ${row + 1}`}
                  placeholder="Part or material"
                  className={INPUT}
                />
                <input
                  {...form.register(`parts.${row}.count`)}
                  aria-label={`How many of part ${row + 1}`}
                  inputMode="decimal"
                  className={INPUT}
                />
              </div>
            ))}
            <Button onClick={() => append({ name: '', count: '1' })}>One more part</Button>
          </fieldset>
          {circuit?.parts.some(({ kind }) => kind === 'fuse') ? (
            <FuseFitted circuit={circuit} form={form} judge={judge} />
          ) : null}
          <Field label="Minutes" hint="May stay empty">
            <input {...form.register('minutes')} inputMode="decimal" className={INPUT} />
          </Field>
          <Field label="How to undo it" hint="For the person after you; may stay empty">
            <input {...form.register('undo')} className={INPUT} />
          </Field>
          <CheckField control={form.control} name="temporary">
            This repair is temporary
          </CheckField>
          {temporary ? (
            <Field label="To be put right by">
              <input {...form.register('due')} type="date" className={INPUT} />
            </Field>
          ) : null}
          {form.problem ? (
            <div className="sm:col-span-2">
              <Problem>{form.problem}</Problem>
            </div>
          ) : null}
          <div className="sm:col-span-2">
            <Button look="primary" type="submit">
              {job.complaint?.work ? 'Record the work' : 'Record the repair'}
            </Button>
          </div>
        </form>
      )}
      <Photos step="repair" />
    </Section>
  );
}
