import { notFound } from 'next/navigation';
import type { Turns } from '#core/panel';
import { PrintedBox } from '@/features/panels';
import { loadVehicle } from '@/features/vehicles/server';
import { pageActor } from '@/http/pageActor';

export const metadata = { title: 'Box on paper' };

export default async function PrintedBoxPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ box?: string; turns?: string }>;
}) {
  const maps = await loadVehicle(await pageActor(), (await params).id);
  const { box, turns } = await searchParams;
  const panel = maps?.panelSet?.file.panels.find((one) => one.id === box);
  if (!maps || !panel) notFound();
  return (
    <div className="mx-auto max-w-5xl px-4 py-6">
      <PrintedBox vehicle={maps.vehicle.name} panel={panel} turns={(Number(turns) & 3) as Turns} />
    </div>
  );
}
