'use client';

import { useRef } from 'react';
import { BOUNDS } from '#core/format';
import { readNumber } from '#core/quantity';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { useSay } from '@/ui/Toast';

/** What an hour costs: work in “repair or replace” is counted with it. */
export function RateForm({ rate, mayChange }: { rate: number | null; mayChange: boolean }) {
  const tried = useRef<Tried | null>(null);
  const say = useSay();
  const form = useKeptForm<{ rate: string }>({
    keep: 'hourly rate',
    first: { rate: rate === null ? '' : String(rate) },
    stays: true,
    take: async (values) => {
      const typed = textOf(values.rate);
      const read = typed === '' ? null : readNumber(typed, BOUNDS.price);
      if (read && !read.ok) return { ok: false, message: read.message, field: 'rate' };
      tried.current = requestFor(tried.current, typed);
      const posted = await postJson<{ message?: string }>('/api/shop/rate', {
        id: tried.current.id,
        rate: read?.value ?? null,
      });
      if (posted.kind === 'away') return { ok: false, message: posted.message };
      if (!posted.ok) return { ok: false, message: posted.answer.message ?? 'It was not taken.' };
      say('The rate is kept.');
      return { ok: true };
    },
  });
  return (
    <section aria-labelledby="rate-title" className="mt-8">
      <h2 id="rate-title" className="border-b-2 border-line pb-2 text-xl">
        What an hour costs
      </h2>
      <form onSubmit={form.submit} className="mt-3 flex flex-wrap items-end gap-2">
        <Field label="Rate of an hour, in your currency">
          <input {...form.register('rate')} inputMode="decimal" className={`${INPUT} w-40`} />
        </Field>
        <Button type="submit" disabled={form.busy || !mayChange}>
          Keep the rate
        </Button>
        {mayChange ? null : <p className="text-soft">The owner says it.</p>}
        {form.problem ? <Problem>{form.problem}</Problem> : null}
      </form>
    </section>
  );
}
