/** An application of its own for each test file: a copy of the demo database and a server on a free port. */
import { type ChildProcess, spawn } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { Browser } from '@playwright/test';
import pg from 'pg';
import { freePort } from '../scripts/lib/ports.mjs';
import { ServerErrors } from './serverErrors';

const ROOT = path.resolve(import.meta.dirname ?? '.', '..');

export interface App {
  readonly url: string;
  readonly databaseUrl: string;
  start(): Promise<void>;
  /** Ends the server at once, as a power cut would. */
  kill(): Promise<void>;
  query<T extends pg.QueryResultRow>(text: string, values?: unknown[]): Promise<T[]>;
  /** Address of the first job whose title, or vehicle whose name, begins so: straight there, not by way of a list. */
  job(title: string): Promise<string>;
  vehicle(name: string): Promise<string>;
  /** Moves the clock of the server so many days ahead of the machine's own. */
  moveClock(days: number): void;
  /** The test provokes errors of the server that say so; any other that it writes down fails the test. */
  mayFail(pattern: RegExp): void;
  /** Ends the server for good. */
  end(): Promise<void>;
  /** Closes the pages first, so that none asks for what is no longer there; fails where the server wrote of errors. */
  close(browser: Browser | null): Promise<void>;
}

/** A server that has served one test and waits for the next of the same worker. */
interface Idle {
  readonly server: ChildProcess;
  readonly port: number;
  readonly database: URL;
  /** By how much its clock goes ahead stands here. */
  readonly clock: string;
  readonly errors: ServerErrors;
}

let idle: Idle | null = null;
process.on('exit', () => idle?.server.kill('SIGKILL'));

async function asAdmin(template: string, work: (client: pg.Client) => Promise<unknown>): Promise<void> {
  const admin = new URL(template);
  admin.pathname = '/postgres';
  const client = new pg.Client({ connectionString: admin.href });
  await client.connect();
  try {
    await work(client);
  } finally {
    await client.end();
  }
}

async function answers(url: string, tries: number): Promise<boolean> {
  for (let tried = 0; tried < tries; tried++) {
    const up = await fetch(`${url}/api/health`).then(
      (response) => response.ok,
      () => false,
    );
    if (up) return true;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  return false;
}

/** Until what the pages asked last is done: a request that outlives its page still works on the database. */
async function atRest(client: pg.Client): Promise<void> {
  const end = Date.now() + 5000;
  for (let quiet = 0; quiet < 3 && Date.now() < end; ) {
    const busy = await client
      .query(
        `select 1 from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid() and state <> 'idle' limit 1`,
      )
      .then(
        ({ rowCount }) => rowCount,
        // A test that ended the database has nothing to wait for.
        () => 0,
      );
    quiet = busy ? 0 : quiet + 1;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

const nameOf = (database: URL) => database.pathname.slice(1);

/** A fresh copy of the demo, and a server on it: the one that the test before left, where it still runs. */
export async function openApp(): Promise<App> {
  const template = process.env.E2E_TEMPLATE_URL;
  if (!template) throw new Error('E2E_TEMPLATE_URL is not set; npm test sets it.');
  const left = idle;
  idle = null;
  const database = left?.database ?? new URL(template);
  if (!left) database.pathname = `/e2e_${process.pid}_${Date.now()}_${Math.floor(Math.random() * 1e6)}`;
  await asAdmin(template, (client) =>
    client.query(`CREATE DATABASE ${nameOf(database)} TEMPLATE ${nameOf(new URL(template))}`),
  );
  const port = left?.port ?? (await freePort());
  const errors = left?.errors ?? new ServerErrors();
  const clock = left?.clock ?? path.join(os.tmpdir(), `every-trace-clock-${process.pid}-${port}`);
  writeFileSync(clock, '0');
  const url = `http://127.0.0.1:${port}`;
  const client = new pg.Client({ connectionString: database.href });
  // A test that kills the database kills this too; the next query says so.
  client.on('error', () => undefined);
  await client.connect();
  let server: ChildProcess | null = left?.server ?? null;

  const start = async () => {
    server = spawn(
      process.execPath,
      [
        path.join(ROOT, 'node_modules/next/dist/bin/next'),
        ...['start', '-H', '127.0.0.1', '-p', String(port)],
        // A request of the test itself does not ask again where the server let go of its idle connection just then.
        ...['--keepAliveTimeout', '600000'],
      ],
      {
        cwd: ROOT,
        stdio: ['ignore', 'ignore', 'pipe'],
        env: {
          ...process.env,
          NODE_ENV: 'production',
          DATABASE_URL: database.href,
          EVERY_TRACE_LOG: 'error',
          EVERY_TRACE_CLOCK: clock,
        },
      },
    );
    errors.listenTo(server);
    if (!(await answers(url, 200))) throw new Error('The application did not start.');
  };
  const kill = async () => {
    const dying = server;
    server = null;
    if (!dying || dying.exitCode !== null) return;
    await new Promise<void>((resolve) => {
      dying.on('exit', () => resolve());
      dying.kill('SIGKILL');
    });
  };
  // Its connections to the database of the test before are gone; it makes new ones.
  if (server && !(await answers(url, 50))) await kill();
  if (!server) await start();
  errors.forgetDropped();
  const found = async (text: string, begins: string) => {
    const { rows } = await client.query<{ id: string }>(text, [`${begins}%`]);
    if (!rows[0]) throw new Error(`Nothing in the demo begins with “${begins}”.`);
    return rows[0].id;
  };
  return {
    url,
    databaseUrl: database.href,
    start,
    kill,
    query: async (text, values) => (await client.query(text, values)).rows,
    job: async (title) => `${url}/jobs/${await found('select id from jobs where title like $1', title)}`,
    vehicle: async (name) =>
      `${url}/vehicles/${await found('select id from vehicles where name like $1', name)}`,
    moveClock: (days) => writeFileSync(clock, String(days * 86_400_000)),
    mayFail: (pattern) => errors.expect(pattern),
    end: async () => {
      if (idle?.server === server) idle = null;
      await kill();
    },
    close: async (browser) => {
      await Promise.all((browser?.contexts() ?? []).map((context) => context.close()));
      await atRest(client);
      const wrong = errors.take();
      // Gone before the database is dropped, or its end would come as an error of no test.
      await client.end();
      await asAdmin(template, (client) => client.query(`DROP DATABASE ${nameOf(database)} WITH (FORCE)`));
      if (server && server.exitCode === null) idle = { server, port, database, clock, errors };
      if (wrong.length > 0) {
        throw new Error(`The server wrote of errors that this test does not expect:\n${wrong.join('\n')}`);
      }
    },
  };
}
