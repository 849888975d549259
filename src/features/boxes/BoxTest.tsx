'use client';

import { ChevronDown } from 'lucide-react';
import { useMemo, useState } from 'react';
import { KEY_STATE_WORDS, KEY_STATES, type KeyState } from '#core/limits';
import { useJob } from '@/job/JobProvider';
import { Choice } from '@/ui/Choice';
import { Button, ButtonLink } from '@/ui/controls';
import { useLater } from '@/ui/useLater';
import { TriageView } from './TriageView';

const VIEWS = [
  ['triage', 'Test every fuse'],
  ['survey', 'What feeds it when'],
  ['drain', 'What draws asleep'],
  ['work', 'Open, isolate, exchange'],
] as const;

/** What is done at a box besides the test of every fuse; fetched once that stands. */
const loadOthers = () => import('./otherViews');

/** A whole box tested with the probe in one hand: every fuse, or every feed in every state of the key. */
export function BoxTest() {
  const { data, job, record, nominalVolts } = useJob();
  const panels = data.panelSet?.panels ?? [];
  // Whoever was sent here to read one slot finds its box, the survey and the key as they were named.
  const [sent] = useState(() => new URLSearchParams(window.location.search));
  const [panelId, setPanelId] = useState(sent.get('box') ?? panels[0]?.id ?? '');
  const [view, setView] = useState(VIEWS.find(([id]) => id === sent.get('do'))?.[0] ?? 'triage');
  const [state, setState] = useState<KeyState>(KEY_STATES.find((one) => one === sent.get('key')) ?? 'off');
  const others = useLater(loadOthers, view !== 'triage' || panels.length === 0, 400);
  const Exchanges = others?.Exchanges;
  /** On a phone, whether box, work and key are being chosen. */
  const [choosing, setChoosing] = useState(false);
  const panel = panels.find((one) => one.id === panelId) ?? panels[0];
  const readings = useMemo(
    () => job.slotReadings.filter((one) => one.panel === panel?.id),
    [job.slotReadings, panel],
  );
  if (!panel || nominalVolts === null) {
    return (
      <div className="mx-auto max-w-xl px-4 py-12">
        <h2 className="text-2xl">
          {panel ? 'Which nominal voltage?' : 'No box of this vehicle is mapped yet'}
        </h2>
        <p className="mt-2 text-lg">
          {panel
            ? 'Limits for live and dead follow it. Choose it in the complaint.'
            : 'Draw it by thumb: rows first, then ratings by their colours. Or bring a file in on the vehicle’s page.'}
        </p>
        <ButtonLink
          look="primary"
          href={panel ? `/jobs/${data.id}#complaint` : `/vehicles/${data.vehicle.id}/panels/edit`}
          className="mt-4"
        >
          {panel ? 'To the complaint' : 'Draw the box'}
        </ButtonLink>
        {panel ? null : (
          <ButtonLink look="quiet" href={`/vehicles/${data.vehicle.id}`} className="mt-4">
            To the vehicle
          </ButtonLink>
        )}
        <div className="mt-8">{Exchanges ? <Exchanges /> : null}</div>
      </div>
    );
  }
  const Shown = {
    triage: TriageView,
    survey: others?.SurveyView,
    drain: others?.DrainView,
    work: others?.WorkView,
  }[view];
  return (
    <div className="px-3 py-3 lg:px-5">
      {job.testerProvedAt === null ? (
        <div className="no-print mb-3 flex flex-wrap items-center justify-between gap-2 border-l-4 border-caution bg-caution-wash px-3 py-2">
          <p className="min-w-0 flex-1">
            <strong>Prove the tester</strong> on the battery posts.
            <span className="hidden lg:inline"> Until then every pass is provisional twice over.</span>
          </p>
          <Button onClick={() => record({ kind: 'tester-proved', on: 'battery plus and minus post' })}>
            Tester proved
          </Button>
        </div>
      ) : null}
      <div className="no-print lg:hidden">
        <Button
          className="w-full justify-between text-left"
          aria-expanded={choosing}
          onClick={() => setChoosing(!choosing)}
        >
          <span className="min-w-0 truncate">
            {[
              panel.name,
              VIEWS.find(([id]) => id === view)?.[1],
              ...(view === 'work' || view === 'drain' ? [] : [KEY_STATE_WORDS[state]]),
            ].join(' · ')}
          </span>
          <ChevronDown aria-hidden="true" className="size-5 shrink-0 text-copper" />
          <span className="sr-only">What is done here</span>
        </Button>
      </div>
      <div className={`${choosing ? '' : 'hidden'} no-print mt-2 lg:mt-0 lg:block`}>
        <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
          <Choice legend="Box" shape="row" options={panels} chosen={panel.id} onChoose={setPanelId} />
          <Choice
            legend="What is done"
            shape="row"
            options={VIEWS.map(([id, name]) => ({ id, name }))}
            chosen={view}
            onChoose={(next) => setView(next as typeof view)}
          />
        </div>
        {view === 'work' || view === 'drain' ? null : (
          <Choice
            legend="Key now"
            shape="row"
            options={KEY_STATES.map((id) => ({ id, name: KEY_STATE_WORDS[id] }))}
            chosen={state}
            onChoose={(next) => setState(next as KeyState)}
          />
        )}
      </div>
      {Shown ? (
        <Shown
          key={panel.id}
          panel={panel}
          readings={readings}
          state={state}
          onState={setState}
          nominalVolts={nominalVolts}
          first={sent.get('slot')}
          holes={sent.get('out') === '1'}
        />
      ) : null}
    </div>
  );
}
