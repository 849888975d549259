import { validateBareRequest } from '#core/format';
import { newerMaps, takeNewest } from '@/features/jobs/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Whether boxes or circuits of the vehicle are newer than those that the job is traced on. */
export const GET = door<{ id: string }>('see', async ({ actor, params }) => {
  const newer = await newerMaps(actor, params.id);
  return Response.json({ newer }, { headers: { 'Cache-Control': 'no-store' } });
});

/** Takes them up. */
export const POST = door<{ id: string }>('work', async ({ actor, request, params }) => {
  const input = await readRequest<{ id: string }>(request, validateBareRequest);
  if (!input.ok) return input.answer;
  const taken = await takeNewest(actor, params.id, input.value.id);
  return taken.ok ? Response.json(taken) : refuseWith(400, 'not-taken', taken.message);
});
