'use client';

import { type FormEvent, useState } from 'react';
import type { Panel } from '#core/format';
import { useJob } from '@/features/jobs';
import { Button, Field, INPUT, Problem } from '@/ui/controls';

/** Damage as it was found before anything was touched, apart from what was done here. */
export function DamageList({ panel }: { panel: Panel }) {
  const { job, record } = useJob();
  const [problem, setProblem] = useState<string | null>(null);
  const here = job.damages.filter((one) => one.panel === panel.id);
  const save = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const words = String(form.get('words') ?? '').trim();
    if (words === '') return setProblem('Say what is damaged.');
    const when = form.get('when') === 'by-us' ? 'by-us' : 'as-found';
    const recorded = record({ kind: 'damage', panel: panel.id, words, when });
    setProblem(recorded.ok ? null : recorded.message);
    if (recorded.ok) event.currentTarget.reset();
  };
  const list = (when: 'as-found' | 'by-us', title: string) => {
    const items = here.filter((one) => one.when === when);
    return (
      <div>
        <h4 className="font-bold">{title}</h4>
        {items.length === 0 ? <p className="text-soft">Nothing recorded.</p> : null}
        <ul>
          {items.map((one) => (
            <li key={one.eventId}>· {one.words}</li>
          ))}
        </ul>
      </div>
    );
  };
  return (
    <section className="mt-6" aria-labelledby="damage-title" data-testid="damage">
      <h3 id="damage-title" className="border-b-2 border-line pb-1 text-lg">
        Damage at this box
      </h3>
      <div className="mt-2 grid gap-4 sm:grid-cols-2">
        {list('as-found', 'As found, before anything was touched')}
        {list('by-us', 'Done here')}
      </div>
      <form onSubmit={save} className="mt-3 grid gap-2 sm:grid-cols-[1fr_12rem_auto] sm:items-end">
        <Field label="What is damaged">
          <input name="words" className={INPUT} />
        </Field>
        <Field label="Since when">
          <select name="when" className={INPUT}>
            <option value="as-found">as found</option>
            <option value="by-us">done here</option>
          </select>
        </Field>
        <Button type="submit">Record</Button>
      </form>
      {problem ? <Problem>{problem}</Problem> : null}
    </section>
  );
}
