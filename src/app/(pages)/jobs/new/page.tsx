import { isUuid } from '#core/format';
import { currentActor } from '@/access';
import { NewJobForm } from '@/features/jobs';
import { countVehicles, knownVehicles, recentVehicles } from '@/features/vehicles/server';

export const metadata = { title: 'New job' };

/** Vehicles that are offered before one is searched for. */
const OFFERED = 12;

export default async function NewJobPage({
  searchParams,
}: {
  searchParams: Promise<{ vehicle?: string | string[] }>;
}) {
  const actor = await currentActor();
  const { vehicle } = await searchParams;
  const [recent, count, chosen] = await Promise.all([
    recentVehicles(actor, OFFERED),
    countVehicles(actor),
    isUuid(vehicle) ? knownVehicles(actor, [vehicle]) : [],
  ]);
  const vehicles = [...chosen, ...recent.filter((one) => one.id !== chosen[0]?.id)];
  return (
    <div className="mx-auto max-w-6xl px-4 py-6 lg:px-6">
      <h1 className="mb-5 text-3xl">New job</h1>
      <NewJobForm vehicles={vehicles} more={count > vehicles.length} chosen={chosen[0]?.id ?? null} />
    </div>
  );
}
