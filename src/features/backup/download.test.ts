/** Backups that nobody fetches hold no connection; one that was cut off goes on; nobody waits for another's. */
import { readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { connections } from '@/db/client';
import { NotNow } from '@/http/notNow';
import { demoActor, stranger, withDatabase } from '../../../testing/database';
import { backupDownload, closeDownloads } from './download';
import { openBackup } from './readBackup';

withDatabase();
afterAll(closeDownloads);

const staying = () => new AbortController().signal;

async function bytesOf(body: ReadableStream<Uint8Array>): Promise<Buffer> {
  const all: Uint8Array[] = [];
  for await (const piece of body as unknown as AsyncIterable<Uint8Array>) all.push(piece);
  return Buffer.concat(all);
}

const inUse = () => connections().totalCount - connections().idleCount;

test('twelve downloads that nobody reads hold no connection', async () => {
  const { shopId } = await demoActor();
  const unread = [];
  for (let count = 0; count < 12; count++) unread.push(await backupDownload(shopId, { signal: staying() }));
  expect(inUse()).toBe(0);
  await Promise.all(unread.map(({ body }) => body.cancel()));
});

test('while one is written for a shop another of it is refused in words; so is a third over all', async () => {
  const shops = [await demoActor(), await stranger(), await stranger()].map(({ shopId }) => shopId);
  const writing = shops.slice(0, 2).map((shop) => backupDownload(shop, { signal: staying() }));
  await expect(backupDownload(shops[0]!, { signal: staying() })).rejects.toThrow(/of this workshop/);
  await expect(backupDownload(shops[2]!, { signal: staying() })).rejects.toBeInstanceOf(NotNow);
  for (const { body } of await Promise.all(writing)) await body.cancel();
  const third = await backupDownload(shops[2]!, { signal: staying() });
  await third.body.cancel();
});

test('a download that was cut off goes on where it stopped, of the same file only', async () => {
  const { shopId } = await demoActor();
  const whole = await backupDownload(shopId, { signal: staying() });
  const reader = whole.body.getReader();
  const first = Buffer.from((await reader.read()).value!).subarray(0, 1000);
  await reader.cancel();
  const rest = await backupDownload(shopId, { signal: staying(), range: 'bytes=1000-', ifRange: whole.tag });
  expect([rest.from, rest.bytes]).toEqual([1000, whole.bytes]);
  const file = path.join(tmpdir(), `every-trace-download-${process.pid}.zip`);
  writeFileSync(file, Buffer.concat([first, await bytesOf(rest.body)]));
  const migrations = readdirSync('src/db/migrations').filter((name) => name.endsWith('.sql')).length;
  const { manifest } = await openBackup(file, { migrations });
  expect(manifest.shop.id).toBe(shopId);
  const other = await backupDownload(shopId, {
    signal: staying(),
    range: 'bytes=1000-',
    ifRange: '"another"',
  });
  expect(other.from).toBe(0);
  await other.body.cancel();
});

test('who takes nothing for too long is ended', async () => {
  const { shopId } = await demoActor();
  const { body } = await backupDownload(shopId, { signal: staying(), stalledMs: 40 });
  await new Promise((resolve) => setTimeout(resolve, 200));
  await expect(bytesOf(body)).rejects.toThrow('Nobody takes');
});
