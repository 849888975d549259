'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { readDraft, writeDraft } from '@/sync/drafts';
import { useBringFile } from '@/sync/useBringFile';
import { BringFile } from '@/ui/BringFile';
import { Button, Problem } from '@/ui/controls';
import { circuitOfText } from './circuitOfText';

/** Brings a circuit or panel-set file in; shows every problem at once and changes nothing until it is clean. */
export function ImportBox({
  vehicleId,
  circuits,
}: {
  vehicleId: string;
  /** Circuits of the vehicle, by their ids. */
  circuits: readonly string[];
}) {
  const router = useRouter();
  const brought = useBringFile<{ ok: true; sentence: string }>(`/api/vehicles/${vehicleId}/import`, () =>
    router.refresh(),
  );
  const { outcome } = brought;
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
        sentence={outcome?.kind === 'done' ? outcome.answer.sentence : null}
      />
      {outcome?.kind === 'problems' && outcome.problems.some(({ code }) => code === 'merge-conflict') ? (
        <IntoEditor key={outcome.text} vehicleId={vehicleId} circuits={circuits} text={outcome.text} />
      ) : null}
    </section>
  );
}

/** A file that names parts of the vehicle goes on in the editor, where each is said to be the same or another. */
function IntoEditor({
  vehicleId,
  circuits,
  text,
}: {
  vehicleId: string;
  circuits: readonly string[];
  text: string;
}) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const open = async () => {
    const read = await circuitOfText(text);
    if (!read) return setProblem('The file could not be read here.');
    const own = circuits.includes(read.id) ? read.id : 'new';
    const key = `circuit ${vehicleId} ${own}`;
    const left = readDraft(key);
    if (left !== null && left !== read.text) {
      return setProblem(
        `A text of ${own === 'new' ? 'a new circuit' : own} was left unsaved in the editor. Save or drop it there first; nothing of it is overwritten.`,
      );
    }
    writeDraft(key, read.text);
    router.push(`/vehicles/${vehicleId}/circuits/${encodeURIComponent(own)}`);
  };
  return (
    <div className="mt-3 grid gap-2">
      <Button look="primary" onClick={() => void open()}>
        Say of each part whether it is the same
      </Button>
      {problem ? <Problem>{problem}</Problem> : null}
    </div>
  );
}
