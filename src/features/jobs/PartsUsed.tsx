'use client';

import { useFieldArray } from 'react-hook-form';
import type { RepairLine } from '#core/format';
import { countWords, itemsLike, type Stock } from '#core/stock';
import type { KeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT } from '@/ui/controls';
import { Select } from '@/ui/Select';
import type { RepairWords } from './repairEntries';

/** What was used up: from the stock by its name and count, or whatever else by a name. */
export function PartsUsed({
  form,
  stock,
  place,
  onPlace,
  fitted,
  nominalVolts,
}: {
  form: KeptForm<RepairWords>;
  stock: Stock;
  place: string | null;
  onPlace: (id: string) => void;
  /** Parts that the lines say were fitted: one tap takes each from the stock. */
  fitted: readonly NonNullable<RepairLine['fitted']>[];
  nominalVolts: number;
}) {
  const { fields, append } = useFieldArray({ control: form.control, name: 'parts' });
  const parts = form.watch('parts') ?? [];
  const here = (id: string) =>
    stock.levels.find(({ item }) => item.id === id)?.at.find((one) => one.place === place)?.count ?? 0;
  const taken = new Set(parts.map(({ item }) => item));
  const offered = fitted.flatMap((part) => itemsLike(stock, part, nominalVolts).slice(0, 1));
  const placeName = stock.places.find(({ id }) => id === place)?.name;
  return (
    <fieldset className="sm:col-span-2">
      <legend className="mb-1 font-semibold">Parts used</legend>
      {stock.places.length > 0 ? (
        <div className="mb-2 max-w-sm">
          <Field label="Taken from">
            <Select value={place ?? ''} onChange={(event) => onPlace(event.target.value)}>
              {stock.places.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Select>
          </Field>
        </div>
      ) : null}
      {offered
        .filter(({ item }) => !taken.has(item.id))
        .map(({ item }) => (
          <div key={item.id} className="mb-2">
            <Button
              onClick={() => {
                const empty = parts.findIndex((one) => one.name.trim() === '' && !one.item);
                const row = { name: item.name, count: '1', item: item.id };
                if (empty >= 0) form.setValue(`parts.${empty}`, row, { shouldDirty: true });
                else append(row);
              }}
            >
              Take 1 {item.name} from {placeName ?? 'the stock'} ({countWords(here(item.id), item.unit)}{' '}
              there)
            </Button>
          </div>
        ))}
      {fields.map((field, row) => {
        const item = parts[row]?.item ?? '';
        return (
          <div key={field.id} className="mb-2 grid grid-cols-[1fr_6rem] gap-2">
            {stock.levels.length > 0 ? (
              <div className="grid gap-2 sm:grid-cols-2">
                <Select aria-label={`Part ${row + 1} from the stock`} {...form.register(`parts.${row}.item`)}>
                  <option value="">by name</option>
                  {stock.levels.map(({ item: { id, name, unit } }) => (
                    <option key={id} value={id}>
                      {name} ({countWords(here(id), unit)})
                    </option>
                  ))}
                </Select>
                {item === '' ? <NameField form={form} row={row} /> : null}
              </div>
            ) : (
              <NameField form={form} row={row} />
            )}
            <input
              {...form.register(`parts.${row}.count`)}
              aria-label={`How many of part ${row + 1}`}
              inputMode="decimal"
              className={INPUT}
            />
          </div>
        );
      })}
      <Button onClick={() => append({ name: '', count: '1', item: '' })}>One more part</Button>
    </fieldset>
  );
}

function NameField({ form, row }: { form: KeptForm<RepairWords>; row: number }) {
  return (
    <input
      {...form.register(`parts.${row}.name`)}
      aria-label={`Part ${row + 1}`}
      placeholder="Part or material"
      className={INPUT}
    />
  );
}
