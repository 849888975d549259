import { ChevronRight } from 'lucide-react';
import type { Level } from '#core/stock';
import { now } from '@/clock/now';
import { FollowUpList, HazardList, JobLines } from '@/features/jobs';
import { countJobs, dueFollowUps, type JobRow, listJobs, openHazards } from '@/features/jobs/server';
import { shortItems } from '@/features/stock/server';
import { AddVehicleFold, FindVehicle } from '@/features/vehicles';
import { countVehicles, recentVehicles } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';
import { ButtonLink } from '@/ui/controls';
import { dayOf } from '@/ui/dates';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'Today' };

const RECENT_VEHICLES = 8;
const CLOSED_LAST = 5;
const MORE = 'flex min-h-11 items-center font-semibold underline underline-offset-4';

/** The job that was worked on last, straight to the card that waits. */
function GoOn({ job }: { job: JobRow }) {
  return (
    <PlaceLink
      href={job.stage === 'working' || job.stage === 'done' ? `/jobs/${job.id}` : `/jobs/${job.id}/trace`}
      className="mt-4 flex min-h-16 items-center justify-between gap-3 rounded-lg border-2 border-copper bg-sheet px-4 py-2 hover:bg-copper-wash"
      data-testid="go-on"
    >
      <span className="min-w-0">
        <span className="block text-sm text-soft">Go on · {job.vehicleName}</span>
        <span className="block text-lg leading-tight font-bold">{job.title}</span>
      </span>
      <ChevronRight aria-hidden="true" className="size-7 shrink-0 text-copper" />
    </PlaceLink>
  );
}

/** A shop without vehicles: what comes first, and what the words of this work mean here. */
function FirstUse() {
  return (
    <section aria-labelledby="first-use" className="mt-4 rounded-lg border-2 border-copper bg-sheet p-4">
      <h2 id="first-use" className="text-xl">
        Begin with what stands in the bay
      </h2>
      <ol className="mt-2 list-decimal space-y-2 pl-5">
        <li>
          <strong>Something is dead:</strong> a new job asks for the vehicle by name, what fails, and what its
          circuit is like, and goes straight to the first test. Nothing has to be mapped before.
        </li>
        <li>
          <strong>A box</strong> is any carrier of fuses and relays. Drawn once, row by row, it says from then
          on where a slot is, as you hold it.
        </li>
        <li>
          <strong>A circuit</strong> is the way of the current from battery to earth. A pattern gives one in a
          few taps; what you learn at the vehicle goes into it.
        </li>
      </ol>
      <ButtonLink look="primary" href="/jobs/new" className="mt-3 h-14 px-6 text-lg">
        New job
      </ButtonLink>
    </section>
  );
}

/** What the stock is short of, in one line. */
function Short({ items }: { items: readonly Level[] }) {
  const named = items.slice(0, 3).map(({ item }) => item.name);
  return (
    <PlaceLink
      href="/stock"
      className="mt-3 flex min-h-12 items-center justify-between gap-3 border-l-4 border-caution bg-sheet px-3 py-1 hover:bg-sunk"
      data-testid="short"
    >
      <span className="min-w-0">
        <span className="font-semibold text-caution">Short: {items.length}</span> {named.join(', ')}
        {items.length > named.length ? ` and ${items.length - named.length} more` : ''}
      </span>
      <ChevronRight aria-hidden="true" className="size-5 shrink-0" />
    </PlaceLink>
  );
}

export default async function TodayPage() {
  const actor = await pageActor();
  const today = dayOf(now());
  const [open, openCount, closed, due, vehicles, vehicleCount, hazards, short] = await Promise.all([
    listJobs(actor, 'open'),
    countJobs(actor, 'open'),
    listJobs(actor, 'closed', { limit: CLOSED_LAST }),
    dueFollowUps(actor, today),
    recentVehicles(actor, RECENT_VEHICLES),
    countVehicles(actor),
    openHazards(actor),
    shortItems(actor),
  ]);
  return (
    <div className="mx-auto max-w-6xl px-4 py-3 lg:px-6 lg:py-6">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h1 className="text-3xl">Today</h1>
        <span className="hidden lg:block">
          <ButtonLink look="primary" href="/jobs/new" className="h-14 px-6 text-lg">
            New job
          </ButtonLink>
        </span>
      </div>
      {open[0] ? <GoOn job={open[0]} /> : null}
      {vehicleCount === 0 ? <FirstUse /> : null}
      {due.overdue.count > 0 ? (
        <PlaceLink
          href="/follow-ups"
          className="mt-3 flex min-h-12 items-center justify-between gap-3 border-l-4 border-bad bg-sheet px-3 font-semibold text-bad lg:hidden"
          data-testid="overdue-first"
        >
          <span>
            Overdue: {due.overdue.count} {due.overdue.count === 1 ? 'follow-up' : 'follow-ups'}
          </span>
          <ChevronRight aria-hidden="true" className="size-5 shrink-0" />
        </PlaceLink>
      ) : null}
      <HazardList {...hazards} today={today} />
      {short.length > 0 ? <Short items={short} /> : null}
      <div className="mt-6 grid gap-10 lg:grid-cols-[1fr_20rem]">
        <section aria-labelledby="open-jobs">
          <h2 id="open-jobs" className="border-b-2 border-line pb-2 text-xl">
            Open jobs <span className="reading text-copper">{openCount}</span>
          </h2>
          {open.length === 0 ? <p className="py-4 text-soft">No job is open.</p> : null}
          <JobLines jobs={open} />
          {openCount > open.length ? (
            <PlaceLink href="/jobs" className={MORE}>
              All {openCount} open jobs
            </PlaceLink>
          ) : null}
          <h2 className="mt-8 border-b-2 border-line pb-2 text-xl">Closed last</h2>
          {closed.length === 0 ? <p className="py-4 text-soft">None yet.</p> : null}
          <JobLines jobs={closed} />
          <PlaceLink href={closed.length === CLOSED_LAST ? '/jobs?list=closed' : '/jobs'} className={MORE}>
            {closed.length === CLOSED_LAST ? 'All closed jobs' : 'All jobs, and bringing one in'}
          </PlaceLink>
        </section>
        <aside className="space-y-8">
          <section aria-labelledby="follow-ups">
            <h2 id="follow-ups" className="border-b-2 border-line pb-2 text-xl">
              Follow-ups
            </h2>
            {due.overdue.count + due.ahead.count === 0 ? (
              <p className="py-3 text-soft">Nothing is due.</p>
            ) : null}
            {due.overdue.count > 0 ? (
              <h3 className="mt-2 font-bold text-bad" data-testid="overdue">
                Overdue {due.overdue.count}
              </h3>
            ) : null}
            <FollowUpList items={due.overdue.shown} today={today} />
            {due.ahead.count > 0 ? <h3 className="mt-2 font-bold">Ahead {due.ahead.count}</h3> : null}
            <FollowUpList items={due.ahead.shown} today={today} />
            {due.overdue.count + due.ahead.count > due.overdue.shown.length + due.ahead.shown.length ? (
              <PlaceLink href="/follow-ups" className={MORE}>
                All {due.overdue.count + due.ahead.count} of them
              </PlaceLink>
            ) : null}
          </section>
          <section aria-labelledby="vehicles">
            <h2 id="vehicles" className="border-b-2 border-line pb-2 text-xl">
              Vehicles <span className="reading text-copper">{vehicleCount}</span>
            </h2>
            <FindVehicle />
            <AddVehicleFold />
            <ul>
              {vehicles.map((vehicle) => (
                <li key={vehicle.id} className="border-b border-line">
                  <PlaceLink
                    href={`/vehicles/${vehicle.id}`}
                    className="flex min-h-12 items-center justify-between gap-3 py-2 hover:bg-sunk"
                  >
                    <span className="font-semibold">{vehicle.name}</span>
                    <span className="text-sm text-soft">{vehicle.plate}</span>
                  </PlaceLink>
                </li>
              ))}
            </ul>
            {vehicleCount > vehicles.length ? (
              <PlaceLink href="/vehicles" className={MORE}>
                All {vehicleCount} vehicles
              </PlaceLink>
            ) : null}
          </section>
        </aside>
      </div>
    </div>
  );
}
