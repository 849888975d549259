import { type HandRequest, validateHandRequest } from '#core/format';
import { currentActor } from '@/access';
import { handOf, keepHand } from '@/features/shop/server';
import { answering, readRequest, refuseWith } from '@/http/answers';
import { workshopZone } from '@/ui/dates';

export const dynamic = 'force-dynamic';

/** Who works here, for which shop and in which zone. */
export function GET() {
  return answering(async () => {
    const actor = await currentActor();
    const { personName, shopName, town } = actor;
    const hand = await handOf(actor);
    return Response.json({ personName, shopName, town, hand, zone: workshopZone() });
  });
}

/** Keeps what the person has at hand and is used to. */
export function POST(request: Request) {
  return answering(async () => {
    const input = await readRequest<HandRequest>(request, validateHandRequest);
    if (!input.ok) return input.answer;
    const kept = await keepHand(await currentActor(), input.value);
    return kept.ok ? Response.json({ hand: input.value.hand }) : refuseWith(400, 'id-taken', kept.message);
  });
}
