'use client';

import { useState } from 'react';
import { type At, type Finding, findingKey, type Level } from '#core/change';
import type { CircuitFile, PlanFile } from '#core/format';
import { LiveSetting } from '@/features/circuits';
import { useJob } from '@/job/JobProvider';
import { Button } from '@/ui/controls';
import { Dialog } from '@/ui/Dialog';
import { Override } from '@/ui/Override';
import type { Change } from '@/workers/useChange';
import type { Planning } from './usePlan';

const LEVELS: Readonly<
  Record<Level, { readonly title: string; readonly sign: string; readonly look: string }>
> = {
  danger: { title: 'Not as it stands', sign: '▲', look: 'border-bad' },
  mind: { title: 'To be minded', sign: '△', look: 'border-caution' },
  doubt: { title: 'What a circuit cannot know', sign: '?', look: 'border-line' },
  asked: { title: 'Differs as asked for', sign: '✓', look: 'border-good' },
};
const ORDER: readonly Level[] = ['danger', 'mind', 'doubt', 'asked'];

/** What playing the plan shows, each with the setting it occurs in and what would mend it. */
export function Findings({
  change: { looked, progress, current },
  plan,
  planning,
  circuit,
  after,
}: {
  change: Change;
  plan: PlanFile | null;
  planning: Planning;
  circuit: CircuitFile;
  after: CircuitFile;
}) {
  const [shown, setShown] = useState<At | null>(null);
  if (!plan || plan.edits.length === 0)
    return <p className="py-4 text-lg text-soft">Nothing is planned yet.</p>;
  // What an older plan showed says nothing of this one.
  if (!looked || !current)
    return <p className="py-4 text-lg text-soft">{progress === null ? '' : 'Playing it …'}</p>;
  const { findings, settings } = looked;
  return (
    <div data-testid="findings">
      <p className="text-soft">
        {settings.looked === settings.count
          ? `Every one of ${settings.count} settings was solved, before and after.`
          : `${settings.looked} of ${settings.count} settings were solved: every two things turned together. Three at a time were not.`}{' '}
        Steady states only: what flows in the first moment is not in it.
      </p>
      {findings.length === 0 ? (
        <p className="mt-3 text-xl">✓ Nothing differs but what was added, and nothing is in danger.</p>
      ) : null}
      {ORDER.map((level) => {
        const own = findings.filter((one) => one.level === level);
        const { title, sign, look } = LEVELS[level];
        return own.length === 0 ? null : (
          <section key={level} aria-label={title} className="mt-5">
            <h2 className="text-xl">
              {title} <span className="reading text-copper">{own.length}</span>
            </h2>
            <ul className="mt-2 grid gap-3 lg:grid-cols-2">
              {own.map((finding) => (
                <li
                  key={findingKey(finding)}
                  className={`border-l-4 pl-3 ${look}`}
                  data-finding={finding.kind}
                >
                  <p className="text-lg leading-snug">
                    <span aria-hidden="true">{sign} </span>
                    {finding.words}
                  </p>
                  {finding.remedy ? <p className="mt-1 text-soft">{finding.remedy}</p> : null}
                  <div className="mt-1 flex flex-wrap items-end gap-2">
                    {finding.at ? <Button onClick={() => setShown(finding.at)}>See it live</Button> : null}
                    {finding.kind === 'back-feeds' ? <Meant finding={finding} planning={planning} /> : null}
                    {level === 'danger' ? <Kept finding={finding} planning={planning} /> : null}
                  </div>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      <Dialog title="After the change, in this setting" open={shown !== null} onClose={() => setShown(null)}>
        {shown ? <LiveSetting before={circuit} after={after} at={shown} /> : null}
      </Dialog>
    </div>
  );
}

/** Two sources that are joined on purpose, as in split charging: then each end is judged by its own fuse. */
function Meant({ finding, planning }: { finding: Finding; planning: Planning }) {
  const { plan } = planning;
  const added = new Set(
    plan?.edits.flatMap((edit) =>
      edit.kind === 'add' ? edit.parts.map(({ id }) => id) : edit.kind === 'join' ? [edit.splice] : [],
    ),
  );
  const through = finding.path.find((id) => added.has(id));
  if (!plan || through === undefined) return null;
  return (
    <Button onClick={() => planning.change({ ...plan, ties: [...(plan.ties ?? []), through] })}>
      Meant: two sources joined here
    </Button>
  );
}

/** A danger that stays: only with a reason, which stands on the sheet. */
function Kept({ finding, planning }: { finding: Finding; planning: Planning }) {
  const { record } = useJob();
  const key = findingKey(finding);
  const kept = planning.onJob?.kept.get(key);
  if (kept) return <p className="font-semibold">Stays, because: {kept.reason}</p>;
  if (!planning.onJob || planning.changed) {
    return <p className="text-sm text-soft">Keep the plan on the job first, then say why it may stay.</p>;
  }
  return (
    <Override
      word="It stays"
      onOverride={(reason) =>
        record({
          kind: 'finding-kept',
          plan: planning.onJob!.plan.id,
          finding: key,
          words: finding.words,
          reason,
        })
      }
    />
  );
}
