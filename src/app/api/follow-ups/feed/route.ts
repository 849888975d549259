import { validateBareRequest } from '#core/format';
import { renewFeed } from '@/features/jobs/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Makes a secret address for a calendar; the one before leads nowhere from then on. */
export const POST = door('work', async ({ actor, request }) => {
  const input = await readRequest<{ id: string }>(request, validateBareRequest);
  if (!input.ok) return input.answer;
  const made = await renewFeed(actor, input.value.id);
  return made.ok ? Response.json(made) : refuseWith(400, 'id-taken', made.message);
});
