'use client';

import { INTENTS } from '#core/change';
import type { CircuitFile } from '#core/format';
import { Button } from '@/ui/controls';

/** What can be wanted of a part that was chosen in the drawing: every intent that asks for such a one. */
export function PartDeeds({
  circuit,
  part: id,
  onIntent,
}: {
  circuit: CircuitFile;
  part: string;
  onIntent: (answers: Record<string, string>) => void;
}) {
  const part = circuit.parts.find((one) => one.id === id);
  if (!part) return null;
  const fitting = INTENTS.flatMap((intent) => {
    const field = intent.fields.find((one) => one.kind === 'part' && (one.fits?.(part, circuit) ?? true));
    return field ? [{ intent, field }] : [];
  });
  return (
    <p className="mt-1 flex flex-wrap gap-2">
      {fitting.map(({ intent, field }) => (
        <Button key={intent.id} onClick={() => onIntent({ intent: intent.id, [field.id]: part.id })}>
          {intent.name}
        </Button>
      ))}
    </p>
  );
}
