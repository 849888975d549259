import { currentActor } from '@/features/shop/server';
import { loadVehicle } from '@/features/vehicles/server';
import { fileResponse } from '@/ui/fileResponse';

export async function GET(_request: Request, { params }: { params: Promise<{ id: string; file: string }> }) {
  const { id, file } = await params;
  const maps = await loadVehicle(await currentActor(), id);
  const circuit = maps?.circuits.find((one) => one.file.id === file);
  if (!circuit)
    return Response.json({ message: 'There is no such circuit on this vehicle.' }, { status: 404 });
  return fileResponse(circuit.file, `${circuit.file.id}-v${circuit.version}`);
}
