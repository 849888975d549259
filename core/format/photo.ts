/** Photos by their content: what kind they are, how large, and without where they were taken. */

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

const APP0 = 0xe0;
const APP15 = 0xef;
const COMMENT = 0xfe;
const START_OF_SCAN = 0xda;
const ICC_PROFILE = 0xe2;

/**
 * A JPEG without the segments that hold position, camera and comments (APP1 and others; ITU-T T.81, annex B). The
 * colour profile stays. Bytes that are no well-formed JPEG come back as they were.
 */
export function withoutMetadata(bytes: Uint8Array): Uint8Array {
  if (photoKind(bytes) !== 'image/jpeg') return bytes;
  const kept: Uint8Array[] = [bytes.subarray(0, 2)];
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return bytes;
    const marker = bytes[at + 1]!;
    if (marker === START_OF_SCAN) {
      kept.push(bytes.subarray(at));
      break;
    }
    const length = (bytes[at + 2]! << 8) | bytes[at + 3]!;
    if (length < 2 || at + 2 + length > bytes.length) return bytes;
    const isApplication = marker > APP0 && marker <= APP15 && marker !== ICC_PROFILE;
    if (!isApplication && marker !== COMMENT) kept.push(bytes.subarray(at, at + 2 + length));
    at += 2 + length;
  }
  const size = kept.reduce((sum, one) => sum + one.length, 0);
  const whole = new Uint8Array(size);
  let offset = 0;
  for (const one of kept) {
    whole.set(one, offset);
    offset += one.length;
  }
  return whole;
}
