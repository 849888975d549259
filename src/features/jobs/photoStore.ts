/** Pictures of jobs in the database. */
import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { Actor } from '@/access';
import { database } from '@/db/client';
import { jobs, photos } from '@/db/schema';
import { readPicture } from '@/workers/pictureReader';

export type KeptPhoto =
  | { readonly ok: true }
  | {
      readonly ok: false;
      readonly code: 'no-picture' | 'unknown-job' | 'id-taken' | 'busy';
      readonly message: string;
    };

/** Keeps a picture under the id that the client made; the same picture again changes nothing, another is refused. */
export async function keepPhoto(
  actor: Actor,
  jobId: string,
  id: string,
  bytes: Uint8Array,
): Promise<KeptPhoto> {
  const db = database();
  const [job] = await db
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)));
  if (!job) return { ok: false, code: 'unknown-job', message: 'There is no such job in this shop.' };
  const clean = await readPicture(bytes);
  if (!clean) {
    const message = 'Many pictures are being read. This one waits, and is sent again by itself.';
    return { ok: false, code: 'busy', message };
  }
  if (!clean.ok) return { ok: false, code: 'no-picture', message: clean.message };
  const sentSha256 = createHash('sha256').update(bytes).digest('hex');
  const row = { id, shopId: actor.shopId, jobId, personId: actor.personId, kind: clean.kind };
  const made = await db
    .insert(photos)
    .values({ ...row, bytes: clean.bytes, sentSha256 })
    .onConflictDoNothing()
    .returning({ id: photos.id });
  if (made.length > 0) return { ok: true };
  const [known] = await db
    .select({ jobId: photos.jobId, sentSha256: photos.sentSha256 })
    .from(photos)
    .where(and(eq(photos.id, id), eq(photos.shopId, actor.shopId)));
  const repeated = known?.jobId === jobId && (known.sentSha256 === null || known.sentSha256 === sentSha256);
  if (repeated) return { ok: true };
  return { ok: false, code: 'id-taken', message: 'The id of this photo stands for another picture already.' };
}

export async function readPhoto(actor: Actor, id: string) {
  const [row] = await database()
    .select({ kind: photos.kind, bytes: photos.bytes })
    .from(photos)
    .where(and(eq(photos.id, id), eq(photos.shopId, actor.shopId)));
  return row ?? null;
}
