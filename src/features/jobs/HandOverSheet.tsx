'use client';

import type { ReactNode } from 'react';
import { testInLog } from '#core/diagnosis';
import {
  cellKey,
  conditionName,
  eventWords,
  functionName,
  missingProofs,
  STATE_WORDS,
  valueWords,
} from '#core/log';
import { Button } from '@/ui/controls';
import { dateWords } from '@/ui/dates';
import { BoxesOnSheet } from './BoxesOnSheet';
import { useJob } from './JobProvider';

/** Entries of what was done to the vehicle on the way: work begun, parts exchanged and put back. */
const DONE_TO_IT: readonly string[] = [
  'task-begun',
  'swapped',
  'swap-restored',
  'part-in-place',
  'unit-tried',
];

/** Answers from the paper alone: what failed, why, what changed, what is temporary, what is untested, how to undo. */
export function HandOverSheet() {
  const { data, job, circuit, diagnosis } = useJob();
  const missing = missingProofs(job, diagnosis.proofs);
  const notSeen = diagnosis.proofs.filter(
    (proof) => !job.proofs.has(cellKey(proof.function, proof.condition)),
  );
  const standing = job.entries.filter((entry) => !entry.struck).map((entry) => entry.event);
  const refused = standing.filter(({ body }) => body.kind === 'test-refused');
  const begun = standing.filter(({ body }) => DONE_TO_IT.includes(body.kind));
  const overridden = standing.filter(({ body }) => body.kind === 'task-begun' && body.override);
  const temporary = job.repairs.filter((repair) => repair.temporary);
  const open = job.watches.filter((watch) => watch.done === null);
  const undo = job.repairs.filter((repair) => repair.undo);
  const readings = job.readings.filter((entry) => !entry.struck);
  const minutes = job.repairs.reduce((sum, repair) => sum + (repair.minutes ?? 0), 0);
  return (
    <div className="mx-auto max-w-3xl px-4 py-6 print:max-w-none print:p-0">
      <div className="no-print mb-6 flex flex-wrap gap-2">
        <Button look="primary" onClick={() => window.print()}>
          Print
        </Button>
        <a
          href={`/api/jobs/${data.id}/file`}
          download
          className="inline-flex min-h-11 items-center rounded-md border-2 border-line bg-sheet px-4 font-semibold hover:border-ink"
        >
          Export the job (JSON)
        </a>
      </div>
      <article className="border-2 border-line bg-sheet p-6 print:border-0 print:p-0" data-testid="sheet">
        <header className="border-b-4 border-copper pb-3">
          <p className="text-sm text-soft">Hand-over sheet</p>
          <h2 className="text-2xl">{data.title}</h2>
          <p>
            {data.vehicle.name} · {data.vehicle.make} {data.vehicle.model} {data.vehicle.year} ·{' '}
            {data.vehicle.plate}
          </p>
          <p className="text-soft">
            Opened {dateWords(data.openedAt, 'long')} · reference {data.id.slice(0, 8)} ·{' '}
            {job.state === 'closed' ? 'closed' : 'not closed'}
          </p>
        </header>
        {missing.length > 0 ? (
          <p className="mt-3 border-2 border-ink p-2 font-bold">Not verified: {missing.join('; ')}.</p>
        ) : null}
        <Part title="What failed">
          <p>“{job.complaint?.words ?? 'not recorded'}”</p>
          {job.complaint?.function && job.complaint.condition ? (
            <p>
              {functionName(circuit, job.complaint.function)},{' '}
              {conditionName(circuit, job.complaint.condition)}.
            </p>
          ) : null}
        </Part>
        <Part title="What was found, and why">
          {job.found ? (
            <>
              <p>
                <strong>{job.found.fault}</strong> — {job.found.strength}.
              </p>
              <p>
                Cause {job.found.cause}
                {job.found.causeWords ? `: ${job.found.causeWords}` : '.'}
              </p>
            </>
          ) : (
            <p>Nothing recorded yet.</p>
          )}
        </Part>
        {job.damages.length + job.slotStates.length + job.photos.length > 0 ? (
          <Part title="Boxes as found">
            <BoxesOnSheet />
          </Part>
        ) : null}
        <Part title="Evidence">
          {readings.length === 0 && job.checks.size === 0 ? <p>No reading.</p> : null}
          <table className="w-full border-collapse text-[0.95rem]">
            <tbody>
              {[...job.checks].map(([key, cell]) => {
                const [functionId = '', conditionId = ''] = key.split('|');
                return (
                  <tr key={cell.eventId} className="border-b border-line">
                    <td className="py-1 pr-3">{functionName(circuit, functionId)}</td>
                    <td className="py-1 pr-3 text-soft">{conditionName(circuit, conditionId)}</td>
                    <td className="whitespace-nowrap py-1 text-right font-bold">{STATE_WORDS[cell.state]}</td>
                  </tr>
                );
              })}
              {readings.map((entry) => (
                <tr key={entry.event.id} className="border-b border-line">
                  <td className="py-1 pr-3">{testInLog(circuit, entry.body.test)}</td>
                  <td className="py-1 pr-3 text-soft">
                    {'condition' in entry.body.test
                      ? conditionName(circuit, entry.body.test.condition)
                      : 'removed'}
                  </td>
                  <td className="reading whitespace-nowrap py-1 text-right font-bold">
                    {valueWords(entry.body.value)}
                    {entry.body.testerProved ? '' : ' *'}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {readings.some((entry) => !entry.body.testerProved) ? (
            <p className="mt-1 text-sm">* provisional: the tester had not been proved.</p>
          ) : null}
        </Part>
        <Part title="What was done">
          {job.repairs.length === 0 ? <p>No repair recorded.</p> : null}
          {job.repairs.map((repair) => (
            <p key={repair.words}>
              {repair.words}
              {repair.partsUsed.length > 0
                ? ` Parts: ${repair.partsUsed.map((part) => `${part.count} × ${part.name}`).join(', ')}.`
                : ''}
            </p>
          ))}
          {minutes > 0 ? <p>{minutes} minutes of work.</p> : null}
          {job.watches
            .filter((watch) => watch.done !== null)
            .map((watch) => (
              <p key={watch.eventId}>
                Watched: {watch.words}. Found: {watch.done?.words}
              </p>
            ))}
          {begun.map((event) => (
            <p key={event.id}>{eventWords(circuit, event.body)}.</p>
          ))}
        </Part>
        <Part title="Seen after the repair">
          {job.proofs.size === 0 ? <p>Nothing yet.</p> : null}
          <ul>
            {[...job.proofs].map(([key, cell]) => {
              const [functionId = '', conditionId = ''] = key.split('|');
              const off = cell.state === 'dead' && diagnosis.described?.expected[key] === 'dead';
              return (
                <li key={key}>
                  {functionName(circuit, functionId)}:{' '}
                  {off ? 'off, as it should be' : STATE_WORDS[cell.state]} (
                  {conditionName(circuit, conditionId)})
                </li>
              );
            })}
          </ul>
        </Part>
        <Part title="Temporary">
          {temporary.length === 0 ? <p>Nothing is temporary.</p> : null}
          {temporary.map((repair) => (
            <p key={repair.words}>
              {repair.words} — to be put right by{' '}
              {repair.due ? dateWords(repair.due, 'long') : 'a day not said'}.
            </p>
          ))}
        </Part>
        <Part title="Not tested, and what is left">
          {notSeen.length + refused.length + overridden.length + open.length === 0 && !job.override ? (
            <p>Nothing known.</p>
          ) : null}
          <ul>
            {notSeen.map((proof) => (
              <li key={cellKey(proof.function, proof.condition)}>
                {functionName(circuit, proof.function)} not seen with:{' '}
                {conditionName(circuit, proof.condition)}
              </li>
            ))}
            {refused.map((event) => (
              <li key={event.id}>{eventWords(circuit, event.body)}</li>
            ))}
            {overridden.map((event) => (
              <li key={event.id}>
                Although it was blocked, by {event.person}: {eventWords(circuit, event.body)}
              </li>
            ))}
            {open.map((watch) => (
              <li key={watch.eventId}>
                Watch: {watch.words}
                {watch.due ? `, due ${dateWords(watch.due, 'long')}` : ''}
              </li>
            ))}
            {job.override ? <li>Closed all the same: {job.override}</li> : null}
          </ul>
        </Part>
        <Part title="To undo it">
          {undo.length === 0 ? <p>No note.</p> : null}
          {undo.map((repair) => (
            <p key={repair.undo}>{repair.undo}</p>
          ))}
        </Part>
        <p className="mt-6 border-t border-line pt-2 text-sm text-soft">
          The maker’s service information and local rules take precedence over this sheet.
        </p>
      </article>
    </div>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-4 break-inside-avoid">
      <h3 className="font-bold text-copper">{title}</h3>
      {children}
    </section>
  );
}
