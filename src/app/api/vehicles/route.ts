import { type NewVehicle, validateNewVehicle } from '#core/format';
import { addVehicleAlone, chooseVehicles } from '@/features/vehicles/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Most that a choice shows. */
const SHOWN = 20;

/** Vehicles that answer to `text`, for choosing one; with `boxes=1` those alone that have boxes. */
export const GET = door('see', async ({ actor, request }) => {
  const { searchParams } = new URL(request.url);
  const text = (searchParams.get('text') ?? '').slice(0, 80);
  const withBoxes = searchParams.get('boxes') === '1';
  return Response.json({
    vehicles: await chooseVehicles(actor, text, SHOWN, withBoxes),
  });
});

/** Adds a vehicle; asked again it answers the same. */
export const POST = door('work', async ({ actor, request }) => {
  const input = await readRequest<NewVehicle>(request, validateNewVehicle);
  if (!input.ok) return input.answer;
  const made = await addVehicleAlone(actor, input.value);
  return made.ok ? Response.json(made) : refuseWith(400, 'not-added', made.message ?? 'It was not added.');
});
