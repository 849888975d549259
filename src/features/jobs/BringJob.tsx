'use client';

import { useRouter } from 'next/navigation';
import { useBringFile } from '@/sync/useBringFile';
import { BringFile } from '@/ui/BringFile';
import { PlaceLink } from '@/ui/PlaceLink';

/** Brings a job in from the file that another workshop's program, or this one, gave out. */
export function BringJob() {
  const router = useRouter();
  const brought = useBringFile<{ ok: true; id: string; sentence: string }>('/api/jobs/import', () =>
    router.refresh(),
  );
  const done = brought.outcome?.kind === 'done' ? brought.outcome.answer : null;
  return (
    <section aria-labelledby="bring-job" className="mt-10">
      <h2 id="bring-job" className="border-b-2 border-line pb-2 text-xl">
        Bring a job in
      </h2>
      <p className="mt-3 max-w-prose text-soft">
        A job file (JSON), as the hand-over gives it out: with its vehicle, the maps it was traced on, and
        every entry as it was made. Maps that are here already are not changed.
      </p>
      <BringFile {...brought} accept=".json,application/json" sentence={done?.sentence ?? null} />
      {done ? (
        <PlaceLink
          href={`/jobs/${done.id}`}
          className="mt-2 inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
        >
          To the job
        </PlaceLink>
      ) : null}
    </section>
  );
}
