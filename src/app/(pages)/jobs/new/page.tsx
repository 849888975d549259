import { isUuid, WORKS } from '#core/format';
import { PATTERNS } from '#core/notation';
import { NewJobForm } from '@/features/jobs';
import { PatternPicture } from '@/features/jobs/server';
import {
  countVehicles,
  functionsOf,
  knownVehicles,
  loadVehicle,
  recentVehicles,
} from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';

export const metadata = { title: 'New job' };

/** Vehicles that are offered before one is searched for. */
const OFFERED = 12;

export default async function NewJobPage({
  searchParams,
}: {
  searchParams: Promise<{ vehicle?: string | string[]; purpose?: string | string[] }>;
}) {
  const actor = await pageActor();
  const { vehicle, purpose } = await searchParams;
  const [recent, count, chosen] = await Promise.all([
    recentVehicles(actor, OFFERED),
    countVehicles(actor),
    isUuid(vehicle) ? knownVehicles(actor, [vehicle]) : [],
  ]);
  const first = chosen[0] ?? recent[0];
  const maps = first && first.circuits > 0 ? await loadVehicle(actor, first.id) : null;
  const vehicles = [...chosen, ...recent.filter((one) => one.id !== chosen[0]?.id)];
  return (
    <div className="mx-auto max-w-6xl px-4 py-3 lg:px-6 lg:py-6">
      <h1 className="mb-3 text-2xl lg:mb-5 lg:text-3xl">New job</h1>
      <NewJobForm
        vehicles={vehicles}
        purpose={WORKS.find((one) => one === purpose) ?? 'fault'}
        more={count > vehicles.length}
        chosen={chosen[0]?.id ?? null}
        functions={maps ? { of: maps.vehicle.id, list: functionsOf(maps) } : null}
        pictures={Object.fromEntries(
          PATTERNS.map(({ id }) => [id, <PatternPicture key={id} pattern={id} />]),
        )}
      />
    </div>
  );
}
