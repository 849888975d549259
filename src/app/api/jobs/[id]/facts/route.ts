import { type PartFact, validateFact } from '#core/format';
import { currentActor } from '@/access';
import { learnOnJob } from '@/features/jobs/server';
import { answering, readRequest, refuseWith } from '@/http/answers';

/** Takes what was learned of one part while tracing. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const fact = await readRequest<PartFact>(request, validateFact);
    if (!fact.ok) return fact.answer;
    const result = await learnOnJob(await currentActor(), (await params).id, fact.value);
    return result.ok ? Response.json(result) : refuseWith(400, 'not-learned', result.message);
  });
}
