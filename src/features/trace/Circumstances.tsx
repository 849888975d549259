'use client';

import { useEffect, useRef } from 'react';
import { testId } from '#core/diagnosis';
import type { CircuitFile, TestRef } from '#core/format';
import { Check } from '@/ui/Check';
import { Choice } from '@/ui/Choice';
import { Button } from '@/ui/controls';

/** How a reading that is being corrected was taken: key and switches, fuse in or out, tester proved before it or not. */
export function Circumstances({
  circuit,
  test,
  permitted,
  testerProved,
  onTesterProved,
  onTest,
  onLeave,
}: {
  circuit: CircuitFile;
  test: TestRef;
  /** Ids of the tests that may be made. */
  permitted: ReadonlySet<string>;
  testerProved: boolean;
  onTesterProved: (proved: boolean) => void;
  /** The same reading taken otherwise: its test's id. */
  onTest: (id: string) => void;
  /** It stays as it was entered. */
  onLeave: () => void;
}) {
  const shown = useRef<HTMLElement>(null);
  // Asked for far down in the log, it stands with its card at the top of the page.
  useEffect(() => {
    shown.current?.scrollIntoView({ block: 'start' });
  }, []);
  const conditions =
    'condition' in test
      ? circuit.conditions.filter(({ id }) => permitted.has(testId({ ...test, condition: id } as TestRef)))
      : [];
  const fuseIn = test.kind === 'volts' ? testId({ ...test, pulled: undefined }) : null;
  const fusesOut =
    test.kind === 'volts'
      ? circuit.parts.flatMap((part) => {
          const id = testId({ ...test, pulled: part.id });
          return part.kind === 'fuse' && permitted.has(id) ? [{ id, name: `${part.name} out` }] : [];
        })
      : [];
  return (
    <section
      ref={shown}
      aria-label="How it was taken"
      className="mb-3 scroll-mt-2 space-y-3 rounded-lg border-2 border-line bg-sheet p-3"
      data-testid="circumstances"
    >
      <p className="font-semibold">
        How it was taken. What is changed here is worked in as if it had been entered so.
      </p>
      {conditions.length > 1 && 'condition' in test ? (
        <Choice
          legend="Key and switches then"
          options={conditions}
          chosen={test.condition}
          onChoose={(condition) => onTest(testId({ ...test, condition } as TestRef))}
        />
      ) : null}
      {fuseIn !== null && fusesOut.length > 0 ? (
        <Choice
          legend="The fuse then"
          options={[{ id: fuseIn, name: 'in' }, ...fusesOut]}
          chosen={testId(test)}
          onChoose={onTest}
        />
      ) : null}
      <Check checked={testerProved} onChange={onTesterProved}>
        Tester proved on a live point before it
      </Check>
      <Button onClick={onLeave}>Leave it as it was</Button>
    </section>
  );
}
