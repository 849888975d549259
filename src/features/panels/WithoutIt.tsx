'use client';

import { useMemo } from 'react';
import type { CircuitFile, Panel } from '#core/format';
import { type Ask, useAnswer } from '@/workers/useCircuitWorker';

const WORDS = { lost: 'lost', partly: 'lost in some positions', weaker: 'weaker' } as const;

/**
 * How much of a function's way has a slot: what is left stays visible. Functions that no circuit knows are those that a
 * slot is said to serve.
 */
export function CoverageList({ ask, panels }: { ask: Ask; panels: readonly Panel[] }) {
  const question = useMemo(() => ({ ask: 'coverage' as const }), []);
  const { answer: rows } = useAnswer(ask, question);
  const served = useMemo(() => servedBySlots(panels, rows ?? []), [panels, rows]);
  return (
    <section className="mt-8" aria-labelledby="coverage-title" data-testid="coverage">
      <h3 id="coverage-title" className="border-b-2 border-line pb-1 text-lg">
        Functions and their slots
      </h3>
      <ul className="mt-2 grid gap-x-8 sm:grid-cols-2">
        {(rows ?? []).map((one) => (
          <li key={one.function} className="border-b border-line py-1">
            <span className="font-semibold">{one.name}</span>{' '}
            {one.unresolved.length === 0 ? (
              <span className="text-good">✓ all {one.mapped.length} mapped</span>
            ) : (
              <>
                {one.mapped.length} of {one.mapped.length + one.unresolved.length} mapped
                <span className="block text-sm">without a slot: {one.unresolved.join(', ')}</span>
              </>
            )}
          </li>
        ))}
        {served.map(([name, slots]) => (
          <li key={name} className="border-b border-line py-1">
            <span className="font-semibold">{name}</span> {slots.join(', ')}
            <span className="block text-sm text-soft">as the slot says; in no circuit yet</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function servedBySlots(
  panels: readonly Panel[],
  known: readonly { readonly name: string }[],
): (readonly [string, readonly string[]])[] {
  const served = new Map<string, string[]>();
  for (const panel of panels) {
    for (const slot of panel.slots) {
      for (const name of slot.functions ?? []) {
        if (known.some((one) => one.name.toLowerCase() === name.toLowerCase())) continue;
        served.set(name, [...(served.get(name) ?? []), `${slot.type} ${slot.number} (${panel.name})`]);
      }
    }
  }
  return [...served];
}

/** Pulled in thought: every function that is lost, and every one that is still partly fed. */
export function WithoutIt({
  circuit,
  ask,
  panel,
  slot,
}: {
  circuit: CircuitFile;
  ask: Ask;
  panel: string;
  slot: string;
}) {
  const holds = circuit.parts.some((part) => part.slot?.panel === panel && part.slot.slot === slot);
  const question = useMemo(
    () => (holds ? { ask: 'without' as const, panel, slot } : null),
    [holds, panel, slot],
  );
  const { answer: without } = useAnswer(ask, question);
  if (!holds || !without) return null;
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
