'use client';

import { useCallback, useState } from 'react';
import { type NewJob, NOMINAL_VOLTS } from '#core/format';
import {
  INTERLOCKS,
  type Interlock,
  LOAD_WORDS,
  type LoadWord,
  PATTERNS,
  type ReturnPath,
  usualReturn,
} from '#core/notation';
import { VehicleChoice } from '@/features/vehicles';
import type { KnownVehicle } from '@/features/vehicles/server';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { CheckField } from '@/ui/Check';
import { Choice, Several } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';
import { useGo } from '@/ui/PlaceLink';

const RETURNS = [
  { id: 'body', name: 'Body metal' },
  { id: 'insulated', name: 'Minus busbar or return wire' },
];
const NEW = 'new';
const HOW = [
  ['dead', 'Dead'],
  ['weak', 'Weak'],
  ['comes-and-goes', 'Comes and goes'],
  ['on-when-off', 'On when it should be off'],
] as const;

export interface NewJobWords {
  vehicleId: string;
  /** One that was found by name, beside those that come first. */
  found: KnownVehicle | null;
  vehicleName: string;
  plate: string;
  title: string;
  sketch: boolean;
  load: string;
  pattern: string | null;
  kind: LoadWord | null;
  interlocks: readonly Interlock[];
  /** How the current comes back; null as it usually does on such a vehicle. */
  returns: ReturnPath | null;
  volts: number | null;
  how: (typeof HOW)[number][0];
  /** The same for every try of the same job, also after a reload: a request whose answer was lost opens nothing twice. */
  ids: { vehicle: string; tried: Tried | null };
}

/** What is asked besides the words, of a vehicle or of one that is not here yet. */
function wanted({ sketch }: Pick<NewJobWords, 'sketch'>, vehicle: KnownVehicle | undefined) {
  const unmapped = !vehicle || vehicle.circuits === 0;
  return {
    unmapped,
    wantsPattern: unmapped || sketch,
    wantsVolts: vehicle ? vehicle.nominalVolts === null : true,
  };
}

function asksInterlocks(pattern: string | null): boolean {
  return PATTERNS.some((one) => one.id === pattern && one.asksInterlocks);
}

/** The job as the server takes it, or what is missing. */
export function jobAsked(
  values: NewJobWords,
  vehicle: KnownVehicle | undefined,
): { ok: true; job: Omit<NewJob, 'id'> } | { ok: false; message: string; field?: string } {
  const { pattern, kind, interlocks = [], volts, how } = values;
  const { wantsPattern, wantsVolts } = wanted(values, vehicle);
  const title = textOf(values.title);
  if (title === '') return { ok: false, message: 'Say in a few words what fails.', field: 'title' };
  const vehicleName = textOf(values.vehicleName);
  if (!vehicle && vehicleName === '') {
    return { ok: false, message: 'Give the vehicle a name, “white tipper” will do.', field: 'vehicleName' };
  }
  const patterned = wantsPattern && pattern !== null;
  if ((patterned || !vehicle) && wantsVolts && volts === null) {
    return { ok: false, message: 'Which nominal voltage? One tap: no verdict is given without it.' };
  }
  const load = textOf(values.load);
  const job = {
    title,
    vehicleId: vehicle?.id ?? values.ids.vehicle,
    ...(vehicle ? {} : { vehicleName, plate: textOf(values.plate) }),
    ...(wantsVolts && volts !== null ? { nominalVolts: volts } : {}),
    ...(patterned
      ? {
          pattern,
          kind: kind ?? 'module',
          state: how,
          ...(load === '' ? {} : { load }),
          ...(asksInterlocks(pattern) && interlocks.length > 0 ? { interlocks } : {}),
          ...(values.returns ? { returns: values.returns } : {}),
        }
      : {}),
  };
  return { ok: true, job: job as Omit<NewJob, 'id'> };
}

/** From nothing to the first test: what fails, what its circuit is like, which voltage. A mapped vehicle needs the first only. */
export function NewJobForm({
  vehicles,
  more,
  chosen,
}: {
  vehicles: readonly KnownVehicle[];
  /** Whether the shop has others, to be found by name. */
  more: boolean;
  chosen: string | null;
}) {
  const go = useGo();
  const [fresh] = useState(newId);
  const known = (id: string, found: KnownVehicle | null) =>
    [...vehicles, ...(found ? [found] : [])].find((one) => one.id === id);
  const form = useKeptForm<NewJobWords>({
    keep: `new job ${chosen ?? ''}`,
    first: {
      vehicleId: chosen ?? vehicles[0]?.id ?? NEW,
      found: null,
      sketch: false,
      pattern: null,
      kind: null,
      interlocks: [],
      returns: null,
      volts: null,
      how: 'dead',
      ids: { vehicle: fresh, tried: null },
    },
    take: async (values) => {
      const asked = jobAsked(values, known(values.vehicleId, values.found));
      if (!asked.ok) return asked;
      const tried = requestFor(values.ids.tried, JSON.stringify(asked.job));
      form.setValue('ids', { vehicle: values.ids.vehicle, tried });
      const posted = await postJson<{ message?: string; traced?: boolean }>('/api/jobs', {
        id: tried.id,
        ...asked.job,
      });
      if (posted.kind === 'away') return { ok: false, message: posted.message };
      if (!posted.ok) return { ok: false, message: posted.answer.message ?? 'It was not taken.' };
      go(posted.answer.traced ? `/jobs/${tried.id}/trace` : `/jobs/${tried.id}`);
      return { ok: true };
    },
  });
  const { setValue } = form;
  const [vehicleId, found, sketch, pattern, kind, interlocks = [], volts, how, returns, vehicleName] =
    form.watch([
      'vehicleId',
      'found',
      'sketch',
      'pattern',
      'kind',
      'interlocks',
      'volts',
      'how',
      'returns',
      'vehicleName',
    ]);
  const vehicle = known(vehicleId, found);
  const chooseVehicle = useCallback(
    (id: string, one: KnownVehicle | null) => {
      setValue('vehicleId', id, { shouldDirty: true });
      setValue('found', one, { shouldDirty: true });
    },
    [setValue],
  );
  const { unmapped, wantsPattern, wantsVolts } = wanted({ sketch }, vehicle);
  return (
    <form onSubmit={form.submit} className="grid max-w-3xl gap-5">
      <VehicleChoice
        label="Vehicle"
        name="vehicle"
        first={found ? [...vehicles, found] : vehicles}
        more={more}
        chosen={vehicleId}
        onChoose={chooseVehicle}
      >
        <option value={NEW}>One that is not here yet</option>
      </VehicleChoice>
      {vehicle ? null : (
        <div className="grid gap-4 sm:grid-cols-2">
          <Field label="Its name">
            <input
              {...form.register('vehicleName')}
              maxLength={80}
              className={INPUT}
              placeholder="White tipper"
            />
          </Field>
          <Field label="Plate, if there is one">
            <input {...form.register('plate')} maxLength={20} className={INPUT} />
          </Field>
        </div>
      )}
      <Field label="What fails, in a few words">
        <input
          {...form.register('title')}
          maxLength={160}
          className={INPUT}
          placeholder="Step lamp dead, interior lamps work"
        />
      </Field>
      {unmapped ? null : (
        <CheckField control={form.control} name="sketch">
          Its circuit is not among those mapped: sketch it from a pattern
        </CheckField>
      )}
      {wantsPattern ? (
        <>
          <Field label="What it feeds, as it is called" hint="Left empty, the words above stand for it">
            <input {...form.register('load')} maxLength={60} className={INPUT} placeholder="Step lamp" />
          </Field>
          <Choice
            legend="What its circuit is like"
            options={PATTERNS.map((one) => ({ id: one.id, name: one.name, says: one.says }))}
            chosen={pattern}
            onChoose={(id) => setValue('pattern', id)}
            shape="pairs"
          />
          {asksInterlocks(pattern) ? (
            <Several
              legend="What has to be made before it may run, if anything"
              options={INTERLOCKS.map(([id, name]) => ({ id, name }))}
              chosen={interlocks}
              onChoose={(ids) => setValue('interlocks', ids as Interlock[], { shouldDirty: true })}
            />
          ) : null}
          {pattern ? (
            <Choice
              legend="The way back to the battery"
              options={RETURNS}
              chosen={
                returns ?? usualReturn(vehicle?.name ?? vehicleName ?? '', vehicle?.nominalVolts ?? volts)
              }
              onChoose={(id) => setValue('returns', id === 'insulated' ? 'insulated' : 'body')}
            />
          ) : null}
          <Choice
            legend="What it is"
            options={LOAD_WORDS.map(([id, name]) => ({ id, name }))}
            chosen={kind}
            onChoose={(id) => setValue('kind', id as LoadWord)}
          />
          <Choice
            legend="How it fails"
            options={HOW.map(([id, name]) => ({ id, name }))}
            chosen={how}
            onChoose={(id) => setValue('how', id as NewJobWords['how'])}
          />
        </>
      ) : null}
      {wantsVolts ? (
        <Choice
          legend="Nominal voltage"
          options={NOMINAL_VOLTS.map((one) => ({ id: String(one), name: `${one} V` }))}
          chosen={volts === null ? null : String(volts)}
          onChoose={(id) => setValue('volts', Number(id))}
        />
      ) : null}
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <div className="sticky bottom-16 bg-paper py-2 lg:static">
        <Button
          look="primary"
          type="submit"
          disabled={form.busy}
          className="h-14 w-full px-6 text-lg sm:w-auto"
        >
          {wantsPattern && pattern ? 'To the first test' : 'Open the job'}
        </Button>
      </div>
    </form>
  );
}
