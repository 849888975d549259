'use client';

import type { PlanFile } from '#core/format';
import type { PlanOnJob } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { Button, ButtonLink } from '@/ui/controls';
import { emptyPlan, type Planning } from './usePlan';

const TITLES = {
  carried: 'Carried out',
  'taken-back': 'Taken back: nothing of it stands on the vehicle',
  dropped: 'Given up: nothing of it was done',
} as const;

/** A plan that is over: what it did, and how it is undone. */
export function EndedPlan({
  ended,
  plan,
  planning,
}: {
  ended: NonNullable<PlanOnJob['ended']>;
  plan: PlanFile;
  planning: Planning;
}) {
  const { data, job } = useJob();
  return (
    <div className="mx-auto max-w-3xl px-3 py-4" data-testid="ended-plan">
      <p className="text-soft">{TITLES[ended.how]}</p>
      <h2 className="text-2xl">{plan.name}</h2>
      {plan.purpose ? <p className="text-lg">{plan.purpose}</p> : null}
      {ended.words.length > 0 ? (
        <>
          <h3 className="mt-4 text-xl">Done</h3>
          <ol className="list-decimal pl-6">
            {ended.words.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ol>
          <h3 className="mt-4 text-xl">To undo it</h3>
          <ol className="list-decimal pl-6">
            {ended.undo.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ol>
        </>
      ) : null}
      <div className="mt-5 flex flex-wrap gap-2">
        <ButtonLink href={`/vehicles/${data.vehicle.id}#changes`}>The vehicle’s changes</ButtonLink>
        <ButtonLink href={`/jobs/${data.id}/sheet`}>To the sheet</ButtonLink>
        {job.state === 'closed' ? null : (
          <Button onClick={() => planning.begin(emptyPlan())}>Plan something more</Button>
        )}
      </div>
    </div>
  );
}
