/**
 * Whose a backup is. A checksum says that nothing was lost on the way; anybody can make one. Every backup is signed with a
 * key (Ed25519, RFC 8032) that stays in the database of the installation, and the code of that key, written down elsewhere,
 * tells on another machine that a backup was made by this one.
 */
import {
  createHash,
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  type KeyObject,
  sign,
  verify,
} from 'node:crypto';
import type pg from 'pg';
import type { ShopSignature } from '#core/format';
import { connections } from '@/db/client';

type Queries = Pick<pg.ClientBase, 'query'>;

const NAME = 'key of backups';

function publicPart(key: KeyObject): string {
  return createPublicKey(key).export({ type: 'spki', format: 'der' }).toString('base64');
}

/** The key that this installation signs with, made when it is first wanted; null where the database is older than keys. */
export async function signingKey(db: Queries): Promise<KeyObject | null> {
  const { rows: there } = await db.query<{ is: boolean }>(
    `select to_regclass('public.installation') is not null as is`,
  );
  if (!there[0]?.is) return null;
  const kept = `select value from installation where key = $1`;
  let { rows } = await db.query<{ value: string }>(kept, [NAME]);
  if (rows.length === 0) {
    const { privateKey } = generateKeyPairSync('ed25519');
    const value = privateKey.export({ type: 'pkcs8', format: 'der' }).toString('base64');
    await db.query('insert into installation (key, value) values ($1, $2) on conflict do nothing', [
      NAME,
      value,
    ]);
    // Another process may have been first.
    ({ rows } = await db.query<{ value: string }>(kept, [NAME]));
  }
  return createPrivateKey({ key: Buffer.from(rows[0]!.value, 'base64'), type: 'pkcs8', format: 'der' });
}

/** Signs the bytes of a manifest, which names every other file by its checksum. */
export function signatureOf(manifest: Uint8Array, key: KeyObject): ShopSignature {
  return {
    algorithm: 'Ed25519',
    publicKey: publicPart(key),
    signature: sign(null, manifest, key).toString('base64'),
  };
}

/** Whether a signature is of these bytes, by the key that it names itself. */
export function isSignatureOf(manifest: Uint8Array, { publicKey, signature }: ShopSignature): boolean {
  try {
    const key = createPublicKey({ key: Buffer.from(publicKey, 'base64'), type: 'spki', format: 'der' });
    return (
      key.asymmetricKeyType === 'ed25519' && verify(null, manifest, key, Buffer.from(signature, 'base64'))
    );
  } catch {
    return false;
  }
}

/** The code of a key: 96 bits of its SHA-256 in six groups of four, as somebody writes them down. */
export function codeOf(publicKey: string): string {
  const hex = createHash('sha256').update(Buffer.from(publicKey, 'base64')).digest('hex').toUpperCase();
  return hex.slice(0, 24).match(/.{4}/g)!.join('-');
}

/** The code of this installation's key. */
export async function ownCode(): Promise<string | null> {
  const key = await signingKey(connections());
  return key && codeOf(publicPart(key));
}

const plain = (code: string) => code.replace(/[\s-]/g, '').toUpperCase();

/** Whether two codes are the same, however they were typed. */
export function isSameCode(one: string, other: string): boolean {
  return plain(one) === plain(other);
}
