/** Photos by their content: what kind they are, and how large. */

export type PhotoKind = 'image/jpeg' | 'image/png' | 'image/webp';

/** Largest photo that is kept, bytes; the page scales down before it sends. */
export const PHOTO_LIMIT_BYTES = 4 * 1024 * 1024;
/** Longest side after scaling, pixels. */
export const PHOTO_LONGEST_SIDE = 1600;

function starts(bytes: Uint8Array, signature: readonly number[], at = 0): boolean {
  return signature.every((value, index) => bytes[at + index] === value);
}

/** The kind of an image by its first bytes (JPEG, PNG and WebP signatures); null for anything else. */
export function photoKind(bytes: Uint8Array): PhotoKind | null {
  if (starts(bytes, [0xff, 0xd8, 0xff])) return 'image/jpeg';
  if (starts(bytes, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])) return 'image/png';
  if (starts(bytes, [0x52, 0x49, 0x46, 0x46]) && starts(bytes, [0x57, 0x45, 0x42, 0x50], 8))
    return 'image/webp';
  return null;
}

/** Why a photo is not taken, in words; null when it is. */
export function photoProblem(bytes: Uint8Array): string | null {
  if (bytes.length === 0) return 'The photo is empty.';
  if (bytes.length > PHOTO_LIMIT_BYTES) {
    return `The photo has ${(bytes.length / 1024 / 1024).toFixed(1)} MB; at most ${PHOTO_LIMIT_BYTES / 1024 / 1024} MB are kept.`;
  }
  return photoKind(bytes) === null ? 'This is no JPEG, PNG or WebP picture, whatever its name says.' : null;
}
