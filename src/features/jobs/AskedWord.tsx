'use client';

import { useRef } from 'react';
import { ENDINGS, whyNotEnd } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { dateWords } from '@/ui/dates';

/** Somebody asks for a word to close the job: whoever may give it closes the job, or says what is still to be done. */
export function AskedWord({ alone, missing }: { alone: boolean; missing: readonly string[] }) {
  const { data, job, record } = useJob();
  const { askedBy, ending, override } = job;
  const closes = useRef(false);
  const form = useKeptForm<{ reason: string }>({
    keep: `not yet ${data.id}`,
    take: ({ reason }) => {
      const said = textOf(reason);
      if (!closes.current) {
        if (said === '') return { ok: false, message: 'Say what is still to be done.', field: 'reason' };
        return record({ kind: 'state', state: 'open', override: said });
      }
      // What was in order when the word was asked for may not be by now.
      const whyNot = (words: string) => whyNotEnd(job, ending ?? 'repaired', missing, words);
      const asked = override ?? '';
      if (whyNot(asked) === null && said !== '') {
        const message = 'You wrote what is still to be done. Say “Not yet”, or take it out.';
        return { ok: false, message, field: 'reason' };
      }
      const words = asked || said;
      const message = whyNot(words);
      if (message !== null) return { ok: false, message, field: 'reason' };
      return record({
        kind: 'state',
        state: 'closed',
        ...(ending ? { ending } : {}),
        ...(words === '' ? {} : { override: words }),
      });
    },
  });
  if (!askedBy) return null;
  const send = (close: boolean) => {
    closes.current = close;
    return form.submit();
  };
  return (
    <section className="mt-6 max-w-3xl border-2 border-copper p-4" data-testid="asked">
      <p className="text-lg font-bold">
        {askedBy.person} asks for a word to close this job
        <span className="font-normal text-soft">, {dateWords(askedBy.at, 'time')}</span>
      </p>
      {ending ? <p>As: {ENDINGS.find(({ id }) => id === ending)?.name}</p> : null}
      {override ? <p>Reason: {override}</p> : null}
      {missing.length > 0 ? (
        <p className="font-semibold text-caution">Missing: {missing.join('; ')}.</p>
      ) : null}
      {alone ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void send(false);
          }}
          className="mt-3 grid gap-3"
        >
          <Button look="primary" className="h-14 text-lg" onClick={() => void send(true)}>
            Close it on my word
          </Button>
          <Field
            label={
              missing.length > 0 && !override
                ? 'Why it closes all the same, or not yet: what is still to be done'
                : 'Or not yet: what is still to be done'
            }
          >
            <input {...form.register('reason')} className={INPUT} />
          </Field>
          {form.problem ? <Problem>{form.problem}</Problem> : null}
          <Button type="submit">Not yet</Button>
        </form>
      ) : (
        <div className="mt-3">
          <p>It waits for a technician or the owner.</p>
          <Button
            className="mt-2"
            onClick={() => record({ kind: 'state', state: 'open', override: 'taken back' })}
          >
            Take it back and go on
          </Button>
        </div>
      )}
    </section>
  );
}
