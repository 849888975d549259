'use client';

import { STOCK_PLACES, type StockPlace } from '#core/format';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Choice } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';
import type { Ask } from './ask';

const SORTS = STOCK_PLACES.map((id) => ({ id, name: id === 'vehicle' ? 'a vehicle’s own' : id }));

/** Where parts lie. */
export function PlaceForm({ places, ask }: { places: readonly StockPlace[]; ask: Ask }) {
  const form = useKeptForm<{ name: string; sort: string }>({
    keep: 'stock place',
    first: { sort: 'van' },
    take: ({ name, sort }) => {
      if (textOf(name) === '') return { ok: false, message: 'Give the place a name.', field: 'name' };
      return ask({
        kind: 'place',
        place: {
          id: newId(),
          name: textOf(name),
          sort: STOCK_PLACES.find((one) => one === sort) ?? 'shelf',
        },
      });
    },
  });
  return (
    <div className="max-w-xl">
      <ul>
        {places.map(({ id, name, sort }) => (
          <li key={id} className="border-b border-line py-2">
            <span className="font-semibold">{name}</span> <span className="text-soft">{sort}</span>
          </li>
        ))}
      </ul>
      <form onSubmit={form.submit} className="mt-2 grid gap-2">
        <Field label="Another place">
          <input {...form.register('name')} className={INPUT} />
        </Field>
        <Choice
          legend="What it is"
          quiet
          options={SORTS}
          chosen={form.watch('sort') ?? 'van'}
          onChoose={(sort) => form.setValue('sort', sort, { shouldDirty: true })}
        />
        {form.problem ? <Problem>{form.problem}</Problem> : null}
        <div>
          <Button type="submit" disabled={form.busy}>
            Add the place
          </Button>
        </div>
      </form>
    </div>
  );
}
