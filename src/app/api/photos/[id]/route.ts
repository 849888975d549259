import { isUuid } from '#core/format';
import { currentActor } from '@/access';
import { readPhoto } from '@/features/jobs/server';
import { answering, refuseWith } from '@/http/answers';

/** One picture. It never changes under its id. */
export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  return answering(async () => {
    const { id } = await params;
    const photo = isUuid(id) ? await readPhoto(await currentActor(), id) : null;
    if (!photo) return refuseWith(404, 'unknown-photo', 'There is no such photo.');
    return new Response(new Uint8Array(photo.bytes), {
      headers: { 'content-type': photo.kind, 'cache-control': 'private, max-age=31536000, immutable' },
    });
  });
}
