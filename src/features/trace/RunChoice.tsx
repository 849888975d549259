'use client';

import type { Run } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { Choice } from '@/ui/Choice';
import { Select } from '@/ui/Select';

/** Which of several runs is drawn. */
export function RunChoice({
  runs,
  chosen,
  onChoose,
}: {
  runs: readonly Run[];
  chosen: number;
  onChoose: (index: number) => void;
}) {
  if (runs.length < 2) return null;
  return (
    <div className="mb-2">
      <Choice
        legend="Run of"
        quiet
        shape="row"
        options={runs.map(({ name }, index) => ({ id: String(index), name }))}
        chosen={String(chosen)}
        onChoose={(index) => onChoose(Number(index))}
      />
    </div>
  );
}

/** In which setting of key and switches a stop that is tapped is read. */
export function ProbeCondition({
  circuit,
  chosen,
  onChoose,
}: {
  circuit: CircuitFile;
  chosen: string;
  onChoose: (condition: string) => void;
}) {
  return (
    <>
      <label className="mt-2 block text-sm">
        <span className="font-semibold">A stop that is tapped is read with</span>
        <Select value={chosen} onChange={(event) => onChoose(event.target.value)} className="mt-1">
          {circuit.conditions.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </Select>
      </label>
      <p className="mt-1 text-sm text-soft">
        Outlined: expected. Filled: measured. Bar: chance. ✓: cleared. Tap a stop for its card.
      </p>
    </>
  );
}
