'use client';

import { useState } from 'react';
import { LABEL_SHEETS } from '#core/limits';
import { labelsOf } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Choice } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { FileLink } from '@/ui/FileLink';
import { Fold } from '@/ui/Fold';
import { Select } from '@/ui/Select';
import { GuestLinks } from './GuestLinks';
import { PlaceOfWork } from './PlaceOfWork';
import type { Reader } from './sheetReader';

const READERS = [
  { id: 'technician', name: 'For the person after' },
  { id: 'customer', name: 'For the customer' },
] as const;

/** What is done with a sheet besides reading it: for whom it is, labels, handing over in the middle, where the work was done. */
export function SheetTools({ reader, onReader }: { reader: Reader; onReader: (reader: Reader) => void }) {
  const { data, job, circuit } = useJob();
  const labels = labelsOf(job, circuit, data.title).length;
  return (
    <>
      <Choice
        legend="For whom"
        quiet
        options={READERS}
        chosen={reader}
        onChoose={(id) => onReader(id === 'customer' ? 'customer' : 'technician')}
      />
      {labels > 0 ? <LabelFiles jobId={data.id} count={labels} /> : null}
      {job.state === 'closed' ? null : <HandOverForm />}
      <GuestLinks reader={reader} />
      {job.workPlace === null ? <PlaceOfWork /> : null}
    </>
  );
}

/** Labels for plugs, slots and what is set aside, on whatever sheets lie in the drawer. */
function LabelFiles({ jobId, count }: { jobId: string; count: number }) {
  const [sheet, setSheet] = useState(LABEL_SHEETS[0]!.id);
  const [first, setFirst] = useState('1');
  const places = LABEL_SHEETS.find(({ id }) => id === sheet)!;
  const from = Number(first);
  const wrong = !Number.isInteger(from) || from < 1 || from > places.columns * places.rows;
  return (
    <Fold title={count === 1 ? 'One label' : `${count} labels`} testId="labels">
      <div className="flex flex-wrap items-end gap-2">
        <Field label="Sheet">
          <Select value={sheet} onChange={(event) => setSheet(event.target.value)}>
            {LABEL_SHEETS.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </Field>
        <Field label="First free place">
          <input
            value={first}
            onChange={(event) => setFirst(event.target.value)}
            inputMode="numeric"
            className={`${INPUT} w-24`}
          />
        </Field>
        {wrong ? (
          <Problem>A whole number from 1 to {String(places.columns * places.rows)}.</Problem>
        ) : (
          <FileLink href={`/api/jobs/${jobId}/labels?sheet=${sheet}&from=${from}`}>Labels (PDF)</FileLink>
        )}
      </div>
    </Fold>
  );
}

/** The job goes to a colleague in the middle: the sheet says how it stands, and who has it now. */
function HandOverForm() {
  const { data, record } = useJob();
  const form = useKeptForm<{ to: string; words: string }>({
    keep: `hand over ${data.id}`,
    take: ({ to, words }) =>
      textOf(to) === ''
        ? { ok: false, message: 'Say who takes it over.', field: 'to' }
        : record({ kind: 'handed-over', to: textOf(to), words: textOf(words) }),
  });
  return (
    <Fold title="Hand it to a colleague in the middle" testId="hand-over">
      <form onSubmit={form.submit} className="grid gap-2 sm:grid-cols-[12rem_1fr_auto] sm:items-end">
        <Field label="Who takes it over">
          <input {...form.register('to')} className={INPUT} />
        </Field>
        <Field label="What to know">
          <input {...form.register('words')} className={INPUT} />
        </Field>
        <Button type="submit">Hand it over</Button>
      </form>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </Fold>
  );
}
