'use client';

import { useEffect } from 'react';
import type { Panel, Slot } from '#core/format';
import { SLOT_FAMILIES } from '#core/limits';
import { gridSlots } from '#core/panel';
import { type NumberRange, readNumber } from '#core/quantity';
import { useKeptForm } from '@/sync/useKeptForm';
import { CheckField } from '@/ui/Check';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { Select } from '@/ui/Select';

/** Slots that are added in one go. */
const MOST_AT_ONCE = 200;

interface Grid {
  rows: string;
  perRow: string;
  first: string;
  type: 'fuse' | 'relay';
  family: Slot['family'];
  upright: boolean;
}

/** Rows and columns of equal slots in one go. */
export function GridForm({ panel, onAdd }: { panel: Panel; onAdd: (slots: readonly Slot[]) => void }) {
  const nextNumber = String(1 + Math.max(0, ...panel.slots.map((slot) => Number(slot.number) || 0)));
  const form = useKeptForm<Grid>({
    keep: null,
    first: { rows: '2', perRow: '12', first: nextNumber, type: 'fuse', family: 'mini', upright: true },
    take: (values) => {
      const read = (field: 'rows' | 'perRow' | 'first', range: NumberRange) => ({
        field,
        read: readNumber(values[field], { ...range, whole: true }),
      });
      const rows = read('rows', { least: 1, most: MOST_AT_ONCE });
      const perRow = read('perRow', { least: 1, most: MOST_AT_ONCE });
      const first = read('first', { least: 0, most: 99_999 });
      if (!rows.read.ok) return { ok: false, message: `Rows: ${rows.read.message}`, field: 'rows' };
      if (!perRow.read.ok)
        return { ok: false, message: `Slots a row: ${perRow.read.message}`, field: 'perRow' };
      if (!first.read.ok)
        return { ok: false, message: `First number: ${first.read.message}`, field: 'first' };
      const count = rows.read.value * perRow.read.value;
      if (count > MOST_AT_ONCE) {
        return {
          ok: false,
          message: `${count} slots are too many at once: at most ${MOST_AT_ONCE}.`,
          field: 'rows',
        };
      }
      onAdd(
        gridSlots(panel, {
          type: values.type,
          family: values.family,
          rows: rows.read.value,
          perRow: perRow.read.value,
          firstNumber: first.read.value,
          x: 6,
          y: Math.max(0, ...panel.slots.map((slot) => slot.y + slot.height)) + 6,
          gapX: 4,
          gapY: 6,
          upright: values.upright,
        }),
      );
      return { ok: true };
    },
  });
  const { setValue } = form;
  useEffect(() => setValue('first', nextNumber), [setValue, nextNumber]);
  return (
    <form onSubmit={form.submit} aria-labelledby="grid-title">
      <h2 id="grid-title" className="mb-2 border-b-2 border-line pb-1 text-lg">
        Rows in one go
      </h2>
      <div className="grid grid-cols-3 gap-3">
        <Field label="Rows">
          <input {...form.register('rows')} inputMode="numeric" className={INPUT} />
        </Field>
        <Field label="Slots a row">
          <input {...form.register('perRow')} inputMode="numeric" className={INPUT} />
        </Field>
        <Field label="First number">
          <input {...form.register('first')} inputMode="numeric" className={INPUT} />
        </Field>
        <Field label="What">
          <Select {...form.register('type')}>
            <option value="fuse">fuse</option>
            <option value="relay">relay</option>
          </Select>
        </Field>
        <Field label="Family">
          <Select {...form.register('family')}>
            {SLOT_FAMILIES.map((one) => (
              <option key={one} value={one}>
                {one.replace(/-/g, ' ')}
              </option>
            ))}
          </Select>
        </Field>
        <CheckField control={form.control} name="upright">
          Upright
        </CheckField>
      </div>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <Button type="submit" className="mt-3">
        Add the rows
      </Button>
    </form>
  );
}
