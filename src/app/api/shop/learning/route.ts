import { validateBareRequest } from '#core/format';
import { resetLearning } from '@/features/shop/server';
import { readRequest } from '@/http/answers';
import { door } from '@/http/door';

/** Starts the counts of the shop's own faults anew, under the id that the client made. */
export const POST = door('own', async ({ actor, request }) => {
  const input = await readRequest<{ id: string }>(request, validateBareRequest);
  if (!input.ok) return input.answer;
  await resetLearning(actor, input.value.id);
  return Response.json(input.value);
});
