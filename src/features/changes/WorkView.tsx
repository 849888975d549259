'use client';

import { useMemo, useState } from 'react';
import {
  STAGE_WORDS,
  type StepStanding,
  standingOf,
  strayDone,
  type WorkFacts,
  type WorkStep,
} from '#core/change';
import type { CircuitFile } from '#core/format';
import { isBegun } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { Button, Caution, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import type { Change } from '@/workers/useChange';
import { CarryOut } from './CarryOut';
import { StepAnswer } from './StepAnswer';
import { TakeBack } from './TakeBack';
import type { Planning } from './usePlan';

const NO_PANELS = [] as const;

/** The plan as work: one step at a time, what bars it, and in what state the vehicle is meanwhile. */
export function WorkView({
  planning,
  change: { looked, current },
  circuit,
  dangers,
  stuck,
}: {
  planning: Planning;
  change: Change;
  circuit: CircuitFile;
  dangers: number;
  /** Why the plan cannot be played whole; null where it can. */
  stuck: string | null;
}) {
  const { data, job } = useJob();
  const { onJob, changed } = planning;
  const [chosen, setChosen] = useState<string | null>(null);
  const [back, setBack] = useState(false);
  const panels = data.panelSet?.panels ?? NO_PANELS;
  const facts = useMemo(
    (): WorkFacts => ({
      done: onJob?.steps ?? new Map(),
      kept: new Set(onJob?.kept.keys()),
      isolated: job.isolated,
      testerProved: job.testerProvedAt !== null,
      wireReadings: job.wireReadings,
      slotReadings: job.slotReadings,
      panels,
    }),
    [onJob, job.isolated, job.testerProvedAt, job.wireReadings, job.slotReadings, panels],
  );
  const steps = looked?.steps;
  const standing = useMemo(() => (steps ? standingOf(steps, facts, circuit) : []), [steps, facts, circuit]);
  if (!onJob || changed) {
    return (
      <div className="py-4">
        <p className="text-lg">
          The plan is not kept on the job as it stands here: its steps are recorded there.
        </p>
        <Button look="primary" className="mt-3" onClick={planning.keep}>
          Keep it on the job
        </Button>
      </div>
    );
  }
  if (!looked || !current) return <p className="py-4 text-lg text-soft">Working out the steps …</p>;
  const stray = strayDone(looked.steps, onJob.steps);
  const begun = isBegun(onJob);
  const left = standing.filter(({ done }) => !done);
  const next = left[0] ?? null;
  const shown = standing.find(({ step }) => step.id === chosen) ?? next;
  const barred = (one: StepStanding): string | null =>
    stuck !== null
      ? `The plan cannot be played whole: ${stuck}`
      : stray.length > 0
        ? 'Something was done that is not in the plan: see above.'
        : dangers > 0 && one.step.stage !== 'read' && !one.done
          ? `${dangers} ${dangers === 1 ? 'danger stands' : 'dangers stand'} in this plan: change it, or say on “Shows” why each may stay.`
          : one.barred;
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_26rem]">
      <div className="min-w-0">
        {stray.length > 0 ? <Stray planId={onJob.plan.id} stray={stray} /> : null}
        {begun ? <Now half={looked.half} onBack={() => setBack(true)} /> : null}
        {back ? (
          <TakeBack onJob={onJob} half={looked.half} steps={looked.steps} onDone={() => setBack(false)} />
        ) : shown ? (
          <article
            key={shown.step.id}
            className="rounded-lg border-2 border-copper bg-sheet p-3 lg:p-4"
            aria-label="The step"
            data-testid="work-step"
          >
            <p className="text-soft">
              {STAGE_WORDS[shown.step.stage]} · {standing.length - left.length} of {standing.length} done
            </p>
            <h2 className="mt-1 text-xl leading-snug">{shown.step.words}</h2>
            {shown.step.with ? <p className="mt-1 text-soft">With: {shown.step.with}</p> : null}
            {shown.says ? <p className="mt-2 font-semibold">{shown.says}</p> : null}
            {shown.wrong ? <Wrong step={shown.step} /> : null}
            <StepAnswer
              key={shown.step.id}
              planId={onJob.plan.id}
              standing={shown}
              barred={barred(shown)}
              circuit={circuit}
              onDone={() => setChosen(null)}
            />
          </article>
        ) : (
          <CarryOut onJob={onJob} standing={standing} />
        )}
        {begun ? null : <GiveUp planId={onJob.plan.id} name={onJob.plan.name} />}
      </div>
      <StepList standing={standing} shown={shown?.step.id ?? null} onChoose={setChosen} />
    </div>
  );
}

function Wrong({ step }: { step: WorkStep }) {
  const { asks } = step;
  return (
    <div className="mt-2">
      <Problem>
        {asks.by === 'right' ? asks.ifWrong : 'Not as the sum has it: look before it is handed over.'}
      </Problem>
    </div>
  );
}

/** Done for an edit that was taken out of the plan since, or that belongs to another way of doing it. */
function Stray({ planId, stray }: { planId: string; stray: ReturnType<typeof strayDone> }) {
  const { job, record } = useJob();
  const done = job.plans.find(({ plan }) => plan.id === planId)?.steps;
  return (
    <section
      aria-label="Done, and not in the plan"
      className="mb-3 border-l-4 border-bad bg-caution-wash px-3 py-2"
    >
      <h2 className="font-bold">Done on the vehicle, and not in the plan</h2>
      <ul>
        {stray.map(({ id, step }) => (
          <li key={id} className="flex flex-wrap items-center justify-between gap-2 py-1">
            <span>{step.leaves}</span>
            <Button
              onClick={() =>
                record({
                  kind: 'plan-step',
                  plan: planId,
                  step: id,
                  how: 'back',
                  words: `Taken back by hand: ${step.leaves ?? id}`.slice(0, 2000),
                  ...(done?.get(id) ? { of: done.get(id)!.eventId } : {}),
                })
              }
            >
              Taken back by hand
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** In what state the vehicle is while the plan is half done. */
function Now({ half, onBack }: { half: NonNullable<Change['looked']>['half']; onBack: () => void }) {
  const count = half.left.length;
  return (
    <section
      aria-label="The vehicle as it stands now"
      className="mb-3 border-l-4 border-caution bg-caution-wash px-3"
      data-testid="half-done"
    >
      <Fold
        title={`▲ Half done: ${count} ${count === 1 ? 'thing stands' : 'things stand'} on the vehicle${half.dangers.length > 0 ? `, ${half.dangers.length} in danger` : ''}`}
      >
        <ul>
          {half.left.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
        {half.dangers.map(({ words, remedy }) => (
          <div key={words} className="mt-2">
            <Caution>
              {words} {remedy}
            </Caution>
          </div>
        ))}
        <Button className="my-2" onClick={onBack}>
          Take it back
        </Button>
      </Fold>
    </section>
  );
}

function StepList({
  standing,
  shown,
  onChoose,
}: {
  standing: readonly StepStanding[];
  shown: string | null;
  onChoose: (id: string) => void;
}) {
  const stages = [...new Set(standing.map(({ step }) => step.stage))];
  const list = (
    <ol data-testid="work-list">
      {stages.map((stage) => (
        <li key={stage}>
          <h3 className="mt-3 font-semibold">{STAGE_WORDS[stage]}</h3>
          <ol>
            {standing
              .filter(({ step }) => step.stage === stage)
              .map(({ step, done, overridden, wrong }) => (
                <li key={step.id} className="border-b border-line">
                  <button
                    type="button"
                    onClick={() => onChoose(step.id)}
                    aria-current={step.id === shown ? 'step' : undefined}
                    className={`flex min-h-11 w-full items-start gap-2 py-2 text-left ${step.id === shown ? 'font-bold' : ''}`}
                  >
                    <span aria-hidden="true" className="w-5 shrink-0 text-copper">
                      {overridden !== null ? '▲' : done ? '✓' : wrong ? '✗' : '○'}
                    </span>
                    <span className={done ? 'text-soft' : ''}>
                      {step.words}
                      {overridden !== null ? <em className="block">Passed: {overridden}</em> : null}
                    </span>
                  </button>
                </li>
              ))}
          </ol>
        </li>
      ))}
    </ol>
  );
  return (
    <aside aria-label="All steps">
      <div className="hidden lg:block">
        <h2 className="text-xl">All steps</h2>
        {list}
      </div>
      <div className="lg:hidden">
        <Fold title={`All ${standing.length} steps`}>{list}</Fold>
      </div>
    </aside>
  );
}

function GiveUp({ planId, name }: { planId: string; name: string }) {
  const { record } = useJob();
  const [sure, setSure] = useState(false);
  return (
    <div className="mt-4">
      {sure ? (
        <div className="flex flex-wrap items-center gap-2">
          <p>Nothing of it was done. Give the plan up?</p>
          <Button
            onClick={() =>
              record({ kind: 'plan-ended', plan: planId, how: 'dropped', name, words: [], undo: [] })
            }
          >
            Give it up
          </Button>
          <Button look="quiet" onClick={() => setSure(false)}>
            No
          </Button>
        </div>
      ) : (
        <Button look="quiet" onClick={() => setSure(true)}>
          Give the plan up
        </Button>
      )}
    </div>
  );
}
