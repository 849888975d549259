import { type HelperRequest, isUuid, validateHelper } from '#core/format';
import { changeHelper, helperNow } from '@/features/helper/server';
import { hasJob } from '@/features/jobs/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

const UNKNOWN = () => refuseWith(404, 'unknown-job', 'There is no such job in this shop.');
const FRESH = { headers: { 'Cache-Control': 'no-store' } };

/** Who is at the key with a phone, and whether it stands as the card asks. */
export const GET = door<{ id: string }>('see', async ({ actor, params }) => {
  if (!isUuid(params.id) || !(await hasJob(actor, params.id))) return UNKNOWN();
  return Response.json(await helperNow(actor, params.id), FRESH);
});

/** A card asks for a state, is answered, or nobody is needed at the key any more. */
export const POST = door<{ id: string }>('work', async ({ actor, request, params }) => {
  const input = await readRequest<HelperRequest>(request, validateHelper);
  if (!input.ok) return input.answer;
  if (!isUuid(params.id) || !(await hasJob(actor, params.id))) return UNKNOWN();
  return Response.json(await changeHelper(actor, params.id, input.value), FRESH);
});
