/** The project's own PostgreSQL: killed, orphaned or started twice, its data stay. */
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import pg from 'pg';
import { ensureCluster } from '../scripts/lib/cluster.mjs';

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
