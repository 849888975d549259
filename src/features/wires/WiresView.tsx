'use client';

import { useState } from 'react';
import { wireLedger } from '#core/circuit';
import { cutGate, stepsOf, toneGate } from '#core/hands';
import { momentsOf } from '#core/safety';
import { LedgerTable } from '@/features/circuits';
import { CautionAsk, useUnread } from '@/job/CautionAsk';
import { IsolationSteps } from '@/job/IsolationSteps';
import { useJob } from '@/job/JobProvider';
import { Button, ButtonLink, Caution } from '@/ui/controls';
import { Dialog } from '@/ui/Dialog';
import { Override } from '@/ui/Override';
import { useWide } from '@/ui/useWide';
import { WireStripe } from '@/ui/WireStripe';
import { EndReadings } from './EndReadings';

/** The wires of the job's circuits, and what has to be read before one of them is cut or toned. */
export function WiresView() {
  const { circuit } = useJob();
  const [wire, setWire] = useState<string | null>(null);
  const wide = useWide();
  if (!circuit) {
    return <p className="p-4 text-lg">This vehicle has no circuit yet, so no wire is known.</p>;
  }
  return (
    <div className="grid gap-8 px-3 py-3 lg:grid-cols-[1fr_28rem] lg:px-5 lg:py-4">
      <LedgerTable circuit={circuit} selected={wire} onSelect={setWire} />
      {wide && wire ? (
        <article
          className="self-start rounded-lg border-2 border-copper bg-sheet p-4 lg:sticky lg:top-36"
          data-testid="cut-card"
        >
          <CutCard key={wire} wire={wire} />
        </article>
      ) : null}
      {wide && !wire ? <p className="text-lg">Choose a wire that is to be cut or toned.</p> : null}
      <Dialog
        title={wire ? (circuit.parts.find(({ id }) => id === wire)?.name ?? wire) : ''}
        open={!wide && wire !== null}
        onClose={() => setWire(null)}
      >
        {wire ? (
          <div data-testid="cut-card">
            <CutCard key={wire} wire={wire} />
          </div>
        ) : null}
      </Dialog>
    </div>
  );
}

/** What has to be read, and done, before this wire is cut or toned. */
function CutCard({ wire }: { wire: string }) {
  const { data, circuit, job, record, nominalVolts } = useJob();
  const warnings = momentsOf('cut-or-solder');
  const unread = useUnread(warnings);
  const row = wireLedger(circuit!).find((one) => one.wire === wire);
  const readings = job.wireReadings.filter((one) => one.wire === wire);
  if (!row) return null;
  if (nominalVolts === null) return <p>The nominal voltage is not known yet: say it on the job’s page.</p>;
  const gate = cutGate(readings, job.isolated, nominalVolts);
  const tone = toneGate(gate);
  const begun = job.begun.some((one) => one.task === 'cut-or-solder' && one.wire === wire);
  return (
    <>
      <h2 className="flex items-center gap-2 text-2xl">
        <WireStripe colour={row.colour} />
        <span className="reading">{row.colour || row.wire}</span>
        <span className="hidden text-lg font-normal lg:inline">{row.name}</span>
      </h2>
      <p className="mt-1">
        a: {row.a.words ?? 'not known'}
        <br />
        b: {row.b.words ?? 'not known'}
      </p>
      {job.testerProvedAt === null ? (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <Caution>Prove the tester on the battery posts first.</Caution>
          <Button onClick={() => record({ kind: 'tester-proved', on: 'battery plus and minus post' })}>
            Tester proved
          </Button>
        </div>
      ) : null}
      <p
        role="status"
        className={`mt-2 text-lg font-semibold ${gate.allowed ? 'text-good' : 'text-caution'}`}
        data-testid="cut-gate"
      >
        {gate.allowed ? '✓ ' : '▲ '}
        {gate.sentence}
      </p>
      <EndReadings wire={wire} nominalVolts={nominalVolts} />
      <p className="mt-2 flex flex-wrap gap-2">
        <ButtonLink href={`/jobs/${data.id}/change?intent=take-out-wire&wire=${encodeURIComponent(wire)}`}>
          Plan to take it out
        </ButtonLink>
        <ButtonLink href={`/jobs/${data.id}/change?intent=move-wire&wire=${encodeURIComponent(wire)}`}>
          Plan to move it
        </ButtonLink>
      </p>
      <IsolationSteps steps={stepsOf('cut-or-solder')} />
      {warnings
        .filter((one) => !unread.includes(one))
        .map(({ words }) => (
          <p key={words} className="text-sm text-soft">
            {words}
          </p>
        ))}
      <div className="mt-3 grid gap-2">
        <CautionAsk warnings={warnings}>
          <Button
            look="primary"
            disabled={!gate.allowed || begun}
            onClick={() => record({ kind: 'task-begun', task: 'cut-or-solder', wire })}
          >
            {begun ? '✓ Cutting begun' : 'Cut it'}
          </Button>
          {gate.allowed || begun ? null : (
            <Override
              word="Cut, not proved dead"
              onOverride={(override) => record({ kind: 'task-begun', task: 'cut-or-solder', wire, override })}
            />
          )}
        </CautionAsk>
        {tone.allowed ? (
          <Button onClick={() => record({ kind: 'task-begun', task: 'tone', wire })}>Start the tone</Button>
        ) : (
          <p className="text-sm text-soft">{tone.sentence}</p>
        )}
      </div>
    </>
  );
}
