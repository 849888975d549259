import { validateBareRequest } from '#core/format';
import { currentActor } from '@/access';
import { renewFeed } from '@/features/jobs/server';
import { answering, readRequest, refuseWith } from '@/http/answers';

/** Makes a secret address for a calendar; the one before leads nowhere from then on. */
export function POST(request: Request) {
  return answering(async () => {
    const input = await readRequest<{ id: string }>(request, validateBareRequest);
    if (!input.ok) return input.answer;
    const made = await renewFeed(await currentActor(), input.value.id);
    return made.ok ? Response.json(made) : refuseWith(400, 'id-taken', made.message);
  });
}
