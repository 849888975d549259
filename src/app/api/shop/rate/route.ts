import { validateRateRequest } from '#core/format';
import { keepRate } from '@/features/shop/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Keeps what an hour of the shop costs. */
export const POST = door('own', async ({ actor, request }) => {
  const input = await readRequest<{ id: string; rate: number | null }>(request, validateRateRequest);
  if (!input.ok) return input.answer;
  const kept = await keepRate(actor, input.value);
  return kept.ok ? Response.json(kept) : refuseWith(400, 'id-taken', kept.message);
});
