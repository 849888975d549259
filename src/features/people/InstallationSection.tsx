'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { textOf, useKeptForm } from '@/sync/useKeptForm';
import { Button, Field, INPUT, Problem } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { useSay } from '@/ui/Toast';
import { sent } from './send';

interface Device {
  readonly id: string;
  readonly name: string;
  readonly since: string;
}

/** Phones that the shop shares, and the demo that may go. */
export function InstallationSection({
  devices,
  demoThere,
}: {
  devices: readonly Device[];
  demoThere: boolean;
}) {
  const router = useRouter();
  const say = useSay();
  const [asking, setAsking] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const act = async (body: object, done: string) => {
    const taken = await sent('/api/people', body);
    if (!taken.ok) return setProblem(taken.message);
    setProblem(null);
    setAsking(false);
    say(done);
    router.refresh();
  };
  const form = useKeptForm<{ name: string }>({
    keep: 'new device',
    take: async (values) => {
      const name = textOf(values.name);
      if (name === '') return { ok: false, message: 'Give it a name.', field: 'name' };
      const taken = await sent('/api/people', { kind: 'device', name });
      if (taken.ok) {
        say('This is a phone of the shop now.');
        router.refresh();
      }
      return taken;
    },
  });
  return (
    <section aria-labelledby="devices" className="mt-8" data-testid="devices">
      <h2 id="devices" className="border-b-2 border-line pb-2 text-xl">
        Phones of the shop
      </h2>
      <p className="mt-3 max-w-prose">
        On these, people come in by their name and a short code. It is said on the phone itself: sign in
        there, and give it a name.
      </p>
      <ul className="divide-y divide-line">
        {devices.map((one) => (
          <li key={one.id} className="flex flex-wrap items-center justify-between gap-2 py-1">
            <span>
              {one.name} <span className="text-soft">· since {dateWords(one.since, 'long')}</span>
            </span>
            <Button
              onClick={() =>
                void act({ kind: 'end-device', device: one.id }, `${one.name} is none of the shop any more.`)
              }
            >
              No longer
            </Button>
          </li>
        ))}
      </ul>
      <form onSubmit={form.submit} className="mt-2 flex flex-wrap items-end gap-2">
        <Field label="Name of the phone in your hand">
          <input {...form.register('name')} className={`${INPUT} w-64`} />
        </Field>
        <Button type="submit" disabled={form.busy}>
          Make it one of the shop
        </Button>
        {form.problem ? <Problem>{form.problem}</Problem> : null}
      </form>
      {demoThere ? (
        <div className="mt-6">
          {asking ? (
            <div className="grid max-w-xl gap-2 border-2 border-line p-3">
              <p>Remove the demo with all its vehicles and jobs? Nothing of your shop is touched.</p>
              <div className="flex gap-2">
                <Button look="primary" onClick={() => void act({ kind: 'remove-demo' }, 'The demo is gone.')}>
                  Remove the demo
                </Button>
                <Button onClick={() => setAsking(false)}>Leave it</Button>
              </div>
            </div>
          ) : (
            <Button onClick={() => setAsking(true)}>Remove the demo</Button>
          )}
        </div>
      ) : null}
      {problem ? <Problem>{problem}</Problem> : null}
    </section>
  );
}
