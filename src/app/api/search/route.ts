import { searchShop } from '@/features/vehicles/server';
import { door } from '@/http/door';

/** Places of each kind that the palette shows. */
const EACH = 8;

/** Jobs, vehicles, circuits and slots of the shop that answer to `text`, as places that can be gone to. */
export const GET = door('see', async ({ actor, request }) => {
  const text = (new URL(request.url).searchParams.get('text') ?? '').slice(0, 80);
  if (text.trim() === '') return Response.json({ places: [] });
  const found = await searchShop(actor, text, EACH);
  return Response.json({
    places: [
      ...found.vehicles.map((one) => ({ ...one, detail: `vehicle, ${one.detail}` })),
      ...found.jobs,
      ...found.circuits,
      ...found.slots,
    ].map(({ name, detail, href }) => ({ name, detail, href })),
  });
});
