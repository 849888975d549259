'use client';

import { useEffect } from 'react';
import { BOUNDS, STOCK_SORTS, STOCK_UNITS, type StockItem } from '#core/format';
import { readNumber } from '#core/quantity';
import { COMPARED, type ComparedKind, PART_FIELDS, readPart, typedOf } from '#core/repair';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';
import { Select } from '@/ui/Select';
import type { Ask } from './ask';

interface ItemWords {
  sort: string;
  name: string;
  unit: string;
  minimum: string;
  reorder: string;
  part: Record<string, string>;
  /** The item as it was shown when the first key was pressed, as JSON: kept with what was typed over it. */
  was: string;
}

const isCompared = (sort: string): sort is ComparedKind => (COMPARED as readonly string[]).includes(sort);

/** An item of the stock, new or put right. */
export function ItemForm({ item, ask, onDone }: { item?: StockItem; ask: Ask; onDone?: () => void }) {
  const form = useKeptForm<ItemWords>({
    keep: `stock item ${item?.id ?? 'new'}`,
    first: {
      sort: item?.sort ?? 'fuse',
      name: item?.name ?? '',
      unit: item?.unit ?? 'piece',
      minimum: item ? String(item.minimum) : '',
      reorder: item ? String(item.reorder) : '',
      part: item?.part ? typedOf(item.part) : {},
    },
    take: async (values) => {
      const name = textOf(values.name);
      if (name === '') return { ok: false, message: 'Give it a name.', field: 'name' };
      const sort = STOCK_SORTS.find((one) => one === values.sort) ?? 'other';
      const numbers = { minimum: 0, reorder: 0 };
      for (const [field, label] of [
        ['minimum', 'Least'],
        ['reorder', 'Ordered at once'],
      ] as const) {
        const typed = textOf(values[field]);
        if (typed === '') continue;
        const read = readNumber(typed, BOUNDS.stockCount);
        if (!read.ok) return { ok: false, message: `${label}: ${read.message}`, field };
        numbers[field] = read.value;
      }
      const part = isCompared(sort) ? readPart(sort, values.part ?? {}) : null;
      if (part && !part.ok) return { ok: false, message: part.message, field: `part.${part.field}` };
      const said = part?.ok && Object.keys(part.value).length > 1 ? { part: part.value } : {};
      const unit = STOCK_UNITS.find((one) => one === values.unit) ?? 'piece';
      const typed = { id: item?.id ?? newId(), sort, name, unit, ...numbers, ...said };
      const answer = await ask({
        kind: 'item',
        item: typed,
        ...(item ? { was: values.was ? (JSON.parse(values.was) as StockItem) : item } : {}),
      });
      if (!answer.ok && answer.seen) form.setValue('was', JSON.stringify(answer.seen));
      if (answer.ok) onDone?.();
      return answer;
    },
  });
  const { watch, getValues, setValue } = form;
  useEffect(() => {
    if (!item) return;
    const watching = watch((_values, { name }) => {
      if (name !== undefined && name !== 'was' && !getValues('was')) setValue('was', JSON.stringify(item));
    });
    return () => watching.unsubscribe();
  }, [item, watch, getValues, setValue]);
  const sort = watch('sort') ?? 'fuse';
  return (
    <form onSubmit={form.submit} className="grid max-w-xl grid-cols-2 gap-3">
      <input type="hidden" {...form.register('was')} />
      <Field label="Sort">
        <Select {...form.register('sort')}>
          {STOCK_SORTS.map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </Select>
      </Field>
      <Field label="Counted in">
        <Select {...form.register('unit')}>
          {STOCK_UNITS.map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </Select>
      </Field>
      <div className="col-span-2">
        <Field label="Name">
          <input {...form.register('name')} className={INPUT} />
        </Field>
      </div>
      {isCompared(sort)
        ? PART_FIELDS[sort].map((field) => (
            <Field key={field.id} label={`${field.name}${field.unit ? `, ${field.unit}` : ''}`}>
              {field.options ? (
                <Select {...form.register(`part.${field.id}`)}>
                  <option value="">not known</option>
                  {field.options.map((one) => (
                    <option key={one.id} value={one.id}>
                      {one.name}
                    </option>
                  ))}
                </Select>
              ) : (
                <input
                  {...form.register(`part.${field.id}`)}
                  inputMode={field.range && !field.span ? 'decimal' : 'text'}
                  className={INPUT}
                />
              )}
            </Field>
          ))
        : null}
      <Field label="Least" hint="Below it, it is short">
        <input {...form.register('minimum')} inputMode="decimal" className={INPUT} />
      </Field>
      <Field label="Ordered at once">
        <input {...form.register('reorder')} inputMode="decimal" className={INPUT} />
      </Field>
      {form.problem ? (
        <div className="col-span-2">
          <Problem>{form.problem}</Problem>
        </div>
      ) : null}
      <div className="col-span-2">
        <Button look="primary" type="submit" disabled={form.busy}>
          {item ? 'Keep it so' : 'Add the item'}
        </Button>
      </div>
    </form>
  );
}
