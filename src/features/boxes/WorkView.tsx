'use client';

import { useState } from 'react';
import type { Panel } from '#core/format';
import { isolationGate, lookAlikes, STEPS, TASK_WORDS, TASKS, type Task, tagProblem } from '#core/hands';
import { cavityRows } from '#core/panel';
import { AT_MOMENT, momentsOf } from '#core/safety';
import { CautionAsk, useUnread } from '@/job/CautionAsk';
import { IsolationSteps } from '@/job/IsolationSteps';
import { useJob } from '@/job/JobProvider';
import { Photos } from '@/job/Photos';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Caution, INPUT, Problem } from '@/ui/controls';
import { Override } from '@/ui/Override';
import { Select } from '@/ui/Select';
import { DamageList } from './DamageList';
import { Exchanges } from './Exchanges';
import type { BoxViewProps } from './TriageView';

/** Opening, isolating, tagging and exchanging: what comes before a hand goes into the box. */
export function WorkView({ panel }: BoxViewProps) {
  return (
    <div className="mt-3 grid gap-8 lg:grid-cols-2">
      <div className="space-y-8">
        <Steps panel={panel} />
        <Isolation panel={panel} />
      </div>
      <div className="space-y-8">
        <Plugs panel={panel} />
        <Exchanges />
        <DamageList panel={panel} />
        <Photos panel={panel} />
      </div>
    </div>
  );
}

function Steps({ panel }: { panel: Panel }) {
  const steps: NonNullable<Panel['steps']> = panel.steps ?? panel.opening.map((words) => ({ words }));
  return (
    <section aria-labelledby="steps-title" data-testid="steps">
      <h2 id="steps-title" className="border-b-2 border-line pb-1 text-lg">
        To open it
      </h2>
      <p className="mt-1 text-soft">{panel.place}</p>
      {AT_MOMENT['before-opening'].map((words) => (
        <div key={words} className="mt-2">
          <Caution>{words}</Caution>
        </div>
      ))}
      <ol className="mt-1 list-decimal space-y-2 pl-6 text-lg">
        {steps.map((one) => (
          <li key={one.words}>
            {one.words}
            <span className="block text-sm text-soft">
              {[
                one.fastener ?? '',
                one.tool ? `with ${one.tool}` : '',
                one.direction ?? '',
                one.minutes === undefined ? '' : `${one.minutes} min`,
              ]
                .filter((words) => words !== '')
                .join(' · ')}
              {one.breaks ? (
                <strong className="block text-caution">▲ Forced, it breaks: {one.breaks}</strong>
              ) : null}
            </span>
          </li>
        ))}
      </ol>
      {panel.caution ? (
        <div className="mt-2">
          <Caution>{panel.caution}</Caution>
        </div>
      ) : null}
    </section>
  );
}

function Isolation({ panel }: { panel: Panel }) {
  const { job, record } = useJob();
  const [task, setTask] = useState<Task>('lift-box');
  const gate = isolationGate(task, job.isolated, panel.retainedMinutes ?? null);
  const warnings = momentsOf(task);
  const unread = useUnread(warnings);
  const begun = job.begun.some((one) => one.task === task && one.panel === panel.id);
  return (
    <section aria-labelledby="isolation-title" data-testid="isolation">
      <h2 id="isolation-title" className="border-b-2 border-line pb-1 text-lg">
        What will be done here
      </h2>
      <label className="mt-2 block">
        <span className="sr-only">Task</span>
        <Select
          value={task}
          onChange={(event) => setTask(TASKS.find((one) => one === event.target.value) ?? 'probe')}
        >
          {TASKS.map((one) => (
            <option key={one} value={one}>
              {TASK_WORDS[one]}
            </option>
          ))}
        </Select>
      </label>
      <p
        className={`mt-2 text-lg ${gate.allowed ? 'text-good' : 'font-semibold text-caution'}`}
        role="status"
      >
        {gate.allowed ? '✓ ' : '▲ '}
        {gate.sentence}
      </p>
      {warnings
        .filter((one) => !unread.includes(one))
        .map(({ words }) => (
          <div key={words} className="mt-2">
            <Caution>{words}</Caution>
          </div>
        ))}
      <IsolationSteps steps={STEPS} />
      <CautionAsk warnings={warnings}>
        <div className="mt-2 flex flex-wrap items-end gap-2">
          <Button
            look="primary"
            disabled={!gate.allowed || begun}
            onClick={() => record({ kind: 'task-begun', task, panel: panel.id })}
          >
            {begun ? '✓ Begun' : 'Begin'}
          </Button>
          {gate.allowed || begun ? null : (
            <Override
              word="Begin, not isolated"
              onOverride={(override) => record({ kind: 'task-begun', task, panel: panel.id, override })}
            />
          )}
        </div>
      </CautionAsk>
    </section>
  );
}

/** One plug, and the tag that is put on it before it comes off. */
function PlugTag({
  panel,
  plug,
  tag,
}: {
  panel: Panel;
  plug: NonNullable<Panel['plugs']>[number];
  tag: string | undefined;
}) {
  const { data, job, record } = useJob();
  const form = useKeptForm<{ tag: string }>({
    keep: `tag ${data.id} ${panel.id} ${plug.id}`,
    take: (values) => {
      const tags = job.tags.filter((one) => one.panel === panel.id);
      const wrong = tagProblem(panel.plugs ?? [], tags, plug.id, textOf(values.tag));
      if (wrong) return { ok: false, message: wrong, field: 'tag' };
      return record({ kind: 'plug-tag', panel: panel.id, plug: plug.id, tag: textOf(values.tag) });
    },
  });
  return (
    <form onSubmit={form.submit} className="flex flex-wrap items-end gap-2">
      <span className="min-w-40 flex-1">
        <strong>{plug.name}</strong>
        <span className="block text-sm text-soft">
          {plug.shape}, {plug.cavities} cavities, counted from the{' '}
          {plug.face === 'mating' ? 'mating face' : 'wire side'}
        </span>
      </span>
      {tag ? <span className="font-bold text-good">✓ tag “{tag}”</span> : null}
      <input {...form.register('tag')} aria-label={`Tag of ${plug.name}`} className={`${INPUT} w-28`} />
      <Button type="submit">Tag</Button>
      {form.problem ? (
        <div className="basis-full">
          <Problem>{form.problem}</Problem>
        </div>
      ) : null}
    </form>
  );
}

function Plugs({ panel }: { panel: Panel }) {
  const { job } = useJob();
  const plugs = panel.plugs ?? [];
  if (plugs.length === 0) return null;
  const tags = job.tags.filter((one) => one.panel === panel.id);
  const alike = lookAlikes(plugs);
  return (
    <section aria-labelledby="plugs-title" data-testid="plugs">
      <h2 id="plugs-title" className="border-b-2 border-line pb-1 text-lg">
        Plugs underneath
      </h2>
      {alike.map((names) => (
        <div key={names.join()} className="mt-2">
          <Caution>{`${names.join(' and ')} look the same: a tag on each before they come off.`}</Caution>
        </div>
      ))}
      <ul className="mt-2 space-y-2">
        {plugs.map((plug) => {
          const tag = tags.find((one) => one.plug === plug.id)?.tag;
          return (
            <li key={plug.id} className="border-b border-line pb-2">
              <PlugTag panel={panel} plug={plug} tag={tag} />
              <Cavities plug={plug} />
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** The cavities as seen from one face; the other mirrors it, and says so. */
function Cavities({ plug }: { plug: NonNullable<Panel['plugs']>[number] }) {
  const [face, setFace] = useState(plug.face);
  const other = face === 'mating' ? 'wire' : 'mating';
  const names = { mating: 'mating face', wire: 'wire side' } as const;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-3">
      <table
        className="border-2 border-ink text-center text-sm"
        aria-label={`Cavities seen from the ${names[face]}`}
      >
        <tbody>
          {cavityRows(plug, face).map((row) => (
            <tr key={row.join()}>
              {row.map((number) => (
                <td key={number} className="h-7 w-7 border border-line tabular-nums">
                  {number}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <span>
        <strong>Seen from the {names[face]}</strong>
        <button
          type="button"
          onClick={() => setFace(other)}
          className="block min-h-11 text-left underline underline-offset-4"
        >
          Turn to the {names[other]} (mirrored)
        </button>
      </span>
    </div>
  );
}
