'use client';

import type { Assessment } from '#core/diagnosis';
import { ButtonLink } from '@/ui/controls';

const TITLES = {
  forbidden: 'Stop the work',
  proved: 'Proved',
  'repair-is-cheaper': 'Enough: trying the repair is cheaper now',
  'works-now': 'It works now: wait until it fails',
  'nothing-to-learn': 'No test would tell more',
  'not-worth-it': 'No test left is worth its minutes',
} as const;
const CHEAPER: readonly string[] = ['repair-is-cheaper', 'not-worth-it'];

/** Why testing may stop here, with what a repair would cost; the tests stay for whoever wants to go on. */
export function StopAdvice({ assessment, jobId }: { assessment: Assessment; jobId: string }) {
  const { stop, repair } = assessment;
  if (!stop || stop.reason === 'proved') return null;
  return (
    <div className="mb-3 border-l-4 border-copper bg-copper-wash px-3 py-2" data-testid="stop">
      <p className="text-lg font-bold">{TITLES[stop.reason]}</p>
      <p>{stop.sentence}</p>
      {repair && CHEAPER.includes(stop.reason) ? (
        <p className="mt-1">
          Repair: about {repair.minutes} min and a part worth {repair.price} min of work. If it is the wrong
          one, about {Math.max(1, Math.round(repair.wrong))} min are lost on average.{' '}
          <ButtonLink look="quiet" href={`/jobs/${jobId}#conclude`}>
            Conclude
          </ButtonLink>
        </p>
      ) : null}
    </div>
  );
}
