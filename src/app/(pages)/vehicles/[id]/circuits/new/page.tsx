import { notFound } from 'next/navigation';
import { CircuitView } from '@/features/circuits';
import { loadVehicle } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'New circuit' };

export default async function NewCircuitPage({ params }: { params: Promise<{ id: string }> }) {
  const maps = await loadVehicle(await pageActor(), (await params).id);
  if (!maps) notFound();
  return (
    <div className="px-3 py-4 lg:px-6">
      <p className="text-soft">
        <PlaceLink href={`/vehicles/${maps.vehicle.id}`} className="underline underline-offset-4">
          {maps.vehicle.name}
        </PlaceLink>
      </p>
      <CircuitView
        vehicleId={maps.vehicle.id}
        saved={null}
        version={0}
        nominalVolts={maps.vehicle.nominalVolts}
        panels={maps.panelSet?.file.panels ?? []}
        others={maps.circuits.map((one) => one.file)}
      />
    </div>
  );
}
