import { validateBareRequest } from '#core/format';
import { currentActor } from '@/access';
import { resetLearning } from '@/features/shop/server';
import { answering, readRequest } from '@/http/answers';

/** Starts the counts of the shop's own faults anew, under the id that the client made. */
export function POST(request: Request) {
  return answering(async () => {
    const input = await readRequest<{ id: string }>(request, validateBareRequest);
    if (!input.ok) return input.answer;
    await resetLearning(await currentActor(), input.value.id);
    return Response.json(input.value);
  });
}
