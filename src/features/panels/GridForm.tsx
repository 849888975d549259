'use client';

import { type FormEvent, useState } from 'react';
import type { Panel, Slot } from '#core/format';
import { SLOT_FAMILIES } from '#core/limits';
import { gridSlots } from '#core/panel';
import { type ReadNumber, readNumber } from '#core/quantity';
import { Button, Field, INPUT, Problem } from '@/ui/controls';

/** Slots that are added in one go. */
const MOST_AT_ONCE = 200;

/** Rows and columns of equal slots in one go. */
export function GridForm({ panel, onAdd }: { panel: Panel; onAdd: (slots: readonly Slot[]) => void }) {
  const [problem, setProblem] = useState<string | null>(null);
  const add = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const [rows, perRow, first] = (['rows', 'perRow', 'first'] as const).map((name) =>
      readNumber(String(form.get(name) ?? ''), {
        least: name === 'first' ? 0 : 1,
        most: name === 'first' ? 99_999 : MOST_AT_ONCE,
        whole: true,
      }),
    ) as [ReadNumber, ReadNumber, ReadNumber];
    if (!rows.ok) return setProblem(`Rows: ${rows.message}`);
    if (!perRow.ok) return setProblem(`Slots a row: ${perRow.message}`);
    if (!first.ok) return setProblem(`First number: ${first.message}`);
    if (rows.value * perRow.value > MOST_AT_ONCE) {
      return setProblem(`${rows.value * perRow.value} slots are too many at once: at most ${MOST_AT_ONCE}.`);
    }
    setProblem(null);
    const below = Math.max(0, ...panel.slots.map((slot) => slot.y + slot.height)) + 6;
    onAdd(
      gridSlots(panel, {
        type: form.get('type') === 'relay' ? 'relay' : 'fuse',
        family: String(form.get('family')) as Slot['family'],
        rows: rows.value,
        perRow: perRow.value,
        firstNumber: first.value,
        x: 6,
        y: below,
        gapX: 4,
        gapY: 6,
        upright: form.get('upright') === 'on',
      }),
    );
  };
  return (
    <form onSubmit={add} aria-labelledby="grid-title">
      <h2 id="grid-title" className="mb-2 border-b-2 border-line pb-1 text-lg">
        Rows in one go
      </h2>
      <div className="grid grid-cols-3 gap-3">
        <Field label="Rows">
          <input name="rows" defaultValue="2" inputMode="numeric" className={INPUT} />
        </Field>
        <Field label="Slots a row">
          <input name="perRow" defaultValue="12" inputMode="numeric" className={INPUT} />
        </Field>
        <Field label="First number">
          <input
            name="first"
            key={panel.slots.length}
            defaultValue={1 + Math.max(0, ...panel.slots.map((slot) => Number(slot.number) || 0))}
            inputMode="numeric"
            className={INPUT}
          />
        </Field>
        <Field label="What">
          <select name="type" className={INPUT}>
            <option value="fuse">fuse</option>
            <option value="relay">relay</option>
          </select>
        </Field>
        <Field label="Family">
          <select name="family" defaultValue="mini" className={INPUT}>
            {SLOT_FAMILIES.map((one) => (
              <option key={one} value={one}>
                {one.replace(/-/g, ' ')}
              </option>
            ))}
          </select>
        </Field>
        <label className="flex min-h-11 items-center gap-2 self-end">
          <input type="checkbox" name="upright" defaultChecked className="size-5 accent-(--copper)" />
          Upright
        </label>
      </div>
      {problem ? <Problem>{problem}</Problem> : null}
      <Button type="submit" className="mt-3">
        Add the rows
      </Button>
    </form>
  );
}
