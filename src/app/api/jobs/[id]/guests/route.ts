import { type GuestRequest, isUuid, validateGuest } from '#core/format';
import { changeGuests, guestsOf } from '@/features/jobs/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

const FRESH = { headers: { 'Cache-Control': 'no-store' } };

/** Who may read a sheet of the job without an account. */
export const GET = door<{ id: string }>('lead', async ({ actor, params }) =>
  Response.json({ links: isUuid(params.id) ? await guestsOf(actor, params.id) : [] }, FRESH),
);

/** Lets a guest in, or ends that. */
export const POST = door<{ id: string }>('lead', async ({ actor, request, params }) => {
  const input = await readRequest<GuestRequest>(request, validateGuest);
  if (!input.ok) return input.answer;
  const changed = await changeGuests(actor, params.id, input.value);
  if (!changed.ok) return refuseWith(changed.status, 'not-changed', changed.message);
  const links = await guestsOf(actor, params.id);
  return Response.json({ links, ...(changed.token ? { link: `/guest/${changed.token}` } : {}) }, FRESH);
});
