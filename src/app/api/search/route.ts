import { currentActor } from '@/access';
import { searchShop } from '@/features/vehicles/server';
import { answering } from '@/http/answers';

/** Vehicles and slots of the shop that answer to `text`, as places that can be gone to. */
export function GET(request: Request) {
  return answering(async () => {
    const text = (new URL(request.url).searchParams.get('text') ?? '').slice(0, 80);
    if (text.trim() === '') return Response.json({ places: [] });
    const found = await searchShop(await currentActor(), text, 12);
    return Response.json({
      places: [
        ...found.vehicles.map((one) => ({
          name: one.name,
          detail: `vehicle, ${one.plate}`,
          href: `/vehicles/${one.id}`,
        })),
        ...found.slots.map((one) => ({
          name: one.name,
          detail: `${one.vehicle}, ${one.panel}`,
          href: `/vehicles/${one.vehicleId}/panels?box=${one.panelId}&slot=${one.slotId}`,
        })),
      ],
    });
  });
}
