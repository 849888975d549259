import { panelSvg, slotsToCsv, type Turns, turnPanel } from '#core/panel';
import { loadVehicle } from '@/features/vehicles/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** One box as SVG, turned as asked, or its slots as CSV. */
export const GET = door<{ id: string; panel: string }>('see', async ({ actor, request, params }) => {
  const { id, panel: panelId } = params;
  const maps = await loadVehicle(actor, id);
  const panel = maps?.panelSet?.file.panels.find((one) => one.id === panelId);
  if (!panel) return refuseWith(404, 'not-found', 'There is no such box.');
  const query = new URL(request.url).searchParams;
  if (query.get('as') === 'csv') {
    return new Response(slotsToCsv(panel.slots), {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': `attachment; filename="${panel.id}.csv"`,
      },
    });
  }
  const turns = (Number(query.get('turns')) & 3) as Turns;
  return new Response(panelSvg(turnPanel(panel, turns, query.get('mirrored') === 'yes')), {
    headers: {
      'content-type': 'image/svg+xml; charset=utf-8',
      'content-disposition': `attachment; filename="${panel.id}.svg"`,
    },
  });
});
