'use client';

import { ENDINGS, endingWords, may, type SaidEnding, whyNotEnd } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { useWho } from '@/sync/who';
import { Choice } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { useLater } from '@/ui/useLater';

const loadAskedWord = () => import('./AskedWord').then((loaded) => loaded.AskedWord);

/** How the job ends; what is still owed bars it, or asks for a reason. */
export function CloseForm({ missing }: { missing: readonly string[] }) {
  const { data, job, record } = useJob();
  const role = useWho()?.role ?? 'technician';
  const alone = may(role, 'lead');
  const Asked = useLater(loadAskedWord, job.state === 'asked');
  const form = useKeptForm<{ reason: string; ending: SaidEnding }>({
    keep: `close ${data.id}`,
    first: { ending: 'repaired' },
    take: ({ reason, ending }) => {
      const override = textOf(reason);
      const message = whyNotEnd(job, ending, missing, override);
      if (message !== null) return { ok: false, message, field: 'reason' };
      return record({
        kind: 'state',
        state: alone ? 'closed' : 'asked',
        ...(ending === 'repaired' ? {} : { ending }),
        ...(ending !== 'repaired' || missing.length > 0 ? { override } : {}),
      });
    },
  });
  const ending = ENDINGS.find(({ id }) => id === form.watch('ending')) ?? ENDINGS[0]!;
  const ends = endingWords(job);
  if (job.state === 'closed') {
    return (
      <p className="mt-6 text-lg font-bold text-good">
        ✓ Closed{ends ? `: ${ends}` : ''}
        {job.ending ? (
          <span className="block font-normal text-ink">{job.override}</span>
        ) : job.override ? (
          <span className="font-normal text-caution"> although something was missing: {job.override}</span>
        ) : null}
      </p>
    );
  }
  if (job.state === 'asked') return Asked ? <Asked alone={alone} missing={missing} /> : null;
  return (
    <form onSubmit={form.submit} className="mt-6 max-w-3xl">
      {job.complaint?.work ? null : (
        <div className="mb-3">
          <Choice
            legend="How it ends"
            options={ENDINGS}
            chosen={ending.id}
            onChoose={(id) => form.setValue('ending', id as SaidEnding, { shouldDirty: true })}
          />
        </div>
      )}
      {form.problem || ending.id !== 'repaired' ? (
        <div className="mb-3 grid gap-3">
          {form.problem ? <Problem>{form.problem}</Problem> : null}
          <Field label={ending.asks}>
            <input {...form.register('reason')} className={INPUT} />
          </Field>
        </div>
      ) : null}
      <Button look={missing.length === 0 ? 'primary' : 'plain'} type="submit">
        {alone ? 'Close the job' : 'Ask for the word to close it'}
      </Button>
    </form>
  );
}
