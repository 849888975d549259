'use client';

import type { ReactNode } from 'react';
import type { JobState } from '#core/log';
import type { JobView } from '@/http/places';
import { PlaceLink } from '@/ui/PlaceLink';
import { useJob } from './JobProvider';
import { NewerMaps } from './NewerMaps';
import { Refusals } from './Refusals';
import { StageMark } from './StageMark';

const STEPS = [
  { name: 'Complaint', path: '#complaint', done: (job: JobState) => job.complaint?.function !== undefined },
  { name: 'Box and slot', path: '#find', done: (job: JobState) => job.opened.length > 0 },
  { name: 'Trace', path: '/trace', done: (job: JobState) => job.found !== null },
  { name: 'Conclude', path: '#conclude', done: (job: JobState) => job.found !== null },
  { name: 'Repair', path: '#repair', done: (job: JobState) => job.repairs.length > 0 },
  { name: 'Prove', path: '#prove', done: (job: JobState) => job.proved },
  { name: 'Hand over', path: '/sheet', done: (job: JobState) => job.state === 'closed' },
] as const;

/** Head of every job page: which vehicle, what state, every step in reach, and whether all is sent. */
export function JobFrame({ view, children }: { view: JobView; children: ReactNode }) {
  const { data, job } = useJob();
  return (
    <>
      <header className="no-print lg:sticky lg:top-0 z-20 border-b-2 border-line bg-paper px-3 pt-2 lg:px-5">
        <div className="flex items-center justify-between gap-x-4 lg:flex-wrap">
          <div className="min-w-0">
            <h1 className="truncate text-lg lg:text-xl">{data.title}</h1>
            <p className="hidden truncate text-sm text-soft sm:block">
              <PlaceLink href={`/vehicles/${data.vehicle.id}`} className="underline underline-offset-4">
                {data.vehicle.name}
              </PlaceLink>{' '}
              ·{' '}
              {[
                `${data.vehicle.make} ${data.vehicle.model} ${data.vehicle.year ?? ''}`.trim(),
                data.vehicle.plate,
              ]
                .filter((one) => one !== '')
                .join(' · ')}
            </p>
          </div>
          <div className="flex items-center gap-2">
            <SendingMark />
            <StageMark stage={job.stage} />
          </div>
        </div>
        <nav aria-label="Steps of the job" className="relative -mx-1 mt-1 flex overflow-x-auto">
          {STEPS.map((step, index) => {
            const href = `/jobs/${data.id}${step.path}`;
            const here = step.path === `/${view}`;
            return (
              <PlaceLink
                key={step.name}
                href={href}
                aria-current={here ? 'step' : undefined}
                className={`relative flex min-h-11 shrink-0 items-center gap-1.5 border-b-4 px-2.5 text-[0.95rem] ${
                  here ? 'border-copper font-bold' : 'border-transparent hover:border-line'
                }`}
              >
                <span className="reading text-copper" aria-hidden="true">
                  {step.done(job) ? '✓' : index + 1}
                </span>
                {step.name}
                {step.done(job) ? <span className="sr-only">, done</span> : null}
              </PlaceLink>
            );
          })}
        </nav>
      </header>
      <Refusals />
      <NewerMaps />
      {children}
    </>
  );
}

function SendingMark() {
  const { sending } = useJob();
  const words = {
    idle: 'All recorded',
    sending: 'Sending …',
    waiting: sending.kind === 'waiting' ? `${sending.count} kept here, sent when the server is back` : '',
    refused: sending.kind === 'refused' ? `Not accepted: ${sending.message}` : '',
  }[sending.kind];
  const calm = sending.kind === 'idle' || sending.kind === 'sending';
  return (
    <span
      role="status"
      className={`text-sm ${calm ? 'sr-only lg:not-sr-only lg:text-soft' : 'font-semibold text-caution'}`}
      data-testid="sending"
    >
      {words}
    </span>
  );
}
