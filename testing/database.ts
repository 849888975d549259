/** A database of its own for a test file, with the demo in it. */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import pg from 'pg';
import type { Role } from '../core/format';
import { type Actor, enter } from '../src/access';
import { closeDatabase, database } from '../src/db/client';
import { people, shops } from '../src/db/schema';
import { closeReaders } from '../src/workers/mapReader';
import { closePictures } from '../src/workers/pictureReader';
import { closeMakers } from '../src/workers/sheetMaker';

/** Any number will do, as long as every test file uses the same. */
const TEMPLATE_LOCK = 4012_2027;

/** A copy of the demo: the first test file of a run that needs one makes what all others copy. */
async function copyOfDemo(admin: string, name: string): Promise<void> {
  const template = process.env.UNIT_TEMPLATE;
  if (!template) throw new Error('UNIT_TEMPLATE is not set; the global set-up of Jest sets it.');
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [TEMPLATE_LOCK]);
    const { rowCount } = await client.query('select from pg_database where datname = $1', [template]);
    if (rowCount === 0) migrate(true, admin.replace(/\/[^/]*$/, `/${template}`));
    await client.query(`create database ${name} template ${template}`);
  } finally {
    await client.end();
  }
}

/** Call it once at the top of a test file that needs PostgreSQL. */
export function withDatabase(): void {
  beforeAll(async () => {
    const admin = process.env.TEST_DATABASE_URL;
    if (!admin) throw new Error('TEST_DATABASE_URL is not set; npm test sets it.');
    const name = `unit_${process.pid}_${Date.now()}_${randomUUID().slice(0, 8)}`;
    await copyOfDemo(admin, name);
    process.env.DATABASE_URL = admin.replace(/\/[^/]*$/, `/${name}`);
  }, 60_000);
  afterAll(async () => {
    await closeReaders();
    await closePictures();
    await closeMakers();
    await closeDatabase();
  });
}

/** Brings a database, that of DATABASE_URL where none is named, to the newest migration, as a start does. */
export function migrate(demo: boolean, url = process.env.DATABASE_URL): void {
  const root = process.cwd();
  execFileSync(
    path.join(root, 'node_modules/.bin/tsx'),
    ['scripts/migrate.ts', ...(demo ? ['--demo'] : [])],
    { env: { ...process.env, DATABASE_URL: url }, cwd: root, stdio: 'pipe' },
  );
}

/** The technician of the demo, as a browser on this machine is. Throws when the database holds no demo. */
export async function demoActor(): Promise<Actor> {
  const entered = await enter(new Headers({ host: '127.0.0.1:4012' }));
  if (entered.kind === 'nobody') throw new Error('The database holds no demo.');
  return entered.actor;
}

/** Somebody of another shop. */
export async function stranger(): Promise<Actor> {
  const shop = { id: randomUUID(), name: 'Zander Marine', town: 'Marrowby Quay' };
  await database().insert(shops).values(shop);
  return colleague(
    {
      personId: '',
      personName: '',
      role: 'technician',
      shopId: shop.id,
      shopName: shop.name,
      town: shop.town,
      demo: false,
      account: null,
    },
    'Ola Zander',
  );
}

/** Another person of the same shop. */
export async function colleague(actor: Actor, name: string, role: Role = 'technician'): Promise<Actor> {
  const person = { id: randomUUID(), shopId: actor.shopId, name, role };
  await database().insert(people).values(person);
  const [kept] = await database().select().from(people).where(eq(people.id, person.id));
  return { ...actor, personId: kept!.id, personName: kept!.name, role };
}
