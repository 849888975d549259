'use client';

import { useState } from 'react';
import { COMPARED, type ComparedKind, lineWords, noRepair, readPart, typedOf } from '#core/repair';
import { useJob } from '@/job/JobProvider';
import { Photos } from '@/job/Photos';
import { useKeptForm } from '@/sync/useKeptForm';
import { CheckField } from '@/ui/Check';
import { Button, ButtonLink, Field, INPUT, Problem, Section } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { useStockPlace } from '@/ui/useStockPlace';
import { Options } from './Options';
import { PartsUsed } from './PartsUsed';
import { RepairLines } from './RepairLines';
import { entriesOf, judgedOf, type LineWords, NO_LINE, type RepairWords } from './repairEntries';
import { Temporaries } from './Temporaries';
import { WorkClock } from './WorkClock';

const isCompared = (kind: string): kind is ComparedKind => (COMPARED as readonly string[]).includes(kind);

/** Parts that the lines say were fitted. */
function fittedIn(lines: readonly LineWords[]) {
  return lines.flatMap(({ deed, kind, fitted }) => {
    if (deed !== 'replaced' || !isCompared(kind)) return [];
    const part = readPart(kind, fitted);
    return part.ok && Object.keys(part.value).length > 1 ? [part.value] : [];
  });
}

export function RepairSection() {
  const { data, job, circuit, record } = useJob();
  const [adding, setAdding] = useState(false);
  const stock = data.stock ?? { levels: [], places: [] };
  const [place, setPlace] = useStockPlace(stock.places);
  const form = useKeptForm<RepairWords>({
    keep: `repair ${data.id}`,
    first: { parts: [{ name: '', count: '1', item: '' }], lines: [], temporary: false, ends: [] },
    take: (values) => {
      const nameOf = (id: string) => stock.levels.find(({ item }) => item.id === id)?.item.name ?? null;
      const read = entriesOf(values, circuit, { place, nameOf });
      if (!read.ok) return read;
      const recorded = record(...read.bodies);
      if (recorded.ok) setAdding(false);
      return recorded;
    },
  });
  const [temporary, lines = [], ends = []] = form.watch(['temporary', 'lines', 'ends']);
  const wrong = lines.some((line) => noRepair(judgedOf({ ...NO_LINE, ...line }, circuit)));
  /** The form for the right part in the place of a temporary one, filled in as far as it is known. */
  const putRight = (one: (typeof job.temporaries)[number]) => {
    setAdding(true);
    form.setValue('ends', [one.eventId], { shouldDirty: true });
    form.setValue(
      'lines',
      (one.lines ?? []).map(({ part = '', name, deed, wanted }) => ({
        ...NO_LINE,
        part,
        name,
        deed,
        kind: wanted?.kind ?? '',
        wanted: wanted ? typedOf(wanted) : {},
        fitted: wanted ? typedOf(wanted) : {},
      })),
      { shouldDirty: true },
    );
    form.setValue('words', `Right part fitted in place of: ${one.words}`, { shouldDirty: true });
  };
  const work = job.complaint?.work;
  return (
    <Section id="repair" number={work ? 3 : 5} title={work ? 'Done' : 'Repair'} done={job.repairs.length > 0}>
      {job.repairs.map((repair) => (
        <div key={repair.eventId} className="mb-3">
          <p className="text-lg font-semibold">
            {repair.words}{' '}
            {repair.temporary ? (
              <span className="text-caution">
                (temporary{repair.due ? `, due ${dateWords(repair.due, 'year')}` : ''})
              </span>
            ) : null}
          </p>
          {(repair.lines ?? []).map((line) => (
            <p key={lineWords(line)}>{lineWords(line)}.</p>
          ))}
          <p className="text-soft">
            {repair.partsUsed.map((part) => `${part.count} × ${part.name}`).join(', ')}
            {repair.minutes === undefined
              ? ''
              : `${repair.partsUsed.length > 0 ? ' · ' : ''}${repair.minutes} min`}
          </p>
        </div>
      ))}
      {work ? null : <Options />}
      {work === 'change' ? null : (
        <p className="mb-3">
          <ButtonLink href={`/jobs/${data.id}/change`}>
            Plan a change, played before a wire is touched
          </ButtonLink>
        </p>
      )}
      <Temporaries onRight={putRight} />
      {job.repairs.length > 0 && !adding ? (
        <Button onClick={() => setAdding(true)}>Another repair</Button>
      ) : (
        <form onSubmit={form.submit} className="grid max-w-3xl gap-4 sm:grid-cols-2">
          <p className="border-l-4 border-line pl-3 text-soft sm:col-span-2">
            Same rating, same family, same slot for a fuse; a higher one never is a repair. The maker’s
            service information and local rules come first; licensed work is for licensed people.
          </p>
          {ends.length > 0 ? (
            <p className="border-l-4 border-copper pl-3 sm:col-span-2">
              It ends what was temporary.{' '}
              <Button look="quiet" onClick={() => form.setValue('ends', [], { shouldDirty: true })}>
                It does not
              </Button>
            </p>
          ) : null}
          <div className="sm:col-span-2">
            <Field label="What was done">
              <textarea {...form.register('words')} rows={2} className={INPUT} />
            </Field>
          </div>
          <RepairLines form={form} circuit={circuit} />
          <PartsUsed
            form={form}
            stock={stock}
            place={place}
            onPlace={setPlace}
            fitted={fittedIn(lines)}
            nominalVolts={circuit?.nominalVolts ?? 12}
          />
          <WorkClock
            onMinutes={(minutes) => form.setValue('minutes', String(minutes), { shouldDirty: true })}
          >
            <Field label="Minutes" hint="May stay empty">
              <input {...form.register('minutes')} inputMode="decimal" className={INPUT} />
            </Field>
          </WorkClock>
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
          {temporary ? (
            <div className="sm:col-span-2">
              <Field label={wrong ? 'Why it was fitted all the same' : 'Why it is temporary'}>
                <input {...form.register('reason')} className={INPUT} />
              </Field>
            </div>
          ) : null}
          {form.problem ? (
            <div className="sm:col-span-2">
              <Problem>{form.problem}</Problem>
            </div>
          ) : null}
          <div className="sm:col-span-2">
            <Button look="primary" type="submit">
              {work ? 'Record the work' : 'Record the repair'}
            </Button>
          </div>
        </form>
      )}
      <Photos step="repair" />
    </Section>
  );
}
