/** The commands that look after an installation: what they say, what they leave, and how they end. */
import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, rmSync, truncateSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { eq, sql } from 'drizzle-orm';
import { buildSync } from 'esbuild';
import { database } from '../src/db/client';
import { entryLinks, people, shops } from '../src/db/schema';
import { ownCode } from '../src/features/backup/server';
import { migrate, withDatabase } from '../testing/database';

withDatabase();
jest.setTimeout(120_000);

const COMMANDS = ['backup', 'doctorOfDatabase', 'recover', 'restore'] as const;
/** Below the packages, or the bundles would not find them. */
const bundles = path.resolve('node_modules/.cache', `every-trace-commands-${process.pid}`);
let folder: string;
// Bundled once: starting the compiler for every command would take seconds each.
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'every-trace-commands-'));
  buildSync({
    entryPoints: COMMANDS.map((name) => `scripts/${name}.ts`),
    bundle: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    outExtension: { '.js': '.mjs' },
    outdir: bundles,
    alias: { '#core': path.resolve('core') },
  });
});
afterAll(() => {
  for (const one of [folder, bundles]) rmSync(one, { recursive: true, force: true });
});

function saidBy(args: readonly string[], env: Record<string, string>) {
  const { status, stdout, stderr } = spawnSync(process.execPath, args, {
    encoding: 'utf8',
    env: { ...process.env, ...env },
  });
  return { status, said: `${stdout}${stderr}` };
}

function command(
  name: (typeof COMMANDS)[number],
  args: readonly string[] = [],
  env: Record<string, string> = {},
) {
  return saidBy([path.join(bundles, `${name}.mjs`), ...args], env);
}

test('the command itself answers as the bundle does', () => {
  const itself = saidBy(['node_modules/tsx/dist/cli.mjs', 'scripts/restore.ts'], {});
  expect(itself).toEqual(command('restore'));
  expect(itself.status).toBe(2);
});

test('doctor: in order, then without backup, without owner, with a form that is too new, with no database', async () => {
  const backups = { EVERY_TRACE_BACKUPS: folder };
  expect(command('doctorOfDatabase', [], backups)).toMatchObject({
    status: 0,
    said: expect.stringContaining('only the demo'),
  });
  const shopId = randomUUID();
  await database().insert(shops).values({ id: shopId, name: 'Fenwold Electrics', town: 'Fenwold' });
  await database().insert(people).values({ id: randomUUID(), shopId, name: 'Mara Quill', role: 'owner' });
  const alone = command('doctorOfDatabase', [], backups);
  expect(alone.said).toContain('✗ No owner of Fenwold Electrics can sign in. npm run recover makes a link.');
  expect(alone.said).toContain('✗ There is no backup yet. npm run backup makes one.');
  expect(alone.status).toBe(2);
  await database().execute(
    sql`insert into drizzle.__drizzle_migrations (hash, created_at) values ('later', 1)`,
  );
  expect(command('doctorOfDatabase', [], backups).said).toContain('newer than this program');
  await database().execute(sql`delete from drizzle.__drizzle_migrations where hash = 'later'`);
  const away = command('doctorOfDatabase', [], { DATABASE_URL: 'postgres://nobody:x@127.0.0.1:1/none' });
  expect(away.said).toContain('✗ The database does not answer as it should');
  expect(away.said).not.toContain('nobody:x');
});

test('recover: the owner gets a link that is good for an hour, and others are asked for by name', async () => {
  const made = command('recover');
  expect(made).toMatchObject({
    status: 0,
    said: expect.stringMatching(
      /For Mara Quill of Fenwold Electrics, once, within an hour: \/enter\/[\w-]{20,}/,
    ),
  });
  const [mara] = await database().select().from(people).where(eq(people.name, 'Mara Quill'));
  const [link] = await database().select().from(entryLinks).where(eq(entryLinks.personId, mara!.id));
  const minutes = (new Date(link!.expiresAt).getTime() - Date.now()) / 60_000;
  expect(minutes).toBeGreaterThan(50);
  expect(minutes).toBeLessThan(61);
  expect(made.said).not.toContain(link!.tokenHash);
  const nobody = command('recover', ['Nobody Known']);
  expect(nobody).toMatchObject({
    status: 1,
    said: expect.stringContaining('Mara Quill (Fenwold Electrics)'),
  });
});

test('backup and restore: there and back, refused where the shop is, and nothing of a damaged one', async () => {
  expect(command('backup', [folder]).status).toBe(0);
  const [file] = readdirSync(folder).filter((name) => name.startsWith('fenwold'));
  const whole = path.join(folder, file!);
  const url = process.env.DATABASE_URL!.replace(/\/[^/]*$/, `/restored_${randomUUID().slice(0, 8)}`);
  migrate(false, url);
  const elsewhere = { DATABASE_URL: url };
  const back = command('restore', [whole], elsewhere);
  expect(back).toMatchObject({ status: 0, said: expect.stringContaining('Fenwold Electrics is back') });
  expect(back.said).toMatch(/Mara Quill comes in by this address, once, within a day: \/enter\//);
  expect(command('restore', [whole], elsewhere)).toMatchObject({
    status: 1,
    said: expect.stringContaining('say --beside. Nothing was brought back.'),
  });
  expect(back.said).toContain('The backup is not verified');
  expect(command('restore', [whole, '--beside', '--key', 'AAAA-AAAA'], elsewhere)).toMatchObject({
    status: 1,
    said: expect.stringContaining('signed with a different key'),
  });
  const beside = command('restore', [whole, '--beside', '--key', (await ownCode())!], elsewhere);
  expect(beside).toMatchObject({ status: 0, said: expect.stringContaining('verified by its key') });
  expect(command('restore', [whole, '--besides'], elsewhere).status).toBe(2);
  truncateSync(whole, 700);
  expect(command('restore', [whole, '--beside'], elsewhere)).toMatchObject({
    status: 1,
    said: expect.stringMatching(/no whole zip[\s\S]*Nothing was brought back/),
  });
  expect(command('restore', [], elsewhere).status).toBe(2);
  expect(command('restore', [path.join(folder, 'none.zip')], elsewhere).said).toContain('There is no file');
});
