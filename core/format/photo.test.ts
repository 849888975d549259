import fc from 'fast-check';
import { PHOTO_LIMIT_BYTES, photoKind, photoProblem, withoutMetadata } from './photo';

const segment = (marker: number, body: readonly number[]) => [
  0xff,
  marker,
  (body.length + 2) >> 8,
  (body.length + 2) & 255,
  ...body,
];
const text = (words: string) => [...words].map((letter) => letter.charCodeAt(0));

function jpeg(...segments: readonly number[][]): Uint8Array {
  return Uint8Array.from([0xff, 0xd8, ...segments.flat(), ...segment(0xda, [1, 2, 3]), 9, 9, 9, 0xff, 0xd9]);
}

test('kinds go by content, not by name', () => {
  expect(photoKind(jpeg())).toBe('image/jpeg');
  expect(photoKind(Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0]))).toBe('image/png');
  expect(photoKind(Uint8Array.from([...text('RIFF'), 0, 0, 0, 0, ...text('WEBP')]))).toBe('image/webp');
  expect(photoProblem(Uint8Array.from(text('<svg>')))).toContain('whatever its name says');
  expect(photoProblem(new Uint8Array())).toContain('empty');
  expect(photoProblem(new Uint8Array(PHOTO_LIMIT_BYTES + 1))).toContain('at most 4 MB');
  expect(photoProblem(jpeg())).toBeNull();
});

test('position and comments are taken out, picture and colour profile stay', () => {
  const exif = segment(0xe1, text('Exif\0\0 51.2N 1.3W'));
  const comment = segment(0xfe, text('taken by'));
  const profile = segment(0xe2, text('ICC_PROFILE\0'));
  const frame = segment(0xc0, [8, 0, 1, 0, 1]);
  const clean = withoutMetadata(jpeg(exif, profile, comment, frame));
  expect([...clean]).toEqual([...jpeg(profile, frame)]);
  expect(String.fromCharCode(...clean)).not.toContain('Exif');
});

test('whatever the bytes, nothing crashes, and what is no JPEG comes back as it was', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
      expect(withoutMetadata(bytes).length).toBeLessThanOrEqual(bytes.length);
      const broken = Uint8Array.from([0xff, 0xd8, 0xff, 0xe1, ...bytes]);
      expect(withoutMetadata(broken).length).toBeLessThanOrEqual(broken.length);
      if (photoKind(bytes) !== 'image/jpeg') expect(withoutMetadata(bytes)).toBe(bytes);
    }),
  );
});
