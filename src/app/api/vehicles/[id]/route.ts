import { isUuid, type VehicleChange, validateVehicleChange } from '#core/format';
import { currentActor } from '@/access';
import { changeVehicle } from '@/features/vehicles/server';
import { answering, readRequest, refuseWith } from '@/http/answers';

/** Puts the record of a vehicle right, archives or merges it, keeps or erases its customer. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const { id } = await params;
    if (!isUuid(id)) return refuseWith(404, 'unknown-vehicle', 'There is no such vehicle in this shop.');
    const input = await readRequest<VehicleChange>(request, validateVehicleChange);
    if (!input.ok) return input.answer;
    const changed = await changeVehicle(await currentActor(), id, input.value);
    return changed.ok ? Response.json(changed) : refuseWith(409, 'not-changed', changed.message);
  });
}
