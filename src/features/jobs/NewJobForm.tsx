'use client';

import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { newId } from './outbox';

export function NewJobForm({
  vehicles,
  chosen,
}: {
  vehicles: readonly { id: string; name: string; plate: string }[];
  chosen: string | null;
}) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const open = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const title = String(form.get('title') ?? '').trim();
    const vehicleId = String(form.get('vehicle') ?? '');
    if (title === '') return setProblem('Say in a few words what fails.');
    setBusy(true);
    setProblem(null);
    const id = newId();
    try {
      const response = await fetch('/api/jobs', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ id, vehicleId, title }),
      });
      const answer = (await response.json()) as { message?: string };
      if (!response.ok) throw new Error(answer.message);
      router.push(`/jobs/${id}`);
    } catch (error) {
      const said = error instanceof Error && error.message ? error.message : '';
      setProblem(
        said.includes('fetch') || said === ''
          ? 'The server did not answer. What you wrote is still here; try again.'
          : said,
      );
      setBusy(false);
    }
  };
  return (
    <form onSubmit={open} className="grid max-w-xl gap-4">
      <Field label="Vehicle">
        <select name="vehicle" defaultValue={chosen ?? vehicles[0]?.id} className={INPUT}>
          {vehicles.map((vehicle) => (
            <option key={vehicle.id} value={vehicle.id}>
              {vehicle.name} · {vehicle.plate}
            </option>
          ))}
        </select>
      </Field>
      <Field label="What fails, in a few words">
        <input
          name="title"
          maxLength={160}
          className={INPUT}
          placeholder="Step lamp dead, interior lamps work"
        />
      </Field>
      {problem ? <Problem>{problem}</Problem> : null}
      <div>
        <Button look="primary" type="submit" disabled={busy} className="h-14 px-6 text-lg">
          Open the job
        </Button>
      </div>
    </form>
  );
}
