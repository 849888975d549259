'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { BOUNDS, type VehicleChange, type VehicleRecord } from '#core/format';
import { readNumber } from '#core/quantity';
import { type Known, vehicleConflicts } from '#core/vehicle';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { type Taken, textOf, useKeptForm } from '@/sync/useKeptForm';
import { Check } from '@/ui/Check';
import { Button, Caution, Field, INPUT, Problem } from '@/ui/controls';
import { Fold } from '@/ui/Fold';
import { newId } from '@/ui/newId';
import { useGo } from '@/ui/PlaceLink';
import type { KnownVehicle } from './listVehicles';
import { VehicleChoice } from './VehicleChoice';
import { VoltsChoice } from './VoltsChoice';

type Without<T> = T extends { id: string } ? Omit<T, 'id'> : never;

/** Sends a change of the record, each once. */
function useChange(vehicleId: string): (change: Without<VehicleChange>) => Promise<Taken> {
  const tried = useRef<Tried | null>(null);
  const router = useRouter();
  return async (change) => {
    tried.current = requestFor(tried.current, JSON.stringify(change));
    const posted = await postJson<{ message?: string }>(`/api/vehicles/${vehicleId}`, {
      ...change,
      id: tried.current.id,
    });
    if (posted.kind === 'away') return { ok: false, message: posted.message };
    if (!posted.ok) return { ok: false, message: posted.answer.message ?? 'It was not taken.' };
    tried.current = null;
    router.refresh();
    return { ok: true };
  };
}

interface Words {
  name: string;
  make: string;
  model: string;
  year: string;
  plate: string;
  volts: number | null;
  odometer: string;
  notes: string;
  otherNames: string;
  /** The record as it stood when the typing began, as JSON: a draft taken up later undoes nothing of others. */
  was: string;
}

/** The record of a vehicle, its customer, and what takes it out of the lists. */
export function VehicleRecordForm({
  vehicleId,
  record,
  known,
  customer,
  archived,
  others,
  today,
}: {
  vehicleId: string;
  record: VehicleRecord;
  known: Known;
  customer: { readonly name: string; readonly reach: string } | null;
  archived: boolean;
  others: readonly KnownVehicle[];
  today: string;
}) {
  const change = useChange(vehicleId);
  return (
    <section aria-labelledby="record" data-testid="record">
      <h2 id="record" className="border-b-2 border-line pb-2 text-xl">
        Record
      </h2>
      <Fold title="Put name, plate, volts or kilometres right">
        <RecordFields vehicleId={vehicleId} record={record} known={known} today={today} change={change} />
      </Fold>
      {/* Erased, nothing of it stays in the fields. */}
      <Customer key={customer ? 'known' : 'none'} vehicleId={vehicleId} customer={customer} change={change} />
      <Fold title="It was entered twice, or it is gone">
        <OutOfLists
          vehicleId={vehicleId}
          name={record.name}
          archived={archived}
          others={others}
          change={change}
        />
      </Fold>
    </section>
  );
}

type Change = ReturnType<typeof useChange>;

function wordsOf(record: VehicleRecord): Words {
  return {
    name: record.name,
    make: record.make,
    model: record.model,
    year: record.year === null ? '' : String(record.year),
    plate: record.plate,
    volts: record.nominalVolts,
    odometer: record.odometerKm === null ? '' : String(record.odometerKm),
    notes: record.notes,
    otherNames: record.otherNames,
    was: JSON.stringify(record),
  };
}

/** What was typed as a record; a number that is none is named by its field. */
function recordOf(
  values: Words,
): { ok: true; value: VehicleRecord } | { ok: false; message: string; field: string } {
  const numbers: { year: number | null; odometerKm: number | null } = { year: null, odometerKm: null };
  for (const [field, into, range, label] of [
    ['year', 'year', BOUNDS.modelYear, 'Year'],
    ['odometer', 'odometerKm', BOUNDS.odometerKm, 'Odometer'],
  ] as const) {
    const typed = textOf(values[field]);
    if (typed === '') continue;
    const read = readNumber(typed, range);
    if (!read.ok) return { ok: false, message: `${label}: ${read.message}`, field };
    numbers[into] = read.value;
  }
  return {
    ok: true,
    value: {
      name: textOf(values.name),
      make: textOf(values.make),
      model: textOf(values.model),
      plate: textOf(values.plate),
      notes: textOf(values.notes),
      otherNames: textOf(values.otherNames),
      nominalVolts: (values.volts ?? null) as VehicleRecord['nominalVolts'],
      ...numbers,
    },
  };
}

function RecordFields({
  vehicleId,
  record,
  known,
  today,
  change,
}: {
  vehicleId: string;
  record: VehicleRecord;
  known: Known;
  today: string;
  change: Change;
}) {
  const [all, setAll] = useState('');
  const form = useKeptForm<Words>({
    keep: `vehicle ${vehicleId}`,
    first: wordsOf(record),
    stays: true,
    take: (values) => {
      const now = recordOf(values);
      if (!now.ok) return now;
      if (now.value.name === '') return { ok: false, message: 'Give it a name.', field: 'name' };
      const against = vehicleConflicts(now.value, known, today).join(' ');
      if (against !== '' && all !== against) {
        return { ok: false, message: `${against} Say below that it is so all the same, or put it right.` };
      }
      const was = values.was ? (JSON.parse(values.was) as VehicleRecord) : record;
      return change({ kind: 'correct', now: now.value, was });
    },
  });
  const typed = recordOf({ ...wordsOf(record), ...form.watch() });
  const against = typed.ok ? vehicleConflicts(typed.value, known, today) : [];
  const field = (
    name: Exclude<keyof Words, 'volts' | 'was'>,
    label: string,
    hint?: string,
    decimal = false,
  ) => (
    <Field label={label} {...(hint ? { hint } : {})}>
      <input {...form.register(name)} inputMode={decimal ? 'numeric' : 'text'} className={INPUT} />
    </Field>
  );
  return (
    <form onSubmit={form.submit} className="grid max-w-xl grid-cols-2 gap-3">
      <div className="col-span-2">{field('name', 'Name')}</div>
      {field('make', 'Make')}
      {field('model', 'Model')}
      {field('plate', 'Plate')}
      {field('year', 'Year', undefined, true)}
      {field('odometer', 'Odometer, km', undefined, true)}
      {field('otherNames', 'Also called', 'Separated by commas')}
      <div className="col-span-2">
        <VoltsChoice
          chosen={form.watch('volts') ?? null}
          onChoose={(volts) => form.setValue('volts', volts, { shouldDirty: true })}
        />
      </div>
      <div className="col-span-2">
        <Field label="Notes">
          <textarea {...form.register('notes')} rows={2} className={INPUT} />
        </Field>
      </div>
      {against.length > 0 ? (
        <div className="col-span-2 grid gap-2" data-testid="conflicts">
          {against.map((words) => (
            <Caution key={words}>{words}</Caution>
          ))}
          <Check checked={all === against.join(' ')} onChange={(yes) => setAll(yes ? against.join(' ') : '')}>
            It is so all the same
          </Check>
        </div>
      ) : null}
      {form.problem ? (
        <div className="col-span-2">
          <Problem>{form.problem}</Problem>
        </div>
      ) : null}
      <div className="col-span-2">
        <Button look="primary" type="submit" disabled={form.busy}>
          Keep it so
        </Button>
      </div>
    </form>
  );
}

function Customer({
  vehicleId,
  customer,
  change,
}: {
  vehicleId: string;
  customer: { readonly name: string; readonly reach: string } | null;
  change: Change;
}) {
  const [sure, setSure] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const id = useRef<string | null>(null);
  const form = useKeptForm<{ name: string; reach: string }>({
    keep: `customer ${vehicleId}`,
    first: { name: customer?.name ?? '', reach: customer?.reach ?? '' },
    stays: true,
    take: ({ name, reach }) => {
      if (textOf(name) === '') return { ok: false, message: 'Say the name of the customer.', field: 'name' };
      id.current ??= newId();
      return change({
        kind: 'customer',
        customerId: id.current,
        name: textOf(name),
        reach: textOf(reach),
      });
    },
  });
  const erase = async () => {
    const answer = await change({ kind: 'erase-customer' });
    setProblem(answer.ok ? null : answer.message);
    setSure(false);
    if (answer.ok) form.forget();
  };
  return (
    <Fold title={customer ? `Customer: ${customer.name}` : 'Customer'} testId="customer">
      <p className="max-w-prose text-soft">
        Kept apart from the record of the work, and in no file that leaves. It can be erased; the record
        stays.
      </p>
      <form onSubmit={form.submit} className="mt-2 grid max-w-xl gap-3">
        <Field label="Name">
          <input {...form.register('name')} className={INPUT} />
        </Field>
        <Field label="How to reach">
          <input {...form.register('reach')} className={INPUT} />
        </Field>
        {form.problem || problem ? <Problem>{form.problem ?? problem}</Problem> : null}
        <div className="flex flex-wrap gap-2">
          <Button look="primary" type="submit" disabled={form.busy}>
            Keep the customer
          </Button>
          {customer ? (
            sure ? (
              <>
                <Button onClick={() => void erase()}>Erase for good</Button>
                <Button look="quiet" onClick={() => setSure(false)}>
                  Not now
                </Button>
              </>
            ) : (
              <Button look="quiet" onClick={() => setSure(true)}>
                Erase the customer
              </Button>
            )
          ) : null}
        </div>
      </form>
    </Fold>
  );
}

function OutOfLists({
  vehicleId,
  name,
  archived,
  others,
  change,
}: {
  vehicleId: string;
  name: string;
  archived: boolean;
  others: readonly KnownVehicle[];
  change: Change;
}) {
  const go = useGo();
  const [into, setInto] = useState<{ readonly id: string; readonly name: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = async (what: Parameters<Change>[0], then: () => void) => {
    const answer = await change(what);
    setProblem(answer.ok ? null : answer.message);
    if (answer.ok) then();
  };
  return (
    <div className="grid max-w-xl gap-4">
      <div>
        <p>
          <strong>Entered twice:</strong> jobs, boxes and circuits of {name} go over to the other record; what
          both have stays here.
        </p>
        <div className="mt-2 grid gap-2">
          <VehicleChoice
            label="The other record"
            name="into"
            first={others}
            more
            chosen={into?.id ?? ''}
            onChoose={(_id, one) =>
              setInto(one && one.id !== vehicleId ? { id: one.id, name: one.name } : null)
            }
          >
            <option value="">choose one</option>
          </VehicleChoice>
        </div>
        <Button
          className="mt-2"
          disabled={into === null}
          onClick={() => into && void ask({ kind: 'merge', into: into.id }, () => go(`/vehicles/${into.id}`))}
        >
          {into ? `Merge ${name} into ${into.name}` : 'Choose the other record first'}
        </Button>
      </div>
      <div>
        <p>
          {archived
            ? 'It is archived: out of the lists, found by the search.'
            : 'Gone for good: it leaves the lists, its record stays and is found by the search.'}
        </p>
        <Button
          className="mt-2"
          onClick={() => void ask({ kind: 'archive', archived: !archived }, () => undefined)}
        >
          {archived ? 'Back into the lists' : 'Archive it'}
        </Button>
      </div>
      {problem ? <Problem>{problem}</Problem> : null}
    </div>
  );
}
