/** Pictures of jobs in the database. */
import { and, eq } from 'drizzle-orm';
import { photoKind, photoProblem, withoutMetadata } from '#core/format/photo';
import { database } from '@/db/client';
import { jobs, photos } from '@/db/schema';
import type { Actor } from '@/features/shop/server';

export type KeptPhoto = { readonly ok: true } | { readonly ok: false; readonly message: string };

/** Keeps a picture under the id that the client made; the same id again changes nothing. */
export async function keepPhoto(
  actor: Actor,
  jobId: string,
  id: string,
  bytes: Uint8Array,
): Promise<KeptPhoto> {
  const problem = photoProblem(bytes);
  if (problem) return { ok: false, message: problem };
  const db = database();
  const [job] = await db
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.id, jobId), eq(jobs.shopId, actor.shopId)));
  if (!job) return { ok: false, message: 'There is no such job in this shop.' };
  await db
    .insert(photos)
    .values({
      id,
      shopId: actor.shopId,
      jobId,
      personId: actor.personId,
      kind: photoKind(bytes)!,
      bytes: Buffer.from(withoutMetadata(bytes)),
    })
    .onConflictDoNothing();
  return { ok: true };
}

export async function readPhoto(actor: Actor, id: string) {
  const [row] = await database()
    .select({ kind: photos.kind, bytes: photos.bytes })
    .from(photos)
    .where(and(eq(photos.id, id), eq(photos.shopId, actor.shopId)));
  return row ?? null;
}
