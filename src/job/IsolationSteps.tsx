'use client';

import { type IsolationStep, STEP_WORDS } from '#core/hands';
import { Check } from '@/ui/Check';
import { useJob } from './JobProvider';

/** Steps of isolating, ticked as they are done. */
export function IsolationSteps({ steps }: { steps: readonly IsolationStep[] }) {
  const { job, record } = useJob();
  return (
    <ul className="mt-2 space-y-1">
      {steps.map((step) => (
        <li key={step}>
          <Check
            checked={job.isolated.includes(step)}
            onChange={(done) => record({ kind: 'isolation', step, done })}
          >
            {STEP_WORDS[step]}
          </Check>
        </li>
      ))}
    </ul>
  );
}
