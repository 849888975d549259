'use client';

import { type FormEvent, type ReactNode, useRef, useState } from 'react';
import { BOUNDS, NOMINAL_VOLTS } from '#core/format';
import { cellKey, STATE_WORDS } from '#core/log';
import { readNumber } from '#core/quantity';
import { useFormDraft } from '@/sync/useFormDraft';
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

function ComplaintForm({ onDone }: { onDone: () => void }) {
  const { data, job, circuit, diagnosis, record } = useJob();
  const before = job.complaint;
  const form = useRef<HTMLFormElement>(null);
  const forget = useFormDraft(`complaint ${data.id}`, form);
  const [failing, setFailing] = useState(before?.function ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const [hadAppliance, setHadAppliance] = useState(before?.appliance !== undefined);
  const [state, setState] = useState(before?.state ?? 'dead');
  const expected = diagnosis.described?.expected;
  // First the conditions that the complaint can be about: where it should work, or where it should be off.
  const fits = (id: string) => (expected?.[cellKey(failing, id)] === 'dead') === (state === 'on-when-off');
  const conditions = (circuit?.conditions ?? [])
    .slice()
    .sort((one, other) => Number(fits(other.id)) - Number(fits(one.id)));
  const save = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => String(form.get(name) ?? '').trim();
    const words = text('words');
    if (words === '') {
      setProblem('Write in a few words what fails.');
      return;
    }
    const watts =
      hadAppliance && text('watts') !== '' ? readNumber(text('watts'), BOUNDS.applianceWatts) : null;
    if (watts && !watts.ok) {
      setProblem(`The watts of the appliance: ${watts.message} They may stay empty.`);
      return;
    }
    const fusesTaken = readNumber(text('fusesTaken') || '0', BOUNDS.fusesTaken);
    if (!fusesTaken.ok) {
      setProblem(`How many fuses blew with it: ${fusesTaken.message}`);
      return;
    }
    const optional = (name: string) => (text(name) === '' ? {} : { [name]: text(name) });
    const recorded = record({
      kind: 'complaint',
      words,
      ...(failing && text('condition')
        ? {
            function: failing,
            condition: text('condition'),
            state,
          }
        : {}),
      ...optional('pluggedIn'),
      ...(hadAppliance
        ? { appliance: { fusesTaken: fusesTaken.value, ...(watts ? { watts: watts.value } : {}) } }
        : {}),
      ...optional('sound'),
      ...optional('changedBefore'),
    });
    if (!recorded.ok) return setProblem(recorded.message);
    forget();
    onDone();
  };
  return (
    <form ref={form} onSubmit={save} className="mb-5 grid max-w-3xl gap-4 sm:grid-cols-2">
      <div className="sm:col-span-2">
        <Field label="What fails, in the customer’s words">
          <textarea name="words" rows={2} defaultValue={before?.words} className={INPUT} />
        </Field>
      </div>
      {circuit ? (
        <>
          <Field label="The function that fails">
            <select
              name="function"
              value={failing}
              onChange={(event) => setFailing(event.target.value)}
              className={INPUT}
            >
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
              key={`${failing} ${state === 'on-when-off'}`}
              name="condition"
              defaultValue={
                before?.function === failing && before.state === state ? before.condition : conditions[0]?.id
              }
              className={INPUT}
            >
              {conditions.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                  {fits(one.id) || !failing
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
          <select
            name="state"
            value={state}
            onChange={(event) => setState(event.target.value as typeof state)}
            className={INPUT}
          >
            {COMPLAINT_STATES.map((one) => (
              <option key={one} value={one}>
                {STATE_WORDS[one]}
              </option>
            ))}
          </select>
        </Field>
      ) : null}
      <Field label="What was plugged in" hint="May stay empty">
        <input name="pluggedIn" defaultValue={before?.pluggedIn} className={INPUT} />
      </Field>
      <div>
        <label className="flex min-h-11 items-center gap-3 font-semibold">
          <input
            type="checkbox"
            name="hadAppliance"
            checked={hadAppliance}
            onChange={(event) => setHadAppliance(event.target.checked)}
            className="size-6 accent-(--copper)"
          />
          A portable appliance was plugged in when it failed
        </label>
        {hadAppliance ? (
          <div className="mt-2 grid grid-cols-2 gap-3">
            <Field label="Its watts" hint="From its plate">
              <input
                name="watts"
                inputMode="decimal"
                defaultValue={before?.appliance?.watts}
                className={INPUT}
              />
            </Field>
            <Field label="Fuses it has taken">
              <input
                name="fusesTaken"
                inputMode="numeric"
                defaultValue={before?.appliance?.fusesTaken ?? 0}
                className={INPUT}
              />
            </Field>
          </div>
        ) : null}
      </div>
      <Field label="What was changed before" hint="May stay empty">
        <input name="changedBefore" defaultValue={before?.changedBefore} className={INPUT} />
      </Field>
      <Field label="Any sound" hint="Click, hum, nothing">
        <input name="sound" defaultValue={before?.sound} className={INPUT} />
      </Field>
      {problem ? (
        <div className="sm:col-span-2">
          <Problem>{problem}</Problem>
        </div>
      ) : null}
      <div className="flex gap-2 sm:col-span-2">
        <Button look="primary" type="submit">
          Record the complaint
        </Button>
        {before ? (
          <Button
            onClick={() => {
              forget();
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
  const [text, setText] = useState('');
  const [conflict, setConflict] = useState<string | null>(null);
  const save = (force: boolean) => {
    const read = readNumber(text.replace(/\s/g, ''), BOUNDS.odometerKm);
    if (!read.ok) {
      setConflict(`The odometer: ${read.message}`);
      return;
    }
    const km = read.value;
    if (!force && known !== null && km !== known && (km < known || job.identity.odometerKm !== null)) {
      setConflict(
        `${known} km stand recorded${job.identity.odometerKm === null ? ' from an earlier visit' : ' on this job'}, and now ${km} km. Which is right?`,
      );
      return;
    }
    const recorded = record({ kind: 'identity', odometerKm: km });
    setConflict(recorded.ok ? null : recorded.message);
    if (recorded.ok) setText('');
  };
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
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save(false);
        }}
        className="flex flex-wrap items-end gap-2"
      >
        <label className="block">
          <span className="mb-1 block text-sm font-semibold">Odometer now, km</span>
          <input
            value={text}
            onChange={(event) => setText(event.target.value)}
            inputMode="numeric"
            className={`${INPUT} w-40`}
          />
        </label>
        <Button type="submit">Record</Button>
      </form>
      {conflict ? (
        <div>
          <Problem>{conflict}</Problem>
          {conflict.endsWith('?') ? (
            <div className="mt-2 flex gap-2">
              <Button onClick={() => save(true)}>Keep the new one</Button>
              <Button
                onClick={() => {
                  setText('');
                  setConflict(null);
                }}
              >
                Keep {known} km
              </Button>
            </div>
          ) : null}
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
