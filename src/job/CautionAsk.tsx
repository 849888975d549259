'use client';

import type { ReactNode } from 'react';
import type { Warning } from '#core/safety';
import { Button, Caution } from '@/ui/controls';
import { useJob } from './JobProvider';

/** Of what is said before a deed, what nobody has answered yet, or answered with "not now". */
export function useUnread(warnings: readonly Warning[]): readonly Warning[] {
  const { job } = useJob();
  return warnings.filter(({ asks, caution }) => {
    const answer = job.cautions.get(caution);
    return asks && (answer === undefined || answer.notNow === true);
  });
}

/** Cautions that are answered once on a job: what they stand before comes when each was read. */
export function CautionAsk({ warnings, children }: { warnings: readonly Warning[]; children: ReactNode }) {
  const { job, record } = useJob();
  const open = useUnread(warnings);
  if (open.length === 0) return children;
  const answer = (notNow: boolean) => {
    record(
      ...open.map(({ caution, words }) => ({
        kind: 'caution-read' as const,
        id: caution,
        caution: words,
        ...(notNow ? { notNow: true as const } : {}),
      })),
    );
  };
  const waits = open.some(({ caution }) => job.cautions.has(caution));
  return (
    <section aria-label="Before it is done" className="grid gap-2" data-testid="caution-ask">
      {open.map(({ caution, words }) => (
        <Caution key={caution}>{words}</Caution>
      ))}
      {waits ? <p>You said: not now.</p> : null}
      <div className="grid grid-cols-[1fr_auto] gap-2">
        <Button look="primary" className="h-14" onClick={() => answer(false)}>
          {waits ? 'In order now' : 'It is so, go on'}
        </Button>
        {waits ? null : (
          <Button className="h-14" onClick={() => answer(true)}>
            Not now
          </Button>
        )}
      </div>
    </section>
  );
}

/** Answered with "not now": what waits for it, until somebody says that it is in order. */
export function CautionsThatWait() {
  const { job, record } = useJob();
  return [...job.cautions.values()]
    .filter(({ notNow }) => notNow)
    .map(({ id, caution }) => (
      <div
        key={id}
        className="mb-3 flex flex-wrap items-center justify-between gap-2 border-l-4 border-line pl-3"
        data-testid="caution-waits"
      >
        <p className="max-w-prose">
          <strong>Not now:</strong> {caution} What needs it is not proposed.
        </p>
        <Button onClick={() => record({ kind: 'caution-read', id, caution })}>In order now</Button>
      </div>
    ));
}
