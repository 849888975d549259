'use client';

import { useState } from 'react';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { useWho } from '@/sync/who';
import { Button, Field, INPUT, Problem } from '@/ui/controls';

/** A phone finds out where it is within so long, milliseconds. */
const LONGEST_MS = 15_000;

/** Asked once: where the work was done, typed or as the phone has it. */
export function PlaceOfWork() {
  const { data, record } = useJob();
  const who = useWho();
  const [problem, setProblem] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  const form = useKeptForm<{ place: string }>({
    keep: `place ${data.id}`,
    first: { place: who ? `${who.shopName}, ${who.town}` : '' },
    take: ({ place }) => {
      const words = textOf(place);
      if (words === '') return { ok: false, message: 'Say where the work was done.', field: 'place' };
      return record({ kind: 'work-place', place: words });
    },
  });
  const fromPhone = () => {
    setAsking(true);
    setProblem(null);
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        setAsking(false);
        const place = `${coords.latitude.toFixed(5)}, ${coords.longitude.toFixed(5)} (within ${Math.ceil(coords.accuracy)} m)`;
        form.setValue('place', place, { shouldDirty: true });
      },
      () => {
        setAsking(false);
        setProblem('This phone does not say where it is. Type the place.');
      },
      { timeout: LONGEST_MS, enableHighAccuracy: true },
    );
  };
  return (
    <form
      onSubmit={form.submit}
      className="no-print mb-4 flex flex-wrap items-end gap-2"
      data-testid="work-place"
    >
      <Field label="Where the work was done">
        <input {...form.register('place')} className={`${INPUT} w-80 max-w-full`} />
      </Field>
      <Button type="submit">It was there</Button>
      <Button look="quiet" disabled={asking} onClick={fromPhone}>
        {asking ? 'The phone looks …' : 'From the phone'}
      </Button>
      {form.problem || problem ? <Problem>{form.problem ?? problem}</Problem> : null}
    </form>
  );
}
