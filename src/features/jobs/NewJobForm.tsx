'use client';

import { type ReactNode, useCallback, useEffect, useState } from 'react';
import { WORKS } from '#core/format';
import { WORK_WORDS } from '#core/log';
import { INTERLOCKS, type Interlock, LOAD_WORDS, type LoadWord, PATTERNS, usualReturn } from '#core/notation';
import { VehicleChoice, VoltsChoice } from '@/features/vehicles';
import type { KnownVehicle } from '@/features/vehicles/server';
import { postJson } from '@/sync/post';
import { requestFor } from '@/sync/requestFor';
import { useKeptForm } from '@/sync/useKeptForm';
import { CheckField } from '@/ui/Check';
import { Choice, Several } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';
import { useGo } from '@/ui/PlaceLink';
import { asksInterlocks, HOW, jobAsked, type NewJobWords, wanted } from './newJob';

const NEW = 'new';
const RETURNS = [
  { id: 'body', name: 'Body metal' },
  { id: 'insulated', name: 'Minus busbar or return wire' },
];
const PURPOSES = [{ id: 'fault', name: 'Fault' }, ...WORKS.map((id) => ({ id, name: WORK_WORDS[id] }))];
const PLUGGED = [
  { id: 'nothing', name: 'Nothing plugged in' },
  { id: 'something', name: 'Something was' },
];

/** What a vehicle does, by its circuits. */
interface VehicleFunctions {
  /** The vehicle's id. */
  readonly of: string;
  readonly list: readonly { readonly id: string; readonly name: string }[];
}

/** What the circuits of a vehicle do, to be tapped; none while they are fetched, or where they cannot be. */
function useFunctions(
  vehicle: KnownVehicle | undefined,
  first: VehicleFunctions | null,
): VehicleFunctions['list'] {
  const [got, setGot] = useState(first);
  const id = vehicle && vehicle.circuits > 0 ? vehicle.id : null;
  useEffect(() => {
    if (id === null || id === first?.of) {
      if (first) setGot(first);
      return;
    }
    const stop = new AbortController();
    fetch(`/api/vehicles/${id}/functions`, { signal: stop.signal })
      .then(async (response) => {
        if (!response.ok) return;
        const { functions } = (await response.json()) as { functions: { id: string; name: string }[] };
        setGot({ of: id, list: functions });
      })
      .catch(() => undefined);
    return () => stop.abort();
  }, [id, first]);
  return got !== null && got.of === id ? got.list : [];
}

/** From nothing to the first test: what fails, what its circuit is like, which voltage. A mapped vehicle needs the first only. */
export function NewJobForm({
  vehicles,
  more,
  chosen,
  pictures = {},
  functions: firstFunctions = null,
  purpose: firstPurpose = 'fault',
}: {
  vehicles: readonly KnownVehicle[];
  /** Whether the shop has others, to be found by name. */
  more: boolean;
  chosen: string | null;
  /** The run of each pattern, drawn. */
  pictures?: Readonly<Record<string, ReactNode>>;
  /** Of the vehicle that is chosen at first. */
  functions?: VehicleFunctions | null;
  /** What the job is for, where somebody was sent here for it. */
  purpose?: NewJobWords['purpose'];
}) {
  const go = useGo();
  const [fresh] = useState(newId);
  const known = (id: string, found: KnownVehicle | null) =>
    [...vehicles, ...(found ? [found] : [])].find((one) => one.id === id);
  const form = useKeptForm<NewJobWords>({
    keep: `new job ${chosen ?? ''}${firstPurpose === 'fault' ? '' : ` ${firstPurpose}`}`,
    first: {
      purpose: firstPurpose,
      vehicleId: chosen ?? vehicles[0]?.id ?? NEW,
      found: null,
      function: null,
      pluggedIn: null,
      changed: false,
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
      const view = posted.answer.traced
        ? '/trace'
        : values.purpose === 'survey'
          ? '/boxes'
          : values.purpose === 'change'
            ? '/change'
            : '';
      go(`/jobs/${tried.id}${view}`);
      return { ok: true };
    },
  });
  const { setValue, getValues } = form;
  const values = form.watch();
  const { interlocks = [], purpose = 'fault', pattern, how } = values;
  const vehicle = known(values.vehicleId, values.found);
  const functions = useFunctions(vehicle, firstFunctions);
  const chooseVehicle = useCallback(
    (id: string, one: KnownVehicle | null) => {
      setValue('vehicleId', id, { shouldDirty: true });
      setValue('found', one, { shouldDirty: true });
      setValue('function', null, { shouldDirty: true });
    },
    [setValue],
  );
  const { unmapped, wantsPattern, wantsVolts } = wanted(values, vehicle);
  const fault = purpose === 'fault';
  /** The words of the complaint begin with what was tapped; what somebody typed stays. */
  const tapFunction = (id: string) => {
    const name = functions.find((one) => one.id === id)?.name ?? '';
    const said = getValues('title')?.trim() ?? '';
    const before = functions.some((one) => said === `${one.name} ${howWords(how)}`);
    setValue('function', id, { shouldDirty: true });
    if (said === '' || before) setValue('title', `${name} ${howWords(how)}`, { shouldDirty: true });
  };
  const tapHow = (id: string) => {
    const said = getValues('title') ?? '';
    const name = functions.find((one) => one.id === values.function)?.name;
    setValue('how', id as NewJobWords['how'], { shouldDirty: true });
    if (name && said === `${name} ${howWords(how)}`) setValue('title', `${name} ${howWords(id)}`);
  };
  const traced = (wantsPattern && pattern !== null) || (fault && !wantsPattern && values.function !== null);
  const volts = (
    <VoltsChoice chosen={values.volts} onChoose={(one) => setValue('volts', one, { shouldDirty: true })} />
  );
  return (
    <form onSubmit={form.submit} className="grid max-w-3xl gap-4">
      <Choice
        legend="What it is"
        quiet
        shape="row"
        options={PURPOSES}
        chosen={purpose}
        onChoose={(id) => setValue('purpose', id as NewJobWords['purpose'], { shouldDirty: true })}
      />
      <VehicleChoice
        label="Vehicle"
        name="vehicle"
        first={values.found ? [...vehicles, values.found] : vehicles}
        more={more}
        chosen={values.vehicleId}
        onChoose={chooseVehicle}
      >
        <option value={NEW}>One that is not here yet</option>
      </VehicleChoice>
      {vehicle ? null : (
        <>
          <div className="grid grid-cols-[3fr_2fr] gap-3">
            <Field label="Its name">
              <input
                {...form.register('vehicleName')}
                maxLength={80}
                className={INPUT}
                placeholder="White tipper"
              />
            </Field>
            <Field label="Plate, if any">
              <input {...form.register('plate')} maxLength={20} className={INPUT} />
            </Field>
          </div>
          {volts}
        </>
      )}
      <Field label={fault ? 'What fails, in a few words' : 'What is to be done'}>
        <input
          {...form.register('title')}
          maxLength={160}
          className={INPUT}
          placeholder={fault ? 'Step lamp dead, interior lamps work' : 'Read every slot of the cab fuse box'}
        />
      </Field>
      {fault && functions.length > 0 && !values.sketch ? (
        <Choice
          legend="Or tap what fails"
          options={functions}
          chosen={values.function}
          onChoose={tapFunction}
        />
      ) : null}
      {fault && !unmapped ? (
        <CheckField control={form.control} name="sketch">
          Its circuit is not among those mapped: sketch it from a pattern
        </CheckField>
      ) : null}
      {wantsPattern || (fault && values.function) ? (
        <Choice
          legend="How it fails"
          options={HOW.map(([id, name]) => ({ id, name }))}
          chosen={how}
          onChoose={tapHow}
        />
      ) : null}
      {fault ? (
        <div className="grid gap-2">
          <Choice
            legend="When it failed"
            options={PLUGGED}
            chosen={values.pluggedIn}
            onChoose={(id) => setValue('pluggedIn', id as NewJobWords['pluggedIn'], { shouldDirty: true })}
          />
          {values.pluggedIn === 'something' ? (
            <Field label="What was plugged in">
              <input {...form.register('pluggedWords')} maxLength={200} className={INPUT} />
            </Field>
          ) : null}
          <CheckField control={form.control} name="changed">
            Something was changed or fitted before
          </CheckField>
          {values.changed ? (
            <Field label="What was changed">
              <input {...form.register('changedWords')} maxLength={200} className={INPUT} />
            </Field>
          ) : null}
        </div>
      ) : null}
      {wantsPattern ? (
        <>
          <Choice
            legend="What its circuit is like"
            options={PATTERNS.map((one) => ({
              id: one.id,
              name: one.name,
              says: one.says,
              drawn: pictures[one.id],
            }))}
            chosen={pattern}
            onChoose={(id) => setValue('pattern', id, { shouldDirty: true })}
            shape="pairs"
          />
          {pattern ? (
            <>
              <Choice
                legend="What it feeds is a"
                options={LOAD_WORDS.map(([id, name]) => ({ id, name }))}
                chosen={values.kind}
                onChoose={(id) => setValue('kind', id as LoadWord, { shouldDirty: true })}
              />
              <Field label="What it feeds, as it is called" hint="Left empty, the words above stand for it">
                <input {...form.register('load')} maxLength={60} className={INPUT} placeholder="Step lamp" />
              </Field>
              {asksInterlocks(pattern) ? (
                <Several
                  legend="What has to be made before it may run, if anything"
                  options={INTERLOCKS.map(([id, name]) => ({ id, name }))}
                  chosen={interlocks}
                  onChoose={(ids) => setValue('interlocks', ids as Interlock[], { shouldDirty: true })}
                />
              ) : null}
              <Choice
                legend="The way back to the battery"
                options={RETURNS}
                chosen={
                  values.returns ??
                  usualReturn(
                    vehicle?.name ?? values.vehicleName ?? '',
                    vehicle?.nominalVolts ?? values.volts,
                  )
                }
                onChoose={(id) =>
                  setValue('returns', id === 'insulated' ? 'insulated' : 'body', { shouldDirty: true })
                }
              />
            </>
          ) : null}
        </>
      ) : null}
      {vehicle && wantsVolts ? volts : null}
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <div className="sticky bottom-16 bg-paper py-2 lg:static">
        <Button
          look="primary"
          type="submit"
          disabled={form.busy}
          className="h-14 w-full px-6 text-lg sm:w-auto"
        >
          {traced ? 'To the first test' : 'Open the job'}
        </Button>
      </div>
    </form>
  );
}

function howWords(how: string): string {
  const [, word = ''] = HOW.find(([id]) => id === how) ?? [];
  return word.toLowerCase();
}
