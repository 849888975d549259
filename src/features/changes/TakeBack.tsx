'use client';

import type { HalfDone, WorkStep } from '#core/change';
import type { PlanOnJob } from '#core/log';
import { IsolationSteps } from '@/job/IsolationSteps';
import { useJob } from '@/job/JobProvider';
import { Button } from '@/ui/controls';

/** What was done of a plan, taken back by hand: the last first, each said to be so. */
export function TakeBack({
  onJob,
  half,
  steps,
  onDone,
}: {
  onJob: PlanOnJob;
  half: HalfDone;
  steps: readonly WorkStep[];
  onDone: () => void;
}) {
  const { record } = useJob();
  const take = (edit: string, words: string) => {
    const own = steps.filter(
      (step) => (step.edit === edit || step.id.startsWith(`${edit}.`)) && onJob.steps.has(step.id),
    );
    record(
      ...own.map((step) => ({
        kind: 'plan-step' as const,
        plan: onJob.plan.id,
        step: step.id,
        how: 'back' as const,
        words: words.slice(0, 2000),
        of: onJob.steps.get(step.id)!.eventId,
      })),
    );
  };
  const [next, ...others] = half.back;
  return (
    <article
      className="rounded-lg border-2 border-copper bg-sheet p-4"
      aria-label="Taking it back"
      data-testid="take-back"
    >
      {next ? (
        <>
          <p className="text-soft">Taking it back · {half.back.length} left, isolated as for the work</p>
          <h2 className="mt-1 text-xl leading-snug">{next.words}</h2>
          {steps.some(({ asks }) => asks.by === 'isolation') ? (
            <IsolationSteps steps={['key-off', 'earthed-pole-off']} />
          ) : null}
          <Button
            look="primary"
            className="mt-4 min-h-14 w-full text-lg"
            onClick={() => take(next.edit, next.words)}
          >
            Done
          </Button>
          <ol className="mt-3 list-decimal pl-5 text-soft">
            {others.map(({ edit, words }) => (
              <li key={edit}>{words}</li>
            ))}
          </ol>
        </>
      ) : (
        <>
          <h2 className="text-xl">Nothing of it stands on the vehicle any more.</h2>
          <p className="mt-1">Power back, and see that everything does what it did.</p>
          <Button
            look="primary"
            className="mt-3 min-h-14 w-full text-lg"
            onClick={() =>
              record({
                kind: 'plan-ended',
                plan: onJob.plan.id,
                how: 'taken-back',
                name: onJob.plan.name,
                words: [],
                undo: [],
              })
            }
          >
            All is as it was
          </Button>
        </>
      )}
      <Button look="quiet" className="mt-2" onClick={onDone}>
        Go on with the plan instead
      </Button>
    </article>
  );
}
