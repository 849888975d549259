import { currentActor } from '@/access';
import { searchShop } from '@/features/vehicles/server';
import { answering } from '@/http/answers';

/** Places of each kind that the palette shows. */
const EACH = 8;

/** Jobs, vehicles, circuits and slots of the shop that answer to `text`, as places that can be gone to. */
export function GET(request: Request) {
  return answering(async () => {
    const text = (new URL(request.url).searchParams.get('text') ?? '').slice(0, 80);
    if (text.trim() === '') return Response.json({ places: [] });
    const found = await searchShop(await currentActor(), text, EACH);
    return Response.json({
      places: [
        ...found.vehicles.map((one) => ({ ...one, detail: `vehicle, ${one.detail}` })),
        ...found.jobs,
        ...found.circuits,
        ...found.slots,
      ].map(({ name, detail, href }) => ({ name, detail, href })),
    });
  });
}
