/** An application of its own for each test file: a copy of the demo database and a server on a free port. */
import { type ChildProcess, spawn } from 'node:child_process';
import net from 'node:net';
import path from 'node:path';
import pg from 'pg';

const ROOT = path.resolve(import.meta.dirname ?? '.', '..');

export interface App {
  readonly url: string;
  readonly databaseUrl: string;
  start(): Promise<void>;
  /** Ends the server at once, as a power cut would. */
  kill(): Promise<void>;
  query<T extends pg.QueryResultRow>(text: string, values?: unknown[]): Promise<T[]>;
  close(): Promise<void>;
}

function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const server = net.createServer();
    server.on('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

export async function openApp(): Promise<App> {
  const template = process.env.E2E_TEMPLATE_URL;
  if (!template) throw new Error('E2E_TEMPLATE_URL is not set; npm test sets it.');
  const name = `e2e_${Date.now()}_${Math.floor(Math.random() * 1e6)}`;
  const admin = new URL(template);
  const templateName = admin.pathname.slice(1);
  admin.pathname = '/postgres';
  const adminClient = new pg.Client({ connectionString: admin.href });
  await adminClient.connect();
  await adminClient.query(`CREATE DATABASE ${name} TEMPLATE ${templateName}`);
  await adminClient.end();
  const database = new URL(template);
  database.pathname = `/${name}`;
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const pool = new pg.Pool({ connectionString: database.href, max: 2 });
  let server: ChildProcess | null = null;

  const start = async () => {
    server = spawn(
      process.execPath,
      [path.join(ROOT, 'node_modules/next/dist/bin/next'), 'start', '-H', '127.0.0.1', '-p', String(port)],
      {
        cwd: ROOT,
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, NODE_ENV: 'production', DATABASE_URL: database.href },
      },
    );
    for (let tries = 0; tries < 200; tries++) {
      const up = await fetch(`${url}/api/health`).then(
        (response) => response.ok,
        () => false,
      );
      if (up) return;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error('The application did not start.');
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
  await start();
  return {
    url,
    databaseUrl: database.href,
    start,
    kill,
    query: async (text, values) => (await pool.query(text, values)).rows,
    close: async () => {
      await kill();
      await pool.end();
    },
  };
}
