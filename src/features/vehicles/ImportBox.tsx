'use client';

import { useRouter } from 'next/navigation';
import { useBringFile } from '@/sync/useBringFile';
import { BringFile } from '@/ui/BringFile';

/** Brings a circuit or panel-set file in; shows every problem at once and changes nothing until it is clean. */
export function ImportBox({ vehicleId }: { vehicleId: string }) {
  const router = useRouter();
  const brought = useBringFile<{ ok: true; sentence: string }>(`/api/vehicles/${vehicleId}/import`, () =>
    router.refresh(),
  );
  return (
    <section aria-labelledby="import">
      <h2 id="import" className="border-b-2 border-line pb-2 text-xl">
        Bring a file in
      </h2>
      <p className="mt-3 max-w-prose text-soft">
        A circuit (JSON, or text as in the editor) or a panel-set file (JSON). A file that is here already
        becomes a new version; jobs keep the version they were traced on.
      </p>
      <BringFile
        {...brought}
        accept=".json,.txt,application/json,text/plain"
        sentence={brought.outcome?.kind === 'done' ? brought.outcome.answer.sentence : null}
      />
    </section>
  );
}
