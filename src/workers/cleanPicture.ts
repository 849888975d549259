/** A picture decoded and encoded again: what is no picture is refused, and nothing travels with the pixels. */
import sharp from 'sharp';
import { PHOTO_LONGEST_SIDE, type PhotoKind, photoKind, photoProblem } from '#core/format';

/** What phones make by themselves has fewer pixels; a small file can claim billions. */
const MOST_PIXELS = 50_000_000;

// One picture is worked on at a time, and holds no more than one of the threads that database and sign-in need too.
sharp.concurrency(1);
sharp.cache(false);

export type CleanPicture =
  | { readonly ok: true; readonly kind: PhotoKind; readonly bytes: Buffer }
  | { readonly ok: false; readonly message: string };

/**
 * The pixels of a JPEG, PNG or WebP, upright and no larger than they are shown, in the same format. Place, camera,
 * comments, thumbnails, text chunks and whatever stands behind the end stay outside: only pixels are written.
 */
export async function cleanPicture(sent: Uint8Array): Promise<CleanPicture> {
  const problem = photoProblem(sent);
  const kind = photoKind(sent);
  if (problem !== null || kind === null) return { ok: false, message: problem ?? 'This is no picture.' };
  try {
    // The head of the file says it; nothing is decoded for that.
    const { width, height } = await sharp(sent, { limitInputPixels: false }).metadata();
    const pixels = width * height;
    if (pixels > MOST_PIXELS) return { ok: false, message: tooManyWords(pixels) };
    const upright = sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' }).rotate().resize({
      width: PHOTO_LONGEST_SIDE,
      height: PHOTO_LONGEST_SIDE,
      fit: 'inside',
      withoutEnlargement: true,
    });
    const encoded =
      kind === 'image/png'
        ? upright.png()
        : kind === 'image/webp'
          ? upright.webp({ quality: 85 })
          : upright.jpeg({ quality: 88 });
    const bytes = await encoded.toBuffer();
    const late = photoProblem(bytes);
    return late === null ? { ok: true, kind, bytes } : { ok: false, message: late };
  } catch {
    return { ok: false, message: 'The picture cannot be read: it is damaged or only looks like one.' };
  }
}

function tooManyWords(pixels: number): string {
  const million = (count: number) => `${Math.ceil(count / 1e6)} million pixels`;
  return `The picture has ${million(pixels)}; at most ${million(MOST_PIXELS)} are taken. Send it in a smaller size.`;
}
