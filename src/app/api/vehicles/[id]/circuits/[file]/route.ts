import { writeNotation } from '#core/notation';
import { loadVehicle } from '@/features/vehicles/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';
import { fileResponse } from '@/ui/fileResponse';

/** One circuit as JSON, or as text. */
export const GET = door<{ id: string; file: string }>('see', async ({ actor, request, params }) => {
  const { id, file } = params;
  const maps = await loadVehicle(actor, id);
  const circuit = maps?.circuits.find((one) => one.file.id === file);
  if (!circuit) return refuseWith(404, 'not-found', 'There is no such circuit on this vehicle.');
  if (new URL(request.url).searchParams.get('as') === 'text') {
    return new Response(writeNotation(circuit.file, { everything: true }), {
      headers: {
        'Content-Type': 'text/plain; charset=utf-8',
        'Content-Disposition': `attachment; filename="circuit-v${circuit.version}.txt"`,
      },
    });
  }
  return fileResponse(circuit.file, `${circuit.file.id}-v${circuit.version}`);
});
