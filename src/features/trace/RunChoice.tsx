'use client';

import type { Run } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { INPUT } from '@/ui/controls';

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
    <div className="mb-2 flex flex-wrap gap-1">
      {runs.map((one, index) => (
        <button
          key={one.id}
          type="button"
          aria-pressed={index === chosen}
          onClick={() => onChoose(index)}
          className={`min-h-11 rounded-md border-2 px-3 text-left text-sm leading-tight ${
            index === chosen ? 'border-copper bg-copper-wash font-bold' : 'border-line bg-sheet'
          }`}
        >
          {one.name}
        </button>
      ))}
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
        <select value={chosen} onChange={(event) => onChoose(event.target.value)} className={`${INPUT} mt-1`}>
          {circuit.conditions.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <p className="mt-1 text-sm text-soft">
        Outlined: expected. Filled: measured. Bar: chance. ✓: cleared. Tap a stop for its card.
      </p>
    </>
  );
}
