'use client';

import { useCallback, useMemo, useState } from 'react';
import { chosenEdits, findingKey, playPlan } from '#core/change';
import type { PlanFile } from '#core/format';
import type { JobState } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { useAddress } from '@/ui/address';
import { Button, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { TabBar, TabPane, Tabs } from '@/ui/Tabs';
import { useChange } from '@/workers/useChange';
import { BeforeAfter } from './BeforeAfter';
import { EndedPlan } from './EndedPlan';
import { Findings } from './Findings';
import { LittleForm } from './LittleForm';
import { PlanFiles } from './PlanFiles';
import { PlanForm } from './PlanForm';
import { RecipeStart } from './Recipes';
import { TextPlan } from './TextPlan';
import { emptyPlan, isDrafted, usePlan } from './usePlan';
import { WorkView } from './WorkView';

const TABS = [
  { id: 'plan', name: 'Plan' },
  { id: 'shows', name: 'Shows' },
  { id: 'compare', name: 'Drawing' },
  { id: 'work', name: 'Work' },
] as const;
type TabId = (typeof TABS)[number]['id'];

/** A plan is on the job, and nothing else is being stated. */
function isKept(jobId: string, job: JobState): boolean {
  return isDrafted(jobId) ? false : job.plans.some(({ ended }) => ended === null);
}

/** A change of the vehicle: stated, played, looked at, done. */
export function ChangeView() {
  const { data, job, circuit, nominalVolts, record } = useJob();
  // What a link answered is read once: the address says other things later.
  const [linked, setLinked] = useState(() => new URLSearchParams(window.location.search));
  const little = linked.has('little');
  const [tab, setTab] = useState<TabId>(
    // Whoever comes back to a plan that is kept sees its work first.
    () => TABS.find(({ id }) => id === linked.get('see'))?.id ?? (isKept(data.id, job) ? 'work' : 'plan'),
  );
  const onKeep = useCallback((plan: PlanFile) => record({ kind: 'plan', plan }).ok, [record]);
  const planning = usePlan(data.id, job, linked.get('plan'), onKeep);
  const { plan, onJob } = planning;
  const on = plan?.circuit ?? circuit;
  const ended = onJob?.ended ?? null;
  useAddress(`/jobs/${data.id}/change${tab === 'plan' ? '' : `?see=${tab}`}`);
  const done = useMemo(
    () => [...(onJob?.steps ?? [])].flatMap(([id, { how }]) => (how === 'wrong' ? [] : [id])),
    [onJob],
  );
  // What is ended was played on what the vehicle was before.
  const live = ended === null && plan !== null && plan.edits.length > 0 ? plan : null;
  const change = useChange(on, live, done);
  const played = useMemo(() => (on && live ? playPlan(on, chosenEdits(live)) : null), [on, live]);
  // Of an older plan they would be no count of this one.
  const dangers =
    (change.current ? change.looked : null)?.findings.filter(
      (finding) => finding.level === 'danger' && !onJob?.kept.has(findingKey(finding)),
    ).length ?? 0;
  if (nominalVolts === null) {
    return (
      <p className="p-4 text-lg">The nominal voltage is not known yet: say it on the job’s page first.</p>
    );
  }
  if (ended && plan) return <EndedPlan ended={ended} plan={plan} planning={planning} />;
  if (!on || (little && plan === null)) {
    return (
      <div className="mx-auto max-w-2xl px-3 py-4">
        <LittleForm nominalVolts={nominalVolts} asked={linked} onState={planning.begin} />
      </div>
    );
  }
  return (
    <Tabs chosen={tab} onChoose={setTab} className="px-3 pb-6 lg:px-5">
      <TabBar
        label="The change"
        tabs={TABS.map((one) => ({
          ...one,
          name: one.id === 'shows' && dangers > 0 ? `Shows ▲ ${dangers}` : one.name,
        }))}
        className="sticky top-12 z-10 -mx-3 mb-3 lg:static lg:mx-0 lg:max-w-3xl"
      />
      {played?.stuck ? (
        <Problem>
          It cannot be played from here on: {played.stuck.problem} Take that edit out, or put it elsewhere.
        </Problem>
      ) : null}
      {change.problem ? <Problem>{change.problem}</Problem> : null}
      {change.progress !== null && change.progress > 0 ? (
        // Over the page and not in it: what a finger is on its way to does not move when it comes or goes.
        <div
          role="status"
          className="no-print fixed inset-x-2 bottom-20 z-40 flex items-center gap-3 rounded-lg border-2 border-ink bg-sheet px-3 py-2 lg:inset-x-auto lg:right-6 lg:bottom-6 lg:w-96"
        >
          <progress value={change.progress} max={1} aria-label="Settings looked at" className="h-3 flex-1" />
          <Button onClick={change.cancel}>Stop</Button>
        </div>
      ) : null}
      <TabPane id="plan">
        <PlanForm
          key={linked.toString()}
          asked={linked}
          planning={planning}
          circuit={on}
          played={played}
          onWork={() => setTab('work')}
          onShows={() => setTab('shows')}
          change={change}
          dangers={dangers}
        />
        {plan === null || plan.edits.length === 0 ? (
          <>
            <RecipeStart circuit={on} onStart={planning.begin} />
            <Fold title="Write it as text">
              <TextPlan
                circuit={on}
                onEdit={(edit) =>
                  planning.begin(
                    { ...emptyPlan(), name: 'Change by the text', edits: [edit] },
                    plan ?? emptyPlan(),
                  )
                }
              />
            </Fold>
          </>
        ) : null}
        {plan && plan.edits.length > 0 ? (
          <PlanFiles
            plan={plan}
            circuit={on}
            played={played}
            looked={change.looked}
            kept={onJob !== null && !planning.changed}
          />
        ) : null}
      </TabPane>
      <TabPane id="shows">
        <Findings change={change} plan={plan} planning={planning} circuit={on} after={played?.after ?? on} />
      </TabPane>
      <TabPane id="compare">
        {tab === 'compare' ? (
          <BeforeAfter
            played={played ?? { before: on, after: on }}
            table={change.looked?.table ?? null}
            settings={change.looked?.settings ?? null}
            onIntent={(answers) => {
              setLinked(new URLSearchParams(answers));
              setTab('plan');
            }}
          />
        ) : null}
      </TabPane>
      <TabPane id="work">
        {plan && played ? (
          <WorkView
            planning={planning}
            change={change}
            circuit={on}
            dangers={dangers}
            stuck={played.stuck?.problem ?? null}
          />
        ) : (
          <p className="py-4 text-lg text-soft">Nothing is planned yet.</p>
        )}
      </TabPane>
    </Tabs>
  );
}
