import { isUuid } from '#core/format';
import { readPhoto } from '@/features/jobs/server';
import { refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** One picture. It never changes under its id. */
export const GET = door<{ id: string }>('see', async ({ actor, params }) => {
  const { id } = params;
  const photo = isUuid(id) ? await readPhoto(actor, id) : null;
  if (!photo) return refuseWith(404, 'unknown-photo', 'There is no such photo.');
  return new Response(new Uint8Array(photo.bytes), {
    headers: { 'content-type': photo.kind, 'cache-control': 'private, max-age=31536000, immutable' },
  });
});
