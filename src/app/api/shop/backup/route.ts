import { PassThrough, Readable } from 'node:stream';
import { now } from '@/clock/now';
import { connections } from '@/db/client';
import { backupName, writeBackup } from '@/features/backup/server';
import { door } from '@/http/door';
import { journal } from '@/journal/journal';

export const dynamic = 'force-dynamic';

/** The whole shop as one file, written while it is read. What is broken off has no manifest, and is refused later. */
export const GET = door('own', async ({ actor, request }) => {
  const shop = { id: actor.shopId, name: actor.shopName };
  const client = await connections().connect();
  const out = new PassThrough();
  void writeBackup(client, actor.shopId, out, { madeAt: now(), signal: request.signal })
    .catch((err: unknown) => {
      if (!request.signal.aborted) journal.error({ err }, 'a backup was broken off');
      // The browser sees a download that failed, not one that is short.
      out.destroy(err instanceof Error ? err : new Error('broken off'));
    })
    .finally(() => client.release());
  return new Response(Readable.toWeb(out) as ReadableStream<Uint8Array>, {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': `attachment; filename="${backupName(shop, 'asked')}"`,
      'Cache-Control': 'no-store, no-transform',
    },
  });
});
