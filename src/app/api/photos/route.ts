import { PHOTO_LIMIT_BYTES } from '#core/format/photo';
import { isUuid } from '#core/format/uuid';
import { keepPhoto } from '@/features/jobs/server';
import { currentActor } from '@/features/shop/server';

/** Takes one picture for a job, under the id that the client made. */
export async function POST(request: Request) {
  const query = new URL(request.url).searchParams;
  const id = query.get('id') ?? '';
  const job = query.get('job') ?? '';
  if (!isUuid(id) || !isUuid(job)) {
    return Response.json({ message: 'A photo needs its own id and that of its job.' }, { status: 400 });
  }
  if (Number(request.headers.get('content-length') ?? 0) > PHOTO_LIMIT_BYTES) {
    const message = `At most ${PHOTO_LIMIT_BYTES / 1024 / 1024} MB are kept.`;
    return Response.json({ message }, { status: 413 });
  }
  const kept = await keepPhoto(await currentActor(), job, id, new Uint8Array(await request.arrayBuffer()));
  return kept.ok ? Response.json({ id }) : Response.json({ message: kept.message }, { status: 400 });
}
