import { type StockRequest, validateStockRequest } from '#core/format';
import { changeStock, stockOf } from '@/features/stock/server';
import { readRequest } from '@/http/answers';
import { door } from '@/http/door';

/** Two thousand items and their counts. */
const LIMIT = 2 * 1024 * 1024;

export const dynamic = 'force-dynamic';

/** What is there, and where. */
export const GET = door('see', async ({ actor }) => Response.json(await stockOf(actor)));

/** Items, places, moves, counts: one request, once. */
export const POST = door('work', async ({ actor, request }) => {
  const input = await readRequest<StockRequest>(request, validateStockRequest, LIMIT);
  if (!input.ok) return input.answer;
  const changed = await changeStock(actor, input.value);
  return changed.ok
    ? Response.json({ ok: true, stock: await stockOf(actor) })
    : Response.json(changed, { status: 409 });
});
