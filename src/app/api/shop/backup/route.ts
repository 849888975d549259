import { backupDownload, backupName } from '@/features/backup/server';
import { door } from '@/http/door';

export const dynamic = 'force-dynamic';

/** The whole shop as one file; a download that was cut off goes on where it stopped. */
export const GET = door('own', async ({ actor, request }) => {
  const { body, tag, bytes, from } = await backupDownload(actor.shopId, {
    signal: request.signal,
    range: request.headers.get('range'),
    ifRange: request.headers.get('if-range'),
  });
  return new Response(body, {
    status: from > 0 ? 206 : 200,
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': `attachment; filename="${backupName({ id: actor.shopId, name: actor.shopName }, 'asked')}"`,
      'Content-Length': String(bytes - from),
      ...(from > 0 ? { 'Content-Range': `bytes ${from}-${bytes - 1}/${bytes}` } : {}),
      'Accept-Ranges': 'bytes',
      ETag: tag,
      'Cache-Control': 'no-store, no-transform',
    },
  });
});
