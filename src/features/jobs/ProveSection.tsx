'use client';

import { useState } from 'react';
import type { FunctionStateName } from '#core/format';
import {
  cellKey,
  conditionName,
  ENDINGS,
  endingWords,
  functionName,
  missingProofs,
  type SaidEnding,
  STATE_WORDS,
  type Watch,
  whyNotEnd,
} from '#core/log';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Choice } from '@/ui/Choice';
import { Button, ButtonLink, Field, INPUT, Problem, Section } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { useJob } from './JobProvider';

const SEEN: readonly FunctionStateName[] = ['works', 'weak', 'dead'];

export function ProveSection() {
  const { data, job, circuit, diagnosis, record } = useJob();
  const { proofs } = diagnosis;
  const missing = missingProofs(job, proofs);
  const first = proofs[0];
  const seen = first ? job.proofs.get(cellKey(first.function, first.condition)) : undefined;
  const stillThere = job.repairs.length > 0 && first && seen && seen.state !== first.expected;
  return (
    <Section
      id="prove"
      number={6}
      title="Prove"
      done={job.repairs.length > 0 && proofs.length > 0 && missing.length === 0}
    >
      {job.repairs.length === 0 ? (
        <p className="text-soft">
          After the repair: the failed function in the condition that failed, and every function that shares a
          part with what was touched.
        </p>
      ) : (
        <ul className="divide-y divide-line" data-testid="proofs">
          {proofs.map((proof) => {
            const cell = job.proofs.get(cellKey(proof.function, proof.condition));
            const right = cell?.state === proof.expected;
            const should = proof.expected === 'dead' ? 'off' : 'works';
            return (
              <li
                key={cellKey(proof.function, proof.condition)}
                className="flex flex-wrap items-center justify-between gap-2 py-2"
              >
                <div>
                  <p className="font-semibold">
                    {functionName(circuit, proof.function)}{' '}
                    <span className="font-normal text-soft">should be: {should}</span>
                  </p>
                  <p className="text-sm text-soft">
                    {conditionName(circuit, proof.condition)} — {proof.because}
                  </p>
                </div>
                <div className="flex flex-wrap items-center gap-2">
                  {cell ? (
                    <span className={right ? 'text-good' : 'font-bold text-bad'}>
                      {right ? '✓ ' : '✗ '}
                      {cell.state === 'dead' && proof.expected === 'dead' ? 'off' : STATE_WORDS[cell.state]}
                    </span>
                  ) : null}
                  {SEEN.map((state) => (
                    <Button
                      key={state}
                      aria-pressed={cell?.state === state}
                      aria-label={`${functionName(circuit, proof.function)}, ${conditionName(circuit, proof.condition)}: ${state === 'dead' && should === 'off' ? 'off' : state}`}
                      onClick={() =>
                        record({
                          kind: 'proof',
                          function: proof.function,
                          condition: proof.condition,
                          state,
                          expected: proof.expected,
                        })
                      }
                    >
                      {state === 'dead' && should === 'off'
                        ? 'Off'
                        : `${STATE_WORDS[state][0]?.toUpperCase()}${STATE_WORDS[state].slice(1)}`}
                    </Button>
                  ))}
                </div>
              </li>
            );
          })}
        </ul>
      )}
      {stillThere ? (
        <div className="mt-3 border-l-4 border-caution bg-caution-wash px-3 py-2" data-testid="still-there">
          <p>
            <strong>The complaint is still there.</strong> What was mended counts as mended; the search goes
            on with the rest, and every reading so far still counts.
          </p>
          <ButtonLink look="primary" href={`/jobs/${data.id}/trace`} className="mt-2">
            Go on with the trace
          </ButtonLink>
        </div>
      ) : null}
      {job.repairs.length > 0 ? (
        <p className="mt-3 flex flex-wrap gap-2">
          <ButtonLink href={`/jobs/${data.id}/sheet`}>Hand-over sheet</ButtonLink>
          <a
            href={`/api/jobs/${data.id}/file`}
            download
            className="inline-flex min-h-11 items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold hover:border-ink"
          >
            Export the job (JSON)
          </a>
        </p>
      ) : null}
      <WatchForm />
      <CloseForm missing={missing} />
    </Section>
  );
}

/** The end of a job that is work: what is to be watched, and its closing. */
export function EndSection() {
  const { data, job } = useJob();
  return (
    <Section id="end" number={4} title="Close" done={job.state === 'closed'}>
      <p>
        <ButtonLink href={`/jobs/${data.id}/sheet`}>Hand-over sheet</ButtonLink>
      </p>
      <WatchForm />
      <CloseForm missing={missingProofs(job, [])} />
    </Section>
  );
}

function WatchForm() {
  const { data, job, record } = useJob();
  const form = useKeptForm<{ words: string; due: string }>({
    keep: `watch ${data.id}`,
    take: ({ words, due }) =>
      textOf(words) === ''
        ? { ok: false, message: 'Say what is to be watched.', field: 'words' }
        : record({ kind: 'watch', words: textOf(words), ...(textOf(due) ? { due: textOf(due) } : {}) }),
  });
  return (
    <div className="mt-6 max-w-3xl">
      <h3 className="font-bold">To keep an eye on</h3>
      <ul>
        {job.watches.map((watch) => (
          <WatchLine key={watch.eventId} watch={watch} />
        ))}
      </ul>
      <form onSubmit={form.submit} className="mt-2 grid gap-2 sm:grid-cols-[1fr_11rem_auto] sm:items-end">
        <Field label="Watch item">
          <input {...form.register('words')} className={INPUT} />
        </Field>
        <Field label="Due">
          <input {...form.register('due')} type="date" className={INPUT} />
        </Field>
        <Button type="submit">Add</Button>
      </form>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </div>
  );
}

/** A watch item: open until somebody says what was found. */
function WatchLine({ watch }: { watch: Watch }) {
  const { record } = useJob();
  const [ending, setEnding] = useState(false);
  const form = useKeptForm<{ finding: string }>({
    keep: `watch done ${watch.eventId}`,
    take: ({ finding }) => {
      const words = textOf(finding);
      if (words === '') {
        return {
          ok: false,
          message: 'Say what was found, “checked, dry and tight” will do.',
          field: 'finding',
        };
      }
      const recorded = record({ kind: 'watch-done', of: watch.eventId, words });
      if (recorded.ok) setEnding(false);
      return recorded;
    },
  });
  return (
    <li className="border-b border-line py-2" data-testid="watch">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <p className={watch.done ? 'text-soft' : ''}>
          {watch.done ? '✓ ' : ''}
          {watch.words}{' '}
          {watch.due ? <span className="text-soft">(due {dateWords(watch.due, 'year')})</span> : null}
          {watch.done ? (
            <span className="block">
              Dealt with by {watch.done.person}: {watch.done.words}
            </span>
          ) : null}
        </p>
        {watch.done || ending ? null : <Button onClick={() => setEnding(true)}>Dealt with</Button>}
      </div>
      {ending ? (
        <form onSubmit={form.submit} className="mt-2 grid gap-2 sm:grid-cols-[1fr_auto_auto] sm:items-end">
          <Field label="What was found">
            <input {...form.register('finding')} className={INPUT} />
          </Field>
          <Button look="primary" type="submit">
            Record
          </Button>
          <Button onClick={() => setEnding(false)}>Not yet</Button>
        </form>
      ) : null}
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </li>
  );
}

function CloseForm({ missing }: { missing: readonly string[] }) {
  const { data, job, record } = useJob();
  const form = useKeptForm<{ reason: string; ending: SaidEnding }>({
    keep: `close ${data.id}`,
    first: { ending: 'repaired' },
    take: ({ reason, ending }) => {
      const override = textOf(reason);
      const message = whyNotEnd(job, ending, missing, override);
      if (message !== null) return { ok: false, message, field: 'reason' };
      return record({
        kind: 'state',
        state: 'closed',
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
        Close the job
      </Button>
    </form>
  );
}
