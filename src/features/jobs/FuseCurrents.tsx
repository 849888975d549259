'use client';

import { useState } from 'react';
import { openingTime, openingTimeWords } from '#core/faults';
import { BOUNDS, CURRENT_PHASES } from '#core/format';
import { overloaded, PHASE_WORDS, partName, percentOfRating } from '#core/log';
import { readNumber } from '#core/quantity';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Choice } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { Select } from '@/ui/Select';
import { readAmount } from './amount';

const PHASES = CURRENT_PHASES.map((id) => ({
  id,
  name: `${PHASE_WORDS[id][0]!.toUpperCase()}${PHASE_WORDS[id].slice(1)}`,
}));

/** Currents through fuses against their ratings, and a form for one more. */
export function FuseCurrents() {
  const { job, circuit } = useJob();
  const [adding, setAdding] = useState(false);
  const fuses = circuit?.parts.filter((part) => part.kind === 'fuse') ?? [];
  if (fuses.length === 0) return null;
  return (
    <div className="mt-4" data-testid="currents">
      {job.currents.length > 0 ? <h3 className="font-bold">Currents through fuses</h3> : null}
      <ul>
        {job.currents.map(({ eventId, fuse, phase, amps, ratingAmps, how }) => {
          const part = fuses.find(({ id }) => id === fuse);
          const wrong = phase === 'running' && overloaded(amps, ratingAmps);
          const opens =
            amps > ratingAmps ? openingTimeWords(openingTime(amps / ratingAmps, part?.family)) : '';
          return (
            <li key={eventId} className={`py-1 ${wrong ? 'font-bold text-bad' : ''}`}>
              {partName(circuit, fuse)}: {amps} A {PHASE_WORDS[phase]}, {how},{' '}
              {percentOfRating(amps, ratingAmps)} % of {ratingAmps} A{opens ? `; at that it ${opens}` : ''}
            </li>
          );
        })}
      </ul>
      {adding ? (
        <CurrentForm fuses={fuses} onDone={() => setAdding(false)} />
      ) : (
        <Button look="quiet" onClick={() => setAdding(true)}>
          What a fuse carries: running, starting, held
        </Button>
      )}
    </div>
  );
}

function CurrentForm({
  fuses,
  onDone,
}: {
  fuses: readonly { readonly id: string; readonly name: string; readonly ratingAmps?: number }[];
  onDone: () => void;
}) {
  const { data, job, record } = useJob();
  const found = fuses.find(({ id }) => job.found?.parts.includes(id)) ?? fuses[0];
  const form = useKeptForm<{ fuse: string; phase: string; amps: string; rating: string; how: string }>({
    keep: `current ${data.id}`,
    first: { fuse: found?.id ?? '', phase: 'running', how: 'measured' },
    take: (values) => {
      const read = readAmount(textOf(values.amps), 'A', BOUNDS.fuseCurrent);
      if (!read.ok) return { ok: false, message: `The current: ${read.message}`, field: 'amps' };
      const known = fuses.find(({ id }) => id === values.fuse)?.ratingAmps;
      const rating = known === undefined ? readNumber(textOf(values.rating), BOUNDS.fuseRating) : null;
      if (rating && !rating.ok)
        return { ok: false, message: `Its rating: ${rating.message}`, field: 'rating' };
      const recorded = record({
        kind: 'fuse-current',
        fuse: values.fuse,
        phase: CURRENT_PHASES.find((one) => one === values.phase) ?? 'running',
        amps: read.value,
        ratingAmps: known ?? (rating?.ok ? rating.value : 0),
        how: values.how === 'calculated' ? 'calculated' : 'measured',
      });
      if (recorded.ok) onDone();
      return recorded;
    },
  });
  const chosen = fuses.find(({ id }) => id === form.watch('fuse'));
  return (
    <form onSubmit={form.submit} className="mt-2 grid max-w-3xl gap-3 sm:grid-cols-2">
      <Field label="Fuse">
        <Select {...form.register('fuse')}>
          {fuses.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
      </Field>
      <Field label="Current, A">
        <input {...form.register('amps')} inputMode="decimal" className={INPUT} />
      </Field>
      {chosen && chosen.ratingAmps === undefined ? (
        <Field label="Rating of the fuse in it, A">
          <input {...form.register('rating')} inputMode="decimal" className={INPUT} />
        </Field>
      ) : null}
      <Choice
        legend="When"
        options={PHASES}
        chosen={form.watch('phase') ?? 'running'}
        onChoose={(id) => form.setValue('phase', id, { shouldDirty: true })}
      />
      <Choice
        legend="How it is known"
        options={[
          { id: 'measured', name: 'Measured' },
          { id: 'calculated', name: 'Calculated' },
        ]}
        chosen={form.watch('how') ?? 'measured'}
        onChoose={(id) => form.setValue('how', id, { shouldDirty: true })}
      />
      {form.problem ? (
        <div className="sm:col-span-2">
          <Problem>{form.problem}</Problem>
        </div>
      ) : null}
      <div className="flex gap-2 sm:col-span-2">
        <Button type="submit">Record the current</Button>
        <Button look="quiet" onClick={onDone}>
          Not now
        </Button>
      </div>
    </form>
  );
}
