import { crc32, deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { PHOTO_LONGEST_SIDE } from '#core/format/photo';
import { cleanPicture } from './cleanPicture';

const PLACE = 'Marrowby 51.2N 1.3W';

/** A picture with a red left half, and with its place in every way that the format knows. */
function picture(width = 60, height = 40) {
  const red = { create: { width: width / 2, height, channels: 3 as const, background: '#ff0000' } };
  return sharp({ create: { width, height, channels: 3, background: '#ffffff' } })
    .composite([{ input: red, left: 0, top: 0 }])
    .withExif({
      IFD0: { ImageDescription: PLACE, Copyright: PLACE },
      IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 12/1 0/1' },
    });
}

const FORMATS = [
  ['image/jpeg', () => picture().jpeg().toBuffer()],
  ['image/png', () => picture().png().toBuffer()],
  ['image/webp', () => picture().webp().toBuffer()],
] as const;

test.each(FORMATS)(
  'a %s keeps neither place nor comment, nor what stands behind its end',
  async (kind, make) => {
    const sent = Buffer.concat([await make(), Buffer.from(`behind the end: ${PLACE}`)]);
    expect(sent.includes(PLACE)).toBe(true);
    expect((await sharp(await make()).metadata()).exif).toBeDefined();
    const clean = await cleanPicture(sent);
    if (!clean.ok) throw new Error(clean.message);
    expect(clean.kind).toBe(kind);
    expect(clean.bytes.includes('Marrowby')).toBe(false);
    const { exif, xmp, iptc, width, height } = await sharp(clean.bytes).metadata();
    expect([exif, xmp, iptc]).toEqual([undefined, undefined, undefined]);
    expect([width, height]).toEqual([60, 40]);
    const { data } = await sharp(clean.bytes).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    expect(data[1]).toBeLessThan(80);
    expect(data[3 * 59 + 1]).toBeGreaterThan(200);
  },
);

test('comments between the segments of a JPEG, and text chunks of a PNG, go as well', async () => {
  const jpeg = await picture().jpeg().toBuffer();
  const comment = Buffer.from(PLACE);
  const segment = Buffer.concat([Buffer.from([0xff, 0xfe, 0, comment.length + 2]), comment]);
  // Behind the first segment, where readers look; a second start of image stands for a thumbnail.
  const sent = Buffer.concat([jpeg.subarray(0, 2), segment, jpeg.subarray(2)]);
  const clean = await cleanPicture(sent);
  expect(clean.ok && !clean.bytes.includes('Marrowby')).toBe(true);
});

test('a picture that lies on its side is stored upright, and a large one smaller', async () => {
  const sideways = await picture(60, 40).withMetadata({ orientation: 6 }).jpeg().toBuffer();
  const turned = await cleanPicture(sideways);
  if (!turned.ok) throw new Error(turned.message);
  const { width, height, orientation } = await sharp(turned.bytes).metadata();
  expect([width, height, orientation]).toEqual([40, 60, undefined]);
  const large = await cleanPicture(await picture(2400, 1200).jpeg().toBuffer());
  expect(large.ok && (await sharp(large.bytes).metadata()).width).toBe(PHOTO_LONGEST_SIDE);
});

test('what only begins like a picture is refused in words', async () => {
  for (const bytes of [
    Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3, 4]),
    Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), Buffer.alloc(40)]),
    Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'),
  ]) {
    const answer = await cleanPicture(bytes);
    expect(answer.ok).toBe(false);
    if (!answer.ok) expect(answer.message).toMatch(/picture/);
  }
});

/** A PNG of one bit a pixel, all of them the same (PNG 1.2, sections 3 and 4.1): some kilobytes, whatever its sides. */
function plainPng(side: number): Buffer {
  const chunk = (kind: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(kind, 'latin1'), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(side, 0);
  head.writeUInt32BE(side, 4);
  head[8] = 1;
  const rows = deflateSync(Buffer.alloc(side * (1 + Math.ceil(side / 8))));
  const signature = Buffer.from('89504e470d0a1a0a', 'hex');
  return Buffer.concat([signature, chunk('IHDR', head), chunk('IDAT', rows), chunk('IEND', Buffer.alloc(0))]);
}

test('a small file that claims more pixels than a phone makes is refused before it is decoded, in words', async () => {
  expect((await cleanPicture(plainPng(400))).ok).toBe(true);
  const bomb = plainPng(10_900);
  expect(bomb.length).toBeLessThan(200_000);
  expect(await cleanPicture(bomb)).toEqual({
    ok: false,
    message:
      'The picture has 119 million pixels; at most 50 million pixels are taken. Send it in a smaller size.',
  });
});
