/**
 * `npm run bench -- pages`: pages and appends on the data of many years (`scripts/seed.ts`), one at a time and with 50
 * technicians; on a database and a server of their own.
 */
import { randomUUID } from 'node:crypto';
import http from 'node:http';
import pg from 'pg';
import { openApp } from '../e2e/app';
import { ensurePackages, POSTGRES } from '../scripts/lib/setUp.mjs';
import { bin, run } from '../scripts/lib/shell.mjs';
import { openTestBed } from '../scripts/lib/testBed.mjs';
import { FULL, seed } from '../scripts/seed';
import { closeDatabase } from '../src/db/client';

const ROUNDS = 40;
const TECHNICIANS = 50;
const SECONDS = 20;

interface Answer {
  readonly status: number;
  readonly ms: number;
  /** As they went over the line, compressed. */
  readonly bytes: number;
}

const agent = new http.Agent({ keepAlive: true, maxSockets: 200 });

function ask(url: string, body?: string): Promise<Answer> {
  const started = performance.now();
  return new Promise((resolve, reject) => {
    const request = http.request(
      url,
      {
        agent,
        method: body === undefined ? 'GET' : 'POST',
        headers: {
          'accept-encoding': 'gzip',
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        },
      },
      (response) => {
        let bytes = 0;
        response.on('data', (part: Buffer) => {
          bytes += part.length;
        });
        response.on('end', () =>
          resolve({ status: response.statusCode ?? 0, ms: performance.now() - started, bytes }),
        );
      },
    );
    request.on('error', reject);
    request.end(body);
  });
}

const at = (values: readonly number[], share: number) => {
  const sorted = values.slice().sort((one, other) => one - other);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? Number.NaN;
};
const ms = (value: number) => `${value.toFixed(0)} ms`;

/** An entry of a job, as the sender posts it. */
function note(jobId: string, order: number): string {
  const event = {
    id: randomUUID(),
    jobId,
    madeAt: new Date().toISOString(),
    clientOrder: order,
    body: {
      kind: 'reading',
      test: { kind: 'volts', node: 'bat-plus', against: 'bat-minus', condition: 'fan-on' },
      value: { volts: 12.4 },
      raw: '12.4',
      testerProved: true,
    },
  };
  return JSON.stringify({ events: [event] });
}

/** Rows that tables have given since the statistics were last read, an index's own entries aside. */
async function rowsGiven(pool: pg.Pool): Promise<number> {
  // Backends report what they did a second after it at the latest.
  await new Promise((resolve) => setTimeout(resolve, 1500));
  const { rows } = await pool.query(
    'select sum(coalesce(seq_tup_read, 0) + coalesce(idx_tup_fetch, 0)) as of from pg_stat_user_tables',
  );
  return Number(rows[0].of);
}

async function oneAtATime(url: string, pool: pg.Pool, pages: readonly (readonly [string, string])[]) {
  console.log(`One at a time, ${ROUNDS} rounds each: p50, p95, document compressed, rows given by tables`);
  let worst = 0;
  let largest = 0;
  for (const [name, place] of pages) {
    for (let warm = 0; warm < 4; warm++) await ask(`${url}${place}`);
    const before = await rowsGiven(pool);
    const answers: Answer[] = [];
    for (let round = 0; round < ROUNDS; round++) answers.push(await ask(`${url}${place}`));
    const rows = ((await rowsGiven(pool)) - before) / ROUNDS;
    const times = answers.map((one) => one.ms);
    const bad = answers.find((one) => one.status !== 200);
    worst = Math.max(worst, at(times, 0.95));
    largest = Math.max(largest, answers[0]!.bytes);
    console.log(
      `  ${name.padEnd(18)} ${ms(at(times, 0.5)).padStart(7)} ${ms(at(times, 0.95)).padStart(7)} ${(answers[0]!.bytes / 1024).toFixed(0).padStart(5)} kB ${rows.toFixed(0).padStart(6)} rows${bad ? `  status ${bad.status}` : ''}`,
    );
  }
  console.log(
    `  worst p95 ${ms(worst)} (at most 100), largest ${(largest / 1024).toFixed(0)} kB (at most 100)`,
  );
}

async function together(url: string, places: readonly string[], jobs: readonly string[]) {
  const appends: number[] = [];
  const visits: number[] = [];
  const failed: number[] = [];
  const until = performance.now() + SECONDS * 1000;
  const technician = async (index: number) => {
    // They do not begin in the same moment.
    await new Promise((resolve) => setTimeout(resolve, (index / TECHNICIANS) * 1000));
    for (let order = 100; performance.now() < until; order++) {
      const began = performance.now();
      const kept = await ask(`${url}/api/events`, note(jobs[index % jobs.length]!, order));
      appends.push(kept.ms);
      if (kept.status !== 200) failed.push(kept.status);
      if (order % 5 === index % 5) {
        const seen = await ask(`${url}${places[(index + order) % places.length]}`);
        visits.push(seen.ms);
        if (seen.status !== 200) failed.push(seen.status);
      }
      await new Promise((resolve) => setTimeout(resolve, Math.max(0, 1000 - (performance.now() - began))));
    }
  };
  await Promise.all(Array.from({ length: TECHNICIANS }, (_, index) => technician(index)));
  console.log(`${TECHNICIANS} technicians, a reading a second each and a page every five, ${SECONDS} s:`);
  console.log(
    `  ${appends.length} appends: p50 ${ms(at(appends, 0.5))}, p95 ${ms(at(appends, 0.95))} (at most 250); ${visits.length} pages: p50 ${ms(at(visits, 0.5))}, p95 ${ms(at(visits, 0.95))}; ${failed.length} errors${failed.length > 0 ? ` (${[...new Set(failed)].join(', ')})` : ''}`,
  );
}

export async function benchPages(): Promise<void> {
  ensurePackages([POSTGRES]);
  run(bin('tsx'), ['scripts/build-schemas.ts']);
  const bed = await openTestBed();
  try {
    const env = await bed.prepareBrowser();
    Object.assign(process.env, env);
    // The seeded shop is the first by name, so that its people are the ones who act.
    process.env.DATABASE_URL = env.E2E_TEMPLATE_URL;
    const began = performance.now();
    const { openJobs } = await seed(FULL);
    await closeDatabase();
    console.log(
      `${FULL.jobs} jobs, ${FULL.jobs * FULL.entries} entries, ${FULL.vehicles} vehicles, ${FULL.mapped} of them mapped; made in ${((performance.now() - began) / 1000).toFixed(0)} s`,
    );
    const app = await openApp();
    const pool = new pg.Pool({ connectionString: app.databaseUrl, max: 2 });
    try {
      await pool.query('vacuum analyze');
      const job = openJobs[0]!;
      const { rows } = await pool.query(
        'select vehicle_id from panel_sets where shop_id = (select shop_id from jobs where id = $1) limit 1',
        [job],
      );
      const mapped = rows[0].vehicle_id as string;
      const pages = [
        ['Today', '/'],
        ['Jobs', '/jobs?list=closed'],
        ['Vehicles', '/vehicles'],
        ['Vehicles, search', '/vehicles?slot=mirror'],
        ['Palette', '/api/commands'],
        ['Search, a plate', '/api/search?text=AY%200417'],
        ['Search, a slot', '/api/search?text=AY%200017%20fuse%2014'],
        ['Vehicle', `/vehicles/${mapped}`],
        ['Boxes', `/vehicles/${mapped}/panels`],
        ['New job', '/jobs/new'],
        ['Job, document', `/jobs/${job}/trace`],
        ['Job, maps', `/api/jobs/${job}`],
        ['Job, entries', `/api/events?job=${job}&after=0`],
        ['Job, what is new', `/api/events?job=${job}&after=9`],
        ['Follow-ups', '/follow-ups'],
        ['Shop', '/shop'],
      ] as const;
      await oneAtATime(app.url, pool, pages);
      await together(
        app.url,
        [
          '/',
          '/vehicles',
          `/vehicles/${mapped}`,
          `/jobs/${job}`,
          `/api/jobs/${job}`,
          `/api/events?job=${job}&after=0`,
        ],
        openJobs.slice(0, TECHNICIANS),
      );
    } finally {
      await pool.end();
      await app.close(null);
    }
  } finally {
    agent.destroy();
    bed.close(false);
  }
}
