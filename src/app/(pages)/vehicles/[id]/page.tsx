import { notFound } from 'next/navigation';
import { now } from '@/clock/now';
import { UndoChange } from '@/features/changes';
import { FollowUpList, HazardList, JobLines } from '@/features/jobs';
import {
  changesInForce,
  countJobs,
  JOB_PAGE,
  listJobs,
  openHazards,
  photosOf,
  vehicleFollowUps,
} from '@/features/jobs/server';
import { CopyFromSister, ImportBox, VehicleRecordForm } from '@/features/vehicles';
import { chooseVehicles, customerOf, knownOf, loadVehicle, recordOf } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';
import { ButtonLink, Problem } from '@/ui/controls';
import { dateWords, dayOf } from '@/ui/dates';
import { PlaceLink } from '@/ui/PlaceLink';

/** Vehicles with boxes that are offered for copying before one is searched for. */
const SISTERS = 20;

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }) {
  const maps = await loadVehicle(await pageActor(), (await params).id);
  return { title: maps?.vehicle.name ?? 'No such vehicle' };
}

export default async function VehiclePage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ problem?: string }>;
}) {
  const actor = await pageActor();
  const maps = await loadVehicle(actor, (await params).id);
  const { problem } = await searchParams;
  if (!maps) notFound();
  const { vehicle, circuits, panelSet } = maps;
  const list = { vehicleId: vehicle.id };
  const [jobs, jobCount, hazards, sisters, known, customer, followUps, others, changes, photos] =
    await Promise.all([
      listJobs(actor, list),
      countJobs(actor, list),
      openHazards(actor, { vehicleId: vehicle.id }),
      panelSet === null ? chooseVehicles(actor, '', SISTERS, true) : [],
      knownOf(actor, vehicle.id),
      customerOf(actor, vehicle.customerId),
      vehicleFollowUps(actor, vehicle.id),
      chooseVehicles(actor, '', SISTERS),
      changesInForce(actor, vehicle.id),
      photosOf(actor, vehicle.id),
    ]);
  const day = (iso: string) => dateWords(iso, 'year');
  const today = dayOf(now());
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 lg:px-6">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <h1 className="text-3xl">{vehicle.name}</h1>
          <p className="text-lg text-soft">
            {[`${vehicle.make} ${vehicle.model} ${vehicle.year ?? ''}`.trim(), vehicle.plate]
              .filter((one) => one !== '')
              .join(' · ')}{' '}
            · {vehicle.nominalVolts === null ? 'nominal voltage not known' : `${vehicle.nominalVolts} V`}
            {vehicle.odometerKm === null ? '' : ` · ${vehicle.odometerKm.toLocaleString('en-GB')} km`}
          </p>
        </div>
        <span className="flex flex-wrap gap-2">
          <ButtonLink href={`/vehicles/${vehicle.id}/feed`}>Find a feed</ButtonLink>
          <ButtonLink look="primary" href={`/jobs/new?vehicle=${vehicle.id}`}>
            New job on it
          </ButtonLink>
        </span>
      </div>
      {vehicle.mergedInto ? (
        <p className="mt-3 border-l-4 border-caution bg-caution-wash px-3 py-2">
          This record was merged.{' '}
          <PlaceLink href={`/vehicles/${vehicle.mergedInto}`} className="font-semibold underline">
            To the vehicle that it is
          </PlaceLink>
        </p>
      ) : vehicle.archivedAt ? (
        <p className="mt-3 border-l-4 border-caution bg-caution-wash px-3 py-2">
          Archived {day(vehicle.archivedAt)}: out of the lists.
        </p>
      ) : null}
      <HazardList {...hazards} of="vehicle" today={today} />
      {followUps.length > 0 ? (
        <section aria-labelledby="vehicle-follow-ups" className="mt-4">
          <h2 id="vehicle-follow-ups" className="border-b-2 border-line pb-1 text-xl">
            To come back to
          </h2>
          <FollowUpList items={followUps} today={today} of="vehicle" />
        </section>
      ) : null}
      {vehicle.notes ? <p className="mt-2 max-w-prose">{vehicle.notes}</p> : null}

      <div className="mt-8 grid gap-10 lg:grid-cols-2">
        <section aria-labelledby="boxes">
          <h2 id="boxes" className="border-b-2 border-line pb-2 text-xl">
            Boxes
          </h2>
          {panelSet ? (
            <>
              <ul>
                {panelSet.file.panels.map((panel) => (
                  <li key={panel.id} className="border-b border-line">
                    <PlaceLink
                      href={`/vehicles/${vehicle.id}/panels?box=${panel.id}`}
                      className="flex items-center justify-between gap-3 py-3 hover:bg-sunk"
                    >
                      <span>
                        <span className="block font-bold">{panel.name}</span>
                        <span className="text-soft">{panel.place}</span>
                      </span>
                      <span className="reading whitespace-nowrap text-soft">{panel.slots.length} slots</span>
                    </PlaceLink>
                  </li>
                ))}
              </ul>
              <p className="mt-2 text-sm text-soft">
                Version {panelSet.version} of {day(panelSet.madeAt)} ·{' '}
                <a
                  href={`/api/vehicles/${vehicle.id}/panels`}
                  download
                  className="underline underline-offset-4"
                >
                  Export (JSON)
                </a>
              </p>
            </>
          ) : (
            <p className="py-3 text-soft">No box is mapped yet.</p>
          )}
          <ButtonLink href={`/vehicles/${vehicle.id}/panels/edit`} className="mt-3">
            Draw a new box
          </ButtonLink>
          {problem ? (
            <div className="mt-3">
              <Problem>{problem.slice(0, 200)}</Problem>
            </div>
          ) : null}
          {sisters.length > 0 ? (
            <CopyFromSister vehicleId={vehicle.id} sisters={sisters} more={sisters.length === SISTERS} />
          ) : null}
        </section>

        <section aria-labelledby="circuits">
          <h2 id="circuits" className="border-b-2 border-line pb-2 text-xl">
            Circuits
          </h2>
          {circuits.length === 0 ? <p className="py-3 text-soft">No circuit is mapped yet.</p> : null}
          <ul>
            {circuits.map((circuit) => (
              <li key={circuit.id} className="border-b border-line py-3">
                <PlaceLink
                  href={`/vehicles/${vehicle.id}/circuits/${encodeURIComponent(circuit.file.id)}`}
                  className="block font-bold underline decoration-line decoration-2 underline-offset-4 hover:decoration-copper"
                >
                  {circuit.file.name}
                </PlaceLink>
                <span className="text-soft">
                  {circuit.file.parts.length} parts ·{' '}
                  {circuit.file.functions.map((one) => one.name).join(', ')}
                </span>
                <span className="block text-sm text-soft">
                  Version {circuit.version} of {day(circuit.madeAt)} ·{' '}
                  <a
                    href={`/api/vehicles/${vehicle.id}/circuits/${circuit.file.id}`}
                    download
                    className="underline underline-offset-4"
                  >
                    Export (JSON)
                  </a>{' '}
                  ·{' '}
                  <a
                    href={`/api/vehicles/${vehicle.id}/circuits/${circuit.file.id}?as=text`}
                    download
                    className="underline underline-offset-4"
                  >
                    as text
                  </a>
                </span>
              </li>
            ))}
          </ul>
          <ButtonLink href={`/vehicles/${vehicle.id}/circuits/new`} className="mt-3">
            Write a circuit
          </ButtonLink>
        </section>

        <section aria-labelledby="jobs">
          <h2 id="jobs" className="border-b-2 border-line pb-2 text-xl">
            Jobs <span className="reading text-copper">{jobCount}</span>
          </h2>
          {jobs.length === 0 ? <p className="py-3 text-soft">None yet.</p> : null}
          <JobLines jobs={jobs} of="vehicle" />
          {jobCount > JOB_PAGE ? (
            <ButtonLink href={`/jobs?vehicle=${vehicle.id}`} className="mt-3">
              All {jobCount} jobs on it
            </ButtonLink>
          ) : null}
        </section>

        {changes.length > 0 ? (
          <section aria-labelledby="changes">
            <h2 id="changes" className="border-b-2 border-line pb-2 text-xl">
              Changes in force
            </h2>
            <ul>
              {changes.map((one) => (
                <li key={one.id} className="border-b border-line">
                  <PlaceLink
                    href={`/jobs/${one.jobId}${one.plan === null ? '#repair' : `/change?plan=${one.plan}`}`}
                    className="block py-3 hover:bg-sunk"
                  >
                    <span className="block">{one.words}</span>
                    <span className="block text-sm text-soft">
                      {day(one.madeAt)} · to undo it: {one.undo.join(' ')}
                    </span>
                  </PlaceLink>
                  {one.plan === null ? null : (
                    <UndoChange vehicleId={vehicle.id} job={one.jobId} plan={one.plan} name={one.words} />
                  )}
                </li>
              ))}
            </ul>
          </section>
        ) : null}

        {photos.length > 0 ? (
          <section aria-labelledby="photos">
            <h2 id="photos" className="border-b-2 border-line pb-2 text-xl">
              Photos
            </h2>
            <ul className="mt-3 grid grid-cols-3 gap-2 sm:grid-cols-4">
              {photos.map((one) => (
                <li key={one.id}>
                  <PlaceLink href={`/jobs/${one.jobId}`}>
                    {/* biome-ignore lint/performance/noImgElement: the picture comes from this server as it is */}
                    <img
                      src={`/api/photos/${one.id}`}
                      alt={`Of the job “${one.title}”`}
                      loading="lazy"
                      className="aspect-square w-full rounded object-cover"
                    />
                  </PlaceLink>
                </li>
              ))}
            </ul>
          </section>
        ) : null}

        {vehicle.mergedInto ? null : (
          <VehicleRecordForm
            vehicleId={vehicle.id}
            record={recordOf(vehicle)}
            known={known}
            customer={customer}
            archived={vehicle.archivedAt !== null}
            others={others.filter(({ id }) => id !== vehicle.id)}
            today={today}
          />
        )}

        <ImportBox vehicleId={vehicle.id} circuits={circuits.map(({ file }) => file.id)} />
      </div>
    </div>
  );
}
