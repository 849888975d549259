import { isUuid, type VehicleChange, validateVehicleChange } from '#core/format';
import { may, whyNot } from '#core/log';
import { changeVehicle } from '@/features/vehicles/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** What takes something out of sight, or away: not by whose own word a job does not close either. */
const TAKES_AWAY: readonly VehicleChange['kind'][] = ['archive', 'merge', 'erase-customer'];

/** Puts the record of a vehicle right, archives or merges it, keeps or erases its customer. */
export const POST = door<{ id: string }>('work', async ({ actor, request, params }) => {
  const { id } = params;
  if (!isUuid(id)) return refuseWith(404, 'unknown-vehicle', 'There is no such vehicle in this shop.');
  const input = await readRequest<VehicleChange>(request, validateVehicleChange);
  if (!input.ok) return input.answer;
  if (TAKES_AWAY.includes(input.value.kind) && !may(actor.role, 'lead')) {
    return refuseWith(403, 'not-allowed', whyNot('lead'));
  }
  const changed = await changeVehicle(actor, id, input.value);
  return changed.ok ? Response.json(changed) : refuseWith(409, 'not-changed', changed.message);
});
