'use client';

import { useEffect, useRef, useState } from 'react';
import { liveNews } from '@/log/live';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { Button, Problem } from '@/ui/controls';
import { useJob } from './JobProvider';
import type { NewerMaps as Newer } from './newerMapsOf';

/** How often it is asked whether somebody drew something while no news come by themselves, milliseconds. */
const ASK_MS = 5000;

/** Boxes and circuits that came while the job is open: said at once, taken up with one tap. */
export function NewerMaps() {
  const { data, job, refresh } = useJob();
  const [newer, setNewer] = useState<Newer | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const tried = useRef<Tried | null>(null);
  const closed = job.state === 'closed';
  useEffect(() => {
    if (closed) return;
    let stopped = false;
    const ask = async () => {
      if (document.visibilityState !== 'visible') return;
      const told = await fetch(`/api/jobs/${data.id}/newest`).then(
        async (response) => (response.ok ? ((await response.json()) as { newer: Newer | null }) : null),
        () => null,
      );
      if (told && !stopped) setNewer(told.newer);
    };
    const live = liveNews(data.id);
    void ask();
    const end = live.on('held', () => void ask());
    const timer = setInterval(() => {
      if (!live.open) void ask();
    }, ASK_MS);
    return () => {
      stopped = true;
      end();
      clearInterval(timer);
    };
  }, [data.id, closed]);
  if (!newer || closed) return null;
  const { boxes, circuits, lost } = newer;
  const what = [boxes ? 'the boxes' : '', ...circuits.map((name) => `the circuit “${name}”`)].filter(
    (words) => words !== '',
  );
  const take = async () => {
    tried.current = requestFor(tried.current, JSON.stringify(newer));
    const posted = await postJson<{ message?: string }>(`/api/jobs/${data.id}/newest`, {
      id: tried.current.id,
    });
    if (posted.kind === 'away') return setProblem(posted.message);
    if (!posted.ok) return setProblem(posted.answer.message ?? 'It was not taken.');
    setProblem(null);
    setNewer(null);
    refresh();
  };
  const onlyLost = lost !== null && !boxes;
  return (
    <div
      className="no-print border-l-4 border-copper bg-copper-wash px-3 py-2"
      data-testid="newer-maps"
      role="status"
    >
      <div className="flex flex-wrap items-center justify-between gap-2">
        <p>
          <strong>Drawn while this job is open:</strong> {what.join(', ')}.{' '}
          {lost === null
            ? 'What was read stays where it was read.'
            : `“${lost}” is no more on the newest circuit, and this job reads it: the circuit stays as it is here.`}
        </p>
        {onlyLost ? null : <Button onClick={() => void take()}>Take it up</Button>}
      </div>
      {problem ? <Problem>{problem}</Problem> : null}
    </div>
  );
}
