import { type NewJob, validateNewJob } from '#core/format';
import { currentActor } from '@/access';
import { beginJob } from '@/features/jobs/server';
import { answering, readRequest, refuseWith } from '@/http/answers';

/** Opens a job with its complaint, and what of vehicle and circuit comes with it; asked again it answers the same. */
export function POST(request: Request) {
  return answering(async () => {
    const input = await readRequest<NewJob>(request, validateNewJob);
    if (!input.ok) return input.answer;
    const made = await beginJob(await currentActor(), input.value);
    return made.ok ? Response.json(made) : refuseWith(400, 'not-opened', made.message);
  });
}
