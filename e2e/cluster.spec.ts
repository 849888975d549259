/** The project's own PostgreSQL: killed, orphaned or started twice, its data stay. */
import { spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { ensureCluster } from '../scripts/lib/cluster.mjs';
import { freePort } from '../scripts/lib/ports.mjs';
import { remember, remembered, withLock } from '../scripts/lib/processes.mjs';
import { expect, test } from './test';

async function ask(url: string, text: string): Promise<pg.QueryResult> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await client.query(text);
  } finally {
    await client.end();
  }
}

test('survives a killed database, reuses an orphan, and stops when told', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-cluster-'));
  chmodSync(folder, 0o755);
  try {
    const first = await ensureCluster(folder);
    await ask(first.admin, 'create table kept (word text)');
    await ask(first.admin, "insert into kept values ('still here')");
    // An orphan that still lives is reused: the same address.
    expect((await ensureCluster(folder)).admin).toBe(first.admin);
    const pid = Number(readFileSync(path.join(folder, 'postgres', 'postmaster.pid'), 'utf8').split('\n')[0]);
    process.kill(pid, 'SIGKILL');
    await expect
      .poll(() =>
        ask(first.admin, 'select 1').then(
          () => 'up',
          () => 'down',
        ),
      )
      .toBe('down');
    const second = await ensureCluster(folder);
    expect((await ask(second.admin, 'select word from kept')).rows).toEqual([{ word: 'still here' }]);
    second.stop();
    await expect(ask(second.admin, 'select 1')).rejects.toThrow();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('a database that is gone is not replaced by an empty one in silence', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-cluster-'));
  chmodSync(folder, 0o755);
  try {
    (await ensureCluster(folder)).stop();
    rmSync(path.join(folder, 'postgres'), { recursive: true });
    await expect(ensureCluster(folder)).rejects.toThrow(/is gone.*remove .*made and start again/);
    rmSync(path.join(folder, 'made'));
    (await ensureCluster(folder)).stop();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test.describe('a remembered process', () => {
  let folder: string;
  test.beforeEach(() => {
    folder = mkdtempSync(path.join(tmpdir(), 'every-trace-lock-'));
  });
  test.afterEach(() => rmSync(folder, { recursive: true, force: true }));
  const lock = () => path.join(folder, 'start.lock');
  const work = async () => 'done';

  test('is believed while it is the very one, and not once its number has gone to another', () => {
    const file = path.join(folder, 'pid');
    remember(file, process.pid);
    expect(remembered(file)).toBe(process.pid);
    writeFileSync(file, JSON.stringify({ pid: process.pid, begun: '1' }));
    expect(remembered(file)).toBeNull();
    // As an earlier version wrote it: a bare number says nothing of whose it is.
    writeFileSync(file, String(process.pid));
    expect(remembered(file)).toBeNull();
  });

  test('holds its lock; one that is gone, another by now, or none at all does not', async () => {
    remember(lock(), process.pid);
    await expect(withLock(folder, work, 400)).rejects.toThrow(/has held/);
    writeFileSync(lock(), JSON.stringify({ pid: process.pid, begun: '1' }));
    expect(await withLock(folder, work, 400)).toBe('done');
    writeFileSync(lock(), JSON.stringify({ pid: 2 ** 22 + 1, begun: '5' }));
    expect(await withLock(folder, work, 400)).toBe('done');
    // An empty lock: its writer was stopped; one that is being written has a moment.
    writeFileSync(lock(), '');
    await expect(withLock(folder, work, 400)).rejects.toThrow(/unknown/);
    const old = new Date(Date.now() - 60_000);
    utimesSync(lock(), old, old);
    expect(await withLock(folder, work, 400)).toBe('done');
    expect(existsSync(lock())).toBe(false);
  });

  test('one start at a time works', async () => {
    const order: string[] = [];
    const slowly = (name: string) => async () => {
      order.push(`${name} begins`);
      await new Promise((resolve) => setTimeout(resolve, 200));
      order.push(`${name} ends`);
    };
    await withLock(folder, slowly('one'));
    await Promise.all([withLock(folder, slowly('a'), 5000), withLock(`${folder}/other`, work)]);
    expect(order).toEqual(['one begins', 'one ends', 'a begins', 'a ends']);
  });

  test('a folder that cannot be written is said with the remedy', async () => {
    writeFileSync(path.join(folder, 'file'), '');
    await expect(withLock(path.join(folder, 'file', 'data'), work)).rejects.toThrow(
      /cannot be written.*right to/,
    );
  });
});

test('npm start: a database that dies is started again under the running application; a second start finds the first', async () => {
  // Making the demo, two starts and a recovery: what each may take below is more than one test has by itself.
  test.setTimeout(300_000);
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-start-'));
  chmodSync(folder, 0o755);
  const port = await freePort();
  const env = { ...process.env, EVERY_TRACE_DATA: folder, PORT: String(port), DATABASE_URL: '' };
  const address = `http://127.0.0.1:${port}`;
  const status = () =>
    fetch(`${address}/api/health`).then(
      (answer) => answer.status,
      () => 0,
    );
  const begin = () =>
    // Its database is killed: that it writes of errors then is right.
    spawn(process.execPath, ['scripts/start.mjs'], { env, stdio: ['ignore', 'pipe', 'ignore'] });
  const first = begin();
  try {
    // The demo is made first, which is work for the processor: on a busy machine it takes a minute by itself.
    await expect.poll(status, { timeout: 150_000 }).toBe(200);
    expect((await fetch(address)).status).toBe(200);
    const pid = Number(readFileSync(path.join(folder, 'postgres', 'postmaster.pid'), 'utf8').split('\n')[0]);
    process.kill(pid, 'SIGKILL');
    await expect.poll(status, { intervals: [50], timeout: 20_000 }).toBe(503);
    await expect.poll(status, { timeout: 60_000 }).toBe(200);
    expect((await fetch(address)).status).toBe(200);
    const second = begin();
    let said = '';
    second.stdout.on('data', (text) => {
      said += text;
    });
    await new Promise((resolve) => second.on('exit', resolve));
    expect(said).toContain('is running already');
  } finally {
    const ended = new Promise((resolve) => first.on('exit', resolve));
    first.kill('SIGTERM');
    await ended;
    rmSync(folder, { recursive: true, force: true });
  }
  expect(await status()).toBe(0);
});
