'use client';

import { ChevronDown, ChevronLeft, Ellipsis } from 'lucide-react';
import { type ReactNode, useCallback, useEffect, useState } from 'react';
import type { JobState } from '#core/log';
import type { JobView } from '@/http/places';
import { loadSaveWaiting } from '@/log/loadSaveWaiting';
import { heldWords } from '@/log/waitingWords';
import { Dialog } from '@/ui/Dialog';
import { PlaceLink } from '@/ui/PlaceLink';
import { useLater } from '@/ui/useLater';
import { useJob } from './JobProvider';
import { StageMark } from './StageMark';

/** Not looked at first, and there when it is wanted. */
const loadRefusals = () => import('./Refusals').then((loaded) => loaded.Refusals);
const loadNewerMaps = () => import('./NewerMaps').then((loaded) => loaded.NewerMaps);
const loadHereToo = () => import('./HereToo').then((loaded) => loaded.HereToo);

const STEPS = [
  { name: 'Complaint', path: '#complaint', done: (job: JobState) => job.complaint?.function !== undefined },
  { name: 'Box and slot', path: '#find', done: (job: JobState) => job.opened.length > 0 },
  { name: 'Trace', path: '/trace', done: (job: JobState) => job.found !== null },
  { name: 'Conclude', path: '#conclude', done: (job: JobState) => job.found !== null },
  { name: 'Repair', path: '#repair', done: (job: JobState) => job.repairs.length > 0 },
  { name: 'Prove', path: '#prove', done: (job: JobState) => job.proved },
  { name: 'Hand over', path: '/sheet', done: (job: JobState) => job.state === 'closed' },
] as const;

/** Those of a job that is work and no fault: nothing is hunted. */
const WORK_STEPS = [
  { name: 'What is to be done', path: '#complaint', done: (job: JobState) => job.complaint !== null },
  { name: 'Boxes', path: '/boxes', done: (job: JobState) => job.slotReadings.length > 0 },
  { name: 'Wires', path: '/wires', done: (job: JobState) => job.wireReadings.length > 0 },
  { name: 'Done', path: '#repair', done: (job: JobState) => job.repairs.length > 0 },
  { name: 'Close', path: '#end', done: (job: JobState) => job.state === 'closed' },
  { name: 'Hand over', path: '/sheet', done: (job: JobState) => job.state === 'closed' },
] as const;

/** Those of a job that changes something: the plan is where it happens. */
const CHANGE_STEPS = [
  WORK_STEPS[0],
  WORK_STEPS[1],
  {
    name: 'Change',
    path: '/change',
    done: (job: JobState) => job.plans.some(({ ended }) => ended?.how === 'carried'),
  },
  ...WORK_STEPS.slice(2),
] as const;

function stepsOf({ complaint }: JobState) {
  if (complaint?.work === 'change') return CHANGE_STEPS;
  return complaint?.work ? WORK_STEPS : STEPS;
}

/** Head of every job page: which vehicle, what state, every step in reach, and whether all is sent. */
export function JobFrame({ view, children }: { view: JobView; children: ReactNode }) {
  const { data, job, refusals, rejection, disagreements } = useJob();
  const [choosing, setChoosing] = useState(false);
  const HereToo = useLater(loadHereToo, false);
  const Refusals = useLater(
    loadRefusals,
    refusals.length > 0 || rejection !== null || disagreements.length > 0,
  );
  const NewerMaps = useLater(loadNewerMaps, false);
  const onGo = useCallback(() => setChoosing(false), []);
  return (
    <>
      <header className="no-print sticky top-0 z-20 border-b-2 border-line bg-paper lg:px-5 lg:pt-2">
        <div className="flex h-12 items-center justify-between gap-x-1 lg:h-auto lg:flex-wrap lg:gap-x-4">
          <PlaceLink
            href="/"
            aria-label="Back to Today"
            className="grid size-12 shrink-0 place-items-center lg:hidden"
          >
            <ChevronLeft aria-hidden="true" className="size-6" />
          </PlaceLink>
          <div className="min-w-0 flex-1">
            <h1 className="text-lg lg:text-xl">
              <button
                type="button"
                aria-haspopup="dialog"
                aria-label={`${data.title}, steps of the job`}
                onClick={() => setChoosing(true)}
                className="flex h-12 w-full items-center gap-1 text-left lg:h-auto"
              >
                <span className="truncate">{data.title}</span>
                <ChevronDown aria-hidden="true" className="size-5 shrink-0 text-copper lg:hidden" />
              </button>
            </h1>
            <p className="hidden truncate text-sm text-soft lg:block">
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
          <div className="flex shrink-0 items-center gap-2">
            {HereToo ? <HereToo /> : null}
            <SendingMark />
            <span className="hidden lg:inline">
              <StageMark stage={job.stage} />
            </span>
            <BarSwitch view={view} />
          </div>
        </div>
        <div className="hidden lg:block">
          <Steps view={view} shape="strip" onGo={onGo} />
        </div>
      </header>
      <Dialog title="Steps of the job" says={data.title} open={choosing} onClose={onGo}>
        <p className="mb-2 flex flex-wrap items-center gap-2">
          <StageMark stage={job.stage} />
          <PlaceLink href={`/vehicles/${data.vehicle.id}`} className="underline underline-offset-4">
            {data.vehicle.name}
          </PlaceLink>
        </p>
        <Steps view={view} shape="list" onGo={onGo} />
      </Dialog>
      {Refusals ? <Refusals /> : null}
      {NewerMaps ? <NewerMaps /> : null}
      {children}
    </>
  );
}

/** The steps of the job: all in a line where there is room, one below the other where they are chosen by thumb. */
function Steps({ view, shape, onGo }: { view: JobView; shape: 'strip' | 'list'; onGo: () => void }) {
  const { data, job } = useJob();
  const SHAPES = {
    strip: { nav: 'relative -mx-1 mt-1 flex overflow-x-auto', step: 'min-h-11 px-2.5', here: 'border-b-4' },
    list: { nav: 'grid', step: 'min-h-14 px-2 text-lg', here: 'border-l-4' },
  } as const;
  const look = SHAPES[shape];
  return (
    <nav aria-label="Steps of the job" className={look.nav}>
      {stepsOf(job).map((step, index) => {
        const here = step.path === `/${view}`;
        return (
          <PlaceLink
            key={step.name}
            href={`/jobs/${data.id}${step.path}`}
            onClick={onGo}
            aria-current={here ? 'step' : undefined}
            className={`relative flex shrink-0 items-center gap-1.5 text-[0.95rem] ${look.step} ${look.here} ${
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
  );
}

/** On a phone: the bar of all that is not this job comes and goes. */
function BarSwitch({ view }: { view: JobView }) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    document.documentElement.dataset.bar = open ? 'open' : '';
    return () => {
      document.documentElement.dataset.bar = '';
    };
  }, [open]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: whoever goes to another view wants the room again
  useEffect(() => setOpen(false), [view]);
  return (
    <button
      type="button"
      aria-label="Everything else"
      aria-expanded={open}
      onClick={() => setOpen(!open)}
      className="grid size-12 place-items-center lg:hidden"
    >
      <Ellipsis aria-hidden="true" className="size-6" />
    </button>
  );
}

function SendingMark() {
  const { sending } = useJob();
  const words = {
    idle: 'All recorded',
    sending: 'Sending …',
    waiting: sending.kind === 'waiting' ? `${sending.count} kept here, sent when the server is back` : '',
    held: sending.kind === 'held' ? heldWords(sending.count, sending.for) : '',
    refused: sending.kind === 'refused' ? `Not accepted: ${sending.message}` : '',
  }[sending.kind];
  const calm = sending.kind === 'idle' || sending.kind === 'sending';
  const [open, setOpen] = useState(false);
  const SaveWaiting = useLater(loadSaveWaiting, false);
  return (
    <span
      role="status"
      className={`max-w-32 text-sm leading-tight lg:max-w-none ${calm ? 'sr-only lg:not-sr-only lg:text-soft' : 'font-semibold text-caution'}`}
      data-testid="sending"
    >
      {calm ? (
        words
      ) : (
        <button
          type="button"
          aria-haspopup="dialog"
          className="min-h-11 text-left"
          onClick={() => setOpen(true)}
        >
          {words}
        </button>
      )}
      <Dialog title="What waits here" open={open} onClose={() => setOpen(false)}>
        <p className="mb-3">
          {words}. It stays in this browser, also when the page is closed. Where the server has another
          address by now, take it along as a file and read it in there, on the Shop page.
        </p>
        {SaveWaiting ? <SaveWaiting /> : null}
      </Dialog>
    </span>
  );
}
