import { isUuid } from '#core/format';
import { currentActor } from '@/access';
import { movesOf } from '@/features/stock/server';
import { answering, refuseWith } from '@/http/answers';

/** The latest moves of one item. */
export function GET(request: Request) {
  return answering(async () => {
    const item = new URL(request.url).searchParams.get('item');
    if (!isUuid(item)) return refuseWith(404, 'unknown-item', 'There is no such item in this stock.');
    return Response.json({ moves: await movesOf(await currentActor(), item) });
  });
}
