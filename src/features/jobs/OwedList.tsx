'use client';

import { useState } from 'react';
import { BOUNDS } from '#core/format';
import { judgeOwed, type OwedProof, owedProofs, type ProofAnswerName, whyNotAnswered } from '#core/log';
import { useDiagnosis, useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Choice } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { readAmount } from './amount';

const MARK: Readonly<Record<ProofAnswerName, string>> = {
  done: '✓',
  wrong: '✗',
  'not-here': '–',
  owner: '→',
};
const LOOK: Readonly<Record<ProofAnswerName, string>> = {
  done: 'text-good',
  wrong: 'font-bold text-bad',
  'not-here': 'text-caution',
  owner: 'text-caution',
};

/** What else is owed after a repair: currents, drops, the draw, the lamps; each has one of three answers. */
export function OwedList() {
  const { job, circuit } = useJob();
  const diagnosis = useDiagnosis();
  const owed = owedProofs(job, circuit, diagnosis.proofs);
  if (owed.length === 0) return null;
  return (
    <div className="mt-4">
      <h3 className="font-bold">And besides</h3>
      <ul className="divide-y divide-line" data-testid="owed">
        {owed.map((item) => (
          <OwedLine key={item.id} item={item} />
        ))}
      </ul>
    </div>
  );
}

function OwedLine({ item }: { item: OwedProof }) {
  const [answering, setAnswering] = useState(false);
  const open = item.answer === null || answering;
  return (
    <li className="py-2" data-owed={item.id}>
      <div className="flex flex-wrap items-start justify-between gap-2">
        <div>
          <p className="font-semibold">{item.name}</p>
          <p className="text-sm text-soft">
            {item.why}
            {item.waitMinutes > 0 ? `; read after up to ${item.waitMinutes} minutes` : ''}
          </p>
        </div>
        {item.answer === null ? null : (
          <p className={LOOK[item.answer]}>
            {MARK[item.answer]} {item.words}
          </p>
        )}
      </div>
      {open ? (
        <Answer item={item} onDone={() => setAnswering(false)} />
      ) : (
        <Button look="quiet" onClick={() => setAnswering(true)}>
          Answer anew
        </Button>
      )}
    </li>
  );
}

interface AnswerWords {
  value: string;
  words: string;
  answer: string;
  how: string;
}

function Answer({ item, onDone }: { item: OwedProof; onDone: () => void }) {
  const { data, record } = useJob();
  const form = useKeptForm<AnswerWords>({
    keep: `owed ${data.id} ${item.id}`,
    first: { answer: item.asks ? 'done' : '', how: 'measured' },
    take: (values) => {
      const words = textOf(values.words);
      const typed = textOf(values.value);
      const read =
        item.asks && values.answer === 'done' && typed !== ''
          ? readAmount(typed, item.asks.unit, item.asks.unit === 'V' ? BOUNDS.proofVolts : BOUNDS.fuseCurrent)
          : null;
      if (read && !read.ok) return { ok: false, message: read.message, field: 'value' };
      const value = read?.value ?? null;
      const said = values.answer as ProofAnswerName;
      if (!said) return { ok: false, message: 'Choose one of the answers.' };
      const why = whyNotAnswered(item, said, words, value);
      if (why) return { ok: false, message: why, field: said === 'done' ? 'value' : 'words' };
      const right = value === null ? said : judgeOwed(item, value).right ? 'done' : 'wrong';
      const recorded = record(
        ...(item.fuse && value !== null
          ? [
              {
                kind: 'fuse-current' as const,
                fuse: item.fuse.part,
                phase: 'running' as const,
                amps: value,
                ratingAmps: item.fuse.ratingAmps,
                how: values.how === 'calculated' ? ('calculated' as const) : ('measured' as const),
              },
            ]
          : []),
        {
          kind: 'proof-answer',
          what: item.id,
          answer: right,
          words,
          ...(value === null ? {} : item.asks?.unit === 'V' ? { volts: value } : { amps: value }),
        },
      );
      if (recorded.ok) onDone();
      return recorded;
    },
  });
  const answer = form.watch('answer') ?? '';
  const options = [
    { id: 'done', name: item.asks ? `Read, in ${item.asks.unit}` : 'Seen to work' },
    ...(item.asks ? [] : [{ id: 'wrong', name: 'Not as it should be' }]),
    { id: 'not-here', name: 'Not possible here' },
    { id: 'owner', name: 'Left to the owner' },
  ];
  return (
    <form onSubmit={form.submit} className="mt-2 grid gap-2">
      <Choice
        legend={`${item.name}: answer`}
        quiet
        options={options}
        chosen={answer}
        onChoose={(id) => {
          form.setValue('answer', id, { shouldDirty: true });
          // What is only seen needs no more words.
          if (id === 'done' && !item.asks) void form.submit();
        }}
      />
      <div className="grid gap-2 sm:grid-cols-[10rem_1fr_auto] sm:items-end">
        {item.asks && answer === 'done' ? (
          <Field label={`Read, ${item.asks.unit}`}>
            <input {...form.register('value')} inputMode="decimal" className={INPUT} />
          </Field>
        ) : null}
        {answer === 'not-here' || answer === 'owner' || answer === 'wrong' ? (
          <Field
            label={
              answer === 'owner' ? 'To whom, and what' : answer === 'wrong' ? 'What was seen' : 'Why not here'
            }
          >
            <input {...form.register('words')} className={INPUT} />
          </Field>
        ) : item.fuse && answer === 'done' ? (
          <Choice
            legend="How it is known"
            quiet
            options={[
              { id: 'measured', name: 'Measured' },
              { id: 'calculated', name: 'Calculated' },
            ]}
            chosen={form.watch('how') ?? 'measured'}
            onChoose={(id) => form.setValue('how', id, { shouldDirty: true })}
          />
        ) : (
          <span />
        )}
        {item.asks || (answer !== '' && answer !== 'done') ? <Button type="submit">Record</Button> : null}
      </div>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </form>
  );
}
