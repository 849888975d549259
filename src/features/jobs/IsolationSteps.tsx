'use client';

import { type IsolationStep, STEP_WORDS } from '#core/hands';
import { useJob } from './JobProvider';

/** Steps of isolating, ticked as they are done. */
export function IsolationSteps({ steps }: { steps: readonly IsolationStep[] }) {
  const { job, record } = useJob();
  return (
    <ul className="mt-2 space-y-1">
      {steps.map((step) => (
        <li key={step}>
          <label className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              checked={job.isolated.includes(step)}
              onChange={(event) => record({ kind: 'isolation', step, done: event.target.checked })}
              className="size-6 accent-(--copper)"
            />
            {STEP_WORDS[step]}
          </label>
        </li>
      ))}
    </ul>
  );
}
