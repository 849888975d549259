import { currentActor } from '@/access';
import { loadVehicle } from '@/features/vehicles/server';
import { answering, refuseWith } from '@/http/answers';
import { fileResponse } from '@/ui/fileResponse';

export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const maps = await loadVehicle(await currentActor(), (await params).id);
    if (!maps?.panelSet) {
      return refuseWith(404, 'not-found', 'This vehicle has no panel set yet.');
    }
    return fileResponse(maps.panelSet.file, `${maps.panelSet.file.id}-v${maps.panelSet.version}`);
  });
}
