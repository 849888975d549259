import { now } from '@/clock/now';
import { HazardList } from '@/features/jobs';
import { openHazards } from '@/features/jobs/server';
import { pageActor } from '@/http/pageActor';
import { dayOf } from '@/ui/dates';

export const metadata = { title: 'Open hazards' };
export const dynamic = 'force-dynamic';

/** So many at once; a shop with more has other worries. */
const MOST = 500;

/** The register of what is not as it should be on the shop's vehicles: temporary parts and the rest, overdue first. */
export default async function HazardsPage() {
  const hazards = await openHazards(await pageActor(), { limit: MOST });
  return (
    <div className="mx-auto max-w-3xl px-4 py-6 lg:px-6">
      <h1 className="text-3xl">Open hazards</h1>
      <p className="mt-2 max-w-prose text-soft">
        Temporary parts, exchanged parts, appliances in quarantine, jobs that were left unsafe. They outlive
        their jobs: each ends on the page of its job, by the right part or by a decision under a name.
      </p>
      {hazards.count === 0 ? <p className="mt-4">Nothing is open.</p> : null}
      <HazardList {...hazards} today={dayOf(now())} />
    </div>
  );
}
