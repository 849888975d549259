import { notFound } from 'next/navigation';
import { PanelEditor } from '@/features/panels';
import { loadVehicle } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'Edit a box' };

export default async function EditPanelPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ box?: string }>;
}) {
  const maps = await loadVehicle(await pageActor(), (await params).id);
  if (!maps) notFound();
  const { box } = await searchParams;
  return (
    <div className="px-4 py-4 lg:px-6">
      <p className="text-soft">
        <PlaceLink href={`/vehicles/${maps.vehicle.id}`} className="underline underline-offset-4">
          {maps.vehicle.name}
        </PlaceLink>
      </p>
      <PanelEditor
        vehicleId={maps.vehicle.id}
        vehicleName={maps.vehicle.name}
        file={maps.panelSet?.file ?? null}
        version={maps.panelSet?.version ?? 0}
        panelId={box ?? null}
        parts={maps.circuits.flatMap(({ file }) =>
          file.parts.flatMap(({ id, name, kind, slot }) =>
            kind === 'fuse' || kind === 'relay' ? [{ id, name, kind, ...(slot ? { slot } : {}) }] : [],
          ),
        )}
      />
    </div>
  );
}
