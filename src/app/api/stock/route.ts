import { type StockRequest, validateStockRequest } from '#core/format';
import { currentActor } from '@/access';
import { changeStock, stockOf } from '@/features/stock/server';
import { answering, readRequest } from '@/http/answers';

/** Two thousand items and their counts. */
const LIMIT = 2 * 1024 * 1024;

export const dynamic = 'force-dynamic';

/** What is there, and where. */
export function GET() {
  return answering(async () => Response.json(await stockOf(await currentActor())));
}

/** Items, places, moves, counts: one request, once. */
export function POST(request: Request) {
  return answering(async () => {
    const input = await readRequest<StockRequest>(request, validateStockRequest, LIMIT);
    if (!input.ok) return input.answer;
    const actor = await currentActor();
    const changed = await changeStock(actor, input.value);
    return changed.ok
      ? Response.json({ ok: true, stock: await stockOf(actor) })
      : Response.json(changed, { status: 409 });
  });
}
