'use client';

import type { CircuitFile, Panel, Slot } from '#core/format';
import type { SlotReading } from '#core/limits';
import { ButtonLink } from '@/ui/controls';
import { FindFeed } from './FindFeed';
import { readHref, readWords } from './readLink';

/** Find a feed from a vehicle: readings of all its jobs; what is still to be read goes on in one of them. */
export function VehicleFeeds({
  vehicleId,
  panels,
  circuits,
  readings,
  nominalVolts,
  tapsInStock,
  askedAtFirst,
  job,
}: {
  vehicleId: string;
  panels: readonly Panel[];
  circuits: readonly CircuitFile[];
  readings: readonly SlotReading[];
  nominalVolts: number;
  tapsInStock: readonly Slot['family'][];
  askedAtFirst: string;
  /** The open job of the vehicle that was worked on last; null where it has none. */
  job: { readonly id: string; readonly title: string } | null;
}) {
  return (
    <FindFeed
      vehicleId={vehicleId}
      panels={panels}
      circuits={circuits}
      readings={readings}
      nominalVolts={nominalVolts}
      tapsInStock={tapsInStock}
      askedAtFirst={askedAtFirst}
      addressOf={(search) => `/vehicles/${vehicleId}/feed${search === '' ? '' : `?${search}`}`}
      toRead={(panel, slot, state, holes) => (
        <ButtonLink
          href={
            job
              ? readHref(job.id, panel, slot, state, holes)
              : `/jobs/new?vehicle=${vehicleId}&purpose=survey`
          }
        >
          {readWords(state, holes)}
        </ButtonLink>
      )}
      deeds={() =>
        job ? (
          <ButtonLink href={`/jobs/${job.id}/feed`}>On the job “{job.title}”</ButtonLink>
        ) : (
          <ButtonLink href={`/jobs/new?vehicle=${vehicleId}&purpose=change`}>New job for it</ButtonLink>
        )
      }
    />
  );
}
