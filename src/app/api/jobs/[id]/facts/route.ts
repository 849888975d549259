import { type PartFact, validateFact } from '#core/format';
import { learnOnJob } from '@/features/jobs/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Takes what was learned of one part while tracing. */
export const POST = door<{ id: string }>('work', async ({ actor, request, params }) => {
  const fact = await readRequest<PartFact>(request, validateFact);
  if (!fact.ok) return fact.answer;
  const result = await learnOnJob(actor, params.id, fact.value);
  return result.ok ? Response.json(result) : refuseWith(400, 'not-learned', result.message);
});
