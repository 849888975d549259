'use client';

import { useState } from 'react';
import type { StepStanding } from '#core/change';
import type { PlanOnJob } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { postJson } from '@/sync/post';
import { Button, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';

/** Everything is done: the new drawing of circuit and boxes is made, and the change stands in the vehicle’s ledger. */
export function CarryOut({ onJob, standing }: { onJob: PlanOnJob; standing: readonly StepStanding[] }) {
  const { data, sending, refresh } = useJob();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [id] = useState(newId);
  const passed = standing.filter(({ overridden }) => overridden !== null);
  const carry = async () => {
    setBusy(true);
    setProblem(null);
    const posted = await postJson<{ message?: string }>(`/api/jobs/${data.id}/carry-out`, {
      id,
      plan: onJob.plan.id,
    });
    setBusy(false);
    if (posted.kind === 'away') return setProblem(posted.message);
    if (!posted.ok) return setProblem(posted.answer.message ?? 'It was not taken.');
    return refresh();
  };
  const waits = sending.kind !== 'idle';
  return (
    <article className="rounded-lg border-2 border-copper bg-sheet p-4" data-testid="carry-out">
      <h2 className="text-xl">
        Every step is done{passed.length > 0 ? `, ${passed.length} of them passed with a reason` : ''}.
      </h2>
      <p className="mt-1 text-lg">
        Carrying it out makes the new version of circuit and boxes, and writes the change into the vehicle’s
        ledger with how each of it is undone.
      </p>
      {problem ? <Problem>{problem}</Problem> : null}
      <Button
        look="primary"
        className="mt-4 min-h-14 w-full text-lg"
        disabled={busy || waits}
        onClick={() => void carry()}
      >
        {busy ? 'Carrying it out …' : 'Carry it out'}
      </Button>
      {waits ? <p className="mt-1 text-sm text-soft">Once everything is recorded on the server.</p> : null}
    </article>
  );
}
