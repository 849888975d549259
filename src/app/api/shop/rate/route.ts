import { validateRateRequest } from '#core/format';
import { currentActor } from '@/access';
import { keepRate } from '@/features/shop/server';
import { answering, readRequest, refuseWith } from '@/http/answers';

/** Keeps what an hour of the shop costs. */
export function POST(request: Request) {
  return answering(async () => {
    const input = await readRequest<{ id: string; rate: number | null }>(request, validateRateRequest);
    if (!input.ok) return input.answer;
    const kept = await keepRate(await currentActor(), input.value);
    return kept.ok ? Response.json(kept) : refuseWith(400, 'id-taken', kept.message);
  });
}
