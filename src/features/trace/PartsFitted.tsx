'use client';

import { fittedWords } from '#core/diagnosis';
import { partName } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { Button } from '@/ui/controls';

/** Which part sits where, for every one that does not stand in its own place; the way back beside it. */
export function PartsFitted() {
  const { circuit, job, record } = useJob();
  if (!circuit) return null;
  const tried = [...job.inPlace].filter(([, sits]) => sits !== 'own');
  return (
    <>
      {job.swaps.map((swap) => (
        <Notice key={swap.eventId} words={fittedWords(circuit, { exchanged: [swap], knownGood: [] })[0]!}>
          <Button onClick={() => record({ kind: 'swap-restored', of: swap.eventId })}>Put back</Button>
        </Notice>
      ))}
      {tried.map(([part, sits]) =>
        sits === 'asked' ? (
          <Notice
            key={part}
            words={`A known good part was tried in the place of ${partName(circuit, part)}. Which one sits there now?`}
          >
            <Button onClick={() => record({ kind: 'part-in-place', part, sits: 'known-good' })}>
              The known good one
            </Button>
            <Button onClick={() => record({ kind: 'part-in-place', part, sits: 'own' })}>
              Its own again
            </Button>
          </Notice>
        ) : (
          <Notice key={part} words={fittedWords(circuit, { exchanged: [], knownGood: [part] })[0]!}>
            <Button onClick={() => record({ kind: 'part-in-place', part, sits: 'own' })}>
              Its own is back
            </Button>
          </Notice>
        ),
      )}
    </>
  );
}

function Notice({ words, children }: { words: string; children: React.ReactNode }) {
  return (
    <div
      className="mb-3 flex flex-wrap items-center justify-between gap-2 border-l-4 border-caution bg-caution-wash px-3 py-2"
      data-testid="parts-fitted"
    >
      <p className="max-w-prose">{words}</p>
      <div className="flex flex-wrap gap-2">{children}</div>
    </div>
  );
}
