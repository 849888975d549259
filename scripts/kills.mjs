/**
 * `npm run kills -- SECONDS`: writes jobs and entries as the pages do while server and database are killed at random,
 * and compares afterwards what was acknowledged with what is there. Everything of its own: data, port, processes.
 */
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import pg from 'pg';
import { asked } from './lib/asked.mjs';
import { ensureCluster } from './lib/cluster.mjs';
import { freePort } from './lib/ports.mjs';
import { remembered } from './lib/processes.mjs';
import { delay, root, say } from './lib/shell.mjs';

/** So long an answer is waited for. */
const ANSWER_MS = 8000;
/** So long whoever was killed may take to answer again; a first start prepares everything. */
const UP_MS = 120_000;

/** A start that keeps itself up: whoever ends it is followed by another. */
class Installation {
  constructor(folder, port) {
    this.folder = folder;
    this.port = port;
    this.url = `http://127.0.0.1:${port}`;
    this.wanted = false;
    this.kills = { server: 0, database: 0 };
  }

  begin() {
    this.wanted = true;
    const env = { ...process.env, EVERY_TRACE_DATA: this.folder, PORT: String(this.port), DATABASE_URL: '' };
    this.child = spawn(process.execPath, [path.join(root, 'scripts/start.mjs')], { env, stdio: 'ignore' });
    this.ended = new Promise((resolve) => this.child.on('exit', resolve));
    void this.ended.then(() => this.wanted && this.begin());
  }

  async up() {
    const since = Date.now();
    for (;;) {
      const answer = await asked(`${this.url}/api/health`, ANSWER_MS);
      if (answer?.ok) return;
      if (Date.now() - since > UP_MS) {
        const said = answer
          ? `it says ${answer.status} ${JSON.stringify(answer.body)}`
          : 'it does not answer';
        throw new Error(`The application did not come up within ${UP_MS / 1000} s: ${said}.`);
      }
      await delay(200);
    }
  }

  kill(what) {
    const pid =
      what === 'server'
        ? remembered(path.join(this.folder, 'server.pid'))
        : Number(readOr(path.join(this.folder, 'postgres', 'postmaster.pid'), '0').split('\n')[0]);
    if (!pid) return;
    try {
      process.kill(pid, 'SIGKILL');
      this.kills[what] += 1;
    } catch {
      // Gone already.
    }
  }

  async end() {
    this.wanted = false;
    this.child.kill('SIGTERM');
    await this.ended;
  }
}

function readOr(file, otherwise) {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    return otherwise;
  }
}

/** Asks until it is answered, as a page does; null when the writing is over first. */
async function insist(url, body, goesOn) {
  while (goesOn()) {
    const answer = await asked(url, ANSWER_MS, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (answer?.ok) return answer.body;
    if (answer && answer.status < 500) throw new Error(`Refused: ${JSON.stringify(answer.body)}`);
    await delay(150);
  }
  return null;
}

/** One technician: a job on a new vehicle from a pattern, then entries in their order, then the next job. */
async function write(url, goesOn, kept) {
  while (goesOn()) {
    const id = randomUUID();
    const opened = await insist(
      `${url}/api/jobs`,
      {
        id,
        title: 'Pump silent, lamps work',
        vehicleId: randomUUID(),
        vehicleName: 'Grey barge',
        plate: id.slice(0, 8),
        nominalVolts: 12,
        pattern: 'fuse-switch-load',
        kind: 'pump',
        state: 'dead',
      },
      goesOn,
    );
    if (!opened) return;
    const job = { id, entries: [] };
    kept.push(job);
    for (let order = 1; order <= 12 && goesOn(); order += 2) {
      const events = [order, order + 1].map((clientOrder) => ({
        id: randomUUID(),
        jobId: id,
        madeAt: new Date().toISOString(),
        clientOrder,
        body: { kind: 'note', words: `entry ${clientOrder}` },
      }));
      const answer = await insist(`${url}/api/events`, { events }, goesOn);
      if (!answer) return;
      job.entries.push(...events.map((event) => event.id));
    }
  }
}

/** What is wrong with the database, held against what was acknowledged; empty when nothing is. */
async function compare(admin, kept) {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  const wrong = [];
  try {
    for (const { id, entries } of kept) {
      const { rows } = await client.query(
        'select id, seq, kind from job_events where job_id = $1 order by seq',
        [id],
      );
      const maps = await client.query('select count(*)::int as of from job_circuits where job_id = $1', [id]);
      if (maps.rows[0].of !== 1) wrong.push(`job ${id} has ${maps.rows[0].of} circuits`);
      if (rows.filter((row) => row.kind === 'complaint').length !== 1)
        wrong.push(`job ${id} has no single complaint`);
      if (rows.some((row, index) => row.seq !== index + 1)) wrong.push(`job ${id} has a gap in its sequence`);
      const there = rows.map((row) => row.id).filter((one) => entries.includes(one));
      if (there.join() !== entries.join()) wrong.push(`job ${id} lost, doubled or reordered an entry`);
    }
    // Also what nobody was told of is whole.
    const half = await client.query(
      `select count(*)::int as of from jobs where title = 'Pump silent, lamps work' and (last_seq = 0 or not exists (
        select 1 from job_circuits where job_id = jobs.id))`,
    );
    if (half.rows[0].of > 0) wrong.push(`${half.rows[0].of} jobs are half made`);
    const twice = await client.query(
      'select count(*)::int as of from (select vehicle_id from circuits where name is not null group by vehicle_id, name having count(*) > 1) as doubled',
    );
    if (twice.rows[0].of > 0) wrong.push(`${twice.rows[0].of} vehicles have a circuit twice`);
  } finally {
    await client.end();
  }
  return wrong;
}

/** So long it is written to after the last kill. */
const WRITTEN_AFTER_MS = 4000;

/**
 * Runs for so many seconds, and on until so many kills were survived (`least`), however slow the machine is. Gives how often
 * what was killed, the longest time from a kill to the next answer, how much was acknowledged, and what is wrong.
 */
export async function killTest(seconds, least = 0) {
  const folder = mkdtempSync(path.join(tmpdir(), 'every-trace-kills-'));
  chmodSync(folder, 0o755);
  const installation = new Installation(folder, await freePort());
  try {
    installation.begin();
    await installation.up();
    const until = Date.now() + seconds * 1000 - WRITTEN_AFTER_MS;
    const kept = [];
    const away = [];
    let over = false;
    const writing = Promise.all([1, 2, 3].map(() => write(installation.url, () => !over, kept)));
    for (let turn = 0; Date.now() < until || turn < least; turn++) {
      await delay(1500 + Math.random() * 3000);
      installation.kill(turn % 2 === 0 ? 'server' : 'database');
      const since = Date.now();
      await installation.up();
      away.push(Date.now() - since);
    }
    await delay(WRITTEN_AFTER_MS);
    over = true;
    await writing;
    await installation.up();
    await installation.end();
    const cluster = await ensureCluster(folder);
    const wrong = await compare(cluster.url, kept);
    cluster.stop();
    const entries = kept.reduce((sum, job) => sum + job.entries.length, 0);
    return { ...installation.kills, away: Math.max(...away) / 1000, jobs: kept.length, entries, wrong };
  } finally {
    installation.wanted = false;
    installation.child?.kill('SIGTERM');
    await installation.ended;
    rmSync(folder, { recursive: true, force: true });
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { server, database, away, jobs, entries, wrong } = await killTest(Number(process.argv[2] ?? 600));
  say(
    `${server} kills of the server, ${database} of the database; ${jobs} jobs and ${entries} entries acknowledged; ${away.toFixed(1)} s to the next answer at the most.`,
  );
  say(
    wrong.length === 0
      ? 'Nothing is lost, doubled, out of order or half made.'
      : wrong.slice(0, 20).join('\n'),
  );
  process.exitCode = wrong.length === 0 ? 0 : 1;
}
