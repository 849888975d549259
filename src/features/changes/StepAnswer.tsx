'use client';

import { useState } from 'react';
import type { StepStanding } from '#core/change';
import type { CircuitFile } from '#core/format';
import { readNumber } from '#core/quantity';
import { momentsOf } from '#core/safety';
import { readHref, readWords } from '@/features/feeds';
import { EndReadings } from '@/features/wires';
import { CautionAsk } from '@/job/CautionAsk';
import { useJob } from '@/job/JobProvider';
import { Button, ButtonLink } from '@/ui/controls';
import { DutyClock } from '@/ui/DutyClock';
import { LiveField } from '@/ui/LiveField';
import { Override } from '@/ui/Override';

const BIG = 'min-h-14 w-full text-lg';

/** How a step is answered: one tap where things are in order; passed only with a reason. */
export function StepAnswer({
  planId,
  standing: { step, met, overridden, says },
  barred,
  circuit,
  onDone,
}: {
  planId: string;
  standing: StepStanding;
  barred: string | null;
  circuit: CircuitFile;
  onDone: () => void;
}) {
  const { data, job, record, nominalVolts } = useJob();
  const { asks } = step;
  const tell = (
    how: 'done' | 'wrong' | 'override',
    more: { readonly reason?: string; readonly value?: number; readonly watched?: string } = {},
  ) => {
    const made = record({
      kind: 'plan-step',
      plan: planId,
      step: step.id,
      how,
      words: step.words.slice(0, 2000),
      ...more,
      ...(how === 'done' && step.leaves ? { leaves: step.leaves } : {}),
    });
    if (made.ok && how !== 'wrong') onDone();
    return made;
  };
  if (met) {
    return (
      <div className="mt-3 flex flex-wrap items-center justify-between gap-2">
        <p className="font-semibold text-good">✓ Done</p>
        <Button onClick={onDone}>To the next</Button>
      </div>
    );
  }
  if (barred) {
    return (
      <p className="mt-3 border-l-4 border-caution bg-caution-wash px-3 py-2" data-testid="barred">
        ▲ {barred}
      </p>
    );
  }
  const pass = <Override word="Pass it" onOverride={(reason) => tell('override', { reason })} />;
  return (
    <div className="mt-4 grid gap-3">
      {overridden === null ? null : (
        <p className="font-semibold">▲ Passed: {overridden}. It can still be done.</p>
      )}
      {asks.by === 'done' ? (
        <Guarded stage={step.stage}>
          <Button look="primary" className={BIG} onClick={() => tell('done')}>
            Done
          </Button>
        </Guarded>
      ) : null}
      {asks.by === 'checks' ? (
        <>
          <ul className="list-disc pl-5 text-lg">
            {asks.lines.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <Button look="primary" className={BIG} onClick={() => tell('done')}>
            Seen, all of it is so
          </Button>
        </>
      ) : null}
      {asks.by === 'tester' ? (
        <Button
          look="primary"
          className={BIG}
          onClick={() => {
            record({ kind: 'tester-proved', on: 'battery plus and minus post' });
            onDone();
          }}
        >
          Tester proved
        </Button>
      ) : null}
      {asks.by === 'isolation' ? (
        <Guarded stage={step.stage}>
          <Button
            look="primary"
            className={BIG}
            onClick={() => {
              record({ kind: 'isolation', step: asks.step, done: asks.on });
              // With the power back nothing reads dead any more.
              if (asks.step === 'earthed-pole-off' && !asks.on)
                record({ kind: 'isolation', step: 'dead-reading', done: false });
              tell('done');
            }}
          >
            {asks.step === 'dead-reading' ? 'It reads dead' : 'Done'}
          </Button>
        </Guarded>
      ) : null}
      {asks.by === 'wire-ends' && nominalVolts !== null ? (
        <EndReadings wire={asks.wire} nominalVolts={nominalVolts} />
      ) : null}
      {asks.by === 'holes' ? (
        <Holes fuse={asks.fuse} circuit={circuit} jobId={data.id} says={says} onDone={() => tell('done')} />
      ) : null}
      {asks.by === 'right' ? (
        <div className="grid grid-cols-2 gap-2">
          <Button look="primary" className="min-h-20 text-lg" onClick={() => tell('done')}>
            {asks.right}
          </Button>
          <Button className="min-h-20 text-lg" onClick={() => tell('wrong')}>
            {asks.wrong}
          </Button>
        </div>
      ) : null}
      {asks.by === 'value' ? (
        <Value
          unit={asks.unit}
          least={asks.least}
          most={asks.most}
          onRead={(value, right) => tell(right ? 'done' : 'wrong', { value })}
        />
      ) : null}
      {asks.by === 'duty' ? (
        <Duty seconds={asks.seconds} onDone={(watched) => tell('done', { watched })} />
      ) : null}
      {pass}
      {job.isolated.length > 0 && step.stage === 'prove' ? (
        <p className="text-sm text-soft">
          Something still counts as isolated: “Power back” comes before this.
        </p>
      ) : null}
    </div>
  );
}

/** What is asked once on a job before something is cut, is asked here too. */
function Guarded({ stage, children }: { stage: string; children: React.ReactNode }) {
  if (stage !== 'cut' && stage !== 'isolate') return children;
  return <CautionAsk warnings={momentsOf('cut-or-solder')}>{children}</CautionAsk>;
}

/** Both holes of a slot are read where all slots are: in the survey, with the fuse out. */
function Holes({
  fuse,
  circuit,
  jobId,
  says,
  onDone,
}: {
  fuse: string;
  circuit: CircuitFile;
  jobId: string;
  says: string;
  onDone: () => void;
}) {
  const { data } = useJob();
  const slot = circuit.parts.find(({ id }) => id === fuse)?.slot;
  const known =
    slot &&
    data.panelSet?.panels.some(
      ({ id, slots }) => id === slot.panel && slots.some((one) => one.id === slot.slot),
    );
  if (!slot || !known) {
    return (
      <>
        <p className="text-soft">Its slot is not drawn: read both holes and say so.</p>
        <Button look="primary" className={BIG} onClick={onDone}>
          One hole live where it should be, the other dead
        </Button>
      </>
    );
  }
  return (
    <>
      {says ? null : <p className="text-soft">Not read yet.</p>}
      <div className="flex flex-wrap gap-2">
        {(['run', 'off'] as const).map((state) => (
          <ButtonLink key={state} look="primary" href={readHref(jobId, slot.panel, slot.slot, state, true)}>
            {readWords(state, true)}
          </ButtonLink>
        ))}
      </div>
    </>
  );
}

function Value({
  unit,
  least,
  most,
  onRead,
}: {
  unit: 'A' | 'V';
  least: number | null;
  most: number | null;
  onRead: (value: number, right: boolean) => void;
}) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const take = () => {
    const read = readNumber(text, { least: -1000, most: 1000, unit });
    if (!read.ok) return setProblem(read.message);
    const right = (least === null || read.value >= least) && (most === null || Math.abs(read.value) <= most);
    return onRead(read.value, right);
  };
  return (
    <div className="flex items-start gap-2">
      <div className="flex-1">
        <LiveField
          name="Read"
          unit={unit}
          says={[
            least === null ? '' : `at least ${least} ${unit}`,
            most === null ? '' : `at most ${Number(most.toFixed(3))} ${unit}`,
          ]
            .filter(Boolean)
            .join(', ')}
          value={text}
          problem={problem}
          decimal
          onType={(typed) => {
            setText(typed);
            setProblem(null);
          }}
        />
      </div>
      <Button look="primary" className="mt-6 min-h-11" onClick={take} disabled={text.trim() === ''}>
        Record
      </Button>
    </div>
  );
}

function Duty({ seconds, onDone }: { seconds: number; onDone: (watched: string) => void }) {
  const [watched, setWatched] = useState('');
  return (
    <>
      <LiveField
        name="Who is watching"
        says="a name; nobody does this alone"
        value={watched}
        onType={setWatched}
      />
      <DutyClock seconds={seconds} loud />
      <Button
        look="primary"
        className={BIG}
        disabled={watched.trim() === ''}
        onClick={() => onDone(watched.trim().slice(0, 160))}
      >
        It ran, and it is off
      </Button>
    </>
  );
}
