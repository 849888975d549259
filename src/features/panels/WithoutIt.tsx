'use client';

import { useMemo } from 'react';
import { CircuitModel } from '#core/circuit/model';
import type { CircuitFile } from '#core/format/circuitSchema';
import { withoutSlot } from '#core/panel/withoutSlot';

const WORDS = { lost: 'lost', partly: 'lost in some positions', weaker: 'weaker' } as const;

/** Pulled in thought: every function that is lost, and every one that is still partly fed. */
export function WithoutIt({ circuit, panel, slot }: { circuit: CircuitFile; panel: string; slot: string }) {
  const model = useMemo(() => new CircuitModel(circuit), [circuit]);
  const without = useMemo(() => withoutSlot(model, panel, slot), [model, panel, slot]);
  if (!circuit.parts.some((part) => part.slot?.panel === panel && part.slot.slot === slot)) return null;
  return (
    <div className="mt-3" data-testid="without">
      <h3 className="font-bold">Without it</h3>
      {without.length === 0 ? (
        <p>No function of the mapped circuits does less.</p>
      ) : (
        <ul>
          {without.map((one) => (
            <li key={one.function}>
              {one.name}: <strong>{WORDS[one.what]}</strong>
              {one.what === 'lost' ? null : <span className="text-soft"> ({one.conditions.join('; ')})</span>}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
