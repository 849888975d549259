'use client';

import { type FormEvent, useCallback, useRef, useState } from 'react';
import { NOMINAL_VOLTS } from '#core/format';
import { LOAD_WORDS, type LoadWord, PATTERNS } from '#core/notation';
import { VehicleChoice } from '@/features/vehicles';
import type { KnownVehicle } from '@/features/vehicles/server';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { useDraftState, useFormDraft } from '@/sync/useFormDraft';
import { Choice } from '@/ui/Choice';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';
import { useGo } from '@/ui/PlaceLink';

const NEW = 'new';
const HOW = [
  ['dead', 'Dead'],
  ['weak', 'Weak'],
  ['comes-and-goes', 'Comes and goes'],
  ['on-when-off', 'On when it should be off'],
] as const;

/** What is chosen by tapping. */
interface Taps {
  readonly pattern: string | null;
  readonly kind: LoadWord | null;
  readonly volts: number | null;
  readonly how: (typeof HOW)[number][0];
}

const NO_TAPS: Taps = { pattern: null, kind: null, volts: null, how: 'dead' };

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
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  // The same ids for every try of the same job, also after a reload: a request whose answer was lost opens nothing twice.
  const key = `new job ${chosen ?? ''}`;
  const [ids, keepIds] = useDraftState<{ readonly vehicle: string; readonly tried: Tried | null }>(
    `${key} ids`,
    useState(() => ({ vehicle: newId(), tried: null }))[0],
  );
  const [taps, keepTaps] = useDraftState<Taps>(`${key} taps`, NO_TAPS);
  const forgetForm = useFormDraft(key, form);
  const forget = () => {
    forgetForm();
    keepIds(null);
    keepTaps(null);
  };
  const { pattern, kind, volts, how } = taps;
  const tap = (more: Partial<Taps>) => keepTaps({ ...taps, ...more });
  const [vehicleId, setVehicleId] = useState(chosen ?? vehicles[0]?.id ?? NEW);
  const [found, setFound] = useState<KnownVehicle | null>(null);
  const vehicle = [...vehicles, ...(found ? [found] : [])].find((one) => one.id === vehicleId);
  const chooseVehicle = useCallback((id: string, one: KnownVehicle | null) => {
    setVehicleId(id);
    setFound(one);
  }, []);
  const unmapped = !vehicle || vehicle.circuits === 0;
  const [sketch, setSketch] = useState(false);
  const wantsPattern = unmapped || sketch;
  const wantsVolts = vehicle ? vehicle.nominalVolts === null : true;
  const open = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (name: string) => String(form.get(name) ?? '').trim();
    const title = text('title');
    if (title === '') return setProblem('Say in a few words what fails.');
    if (!vehicle && text('vehicleName') === '')
      return setProblem('Give the vehicle a name, “white tipper” will do.');
    const patterned = wantsPattern && pattern !== null;
    if ((patterned || !vehicle) && wantsVolts && volts === null) {
      return setProblem('Which nominal voltage? One tap: no verdict is given without it.');
    }
    setBusy(true);
    setProblem(null);
    const asked = {
      title,
      vehicleId: vehicle?.id ?? ids.vehicle,
      ...(vehicle ? {} : { vehicleName: text('vehicleName'), plate: text('plate') }),
      ...(wantsVolts && volts !== null ? { nominalVolts: volts } : {}),
      ...(patterned
        ? {
            pattern,
            kind: kind ?? 'module',
            state: how,
            ...(text('load') === '' ? {} : { load: text('load') }),
          }
        : {}),
    };
    const tried = requestFor(ids.tried, JSON.stringify(asked));
    keepIds({ vehicle: ids.vehicle, tried });
    const posted = await postJson<{ message?: string; traced?: boolean }>('/api/jobs', {
      id: tried.id,
      ...asked,
    });
    if (posted.kind === 'answer' && posted.ok) {
      forget();
      go(posted.answer.traced ? `/jobs/${tried.id}/trace` : `/jobs/${tried.id}`);
      return;
    }
    setProblem(posted.kind === 'away' ? posted.message : (posted.answer.message ?? 'It was not taken.'));
    setBusy(false);
  };
  return (
    <form ref={form} onSubmit={open} className="grid max-w-3xl gap-5">
      <VehicleChoice
        label="Vehicle"
        name="vehicle"
        first={vehicles}
        more={more}
        chosen={vehicleId}
        onChoose={chooseVehicle}
      >
        <option value={NEW}>One that is not here yet</option>
      </VehicleChoice>
      {vehicle ? null : (
        <div className="grid gap-4 sm:grid-cols-2">
          <Field label="Its name">
            <input name="vehicleName" maxLength={80} className={INPUT} placeholder="White tipper" />
          </Field>
          <Field label="Plate, if there is one">
            <input name="plate" maxLength={20} className={INPUT} />
          </Field>
        </div>
      )}
      <Field label="What fails, in a few words">
        <input
          name="title"
          maxLength={160}
          className={INPUT}
          placeholder="Step lamp dead, interior lamps work"
        />
      </Field>
      {unmapped ? null : (
        <label className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            name="sketch"
            checked={sketch}
            onChange={(event) => setSketch(event.target.checked)}
            className="size-6 accent-(--copper)"
          />
          Its circuit is not among those mapped: sketch it from a pattern
        </label>
      )}
      {wantsPattern ? (
        <>
          <Field label="What it feeds, as it is called" hint="Left empty, the words above stand for it">
            <input name="load" maxLength={60} className={INPUT} placeholder="Step lamp" />
          </Field>
          <Choice
            legend="What its circuit is like"
            options={PATTERNS.map((one) => ({ id: one.id, name: one.name, says: one.says }))}
            chosen={pattern}
            onChoose={(id) => tap({ pattern: id })}
            shape="pairs"
          />
          <Choice
            legend="What it is"
            options={LOAD_WORDS.map(([id, name]) => ({ id, name }))}
            chosen={kind}
            onChoose={(id) => tap({ kind: id as LoadWord })}
          />
          <Choice
            legend="How it fails"
            options={HOW.map(([id, name]) => ({ id, name }))}
            chosen={how}
            onChoose={(id) => tap({ how: id as Taps['how'] })}
          />
        </>
      ) : null}
      {wantsVolts ? (
        <Choice
          legend="Nominal voltage"
          options={NOMINAL_VOLTS.map((one) => ({ id: String(one), name: `${one} V` }))}
          chosen={volts === null ? null : String(volts)}
          onChoose={(id) => tap({ volts: Number(id) })}
        />
      ) : null}
      {problem ? <Problem>{problem}</Problem> : null}
      <div className="sticky bottom-16 bg-paper py-2 lg:static">
        <Button look="primary" type="submit" disabled={busy} className="h-14 w-full px-6 text-lg sm:w-auto">
          {wantsPattern && pattern ? 'To the first test' : 'Open the job'}
        </Button>
      </div>
    </form>
  );
}
