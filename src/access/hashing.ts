/** Slow hashes of passwords and short codes. Each takes a core for a while, so one is made at a time. */
import PQueue from 'p-queue';

const line = new PQueue({ concurrency: 1 });

/** The hash of a password or a short code, as it is kept. */
export async function hashed(secret: string): Promise<string> {
  // The library’s own, by itself: inside a transaction nothing may ask the pool, as making the library does.
  const { hashPassword } = await import('better-auth/crypto');
  return line.add(() => hashPassword(secret));
}

/** Whether a hash is of this password or short code. */
export async function isOfHash({ hash, password }: { hash: string; password: string }): Promise<boolean> {
  const { verifyPassword } = await import('better-auth/crypto');
  return line.add(() => verifyPassword({ hash, password }));
}
