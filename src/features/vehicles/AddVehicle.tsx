'use client';

import { useRef, useState } from 'react';
import { postJson } from '@/sync/post';
import { requestFor, type Tried } from '@/sync/requestFor';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { newId } from '@/ui/newId';
import { useGo } from '@/ui/PlaceLink';
import { VoltsChoice } from './VoltsChoice';

interface Words {
  name: string;
  plate: string;
  volts: number | null;
}

/** A vehicle in three fields; it is gone to once it is there. */
export function AddVehicle() {
  const go = useGo();
  const [id] = useState(newId);
  const tried = useRef<Tried | null>(null);
  const form = useKeptForm<Words>({
    keep: 'new vehicle',
    first: { volts: null },
    take: async ({ name, plate, volts }) => {
      if (textOf(name) === '') {
        return { ok: false, message: 'Give it a name, “white tipper” will do.', field: 'name' };
      }
      const vehicle = {
        vehicleId: id,
        name: textOf(name),
        plate: textOf(plate),
        ...(volts === null ? {} : { nominalVolts: volts }),
      };
      tried.current = requestFor(tried.current, JSON.stringify(vehicle));
      const posted = await postJson<{ message?: string }>('/api/vehicles', {
        id: tried.current.id,
        ...vehicle,
      });
      if (posted.kind === 'away') return { ok: false, message: posted.message };
      if (!posted.ok) return { ok: false, message: posted.answer.message ?? 'It was not taken.' };
      go(`/vehicles/${id}`);
      return { ok: true };
    },
  });
  return (
    <form onSubmit={form.submit} className="grid max-w-xl gap-3 py-2" data-testid="add-vehicle">
      <div className="grid grid-cols-[3fr_2fr] gap-3">
        <Field label="Its name">
          <input {...form.register('name')} maxLength={80} className={INPUT} placeholder="White tipper" />
        </Field>
        <Field label="Plate, if any">
          <input {...form.register('plate')} maxLength={20} className={INPUT} />
        </Field>
      </div>
      <VoltsChoice
        chosen={form.watch('volts') ?? null}
        onChoose={(volts) => form.setValue('volts', volts, { shouldDirty: true })}
      />
      {form.problem ? <Problem>{form.problem}</Problem> : null}
      <Button type="submit" look="primary" disabled={form.busy} className="min-h-14">
        Add it
      </Button>
    </form>
  );
}
