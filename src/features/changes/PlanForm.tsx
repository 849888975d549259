'use client';

import { useMemo, useState } from 'react';
import { goalName, hiddenEdits, mayMove, type Played, type Stated } from '#core/change';
import type { CircuitFile, PlanFile } from '#core/format';
import { KEY_STATE_WORDS } from '#core/limits';
import { Button, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { LiveField } from '@/ui/LiveField';
import type { Change } from '@/workers/useChange';
import { Behind } from './Behind';
import { GoalForm } from './GoalForm';
import { IntentForm } from './IntentForm';
import { PlanFacts } from './PlanFacts';
import { TextPlan } from './TextPlan';
import { emptyPlan, type Planning } from './usePlan';
import { Variants } from './Variants';

/** The plan as sentences, and what more is wanted of it. */
export function PlanForm({
  asked,
  planning,
  circuit,
  played,
  change,
  dangers,
  onWork,
  onShows,
}: {
  /** What a link has answered already. */
  asked: URLSearchParams;
  planning: Planning;
  circuit: CircuitFile;
  played: Played | null;
  change: Change;
  dangers: number;
  onWork: () => void;
  onShows: () => void;
}) {
  const { plan } = planning;
  const [adding, setAdding] = useState(plan === null || plan.edits.length === 0 || asked.has('intent'));
  const after = played?.after ?? circuit;
  const take = (name: string, stated: Stated) => {
    const base = plan ?? emptyPlan();
    const next: PlanFile = {
      ...base,
      name: base.edits.length === 0 && base.name === 'Change' ? name : base.name,
      edits: [...base.edits, ...stated.edits],
      goals: [...(base.goals ?? []), ...stated.goals],
    };
    if (plan) planning.change(next);
    else planning.begin(next, base);
    setAdding(false);
  };
  const empty = plan === null || plan.edits.length === 0;
  return (
    <div className={empty ? 'max-w-3xl' : 'grid gap-6 lg:grid-cols-[minmax(0,1fr)_26rem]'}>
      <section aria-label="The plan" hidden={empty && !planning.undo && !planning.redo}>
        {empty ? null : (
          <>
            <h2 className="text-xl">{plan.name}</h2>
            <Sentences plan={plan} played={played} onChange={planning.change} />
            <Goals plan={plan} circuit={after} onChange={planning.change} />
            <Fold title="Its name, what for, two builds">
              <div className="grid gap-3 sm:grid-cols-2">
                <LiveField
                  name="Called"
                  says="on sheet, label and ledger"
                  value={plan.name}
                  problem={plan.name.trim() === '' ? 'It needs a name.' : null}
                  onType={(name) => planning.change({ ...plan, name: name.slice(0, 160) })}
                />
                <LiveField
                  name="What for"
                  says="why it is changed"
                  value={plan.purpose}
                  onType={(purpose) => planning.change({ ...plan, purpose: purpose.slice(0, 400) })}
                />
              </div>
              <Variants plan={plan} onChange={planning.change} />
            </Fold>
            <PlanFacts
              plan={plan}
              asksCharging={change.looked?.findings.some(({ kind }) => kind === 'charging') === true}
              onChange={planning.change}
            />
            {change.looked && change.current ? <Behind sums={change.looked.sums} /> : null}
            <Fold title="As text">
              <TextPlan
                circuit={after}
                onEdit={(edit) => planning.change({ ...plan, edits: [...plan.edits, edit] })}
              />
            </Fold>
            <Verdict change={change} dangers={dangers} stuck={played?.stuck != null} onShows={onShows} />
          </>
        )}
        {planning.meanwhile ? (
          <div className="mt-4">
            <Problem>
              Somebody kept another version of this plan meanwhile. Kept now, yours stands in its place;
              theirs stays in the log.
            </Problem>
            <Button className="mt-2" onClick={planning.forget}>
              Take theirs instead
            </Button>
          </div>
        ) : null}
        <div className="mt-4 flex flex-wrap gap-2">
          {empty ? null : (
            <>
              {planning.changed ? (
                <Button look="primary" onClick={planning.keep} disabled={plan.name.trim() === ''}>
                  Keep it on the job
                </Button>
              ) : (
                <Button look="primary" onClick={onWork}>
                  To the work
                </Button>
              )}
              <Button onClick={() => setAdding(true)}>Add to it</Button>
            </>
          )}
          {planning.undo ? <Button onClick={planning.undo}>Undo</Button> : null}
          {planning.redo ? <Button onClick={planning.redo}>Redo</Button> : null}
        </div>
        {planning.changed && !empty ? (
          <p className="mt-2 text-sm text-soft">Kept in this browser until you keep it on the job.</p>
        ) : null}
      </section>
      {adding || empty ? (
        <section aria-label="What is wanted" className="self-start">
          <IntentForm circuit={after} taken={idsOf(plan)} asked={asked} onState={take} />
          {empty ? null : (
            <Button className="mt-2" onClick={() => setAdding(false)}>
              Nothing more
            </Button>
          )}
        </section>
      ) : null}
    </div>
  );
}

/** Ids that a plan uses, also of what it took out. */
function idsOf(plan: PlanFile | null): readonly string[] {
  return [
    ...(plan?.edits ?? []).map(({ id }) => id),
    ...(plan?.goals ?? []).map(({ id }) => id),
    ...Array.from(JSON.stringify(plan?.edits ?? []).matchAll(/"id":"([^"]+)"/g), ([, id]) => id!),
  ];
}

function Verdict({
  change,
  dangers,
  stuck,
  onShows,
}: {
  change: Change;
  dangers: number;
  stuck: boolean;
  onShows: () => void;
}) {
  const { looked, progress, current } = change;
  // What an older plan showed says nothing of this one.
  if (!looked || !current) return progress === null ? null : <p className="mt-3 text-soft">Playing it …</p>;
  const { count, looked: seen } = looked.settings;
  return (
    <div
      className={`mt-4 flex flex-wrap items-center justify-between gap-2 border-l-4 px-3 py-2 ${dangers > 0 || stuck ? 'border-bad bg-caution-wash' : 'border-good'}`}
      data-testid="plan-verdict"
    >
      <p className="text-lg font-semibold" role="status">
        {dangers > 0
          ? `▲ ${dangers} ${dangers === 1 ? 'danger stands' : 'dangers stand'} in it`
          : stuck
            ? '▲ Only a part of it can be played'
            : '✓ No danger found'}
        <span className="block text-sm font-normal text-soft">
          {seen === count
            ? `Played in all ${count} settings of key, switches and plugs.`
            : `Played in ${seen} of ${count} settings: every two things turned together.`}
        </span>
      </p>
      <Button onClick={onShows}>What it shows</Button>
    </div>
  );
}

function Sentences({
  plan,
  played,
  onChange,
}: {
  plan: PlanFile;
  played: Played | null;
  onChange: (plan: PlanFile) => void;
}) {
  const applied = played?.applied ?? [];
  const hidden = useMemo(() => hiddenEdits(plan), [plan]);
  const at = (id: string) => plan.edits.findIndex((edit) => edit.id === id);
  const swap = (one: number, other: number) => {
    const edits = [...plan.edits];
    [edits[one], edits[other]] = [edits[other]!, edits[one]!];
    onChange({ ...plan, edits });
  };
  const without = (id: string) => onChange({ ...plan, edits: plan.edits.filter((edit) => edit.id !== id) });
  return (
    <>
      <ol className="mt-4 border-t-2 border-line" data-testid="plan-sentences">
        {applied.map(({ edit, words, undo }, index) => {
          const up = mayMove(applied, index, index - 1);
          return (
            <li key={edit.id} className="flex items-start gap-2 border-b border-line py-2">
              <span className="reading w-6 shrink-0 text-copper">{index + 1}</span>
              <div className="min-w-0 flex-1">
                <p className="text-lg leading-snug">{words}</p>
                <p className="text-sm text-soft">To undo: {undo}</p>
              </div>
              <span className="flex shrink-0">
                <button
                  type="button"
                  aria-label={`Earlier: ${words}`}
                  title={up ?? 'Earlier'}
                  disabled={index === 0 || up !== null}
                  onClick={() => swap(at(edit.id), at(applied[index - 1]!.edit.id))}
                  className="grid size-11 place-items-center text-lg disabled:opacity-30"
                >
                  ↑
                </button>
                <button
                  type="button"
                  aria-label={`Take out of the plan: ${words}`}
                  onClick={() => without(edit.id)}
                  className="grid size-11 place-items-center text-lg"
                >
                  ×
                </button>
              </span>
            </li>
          );
        })}
        {played?.stuck ? (
          <li className="flex items-center gap-2 border-b border-line py-2 text-bad">
            <span className="flex-1">
              ▲ {played.stuck.edit.kind}: {played.stuck.problem}
            </span>
            <Button onClick={() => without(played.stuck!.edit.id)}>Take it out</Button>
          </li>
        ) : null}
      </ol>
      {hidden.length > 0 ? (
        <Fold title={`Not shown: ${hidden.length}`}>
          <ul>
            {hidden.map(({ edit, why }) => (
              <li key={edit.id} className="text-soft">
                {edit.kind}: {why}
              </li>
            ))}
          </ul>
        </Fold>
      ) : null}
    </>
  );
}

function Goals({
  plan,
  circuit,
  onChange,
}: {
  plan: PlanFile;
  circuit: CircuitFile;
  onChange: (plan: PlanFile) => void;
}) {
  const goals = plan.goals ?? [];
  const states = (list: readonly (keyof typeof KEY_STATE_WORDS)[]) =>
    list.map((state) => KEY_STATE_WORDS[state].toLowerCase()).join(', ');
  return (
    <div className="mt-3">
      <h3 className="font-semibold">Asked for</h3>
      {goals.length === 0 ? (
        <p className="text-soft">Nothing yet. Whatever differs then counts as not asked for.</p>
      ) : (
        <ul>
          {goals.map((goal) => (
            <li key={goal.id} className="flex items-center justify-between gap-2 border-b border-line py-1">
              <span>
                {goalName(circuit, goal.of)}: {goal.on.length > 0 ? `on with ${states(goal.on)}` : ''}
                {goal.on.length > 0 && goal.off.length > 0 ? '; ' : ''}
                {goal.off.length > 0 ? `off with ${states(goal.off)}` : ''}
              </span>
              <button
                type="button"
                aria-label={`No longer asked for: ${goalName(circuit, goal.of)}`}
                onClick={() => onChange({ ...plan, goals: goals.filter((one) => one !== goal) })}
                className="grid size-11 place-items-center text-lg"
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
      <Fold title="Ask for something more">
        <GoalForm circuit={circuit} onAsk={(goal) => onChange({ ...plan, goals: [...goals, goal] })} />
      </Fold>
    </div>
  );
}
