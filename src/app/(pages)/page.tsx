import { ChevronRight } from 'lucide-react';
import { currentActor } from '@/access';
import { FollowUpList, JobLines } from '@/features/jobs';
import { countJobs, dueFollowUps, type JobRow, listJobs } from '@/features/jobs/server';
import { countVehicles, recentVehicles } from '@/features/vehicles/server';
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
      href={`/jobs/${job.id}/trace`}
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

export default async function TodayPage() {
  const actor = await currentActor();
  const [open, openCount, closed, due, vehicles, vehicleCount] = await Promise.all([
    listJobs(actor, 'open'),
    countJobs(actor, 'open'),
    listJobs(actor, 'closed', { limit: CLOSED_LAST }),
    dueFollowUps(actor, dayOf(new Date())),
    recentVehicles(actor, RECENT_VEHICLES),
    countVehicles(actor),
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
            <FollowUpList items={due.overdue.shown} overdue />
            {due.ahead.count > 0 ? <h3 className="mt-2 font-bold">Ahead {due.ahead.count}</h3> : null}
            <FollowUpList items={due.ahead.shown} />
            {due.overdue.count + due.ahead.count > due.overdue.shown.length + due.ahead.shown.length ? (
              <PlaceLink href="/follow-ups" className={MORE}>
                All {due.overdue.count + due.ahead.count} of them
              </PlaceLink>
            ) : null}
          </section>
          <section aria-labelledby="vehicles">
            <h2 id="vehicles" className="border-b-2 border-line pb-2 text-xl">
              Vehicles
            </h2>
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
