import { notFound } from 'next/navigation';
import { CircuitView } from '@/features/circuits';
import { listJobs } from '@/features/jobs/server';
import { loadVehicle } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'Circuit' };

export default async function CircuitPage({ params }: { params: Promise<{ id: string; file: string }> }) {
  const { id, file } = await params;
  const actor = await pageActor();
  const maps = await loadVehicle(actor, id);
  const shown = maps?.circuits.find((one) => one.file.id === decodeURIComponent(file));
  if (!maps || !shown) notFound();
  const jobs = await listJobs(actor, { vehicleId: maps.vehicle.id });
  return (
    <div className="px-3 py-4 lg:px-6">
      <p className="no-print text-soft">
        <PlaceLink href={`/vehicles/${maps.vehicle.id}`} className="underline underline-offset-4">
          {maps.vehicle.name}
        </PlaceLink>{' '}
        · version {shown.version}
      </p>
      <CircuitView
        key={shown.file.id}
        vehicleId={maps.vehicle.id}
        saved={shown.file}
        version={shown.version}
        nominalVolts={maps.vehicle.nominalVolts}
        panels={maps.panelSet?.file.panels ?? []}
        others={maps.circuits.map((one) => one.file)}
        jobs={jobs.filter(({ stage }) => stage !== 'closed').map(({ id, title }) => ({ id, title }))}
      />
    </div>
  );
}
