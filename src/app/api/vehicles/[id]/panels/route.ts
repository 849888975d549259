import { currentActor } from '@/features/shop/server';
import { loadVehicle } from '@/features/vehicles/server';
import { fileResponse } from '@/ui/fileResponse';

export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const maps = await loadVehicle(await currentActor(), (await params).id);
  if (!maps?.panelSet) {
    return Response.json({ message: 'This vehicle has no panel set yet.' }, { status: 404 });
  }
  return fileResponse(maps.panelSet.file, `${maps.panelSet.file.id}-v${maps.panelSet.version}`);
}
