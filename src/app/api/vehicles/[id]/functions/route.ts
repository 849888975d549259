import { functionsOf, loadVehicle } from '@/features/vehicles/server';
import { door } from '@/http/door';

/** What a vehicle does, by its newest circuits: what a complaint can be about. */
export const GET = door<{ id: string }>('see', async ({ actor, params }) => {
  const maps = await loadVehicle(actor, params.id);
  return Response.json({ functions: maps ? functionsOf(maps) : [] });
});
