'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type LearnedWeight, TABLE_COUNTS_AS } from '#core/diagnosis';
import { postJson } from '@/sync/post';
import { Button, Problem } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { newId } from '@/ui/newId';
import { SideScroll } from '@/ui/SideScroll';

function words(id: string): string {
  const text = id.replace(/-/g, ' ');
  return `${text[0]?.toUpperCase()}${text.slice(1)}`;
}

/** A weight as one in a hundred faults of all kinds. */
function share(weight: number, total: number): string {
  const percent = (100 * weight) / total;
  return percent < 0.1 ? '< 0.1 %' : `${percent.toFixed(1)} %`;
}

/** How often each fault is thought to be met before anything is measured: table, own count, blend. */
export function PriorWeights({
  weights,
  jobs,
  reset,
  mayChange,
}: {
  weights: readonly LearnedWeight[];
  jobs: number;
  reset: { readonly at: string; readonly by: string } | null;
  /** Whether the person who looks may start the counts anew. */
  mayChange: boolean;
}) {
  const router = useRouter();
  const [asking, setAsking] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const startTotal = weights.reduce((sum, one) => sum + one.starting, 0);
  const blendTotal = weights.reduce((sum, one) => sum + one.blended, 0);
  const counted = (kind: string) => weights.some((one) => one.kind === kind && one.count > 0);
  const kinds = [...new Set(weights.map((one) => one.kind))].sort(
    (one, other) => Number(counted(other)) - Number(counted(one)),
  );
  const widest = Math.max(...weights.map((one) => one.blended / blendTotal));
  const startAnew = async () => {
    const posted = await postJson<{ message?: string }>('/api/shop/learning', { id: newId() });
    if (posted.kind === 'away') return setProblem(posted.message);
    if (!posted.ok) return setProblem(posted.answer.message ?? 'It was not taken.');
    setProblem(null);
    setAsking(false);
    router.refresh();
  };
  return (
    <section aria-labelledby="weights" className="mt-8">
      <h2 id="weights" className="border-b-2 border-line pb-2 text-xl">
        What usually fails
      </h2>
      <div className="mt-3 flex flex-wrap items-start justify-between gap-4">
        <p className="max-w-prose">
          Before anything is measured, the suspects are weighed by how often such a fault is met. The starting
          table counts as {TABLE_COUNTS_AS} jobs; each job of this shop that ended <em>proved</em> adds one to
          its own kind of fault. Readings outweigh all of this quickly.
        </p>
        <div>
          {asking ? (
            <div className="grid gap-2">
              <p>Count from today on? The jobs stay; only the counts start anew.</p>
              <div className="flex gap-2">
                <Button look="primary" onClick={startAnew}>
                  Start anew
                </Button>
                <Button onClick={() => setAsking(false)}>Leave as it is</Button>
              </div>
            </div>
          ) : (
            <Button onClick={() => setAsking(true)} disabled={jobs === 0 || !mayChange}>
              Back to the starting table
            </Button>
          )}
          {problem ? <Problem>{problem}</Problem> : null}
        </div>
      </div>
      <p className="mt-2 font-semibold" data-testid="learned-jobs">
        {jobs === 1 ? '1 proved job counts' : `${jobs} proved jobs count`}
        {reset ? `, since ${reset.by} started anew on ${dateWords(reset.at, 'long')}` : ''}.
      </p>
      <SideScroll label="What usually fails" className="mt-4">
        <table className="w-full min-w-[34rem] text-left" data-testid="weights">
          <thead>
            <tr className="border-b-2 border-ink">
              <th className="py-1 pr-3">Part and fault</th>
              <th className="w-24 py-1 text-right">Table</th>
              <th className="w-24 py-1 text-right">Own jobs</th>
              <th className="w-24 py-1 text-right">Used now</th>
              <td className="w-1/3 py-1 pl-4" />
            </tr>
          </thead>
          {kinds.map((kind) => (
            <tbody key={kind}>
              <tr>
                <th scope="rowgroup" colSpan={5} className="pt-3 pb-0.5 font-bold">
                  {words(kind)}
                </th>
              </tr>
              {weights
                .filter((one) => one.kind === kind)
                .map((one) => (
                  <tr key={one.mode} className={one.count > 0 ? 'bg-copper-wash font-semibold' : ''}>
                    <td className="py-0.5 pr-3 pl-3">{words(one.mode)}</td>
                    <td className="text-right tabular-nums">{share(one.starting, startTotal)}</td>
                    <td className="text-right tabular-nums">{one.count === 0 ? '–' : one.count}</td>
                    <td className="text-right tabular-nums">{share(one.blended, blendTotal)}</td>
                    <td aria-hidden="true" className="pl-4">
                      <div
                        className={`h-2.5 ${one.count > 0 ? 'bg-copper' : 'bg-ink'}`}
                        style={{ width: `${(100 * one.blended) / blendTotal / widest}%` }}
                      />
                    </td>
                  </tr>
                ))}
            </tbody>
          ))}
        </table>
      </SideScroll>
    </section>
  );
}
