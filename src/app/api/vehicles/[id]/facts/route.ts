import { type PartFact, validateFact } from '#core/format';
import { learnFact } from '@/features/vehicles/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Takes what is known of one part of a vehicle, as a new version of its circuits. */
export const POST = door<{ id: string }>('work', async ({ actor, request, params }) => {
  const fact = await readRequest<PartFact>(request, validateFact);
  if (!fact.ok) return fact.answer;
  const result = await learnFact(actor, params.id, fact.value);
  return result.ok ? Response.json(result) : refuseWith(400, 'not-learned', result.message);
});
