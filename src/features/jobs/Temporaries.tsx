'use client';

import { useState } from 'react';
import { putOffProblem } from '#core/format';
import type { JobState } from '#core/log';
import { useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { dateWords, dayOf } from '@/ui/dates';

type Temporary = JobState['temporaries'][number];

/** What stands open until it is put right: appliances in quarantine, and temporary parts, ended by fitting the right part, or by somebody's decision under that name. */
export function Temporaries({ onRight }: { onRight: (temporary: Temporary) => void }) {
  const { job } = useJob();
  if (job.temporaries.length === 0 && job.setAside.size === 0) return null;
  return (
    <ul className="mb-4 grid gap-2" data-testid="temporaries">
      {[...job.setAside].map(([id, words]) => (
        <Quarantined key={id} id={id} words={words} />
      ))}
      {job.temporaries.map((one) => (
        <TemporaryLine key={one.eventId} temporary={one} onRight={() => onRight(one)} />
      ))}
    </ul>
  );
}

function TemporaryLine({ temporary, onRight }: { temporary: Temporary; onRight: () => void }) {
  const { record } = useJob();
  const [doing, setDoing] = useState<'stays' | 'later' | null>(null);
  const form = useKeptForm<{ words: string; decidedBy: string; due: string }>({
    keep: `temporary ${temporary.eventId}`,
    take: (values) => {
      const words = textOf(values.words);
      const decidedBy = textOf(values.decidedBy);
      const due = textOf(values.due);
      if (doing === 'later') {
        if (due === '') return { ok: false, message: 'Say until which day it is put off.', field: 'due' };
        const wrong = putOffProblem(due, dayOf(new Date()));
        if (wrong) return { ok: false, message: wrong, field: 'due' };
        if (words === '') return { ok: false, message: 'Say why it is put off.', field: 'words' };
        const later = record({ kind: 'watch-snoozed', of: temporary.eventId, due, words });
        if (later.ok) setDoing(null);
        return later;
      }
      if (decidedBy === '') return { ok: false, message: 'Say who decides it.', field: 'decidedBy' };
      if (words === '') return { ok: false, message: 'Say why it may stay.', field: 'words' };
      const recorded = record({ kind: 'temporary-ended', of: temporary.eventId, words, decidedBy });
      if (recorded.ok) setDoing(null);
      return recorded;
    },
  });
  return (
    <li className="border-l-4 border-caution bg-caution-wash px-3 py-2">
      <p>
        <strong>Temporary:</strong> {temporary.words.replace(/\.\s*$/, '')}
        {temporary.due ? `, to be put right by ${dateWords(temporary.due, 'year')}` : ''}
        {temporary.reason ? <span className="block text-soft">{temporary.reason}</span> : null}
      </p>
      {doing ? (
        <form onSubmit={form.submit} className="mt-2 grid gap-2 sm:grid-cols-2">
          {doing === 'stays' ? (
            <Field label="Decided by">
              <input {...form.register('decidedBy')} className={INPUT} />
            </Field>
          ) : (
            <Field label="Until">
              <input {...form.register('due')} type="date" className={INPUT} />
            </Field>
          )}
          <Field label={doing === 'stays' ? 'Why it may stay' : 'Why it is put off'}>
            <input {...form.register('words')} className={INPUT} />
          </Field>
          {form.problem ? <Problem>{form.problem}</Problem> : null}
          <div className="flex flex-wrap gap-2 sm:col-span-2">
            <Button look="primary" type="submit">
              {doing === 'stays' ? 'It stays' : 'Put it off'}
            </Button>
            <Button onClick={() => setDoing(null)}>Not yet</Button>
          </div>
        </form>
      ) : (
        <div className="mt-2 flex flex-wrap gap-2">
          <Button look="primary" onClick={onRight}>
            The right part is in
          </Button>
          <Button onClick={() => setDoing('stays')}>It stays, by decision</Button>
          <Button onClick={() => setDoing('later')}>Put off</Button>
        </div>
      )}
    </li>
  );
}

/** An appliance in quarantine: out of it when somebody says what was read on it, or what became of it. */
function Quarantined({ id, words }: { id: string; words: string }) {
  const { record } = useJob();
  const [ending, setEnding] = useState(false);
  const form = useKeptForm<{ words: string }>({
    keep: `quarantine ${id}`,
    take: (values) => {
      const said = textOf(values.words);
      if (said === '')
        return { ok: false, message: 'Say what was read on it, or what became of it.', field: 'words' };
      return record({ kind: 'appliance-released', of: id, words: said });
    },
  });
  return (
    <li className="border-l-4 border-bad bg-caution-wash px-3 py-2" data-testid="quarantine">
      <p>
        <strong>In quarantine:</strong> {words}. Not to be plugged in before it is tested.
      </p>
      {ending ? (
        <form onSubmit={form.submit} className="mt-2 grid gap-2 sm:grid-cols-[1fr_auto_auto] sm:items-end">
          <Field label="What was read on it, or what became of it">
            <input {...form.register('words')} className={INPUT} />
          </Field>
          <Button look="primary" type="submit">
            Out of quarantine
          </Button>
          <Button onClick={() => setEnding(false)}>Not yet</Button>
          {form.problem ? <Problem>{form.problem}</Problem> : null}
        </form>
      ) : (
        <Button className="mt-2" onClick={() => setEnding(true)}>
          It was dealt with
        </Button>
      )}
    </li>
  );
}
