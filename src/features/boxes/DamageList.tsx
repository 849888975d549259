'use client';

import type { Panel } from '#core/format';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { Select } from '@/ui/Select';

/** Damage as it was found before anything was touched, apart from what was done here. */
export function DamageList({ panel }: { panel: Panel }) {
  const { data, job, record } = useJob();
  const here = job.damages.filter((one) => one.panel === panel.id);
  const form = useKeptForm<{ words: string; when: 'as-found' | 'by-us' }>({
    keep: `damage ${data.id} ${panel.id}`,
    first: { when: 'as-found' },
    take: ({ words, when }) =>
      textOf(words) === ''
        ? { ok: false, message: 'Say what is damaged.', field: 'words' }
        : record({ kind: 'damage', panel: panel.id, words: textOf(words), when }),
  });
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
      <form onSubmit={form.submit} className="mt-3 grid gap-2 sm:grid-cols-[1fr_12rem_auto] sm:items-end">
        <Field label="What is damaged">
          <input {...form.register('words')} className={INPUT} />
        </Field>
        <Field label="Since when">
          <Select {...form.register('when')}>
            <option value="as-found">as found</option>
            <option value="by-us">done here</option>
          </Select>
        </Field>
        <Button type="submit">Record</Button>
      </form>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </section>
  );
}
