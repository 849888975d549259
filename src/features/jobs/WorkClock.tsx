'use client';

import { type ReactNode, useEffect, useState } from 'react';
import { useJob } from '@/job/JobProvider';
import { Button } from '@/ui/controls';

/** Starts and stops the clock of the work: two entries, so that it runs on through a reload. Stopped, it fills in the minutes. */
export function WorkClock({
  onMinutes,
  children,
}: {
  onMinutes: (minutes: number) => void;
  children: ReactNode;
}) {
  const { job, record } = useJob();
  const [now, setNow] = useState(() => Date.now());
  const running = job.clockSince !== null;
  useEffect(() => {
    if (!running) return;
    setNow(Date.now());
    const timer = setInterval(() => setNow(Date.now()), 10_000);
    return () => clearInterval(timer);
  }, [running]);
  const since = job.clockSince === null ? 0 : Math.max(0, now - Date.parse(job.clockSince)) / 60_000;
  const minutes = job.clockedMinutes + since;
  return (
    <div className="grid gap-2">
      {children}
      <Button
        onClick={() => {
          const recorded = record({ kind: 'clock', step: running ? 'stop' : 'start' });
          if (recorded.ok && running) onMinutes(Math.max(1, Math.round(minutes)));
        }}
      >
        {running
          ? `Stop the clock (${Math.round(minutes)} min)`
          : job.clockedMinutes > 0
            ? `Go on with the clock (${Math.round(minutes)} min)`
            : 'Start the clock'}
      </Button>
    </div>
  );
}
