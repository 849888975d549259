import { loadVehicle } from '@/features/vehicles/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';
import { fileResponse } from '@/ui/fileResponse';

export const GET = door<{ id: string }>('see', async ({ actor, params }) => {
  const maps = await loadVehicle(actor, params.id);
  if (!maps?.panelSet) {
    return refuseWith(404, 'not-found', 'This vehicle has no panel set yet.');
  }
  return fileResponse(maps.panelSet.file, `${maps.panelSet.file.id}-v${maps.panelSet.version}`);
});
