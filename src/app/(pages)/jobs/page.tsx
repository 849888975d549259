import { isUuid } from '#core/format';
import { BringJob, JobLines } from '@/features/jobs';
import { countJobs, JOB_PAGE, listJobs } from '@/features/jobs/server';
import { loadVehicle } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';
import { ButtonLink } from '@/ui/controls';

export const metadata = { title: 'Jobs' };

/** All jobs of a list, a page at a time: open, closed, or those of one vehicle. */
export default async function JobsPage({
  searchParams,
}: {
  searchParams: Promise<{
    list?: string | string[];
    vehicle?: string | string[];
    after?: string | string[];
  }>;
}) {
  const actor = await pageActor();
  const asked = await searchParams;
  const vehicle = isUuid(asked.vehicle) ? await loadVehicle(actor, asked.vehicle) : null;
  const list = vehicle ? { vehicleId: vehicle.vehicle.id } : asked.list === 'closed' ? 'closed' : 'open';
  const after = isUuid(asked.after) ? asked.after : null;
  const [jobs, count] = await Promise.all([listJobs(actor, list, { after }), countJobs(actor, list)]);
  const last = jobs.at(-1);
  const here = new URLSearchParams(
    vehicle ? { vehicle: vehicle.vehicle.id } : { list: list === 'closed' ? 'closed' : 'open' },
  );
  const title = vehicle ? `Jobs on ${vehicle.vehicle.name}` : list === 'closed' ? 'Closed jobs' : 'Open jobs';
  return (
    <div className="mx-auto max-w-3xl px-4 py-6 lg:px-6">
      <h1 className="text-3xl">
        {title} <span className="reading text-copper">{count}</span>
      </h1>
      {vehicle ? null : (
        <ButtonLink href={list === 'closed' ? '/jobs' : '/jobs?list=closed'} className="mt-3">
          {list === 'closed' ? 'Open jobs' : 'Closed jobs'}
        </ButtonLink>
      )}
      <div className="mt-4 border-t-2 border-line">
        {jobs.length === 0 ? <p className="py-4 text-soft">None.</p> : null}
        <JobLines jobs={jobs} of={vehicle ? 'vehicle' : 'shop'} />
      </div>
      {jobs.length === JOB_PAGE && last ? (
        <ButtonLink href={`/jobs?${here}&after=${last.id}`} className="mt-4">
          The next {JOB_PAGE}
        </ButtonLink>
      ) : null}
      {vehicle ? null : <BringJob />}
    </div>
  );
}
