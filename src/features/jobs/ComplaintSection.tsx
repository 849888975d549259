'use client';

import { type ReactNode, useState } from 'react';
import { BOUNDS, type BodyOf, NOMINAL_VOLTS, type SoundName } from '#core/format';
import { cellKey, SOUND_WORDS, STATE_WORDS } from '#core/log';
import { readNumber } from '#core/quantity';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, ButtonLink, Field, INPUT, Problem, Section } from '@/ui/controls';
import { FunctionGrid } from './FunctionGrid';
import { useJob } from './JobProvider';

const COMPLAINT_STATES = ['dead', 'weak', 'comes-and-goes', 'on-when-off'] as const;

export function ComplaintSection() {
  const { data, job, circuit, diagnosis, nominalVolts } = useJob();
  const complaint = job.complaint;
  // Words alone were said: which function of the map they mean is asked next.
  const [editing, setEditing] = useState(
    complaint !== null && circuit !== null && complaint.function === undefined,
  );
  const named = complaint?.function !== undefined && complaint.condition !== undefined;
  return (
    <Section id="complaint" number={1} title="Complaint" done={named}>
      {complaint && !editing ? (
        <div className="mb-4 flex flex-wrap items-start justify-between gap-3">
          <div>
            <p className="text-lg font-semibold">“{complaint.words}”</p>
            <p className="text-soft">
              {[
                complaint.pluggedIn ? `Plugged in: ${complaint.pluggedIn}` : '',
                complaint.heard ? `Heard: ${SOUND_WORDS[complaint.heard]}` : '',
                complaint.sound ? `Sound: ${complaint.sound}` : '',
                complaint.changedBefore ? `Changed before: ${complaint.changedBefore}` : '',
              ]
                .filter((one) => one !== '')
                .join(' · ')}
            </p>
          </div>
          <Button onClick={() => setEditing(true)}>Change</Button>
        </div>
      ) : (
        <ComplaintForm onDone={() => setEditing(false)} />
      )}
      <IdentityLine />
      {circuit ? (
        <>
          <h3 className="mt-6 mb-2 font-bold">Function check: what works, what does not</h3>
          <p className="mb-3 max-w-prose text-soft">
            What still works clears everything it shares with what failed. Tap a cell and say what you see.
          </p>
          <FunctionGrid />
          {/* Above what comes later, so that nothing moves under the thumb. */}
          {named ? (
            <ButtonLink look="primary" href={`/jobs/${data.id}/trace`} className="mt-5 h-14 px-6 text-lg">
              {job.readings.length > 0 ? 'Go on with the trace' : 'Start the trace'}
            </ButtonLink>
          ) : null}
          {named && nominalVolts !== null ? <SharedParts /> : null}
        </>
      ) : (
        <p className="mt-4">
          No circuit of this vehicle is known here yet.{' '}
          <ButtonLink look="quiet" href={`/vehicles/${data.vehicle.id}`}>
            Bring one in
          </ButtonLink>
        </p>
      )}
      {diagnosis.failure ? <Problem>{diagnosis.failure}</Problem> : null}
    </Section>
  );
}

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

function ComplaintForm({ onDone }: { onDone: () => void }) {
  const { data, job, circuit, diagnosis, record } = useJob();
  const before = job.complaint;
  const expected = diagnosis.described?.expected;
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
            <select {...form.register('function')} className={INPUT}>
              <option value="">not known yet</option>
              {circuit.functions.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </Field>
          <Field label="Key and switches when it fails">
            <select
              value={condition}
              onChange={(event) => {
                form.setValue('chosenFor', about, { shouldDirty: true });
                form.setValue('condition', event.target.value, { shouldDirty: true });
              }}
              className={INPUT}
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
            </select>
          </Field>
        </>
      ) : null}
      {circuit ? (
        <Field label="How it fails">
          <select {...form.register('state')} className={INPUT}>
            {COMPLAINT_STATES.map((one) => (
              <option key={one} value={one}>
                {STATE_WORDS[one]}
              </option>
            ))}
          </select>
        </Field>
      ) : null}
      <Field label="What was plugged in" hint="May stay empty">
        <input {...form.register('pluggedIn')} className={INPUT} />
      </Field>
      <div>
        <label className="flex min-h-11 items-center gap-3 font-semibold">
          <input type="checkbox" {...form.register('hadAppliance')} className="size-6 accent-(--copper)" />A
          portable appliance was plugged in when it failed
        </label>
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
        <select {...form.register('heard')} className={INPUT}>
          <option value="">nobody listened</option>
          {Object.entries(SOUND_WORDS).map(([sound, words]) => (
            <option key={sound} value={sound}>
              {words}
            </option>
          ))}
        </select>
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

/** Nominal voltage and odometer; a second odometer reading that disagrees is shown before it is kept. */
function IdentityLine() {
  const { data, job, record, nominalVolts } = useJob();
  const known = job.identity.odometerKm ?? data.vehicle.odometerKm;
  /** An odometer that does not agree with what stands: kept only when somebody says so. */
  const [doubtful, setDoubtful] = useState<number | null>(null);
  const keep = (km: number) => {
    const recorded = record({ kind: 'identity', odometerKm: km });
    if (recorded.ok) setDoubtful(null);
    return recorded;
  };
  const form = useKeptForm<{ odometer: string }>({
    keep: `odometer ${data.id}`,
    take: ({ odometer }) => {
      setDoubtful(null);
      const read = readNumber(textOf(odometer).replace(/\s/g, ''), BOUNDS.odometerKm);
      if (!read.ok) return { ok: false, message: `The odometer: ${read.message}`, field: 'odometer' };
      const km = read.value;
      if (known === null || km === known || (km > known && job.identity.odometerKm === null)) return keep(km);
      setDoubtful(km);
      const since = job.identity.odometerKm === null ? 'from an earlier visit' : 'on this job';
      return { ok: false, message: `${known} km stand recorded ${since}, and now ${km} km. Which is right?` };
    },
  });
  return (
    <div className="space-y-3">
      {nominalVolts === null ? (
        <fieldset className="border-l-4 border-caution bg-caution-wash px-3 py-2">
          <legend className="float-left mr-3 py-2 font-bold">
            Nominal voltage? No verdict is given without it.
          </legend>
          <div className="flex flex-wrap gap-2">
            {NOMINAL_VOLTS.map((volts) => (
              <Button key={volts} onClick={() => record({ kind: 'identity', nominalVolts: volts })}>
                {volts} V
              </Button>
            ))}
          </div>
        </fieldset>
      ) : (
        <p className="text-soft">
          {nominalVolts} V system{known === null ? '' : ` · ${known.toLocaleString('en-GB')} km`}
        </p>
      )}
      <form onSubmit={form.submit} className="flex flex-wrap items-end gap-2">
        <label className="block">
          <span className="mb-1 block text-sm font-semibold">Odometer now, km</span>
          <input {...form.register('odometer')} inputMode="numeric" className={`${INPUT} w-40`} />
        </label>
        <Button type="submit">Record</Button>
      </form>
      {form.problem ? (
        <div>
          <Problem>{form.problem}</Problem>
          {doubtful === null ? null : (
            <div className="mt-2 flex gap-2">
              <Button onClick={() => keep(doubtful).ok && form.forget()}>Keep the new one</Button>
              <Button
                onClick={() => {
                  setDoubtful(null);
                  form.forget();
                }}
              >
                Keep {known} km
              </Button>
            </div>
          )}
        </div>
      ) : null}
    </div>
  );
}

/** Which parts of the failed function's way are cleared by what still works, and which are not. */
function SharedParts() {
  const { circuit, job, diagnosis } = useJob();
  const { assessment } = diagnosis;
  const failing = job.complaint?.function;
  if (!circuit || !failing || !assessment) return null;
  const own = new Set(diagnosis.described?.partsOfFunction[failing] ?? []);
  const name = (id: string) => circuit.parts.find((one) => one.id === id)?.name ?? id;
  const checkName = (eventId: string | null) => {
    const entry = [...job.checks].find(([, cell]) => cell.eventId === eventId);
    const [functionId = ''] = entry?.[0].split('|') ?? [];
    return circuit.functions.find((one) => one.id === functionId)?.name;
  };
  const parts = assessment.parts.filter((part) => own.has(part.part));
  const cleared = parts.filter((part) => part.standing === 'cleared');
  const excluded = parts.filter((part) => part.standing === 'excluded');
  const partly = parts.filter((part) => part.standing === 'partly');
  const open = parts.filter((part) => part.standing === 'open');
  return (
    <div className="mt-5 grid gap-4 lg:grid-cols-3" data-testid="shared-parts">
      <PartList title={`Cleared: ${cleared.length}`} empty="Nothing yet.">
        {cleared.map((part) => (
          <li key={part.part}>
            ✓ {name(part.part)}
            {checkName(part.clearedBy) ? (
              <span className="text-soft"> — {checkName(part.clearedBy)?.toLowerCase()}</span>
            ) : null}
          </li>
        ))}
      </PartList>
      {excluded.length > 0 ? (
        <PartList title={`Not the cause, not proved under load: ${excluded.length}`} empty="Nothing.">
          {excluded.map((part) => (
            <li key={part.part}>– {name(part.part)}</li>
          ))}
        </PartList>
      ) : null}
      <PartList title={`Cleared in part: ${partly.length}`} empty="Nothing.">
        {partly.map((part) => (
          <li key={part.part}>
            {name(part.part)}
            <span className="block text-sm text-soft">
              still possible: {part.remaining.map((words) => words.slice(words.indexOf(': ') + 2)).join('; ')}
            </span>
          </li>
        ))}
      </PartList>
      <PartList title={`Still suspect: ${open.length}`} empty="Nothing.">
        {open.map((part) => (
          <li key={part.part}>
            {name(part.part)} <span className="reading text-soft">{Math.round(part.chance * 100)} %</span>
          </li>
        ))}
      </PartList>
    </div>
  );
}

function PartList({ title, empty, children }: { title: string; empty: string; children: ReactNode[] }) {
  return (
    <div>
      <h4 className="border-b-2 border-line pb-1 font-bold">{title}</h4>
      {children.length === 0 ? (
        <p className="mt-1 text-soft">{empty}</p>
      ) : (
        <ul className="mt-1 space-y-1">{children}</ul>
      )}
    </div>
  );
}
