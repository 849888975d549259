import { isUuid } from '#core/format';
import { movesOf } from '@/features/stock/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** The latest moves of one item. */
export const GET = door('see', async ({ actor, request }) => {
  const item = new URL(request.url).searchParams.get('item');
  if (!isUuid(item)) return refuseWith(404, 'unknown-item', 'There is no such item in this stock.');
  return Response.json({ moves: await movesOf(actor, item) });
});
