import { type NewJob, validateNewJob } from '#core/format';
import { beginJob } from '@/features/jobs/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Opens a job with its complaint, and what of vehicle and circuit comes with it; asked again it answers the same. */
export const POST = door('work', async ({ actor, request }) => {
  const input = await readRequest<NewJob>(request, validateNewJob);
  if (!input.ok) return input.answer;
  const made = await beginJob(actor, input.value);
  return made.ok ? Response.json(made) : refuseWith(400, 'not-opened', made.message);
});
