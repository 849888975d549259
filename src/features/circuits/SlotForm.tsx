'use client';

import { useState } from 'react';
import type { CircuitPart, Panel } from '#core/format';
import { slotChoices, slotKey } from '#core/panel';
import { usePartFact } from '@/features/vehicles';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Problem } from '@/ui/controls';
import { Select } from '@/ui/Select';

/** In which slot of the vehicle's boxes a fuse or relay sits. */
export function SlotForm({
  vehicleId,
  part,
  panels,
}: {
  vehicleId: string;
  part: CircuitPart;
  panels: readonly Panel[];
}) {
  const keep = usePartFact(vehicleId);
  const [said, setSaid] = useState<string | null>(null);
  const choices = slotChoices(panels, part.kind);
  const form = useKeptForm<{ slot: string }>({
    keep: null,
    first: { slot: slotKey(part.slot) },
    stays: true,
    take: async (values) => {
      const chosen = choices.find(({ id }) => id === textOf(values.slot));
      const kept = await keep(part, { slot: chosen ? chosen.slot : null });
      if (kept.ok) setSaid(chosen ? `✓ ${part.id} sits in ${chosen.name}.` : '✓ No slot is said.');
      return kept;
    },
  });
  if (choices.length === 0) return null;
  return (
    <form onSubmit={form.submit} className="flex flex-wrap items-end gap-2" data-testid="slot-form">
      <label className="min-w-48 flex-1">
        <span className="block text-sm font-semibold">Sits in</span>
        <Select {...form.register('slot')}>
          <option value="">not known</option>
          {choices.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
      </label>
      <Button type="submit">Keep it</Button>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      {said ? <p role="status">{said}</p> : null}
    </form>
  );
}
