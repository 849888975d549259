import { isUuid, PHOTO_LIMIT_BYTES } from '#core/format';
import { keepPhoto } from '@/features/jobs/server';
import { readBytes, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** Takes one picture for a job, under the id that the client made. */
export const POST = door('work', async ({ actor, request }) => {
  const query = new URL(request.url).searchParams;
  const id = query.get('id') ?? '';
  const job = query.get('job') ?? '';
  if (!isUuid(id) || !isUuid(job)) {
    return refuseWith(400, 'no-ids', 'A photo needs its own id and that of its job.');
  }
  if (!/^image\//.test(request.headers.get('content-type') ?? '')) {
    return refuseWith(415, 'no-picture', 'This address takes pictures: JPEG, PNG or WebP.');
  }
  const body = await readBytes(request, PHOTO_LIMIT_BYTES, 'The photo');
  if (!body.ok) return body.answer;
  const kept = await keepPhoto(actor, job, id, body.value);
  if (kept.ok) return Response.json({ id });
  return refuseWith(kept.code === 'busy' ? 503 : 400, kept.code, kept.message);
});
