'use client';

import { useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import { BOUNDS, type BodyOf } from '#core/format';
import { BOARD_CHECK_WORDS, boardChecks, costOf, differencesOf } from '#core/log';
import { lineTotal, moneyWords, readNumber } from '#core/quantity';
import { useDiagnosis, useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { CheckField } from '@/ui/Check';
import { Choice } from '@/ui/Choice';
import { Button, Caution, Field, INPUT, Problem } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { Fold } from '@/ui/Fold';
import { newId } from '@/ui/newId';

/** Repair or replace: ways of doing it side by side, with their arithmetic, and what the customer chose. */
export function Options() {
  const { job } = useJob();
  const diagnosis = useDiagnosis();
  const { options, chosen } = job;
  const differs = differencesOf(options);
  const before = diagnosis.assessment?.beforePurchase ?? [];
  const buys = options.some(({ parts }) => parts.length > 0);
  return (
    <Fold
      title={
        options.length === 0
          ? 'Repair or replace: what each would cost'
          : `Repair or replace: ${options.length}`
      }
      first={options.length > 0}
      testId="options"
      className="mb-4"
    >
      {buys && before.length > 0 ? (
        <div className="mb-3">
          <Caution>The part is not proved. Before anything is bought: {before.join('; ')}.</Caution>
        </div>
      ) : null}
      <ul className="grid gap-3 md:grid-cols-2">
        {options.map((one) => {
          const cost = costOf(one);
          const taken = chosen?.option === one.option;
          return (
            <li
              key={one.option}
              data-option={one.name}
              className={`rounded-md border-2 p-3 ${taken ? 'border-good' : 'border-line'}`}
            >
              <p className="flex items-baseline justify-between gap-3">
                <strong>{one.name}</strong>
                <span className="reading text-xl font-bold">{moneyWords(cost.total)}</span>
              </p>
              <p className="text-sm text-soft">{differs.get(one.option)}</p>
              <ul className="mt-1 text-sm">
                {one.parts.map(({ name, price, count, from, days }) => (
                  <li key={name} className="flex justify-between gap-3">
                    <span>
                      {count} × {name}
                      {from ? `, ${from}` : ''}
                      {days > 0 ? `, ${days} ${days === 1 ? 'day' : 'days'}` : ''}
                    </span>
                    <span className="reading">{moneyWords(lineTotal(price, count))}</span>
                  </li>
                ))}
                <li className="flex justify-between gap-3">
                  <span>
                    {one.minutes} min at {moneyWords(one.rate)} an hour
                  </span>
                  <span className="reading">{moneyWords(cost.labour)}</span>
                </li>
              </ul>
              {one.leaves ? <p className="mt-1 text-sm">Leaves: {one.leaves}</p> : null}
              {one.unproved ? <p className="mt-1 text-sm text-caution">Not proved: {one.unproved}</p> : null}
              {taken && chosen ? (
                <p className="mt-2 font-semibold text-good">
                  ✓ Chosen by {chosen.by}, {dateWords(chosen.at, 'short')}
                  {chosen.words ? `: ${chosen.words}` : ''}
                </p>
              ) : (
                <Choose option={one} />
              )}
            </li>
          );
        })}
      </ul>
      <BoardChecks />
      <OptionForm />
    </Fold>
  );
}

function Choose({ option }: { option: BodyOf<'option'> }) {
  const { data, record } = useJob();
  const [asking, setAsking] = useState(false);
  const form = useKeptForm<{ by: string; words: string }>({
    keep: `choose ${data.id} ${option.option}`,
    take: ({ by, words }) => {
      if (textOf(by) === '') return { ok: false, message: 'Say who chose it.', field: 'by' };
      const recorded = record({
        kind: 'option-chosen',
        option: option.option,
        by: textOf(by),
        words: textOf(words),
      });
      if (recorded.ok) setAsking(false);
      return recorded;
    },
  });
  if (!asking)
    return (
      <Button className="mt-2" onClick={() => setAsking(true)}>
        This one was chosen
      </Button>
    );
  return (
    <form onSubmit={form.submit} className="mt-2 grid gap-2">
      <Field label="Chosen by">
        <input {...form.register('by')} className={INPUT} />
      </Field>
      <Field label="Why, or on what terms" hint="May stay empty">
        <input {...form.register('words')} className={INPUT} />
      </Field>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <div className="flex gap-2">
        <Button look="primary" type="submit">
          Record the choice
        </Button>
        <Button look="quiet" onClick={() => setAsking(false)}>
          Not now
        </Button>
      </div>
    </form>
  );
}

/** What a repair on a board answers for; each barring the closing until it is answered. */
function BoardChecks() {
  const { job } = useJob();
  const checks = boardChecks(job);
  if (checks.length === 0) return null;
  return (
    <div className="mt-4" data-testid="board-checks">
      <h3 className="font-bold">The board repair answers for</h3>
      <ul className="divide-y divide-line">
        {checks.map(({ check, said }) => (
          <li key={check} className="py-2">
            <p className={said ? 'text-soft' : ''}>
              {said ? (said.state === 'in-order' ? '✓ ' : '– ') : ''}
              {BOARD_CHECK_WORDS[check]}
              {said ? `: ${said.words}` : ''}
            </p>
            {said ? null : <BoardAnswer check={check} />}
          </li>
        ))}
      </ul>
    </div>
  );
}

function BoardAnswer({ check }: { check: BodyOf<'board-check'>['check'] }) {
  const { data, record } = useJob();
  const form = useKeptForm<{ words: string; state: string }>({
    keep: `board ${data.id} ${check}`,
    first: { state: 'in-order' },
    take: ({ words, state }) =>
      textOf(words) === ''
        ? { ok: false, message: 'Say what was looked at or read.', field: 'words' }
        : record({
            kind: 'board-check',
            check,
            state: state === 'not-here' ? 'not-here' : 'in-order',
            words: textOf(words),
          }),
  });
  return (
    <form onSubmit={form.submit} className="mt-1 grid gap-2 sm:grid-cols-[auto_1fr_auto] sm:items-center">
      <Choice
        legend={BOARD_CHECK_WORDS[check]}
        quiet
        options={[
          { id: 'in-order', name: 'In order' },
          { id: 'not-here', name: 'Not possible here' },
        ]}
        chosen={form.watch('state') ?? 'in-order'}
        onChoose={(state) => form.setValue('state', state, { shouldDirty: true })}
      />
      <input
        {...form.register('words')}
        aria-label={`${BOARD_CHECK_WORDS[check]}: what was seen`}
        className={INPUT}
      />
      <Button type="submit">Record</Button>
      {form.problem ? <Problem>{form.problem}</Problem> : null}
    </form>
  );
}

interface OptionWords {
  name: string;
  board: boolean;
  parts: { name: string; price: string; count: string; from: string; days: string }[];
  minutes: string;
  rate: string;
  leaves: string;
  unproved: string;
}

const NO_PART = { name: '', price: '', count: '1', from: '', days: '' };

type ReadOption =
  | { readonly ok: true; readonly body: Omit<BodyOf<'option'>, 'option'> }
  | { readonly ok: false; readonly message: string; readonly field: string };

/** A way of doing it as typed; what is no number is named with its field. */
function readOption(values: OptionWords): ReadOption {
  const name = textOf(values.name);
  if (name === '')
    return { ok: false, message: 'Say what this way is, “new relay box” will do.', field: 'name' };
  const parts: BodyOf<'option'>['parts'] = [];
  for (const [row, typed] of (values.parts ?? []).entries()) {
    const part = textOf(typed.name);
    if (part === '') continue;
    const price = readNumber(textOf(typed.price), BOUNDS.price);
    if (!price.ok)
      return { ok: false, message: `Price of ${part}: ${price.message}`, field: `parts.${row}.price` };
    const count = readNumber(textOf(typed.count), BOUNDS.partCount);
    if (!count.ok)
      return { ok: false, message: `How many ${part}: ${count.message}`, field: `parts.${row}.count` };
    const wait =
      textOf(typed.days) === ''
        ? { ok: true as const, value: 0 }
        : readNumber(textOf(typed.days), BOUNDS.waitDays);
    if (!wait.ok)
      return { ok: false, message: `Days until ${part}: ${wait.message}`, field: `parts.${row}.days` };
    parts.push({
      name: part,
      price: price.value,
      count: count.value,
      from: textOf(typed.from),
      days: wait.value,
    });
  }
  const minutes = readNumber(textOf(values.minutes), BOUNDS.repairMinutes);
  if (!minutes.ok) return { ok: false, message: `Minutes: ${minutes.message}`, field: 'minutes' };
  const rate = readNumber(textOf(values.rate), BOUNDS.price);
  if (!rate.ok) return { ok: false, message: `Rate of an hour: ${rate.message}`, field: 'rate' };
  return {
    ok: true,
    body: {
      kind: 'option',
      name,
      board: values.board === true,
      parts,
      minutes: minutes.value,
      rate: rate.value,
      leaves: textOf(values.leaves),
      unproved: textOf(values.unproved),
    },
  };
}

function OptionForm() {
  const { data, job, record } = useJob();
  const [open, setOpen] = useState(false);
  const rate = job.options.at(-1)?.rate ?? data.rate;
  const form = useKeptForm<OptionWords>({
    keep: `option ${data.id}`,
    first: { board: false, parts: [NO_PART], rate: rate == null ? '' : String(rate) },
    take: (values) => {
      const read = readOption(values);
      if (!read.ok) return read;
      const recorded = record({ ...read.body, option: newId() });
      if (recorded.ok) setOpen(false);
      return recorded;
    },
  });
  const { fields, append } = useFieldArray({ control: form.control, name: 'parts' });
  if (!open)
    return (
      <Button className="mt-3" onClick={() => setOpen(true)}>
        {job.options.length === 0 ? 'A way of doing it' : 'Another way'}
      </Button>
    );
  return (
    <form
      onSubmit={form.submit}
      className="mt-3 grid max-w-3xl grid-cols-2 gap-3 border-t-2 border-line pt-3"
    >
      <div className="col-span-2">
        <Field label="What this way is">
          <input {...form.register('name')} className={INPUT} />
        </Field>
      </div>
      <div className="col-span-2">
        <CheckField control={form.control} name="board">
          A board is opened and soldered on
        </CheckField>
      </div>
      <fieldset className="col-span-2">
        <legend className="mb-1 font-semibold">Parts</legend>
        {fields.map((field, row) => (
          <div key={field.id} className="mb-2 grid grid-cols-6 gap-2">
            <input
              {...form.register(`parts.${row}.name`)}
              aria-label={`Part ${row + 1}`}
              placeholder="Part"
              className={`${INPUT} col-span-4`}
            />
            <input
              {...form.register(`parts.${row}.count`)}
              aria-label={`How many of part ${row + 1}`}
              inputMode="decimal"
              className={INPUT}
            />
            <input
              {...form.register(`parts.${row}.price`)}
              aria-label={`Price of part ${row + 1}`}
              placeholder="Price"
              inputMode="decimal"
              className={INPUT}
            />
            <input
              {...form.register(`parts.${row}.from`)}
              aria-label={`Part ${row + 1} from where`}
              placeholder="From where"
              className={`${INPUT} col-span-4`}
            />
            <input
              {...form.register(`parts.${row}.days`)}
              aria-label={`Days until part ${row + 1} is here`}
              placeholder="Days"
              inputMode="numeric"
              className={`${INPUT} col-span-2`}
            />
          </div>
        ))}
        <Button onClick={() => append(NO_PART)}>One more part</Button>
      </fieldset>
      <Field label="Minutes of work">
        <input {...form.register('minutes')} inputMode="decimal" className={INPUT} />
      </Field>
      <Field label="Rate of an hour">
        <input {...form.register('rate')} inputMode="decimal" className={INPUT} />
      </Field>
      <div className="col-span-2">
        <Field label="What it leaves behind" hint="Seal or coating to restore, warranty, exchange part">
          <input {...form.register('leaves')} className={INPUT} />
        </Field>
      </div>
      <div className="col-span-2">
        <Field label="What is not proved by then">
          <input {...form.register('unproved')} className={INPUT} />
        </Field>
      </div>
      {form.problem ? (
        <div className="col-span-2">
          <Problem>{form.problem}</Problem>
        </div>
      ) : null}
      <div className="col-span-2 flex gap-2">
        <Button look="primary" type="submit">
          Put it beside the others
        </Button>
        <Button look="quiet" onClick={() => setOpen(false)}>
          Not now
        </Button>
      </div>
    </form>
  );
}
