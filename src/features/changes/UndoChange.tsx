'use client';

import { useState } from 'react';
import { postJson } from '@/sync/post';
import { Button, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';

/** Opens a job in which a change of the vehicle is taken back, step by step. */
export function UndoChange({
  vehicleId,
  job,
  plan,
  name,
}: {
  vehicleId: string;
  job: string;
  plan: string;
  name: string;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [id] = useState(newId);
  const open = async () => {
    setBusy(true);
    setProblem(null);
    const posted = await postJson<{ message?: string; job?: string }>(`/api/vehicles/${vehicleId}/undo`, {
      id,
      job,
      plan,
    });
    setBusy(false);
    if (posted.kind === 'away') return setProblem(posted.message);
    if (!posted.ok || !posted.answer.job)
      return setProblem(posted.answer.message ?? 'It cannot be undone from here.');
    return location.assign(`/jobs/${posted.answer.job}/change`);
  };
  return (
    <div className="pb-2">
      <Button onClick={() => void open()} disabled={busy} aria-label={`Undo it step by step: ${name}`}>
        {busy ? 'Opening …' : 'Undo it step by step'}
      </Button>
      {problem ? <Problem>{problem}</Problem> : null}
    </div>
  );
}
