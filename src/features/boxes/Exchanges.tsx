'use client';

import { useMemo } from 'react';
import type { CircuitFile } from '#core/format';
import { functionName } from '#core/log';
import { swapPairs } from '#core/panel';
import { useDescribed, useJob } from '@/job/JobProvider';
import { Button, Caution } from '@/ui/controls';

/** Relays that may be exchanged for a test, with a box or without one; nothing where nobody knows two that are alike. */
export function Exchanges() {
  const { circuit } = useJob();
  const { described } = useDescribed();
  const parts = described?.partsOfFunction;
  return circuit && parts ? <Pairs circuit={circuit} partsOfFunction={parts} /> : null;
}

function Pairs({
  circuit,
  partsOfFunction,
}: {
  circuit: CircuitFile;
  partsOfFunction: Readonly<Record<string, readonly string[]>>;
}) {
  const { job, record } = useJob();
  const unbidden = job.complaint?.state === 'on-when-off';
  const pairs = useMemo(() => {
    const functionsOf = (part: string) =>
      circuit.functions.filter((one) => partsOfFunction[one.id]?.includes(part)).map((one) => one.id);
    const relays = circuit.parts.filter((part) => part.kind === 'relay');
    return relays.flatMap((relay, index) =>
      swapPairs(circuit, relay.id, functionsOf, unbidden).filter(
        (pair) => relays.findIndex((other) => other.id === pair.donor) > index,
      ),
    );
  }, [circuit, partsOfFunction, unbidden]);
  const name = (id: string) => circuit.parts.find((part) => part.id === id)?.name ?? id;
  // Where nothing may be exchanged while it runs by itself, that is said; what was exchanged is put back all the same.
  if (unbidden && job.swaps.length === 0) {
    return (
      <Caution>It runs with the switch off: isolate it and keep clear. No relay is exchanged on it.</Caution>
    );
  }
  if (pairs.length === 0 && job.swaps.length === 0) return null;
  return (
    <section aria-labelledby="swaps-title" data-testid="swaps">
      <h2 id="swaps-title" className="border-b-2 border-line pb-1 text-lg">
        Relays that may be exchanged for a test
      </h2>
      <p className="mt-1 text-sm text-soft">
        Same contacts, pins, coil and rating as far as the map knows. Safety functions are not offered. Both
        functions are seen to work again before the job is closed.
      </p>
      <ul className="mt-2 space-y-2">
        {pairs.map((pair) => {
          const swapped = job.swaps.find((one) => one.one === pair.suspect && one.other === pair.donor);
          return (
            <li
              key={`${pair.suspect} ${pair.donor}`}
              className="flex flex-wrap items-center justify-between gap-2"
            >
              <span>
                {name(pair.suspect)} ⇄ {name(pair.donor)}
                <span className="block text-sm text-soft">
                  {pair.sameNumber
                    ? 'Same printed number. '
                    : 'First compare the numbers printed on both: only equal ones are exchanged. '}
                  {pair.functions.map((one) => functionName(circuit, one)).join(', ')}
                </span>
              </span>
              {swapped ? (
                <Button look="primary" onClick={() => record({ kind: 'swap-restored', of: swapped.eventId })}>
                  Put back
                </Button>
              ) : (
                <Button
                  onClick={() =>
                    record({
                      kind: 'swapped',
                      one: pair.suspect,
                      other: pair.donor,
                      functions: [...pair.functions],
                    })
                  }
                >
                  Exchanged
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
