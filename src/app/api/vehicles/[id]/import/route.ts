import { FILE_LIMIT_BYTES } from '#core/format/problem';
import { currentActor } from '@/features/shop/server';
import { importFile } from '@/features/vehicles/server';

/**
 * Takes one circuit or panel-set file; answers with a sentence, or with every problem at once. With `base` it is
 * refused when that is not the newest version any more.
 */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const length = Number(request.headers.get('content-length') ?? 0);
  if (length > FILE_LIMIT_BYTES) {
    const message = `The file has ${(length / 1024 / 1024).toFixed(1)} MB; at most ${FILE_LIMIT_BYTES / 1024 / 1024} MB are read.`;
    return Response.json({ problems: [{ code: 'too-large', path: '', message }] }, { status: 413 });
  }
  const said = new URL(request.url).searchParams.get('base');
  const base = said !== null && /^\d{1,9}$/.test(said) ? Number(said) : null;
  const result = await importFile(await currentActor(), (await params).id, await request.text(), base);
  const changed = !result.ok && result.problems[0]?.code === 'changed-meanwhile';
  return Response.json(result, { status: result.ok ? 200 : changed ? 409 : 400 });
}
