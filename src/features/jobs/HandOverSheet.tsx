'use client';

import { useState } from 'react';
import { customerSheetOf, type Sheet, type SheetLine, sheetOf } from '#core/log';
import { Button } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { useLater } from '@/ui/useLater';
import { headLines, sheetKind, vehicleWords } from '@/workers/sheetHead';
import { FileLink } from './FileLink';
import { useJob } from './JobProvider';
import { PhotosOnSheet } from './PhotosOnSheet';
import type { Reader } from './SheetTools';

/** Labels and handing over: not looked at first. */
const loadTools = () => import('./SheetTools').then((loaded) => loaded.SheetTools);
const NO_EXPECTATIONS = {};

/** Answers from the paper alone: what failed, why, what changed, what is temporary, what is untested, how to undo. */
export function HandOverSheet() {
  const { data, job, circuit, diagnosis, nominalVolts } = useJob();
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
      <div className="no-print mb-4 grid min-h-60 content-start gap-3 sm:min-h-44">
        {Tools ? <Tools reader={reader} onReader={setReader} /> : null}
      </div>
      <article className="border-2 border-line bg-sheet p-6 print:border-0 print:p-0" data-testid="sheet">
        <header className="border-b-4 border-copper pb-3">
          <p className="text-sm text-soft">{sheetKind(reader)}</p>
          <h2 className="text-2xl">{data.title}</h2>
          <p>{vehicleWords(data.vehicle)}</p>
          <p className="text-lg font-bold" data-testid="sheet-standing">
            {sheet.standing}
          </p>
          {headLines(data, sheet).map((line) => (
            <p key={line} className="text-soft">
              {line}
            </p>
          ))}
        </header>
        {working ? (
          <p role="status" className="mt-3 min-h-dvh">
            What the readings mean is being worked out; the sheet is whole in a moment.
          </p>
        ) : (
          <Parts sheet={sheet} />
        )}
        <PhotosOnSheet />
        <p className="mt-6 border-t border-line pt-2 text-sm text-soft">
          The maker’s service information and local rules take precedence over this sheet.
        </p>
      </article>
    </div>
  );
}

/** What is open, and every part of the sheet. */
function Parts({ sheet }: { sheet: Sheet }) {
  return (
    <>
      {sheet.open.length > 0 ? (
        <p className="mt-3 border-2 border-ink p-2 font-bold">Not verified: {sheet.open.join('; ')}.</p>
      ) : null}
      {sheet.parts.map(({ title, lines, empty }) => (
        <section key={title} className="mt-4" data-part={title}>
          <h3 className="break-after-avoid font-bold text-copper">{title}</h3>
          {lines.length === 0 ? <p>{empty}</p> : null}
          <ul>
            {lines.map((line, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have no other identity, and never move
              <Line key={index} line={line} />
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}

function Line({ line: { words, by, more } }: { line: SheetLine }) {
  return (
    <li className="break-inside-avoid border-b border-line py-1 text-[0.95rem]">
      <span className="flex items-baseline justify-between gap-3">
        <span>{words}</span>
        {by ? (
          <span className="shrink-0 text-sm text-soft">
            {by.person}, <span className="reading">{dateWords(by.at, 'time')}</span>
          </span>
        ) : null}
      </span>
      {more ? <span className="block text-sm text-soft">{more}</span> : null}
    </li>
  );
}
