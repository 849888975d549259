'use client';

import { BOUNDS, type BodyOf, type SoundName } from '#core/format';
import { cellKey, SOUND_WORDS, STATE_WORDS } from '#core/log';
import { readNumber } from '#core/quantity';
import { useDescribed, useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { CheckField } from '@/ui/Check';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { Select } from '@/ui/Select';

const COMPLAINT_STATES = ['dead', 'weak', 'comes-and-goes', 'on-when-off'] as const;

export interface ComplaintWords {
  words: string;
  function: string;
  condition: string;
  /** The function and state that the condition was chosen for. */
  chosenFor: string;
  state: (typeof COMPLAINT_STATES)[number];
  pluggedIn: string;
  hadAppliance: boolean;
  watts: string;
  fusesTaken: string;
  changedBefore: string;
  /** Empty while nobody listened. */
  heard: '' | SoundName;
  sound: string;
}

/** What a condition is chosen for: a function, and whether it should be off there. */
function aboutOf(failing: string | undefined, state: string | undefined): string {
  return `${failing ?? ''} ${state === 'on-when-off'}`;
}

/** The complaint as an entry of the log, or what of it cannot be taken. */
export function entryOf(
  values: ComplaintWords,
): { ok: true; body: BodyOf<'complaint'> } | { ok: false; message: string; field: string } {
  const words = textOf(values.words);
  if (words === '') return { ok: false, message: 'Write in a few words what fails.', field: 'words' };
  const typed = values.hadAppliance ? textOf(values.watts) : '';
  const watts = typed === '' ? null : readNumber(typed, BOUNDS.applianceWatts);
  if (watts && !watts.ok) {
    const message = `The watts of the appliance: ${watts.message} They may stay empty.`;
    return { ok: false, message, field: 'watts' };
  }
  const fusesTaken = readNumber(textOf(values.fusesTaken) || '0', BOUNDS.fusesTaken);
  if (!fusesTaken.ok) {
    const message = `How many fuses blew with it: ${fusesTaken.message}`;
    return { ok: false, message, field: 'fusesTaken' };
  }
  const optional = (name: 'pluggedIn' | 'sound' | 'changedBefore') =>
    textOf(values[name]) === '' ? {} : { [name]: textOf(values[name]) };
  const body: BodyOf<'complaint'> = {
    kind: 'complaint',
    words,
    ...(values.function && values.condition
      ? { function: values.function, condition: values.condition, state: values.state }
      : {}),
    ...optional('pluggedIn'),
    ...(values.hadAppliance
      ? { appliance: { fusesTaken: fusesTaken.value, ...(watts ? { watts: watts.value } : {}) } }
      : {}),
    ...(values.heard ? { heard: values.heard } : {}),
    ...optional('sound'),
    ...optional('changedBefore'),
  };
  return { ok: true, body };
}

export function ComplaintForm({ onDone }: { onDone: () => void }) {
  const { data, job, circuit, record } = useJob();
  const { described } = useDescribed();
  const before = job.complaint;
  const expected = described?.expected;
  /** First the conditions that the complaint can be about: where it should work, or where it should be off. */
  const conditionsOf = (failing: string, state: string) => {
    const fits = (id: string) => (expected?.[cellKey(failing, id)] === 'dead') === (state === 'on-when-off');
    return (circuit?.conditions ?? [])
      .map((one) => ({ ...one, fits: fits(one.id) }))
      .sort((one, other) => Number(other.fits) - Number(one.fits));
  };
  const form = useKeptForm<ComplaintWords>({
    keep: `complaint ${data.id}`,
    first: {
      words: before?.words ?? '',
      function: before?.function ?? '',
      condition: before?.condition ?? '',
      chosenFor: before ? aboutOf(before.function, before.state) : '',
      state: COMPLAINT_STATES.find((one) => one === before?.state) ?? 'dead',
      pluggedIn: before?.pluggedIn ?? '',
      hadAppliance: before?.appliance !== undefined,
      watts: String(before?.appliance?.watts ?? ''),
      fusesTaken: String(before?.appliance?.fusesTaken ?? 0),
      changedBefore: before?.changedBefore ?? '',
      heard: before?.heard ?? '',
      sound: before?.sound ?? '',
    },
    take: (values) => {
      const read = entryOf({ ...values, condition });
      if (!read.ok) return read;
      const recorded = record(read.body);
      if (recorded.ok) onDone();
      return recorded;
    },
  });
  const [failing, state, hadAppliance, chosen, chosenFor] = form.watch([
    'function',
    'state',
    'hadAppliance',
    'condition',
    'chosenFor',
  ]);
  const conditions = conditionsOf(failing, state);
  // As long as none was chosen for this function and state, the likeliest stands.
  const about = aboutOf(failing, state);
  const condition = (about === chosenFor && chosen ? chosen : conditions[0]?.id) ?? '';
  return (
    <form onSubmit={form.submit} className="mb-5 grid max-w-3xl gap-4 sm:grid-cols-2">
      <div className="sm:col-span-2">
        <Field label="What fails, in the customer’s words">
          <textarea {...form.register('words')} rows={2} className={INPUT} />
        </Field>
      </div>
      {circuit ? (
        <>
          <Field label="The function that fails">
            <Select {...form.register('function')}>
              <option value="">not known yet</option>
              {circuit.functions.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </Select>
          </Field>
          <Field label="Key and switches when it fails">
            <Select
              value={condition}
              onChange={(event) => {
                form.setValue('chosenFor', about, { shouldDirty: true });
                form.setValue('condition', event.target.value, { shouldDirty: true });
              }}
            >
              {conditions.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                  {one.fits || !failing
                    ? ''
                    : state === 'on-when-off'
                      ? ' (meant to be on)'
                      : ' (meant to be off)'}
                </option>
              ))}
            </Select>
          </Field>
        </>
      ) : null}
      {circuit ? (
        <Field label="How it fails">
          <Select {...form.register('state')}>
            {COMPLAINT_STATES.map((one) => (
              <option key={one} value={one}>
                {STATE_WORDS[one]}
              </option>
            ))}
          </Select>
        </Field>
      ) : null}
      <Field label="What was plugged in" hint="May stay empty">
        <input {...form.register('pluggedIn')} className={INPUT} />
      </Field>
      <div>
        <CheckField control={form.control} name="hadAppliance">
          <span className="font-semibold">A portable appliance was plugged in when it failed</span>
        </CheckField>
        {hadAppliance ? (
          <div className="mt-2 grid grid-cols-2 gap-3">
            <Field label="Its watts" hint="From its plate">
              <input {...form.register('watts')} inputMode="decimal" className={INPUT} />
            </Field>
            <Field label="Fuses it has taken">
              <input {...form.register('fusesTaken')} inputMode="numeric" className={INPUT} />
            </Field>
          </div>
        ) : null}
      </div>
      <Field label="What was changed before" hint="May stay empty">
        <input {...form.register('changedBefore')} className={INPUT} />
      </Field>
      <Field label="What is heard when it is switched on">
        <Select {...form.register('heard')}>
          <option value="">nobody listened</option>
          {Object.entries(SOUND_WORDS).map(([sound, words]) => (
            <option key={sound} value={sound}>
              {words}
            </option>
          ))}
        </Select>
      </Field>
      <Field label="The sound in words" hint="May stay empty">
        <input {...form.register('sound')} className={INPUT} />
      </Field>
      {form.problem ? (
        <div className="sm:col-span-2">
          <Problem>{form.problem}</Problem>
        </div>
      ) : null}
      <div className="flex gap-2 sm:col-span-2">
        <Button look="primary" type="submit">
          Record the complaint
        </Button>
        {before ? (
          <Button
            onClick={() => {
              form.forget();
              onDone();
            }}
          >
            Leave as it was
          </Button>
        ) : null}
      </div>
    </form>
  );
}
