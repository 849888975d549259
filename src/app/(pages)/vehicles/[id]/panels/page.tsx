import { notFound } from 'next/navigation';
import { mergeCircuits } from '#core/circuit';
import { slotHistory } from '@/features/jobs/server';
import { PanelBrowser } from '@/features/panels';
import { loadVehicle } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';
import { PlaceLink } from '@/ui/PlaceLink';

export const metadata = { title: 'Panel' };

export default async function PanelsPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ box?: string; slot?: string }>;
}) {
  const actor = await pageActor();
  const maps = await loadVehicle(actor, (await params).id);
  if (!maps?.panelSet) notFound();
  const { box, slot } = await searchParams;
  const { panels } = maps.panelSet.file;
  const panel = panels.find((one) => one.id === box) ?? panels[0]!;
  return (
    <div className="mx-auto max-w-6xl px-3 py-2 lg:px-6 lg:py-6">
      <p className="text-soft">
        <PlaceLink href={`/vehicles/${maps.vehicle.id}`} className="underline underline-offset-4">
          {maps.vehicle.name}
        </PlaceLink>
      </p>
      <h1 className="sr-only mb-5 text-3xl lg:not-sr-only">Boxes</h1>
      <PanelBrowser
        vehicleId={maps.vehicle.id}
        nominalVolts={maps.vehicle.nominalVolts}
        panels={panels}
        circuit={
          maps.circuits.length > 0 ? mergeCircuits(maps.circuits.map((one) => one.file)).circuit : null
        }
        history={await slotHistory(actor, maps.vehicle.id)}
        first={{ panel: panel.id, slot: slot ?? null }}
      />
    </div>
  );
}
