'use client';

import { useState } from 'react';
import type { Panel, Slot } from '#core/format';
import { type Occupant, occupantsOf } from '#core/panel';
import { usePartFact } from '@/features/vehicles';
import { Problem } from '@/ui/controls';
import { Labelled } from '@/ui/ReadField';
import { Select } from '@/ui/Select';

/** Which fuse or relay of the vehicle's circuits sits in this slot; kept at once, as a fact about the part. */
export function SitsHere({
  vehicleId,
  parts,
  panel,
  slot,
}: {
  vehicleId: string;
  parts: readonly Occupant[];
  panel: Panel;
  slot: Slot;
}) {
  const keep = usePartFact(vehicleId);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const { here, choices } = occupantsOf(parts, panel, slot);
  if (choices.length === 0) return null;
  const put = async (id: string) => {
    const wanted = choices.find((one) => one.id === id) ?? null;
    setBusy(true);
    setProblem(null);
    // Whoever sat here is taken out first: two parts in one slot would be two answers to one question.
    const out = here && here.id !== id ? await keep(here, { slot: null }) : ({ ok: true } as const);
    const kept = out.ok && wanted ? await keep(wanted, { slot: { panel: panel.id, slot: slot.id } }) : out;
    if (!kept.ok) setProblem(kept.message);
    setBusy(false);
  };
  return (
    <div data-testid="sits-here">
      <Labelled name="Sits here, by the circuits">
        <Select value={here?.id ?? ''} disabled={busy} onChange={(event) => void put(event.target.value)}>
          <option value="">no part said</option>
          {choices.map(({ id, name, slot: at }) => (
            <option key={id} value={id}>
              {id} {name}
              {at && id !== here?.id ? ' (said to sit elsewhere)' : ''}
            </option>
          ))}
        </Select>
      </Labelled>
      {problem ? <Problem>{problem}</Problem> : null}
    </div>
  );
}
