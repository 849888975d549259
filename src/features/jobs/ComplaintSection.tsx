'use client';

import { type ReactNode, useState } from 'react';
import { BOUNDS } from '#core/format';
import { SOUND_WORDS, WORK_WORDS } from '#core/log';
import { readNumber } from '#core/quantity';
import { VoltsChoice } from '@/features/vehicles';
import { useDiagnosis, useJob } from '@/job/JobProvider';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, ButtonLink, INPUT, Problem, Section } from '@/ui/controls';
import { PlaceLink } from '@/ui/PlaceLink';
import { useLater } from '@/ui/useLater';
import { FunctionGrid } from './FunctionGrid';

/** Wanted where nothing was said yet, and where it is changed. */
const loadForm = () => import('./ComplaintForm').then((loaded) => loaded.ComplaintForm);

export function ComplaintSection() {
  const { data, job, circuit, nominalVolts } = useJob();
  const diagnosis = useDiagnosis();
  const complaint = job.complaint;
  // Words alone were said: which function of the map they mean is asked next.
  const [editing, setEditing] = useState(
    complaint !== null && circuit !== null && complaint.function === undefined && !complaint.work,
  );
  const Form = useLater(loadForm, complaint === null || editing);
  const named = complaint?.function !== undefined && complaint.condition !== undefined;
  return (
    <Section
      id="complaint"
      number={1}
      title={complaint?.work ? WORK_WORDS[complaint.work] : 'Complaint'}
      done={named || complaint?.work !== undefined}
    >
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
          {complaint.work ? null : <Button onClick={() => setEditing(true)}>Change</Button>}
        </div>
      ) : Form ? (
        <Form onDone={() => setEditing(false)} />
      ) : null}
      <IdentityLine />
      {circuit ? (
        <>
          <h3 className="mt-6 mb-2 font-bold">Function check: what works, what does not</h3>
          <p className="mb-3 max-w-prose text-soft">
            {complaint?.work
              ? 'Seen before the work and after it: the person after you can tell what it changed.'
              : 'What still works clears everything it shares with what failed. Tap a cell and say what you see.'}
          </p>
          <FunctionGrid />
          <p className="mt-2">
            <PlaceLink
              href={`/jobs/${data.id}/combinations`}
              className="inline-flex min-h-11 items-center underline underline-offset-4"
            >
              Every combination of key and switches
            </PlaceLink>
          </p>
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
        <div className="border-l-4 border-caution bg-caution-wash px-3 py-2">
          <p className="font-bold">Nominal voltage? No verdict is given without it.</p>
          <VoltsChoice
            chosen={null}
            onChoose={(volts) => record({ kind: 'identity', nominalVolts: volts })}
          />
        </div>
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
  const { circuit, job } = useJob();
  const diagnosis = useDiagnosis();
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
