'use client';

import type { ReactNode } from 'react';
import { Button, ButtonLink } from '@/ui/controls';

/** What stands in place of the trace while something is missing. */
function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mx-auto flex max-w-xl flex-col items-start px-4 py-12">
      <h2 className="text-2xl">{title}</h2>
      <div className="mt-2 flex flex-col items-start text-lg">{children}</div>
    </div>
  );
}

/** What has to be said before a trace begins; null where nothing is missing. */
export function missingForTrace(
  jobId: string,
  vehicleId: string,
  { circuit, complaint, volts }: { circuit: boolean; complaint: boolean; volts: boolean },
): ReactNode {
  const toComplaint = (
    <ButtonLink look="primary" href={`/jobs/${jobId}#complaint`} className="mt-4">
      To the complaint
    </ButtonLink>
  );
  if (!circuit) {
    return (
      <Empty title="This vehicle has no circuit yet">
        Bring a circuit file in on the vehicle’s page; then the trace can begin.
        <ButtonLink look="primary" href={`/vehicles/${vehicleId}`} className="mt-4">
          To the vehicle
        </ButtonLink>
      </Empty>
    );
  }
  if (!complaint) {
    return (
      <Empty title="Say first what fails">
        Which function, in which key and switch positions. That takes two taps.
        {toComplaint}
      </Empty>
    );
  }
  return volts ? null : (
    <Empty title="Which nominal voltage?">
      No verdict is given before it is known: limits, lamps and relays all depend on it.
      {toComplaint}
    </Empty>
  );
}

/** How far the table of predictions is, and a way out of waiting for it. */
export function Preparing({
  done,
  cancelled,
  onCancel,
  jobId,
}: {
  done: number;
  cancelled: boolean;
  onCancel: () => void;
  jobId: string;
}) {
  const percent = Math.round(100 * done);
  return (
    <div className="mx-auto max-w-xl px-4 py-10">
      {cancelled ? (
        <>
          <p role="status">Stopped. Nothing is lost; the trace starts again when this page is loaded.</p>
          <ButtonLink href={`/jobs/${jobId}`} className="mt-3">
            Back to the job
          </ButtonLink>
        </>
      ) : (
        <>
          <p role="status">Working out what each fault would show … {percent > 0 ? `${percent} %` : ''}</p>
          <div
            role="progressbar"
            aria-label="Predictions worked out"
            aria-valuenow={percent}
            aria-valuemin={0}
            aria-valuemax={100}
            className="mt-2 h-3 bg-sunk"
          >
            <div className="h-full bg-copper" style={{ width: `${percent}%` }} />
          </div>
          <Button onClick={onCancel} className="mt-4">
            Stop
          </Button>
        </>
      )}
    </div>
  );
}

export function Finished({ proved, jobId, sentence }: { proved: boolean; jobId: string; sentence: string }) {
  return (
    <article className={`rounded-lg border-2 bg-sheet p-5 ${proved ? 'border-good' : 'border-copper'}`}>
      <h2 className="text-2xl" data-testid="finished">
        {proved ? '✓ The fault stands proved' : 'No test would tell more'}
      </h2>
      <p className="mt-2 text-lg">{sentence}</p>
      <p className="mt-2">Next: record what was found and why it happened, then repair.</p>
      <ButtonLink look="primary" href={`/jobs/${jobId}#conclude`} className="mt-4">
        Conclude
      </ButtonLink>
    </article>
  );
}
