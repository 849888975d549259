/** Pictures go through one thread, one at a time, and no more wait than there is room for. */
import sharp from 'sharp';
import { closePictures, readPicture } from './pictureReader';

afterAll(closePictures);

const picture = () =>
  sharp({ create: { width: 400, height: 300, channels: 3, background: '#c86432' } })
    .png()
    .toBuffer();

test('what comes at once is read one after the other; what finds no room is told to come again', async () => {
  const sent = await picture();
  const answers = await Promise.all(Array.from({ length: 30 }, () => readPicture(sent)));
  const taken = answers.filter((one) => one !== null);
  expect(taken.length).toBeGreaterThanOrEqual(20);
  expect(taken.length).toBeLessThan(30);
  expect(taken.every((one) => one.ok && one.kind === 'image/png' && Buffer.isBuffer(one.bytes))).toBe(true);
  // Once they are through there is room again.
  expect(await readPicture(sent)).toMatchObject({ ok: true });
});

test('what is no picture is refused in the words of the page', async () => {
  expect(await readPicture(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'))).toEqual({
    ok: false,
    message: 'This is no JPEG, PNG or WebP picture, whatever its name says.',
  });
});
