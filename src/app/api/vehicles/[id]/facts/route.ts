import { type PartFact, validateFact } from '#core/format';
import { currentActor } from '@/access';
import { learnFact } from '@/features/vehicles/server';
import { answering, readRequest, refuseWith } from '@/http/answers';

/** Takes what is known of one part of a vehicle, as a new version of its circuits. */
export function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const fact = await readRequest<PartFact>(request, validateFact);
    if (!fact.ok) return fact.answer;
    const result = await learnFact(await currentActor(), (await params).id, fact.value);
    return result.ok ? Response.json(result) : refuseWith(400, 'not-learned', result.message);
  });
}
