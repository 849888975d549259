import { notFound } from 'next/navigation';
import { withSafetyAnswers, withStates } from '#core/panel';
import { tapsOf, VehicleFeeds } from '@/features/feeds';
import { listJobs, slotHistory, surveyedSlots } from '@/features/jobs/server';
import { stockOf } from '@/features/stock/server';
import { loadVehicle } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';
import { type SearchParams, searchOfPage } from '@/http/searchOfPage';
import { ButtonLink } from '@/ui/controls';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'Find a feed' };

/** Where current can be taken on a vehicle: from what all its jobs have read, and its circuits. */
export default async function FeedPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: SearchParams;
}) {
  const actor = await pageActor();
  const maps = await loadVehicle(actor, (await params).id);
  if (!maps) notFound();
  const { vehicle } = maps;
  const [history, readings, stock, jobs] = await Promise.all([
    slotHistory(actor, vehicle.id),
    surveyedSlots(actor, vehicle.id),
    stockOf(actor),
    listJobs(actor, { vehicleId: vehicle.id }),
  ]);
  const panels = withSafetyAnswers(maps.panelSet?.file.panels ?? [], history).map((panel) =>
    withStates(panel, history),
  );
  const job = jobs.find(({ stage }) => stage !== 'closed');
  return (
    <div className="mx-auto max-w-7xl px-4 py-6 lg:px-6">
      <p className="text-soft">
        <PlaceLink href={`/vehicles/${vehicle.id}`} className="underline underline-offset-4">
          {vehicle.name}
        </PlaceLink>
      </p>
      <h1 className="mb-4 text-3xl">Find a feed</h1>
      {panels.length === 0 || vehicle.nominalVolts === null ? (
        <>
          <p className="text-lg">
            {panels.length === 0
              ? 'No box of it is mapped yet: a feed is looked for slot by slot. Draw the box by thumb, then survey it.'
              : 'Its nominal voltage is not known: limits for live and dead follow it. Say it in the record of the vehicle.'}
          </p>
          <ButtonLink
            look="primary"
            className="mt-4"
            href={panels.length === 0 ? `/vehicles/${vehicle.id}/panels/edit` : `/vehicles/${vehicle.id}`}
          >
            {panels.length === 0 ? 'Draw a box' : 'To the vehicle'}
          </ButtonLink>
        </>
      ) : (
        <VehicleFeeds
          vehicleId={vehicle.id}
          panels={panels}
          circuits={maps.circuits.map(({ file }) => file)}
          readings={readings}
          nominalVolts={vehicle.nominalVolts}
          tapsInStock={tapsOf(stock)}
          askedAtFirst={await searchOfPage(searchParams)}
          job={job ? { id: job.id, title: job.title } : null}
        />
      )}
    </div>
  );
}
