'use client';

import { useState } from 'react';
import { customerSheetOf, sheetOf } from '#core/log';
import { useDiagnosis, useJob } from '@/job/JobProvider';
import { Button } from '@/ui/controls';
import { FileLink } from '@/ui/FileLink';
import { useLater } from '@/ui/useLater';
import { headLines, vehicleWords } from '@/workers/sheetHead';
import { PhotosOnSheet } from './PhotosOnSheet';
import { SheetBody, SheetFoot, SheetHead } from './sheet';
import type { Reader } from './sheetReader';

/** Labels and handing over: not looked at first. */
const loadTools = () => import('./SheetTools').then((loaded) => loaded.SheetTools);
const NO_EXPECTATIONS = {};

/** Answers from the paper alone: what failed, why, what changed, what is temporary, what is untested, how to undo. */
export function HandOverSheet() {
  const { data, job, circuit, nominalVolts } = useJob();
  const diagnosis = useDiagnosis();
  const Tools = useLater(loadTools, false, 300);
  const [reader, setReader] = useState<Reader>('technician');
  const scene = {
    job,
    circuit,
    panels: data.panelSet?.panels ?? [],
    nominalVolts,
    proofs: diagnosis.proofs,
    assessment: diagnosis.assessment,
    expected: diagnosis.described?.expected ?? NO_EXPECTATIONS,
  };
  const sheet = reader === 'customer' ? customerSheetOf(scene) : sheetOf(scene);
  // Paper that lacks what the readings mean would be taken for the whole.
  const working =
    Boolean(circuit && job.complaint?.function && nominalVolts !== null) &&
    diagnosis.assessment === null &&
    diagnosis.failure === null;
  return (
    <div className="mx-auto max-w-3xl px-4 py-6 print:max-w-none print:p-0">
      <div className="no-print mb-6 flex flex-wrap gap-2">
        <Button look="primary" onClick={() => window.print()} disabled={working}>
          Print
        </Button>
        <FileLink href={`/api/jobs/${data.id}/sheet${reader === 'customer' ? '?for=customer' : ''}`}>
          PDF
        </FileLink>
        <FileLink href={`/api/jobs/${data.id}/file`}>Export the job (JSON)</FileLink>
      </div>
      <div className="no-print mb-4 grid min-h-76 content-start gap-3 sm:min-h-60">
        {Tools ? <Tools reader={reader} onReader={setReader} /> : null}
      </div>
      <article className="border-2 border-line bg-sheet p-6 print:border-0 print:p-0" data-testid="sheet">
        <SheetHead
          reader={reader}
          title={data.title}
          vehicle={vehicleWords(data.vehicle)}
          standing={sheet.standing}
          lines={headLines(data, sheet)}
        />
        {working ? (
          <p role="status" className="mt-3 min-h-dvh">
            What the readings mean is being worked out; the sheet is whole in a moment.
          </p>
        ) : (
          <SheetBody sheet={sheet} />
        )}
        <PhotosOnSheet />
        <SheetFoot />
      </article>
    </div>
  );
}
