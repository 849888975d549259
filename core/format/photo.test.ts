import { PHOTO_LIMIT_BYTES, photoKind, photoProblem } from './photo';

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
