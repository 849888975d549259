import { isUuid } from '#core/format/uuid';
import { readPhoto } from '@/features/jobs/server';
import { currentActor } from '@/features/shop/server';

/** One picture. It never changes under its id. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const photo = isUuid(id) ? await readPhoto(await currentActor(), id) : null;
  if (!photo) return Response.json({ message: 'There is no such photo.' }, { status: 404 });
  return new Response(new Uint8Array(photo.bytes), {
    headers: {
      'content-type': photo.kind,
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    },
  });
}
