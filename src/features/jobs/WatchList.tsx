'use client';

import { useState } from 'react';
import { dueProblem, putOffProblem, type WATCH_SORTS } from '#core/format';
import { WATCH_SORT_WORDS, type Watch } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { dateWords, dayOf } from '@/ui/dates';
import { Select } from '@/ui/Select';

type Sort = (typeof WATCH_SORTS)[number];
const SORTS = Object.entries(WATCH_SORT_WORDS) as [Sort, string][];

/** What somebody has to come back to, and a form for one more. */
export function WatchList() {
  const { data, job, record } = useJob();
  const form = useKeptForm<{ words: string; due: string; sort: string }>({
    keep: `watch ${data.id}`,
    take: (values) => {
      const words = textOf(values.words);
      if (words === '') return { ok: false, message: 'Say what is to be watched.', field: 'words' };
      const due = textOf(values.due);
      const wrong = due === '' ? null : dueProblem(due, dayOf(new Date()));
      if (wrong) return { ok: false, message: wrong, field: 'due' };
      const sort = SORTS.find(([id]) => id === values.sort)?.[0] ?? 'watch';
      if (sort !== 'watch' && due === '')
        return { ok: false, message: `${WATCH_SORT_WORDS[sort]}: say by which day.`, field: 'due' };
      return record({
        kind: 'watch',
        words,
        ...(due ? { due } : {}),
        ...(sort === 'watch' ? {} : { sort }),
      });
    },
  });
  return (
    <div className="mt-6 max-w-3xl">
      <h3 className="font-bold">To come back to</h3>
      <ul>
        {job.watches.map((watch) => (
          <WatchLine key={watch.eventId} watch={watch} />
        ))}
      </ul>
      <form
        onSubmit={form.submit}
        className="mt-2 grid gap-2 sm:grid-cols-[11rem_1fr_11rem_auto] sm:items-end"
      >
        <Field label="What it is">
          <Select {...form.register('sort')}>
            {SORTS.map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </Field>
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

/** A watch item: open until somebody says what was found, or put off with a reason. */
function WatchLine({ watch }: { watch: Watch }) {
  const { record } = useJob();
  const [doing, setDoing] = useState<'end' | 'later' | null>(null);
  const form = useKeptForm<{ finding: string; due: string }>({
    keep: `watch ${doing ?? 'done'} ${watch.eventId}`,
    take: ({ finding, due }) => {
      const words = textOf(finding);
      const day = textOf(due);
      if (doing === 'later' && day === '')
        return { ok: false, message: 'Say until which day it is put off.', field: 'due' };
      const wrong = doing === 'later' ? putOffProblem(day, dayOf(new Date())) : null;
      if (wrong) return { ok: false, message: wrong, field: 'due' };
      if (words === '') {
        return {
          ok: false,
          message:
            doing === 'later'
              ? 'Say why it is put off.'
              : 'Say what was found, “checked, dry and tight” will do.',
          field: 'finding',
        };
      }
      const recorded = record(
        doing === 'later'
          ? { kind: 'watch-snoozed', of: watch.eventId, due: day, words }
          : { kind: 'watch-done', of: watch.eventId, words },
      );
      if (recorded.ok) setDoing(null);
      return recorded;
    },
  });
  return (
    <li className="border-b border-line py-2" data-testid="watch">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <p className={watch.done ? 'text-soft' : ''}>
          {watch.done ? '✓ ' : ''}
          {watch.sort && watch.sort !== 'watch' ? (
            <span className="font-semibold">{WATCH_SORT_WORDS[watch.sort]}: </span>
          ) : null}
          {watch.words}{' '}
          {watch.due ? <span className="text-soft">(due {dateWords(watch.due, 'year')})</span> : null}
          {watch.putOff && !watch.done ? (
            <span className="block text-soft">Put off: {watch.putOff}</span>
          ) : null}
          {watch.done ? (
            <span className="block">
              Dealt with by {watch.done.person}: {watch.done.words}
            </span>
          ) : null}
        </p>
        {watch.done || doing ? null : (
          <span className="flex flex-wrap gap-2">
            <Button onClick={() => setDoing('end')}>Dealt with</Button>
            <Button onClick={() => setDoing('later')}>Put off</Button>
          </span>
        )}
      </div>
      {doing ? (
        <form
          onSubmit={form.submit}
          className="mt-2 grid gap-2 sm:grid-cols-[1fr_11rem_auto_auto] sm:items-end"
        >
          <Field label={doing === 'later' ? 'Why it is put off' : 'What was found'}>
            <input {...form.register('finding')} className={INPUT} />
          </Field>
          {doing === 'later' ? (
            <Field label="Until">
              <input {...form.register('due')} type="date" className={INPUT} />
            </Field>
          ) : (
            <span />
          )}
          <Button look="primary" type="submit">
            Record
          </Button>
          <Button onClick={() => setDoing(null)}>Not yet</Button>
        </form>
      ) : null}
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </li>
  );
}
