import { currentActor } from '@/access';
import { functionsOf, loadVehicle } from '@/features/vehicles/server';
import { answering } from '@/http/answers';

/** What a vehicle does, by its newest circuits: what a complaint can be about. */
export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const maps = await loadVehicle(await currentActor(), (await params).id);
    return Response.json({ functions: maps ? functionsOf(maps) : [] });
  });
}
