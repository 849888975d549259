import { type HandRequest, validateHandRequest } from '#core/format';
import { shareAddress } from '@/features/people/server';
import { handOf, keepHand } from '@/features/shop/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';
import { workshopZone } from '@/ui/dates';

export const dynamic = 'force-dynamic';

/** Who works here, for which shop and in which zone. */
export const GET = door('see', async ({ actor }) => {
  const { personId, personName, role, shopId, shopName, town, demo } = actor;
  const hand = await handOf(actor);
  return Response.json({
    personId,
    personName,
    role,
    shopId,
    shopName,
    town,
    demo,
    hand,
    zone: workshopZone(),
    share: shareAddress(),
  });
});

/** Keeps what the person has at hand and is used to. */
export const POST = door('work', async ({ actor, request }) => {
  const input = await readRequest<HandRequest>(request, validateHandRequest);
  if (!input.ok) return input.answer;
  const kept = await keepHand(actor, input.value);
  return kept.ok ? Response.json({ hand: input.value.hand }) : refuseWith(400, 'id-taken', kept.message);
});
