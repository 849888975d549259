import { currentActor } from '@/access';
import { chooseVehicles } from '@/features/vehicles/server';
import { answering } from '@/http/answers';

/** Most that a choice shows. */
const SHOWN = 20;

/** Vehicles that answer to `text`, for choosing one; with `boxes=1` those alone that have boxes. */
export function GET(request: Request) {
  return answering(async () => {
    const { searchParams } = new URL(request.url);
    const text = (searchParams.get('text') ?? '').slice(0, 80);
    const withBoxes = searchParams.get('boxes') === '1';
    return Response.json({
      vehicles: await chooseVehicles(await currentActor(), text, SHOWN, withBoxes),
    });
  });
}
