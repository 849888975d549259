/** Secrets of links, phones and cookies: made at random, and kept as their hash alone. */
import { createHash, randomBytes, randomInt } from 'node:crypto';

/** 192 bits, as a link or a cookie carries them. */
export function newToken(): string {
  return randomBytes(24).toString('base64url');
}

/** Digits by which a code says of which workshop it is: two of a thousand workshops may share them. */
export function workshopDigits(shopId: string): string {
  return String(createHash('sha256').update(shopId).digest().readUInt32BE() % 1000).padStart(3, '0');
}

/** Those of its workshop and six more; safe only for as long and as few tries as it is good for. */
export function newCode(shopId: string): string {
  return workshopDigits(shopId) + String(randomInt(0, 1_000_000)).padStart(6, '0');
}

/** Long random secrets need no slow hash: nobody finds one by trying. */
export function hashOf(secret: string): string {
  return createHash('sha256').update(secret).digest('base64url');
}
