/** A database of its own for a test file, with the demo in it. */
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import type { Actor } from '../src/access';
import { closeDatabase, database } from '../src/db/client';
import { people, shops } from '../src/db/schema';
import { closeReaders } from '../src/workers/mapReader';

/** Call it once at the top of a test file that needs PostgreSQL. */
export function withDatabase({ demo = true } = {}): void {
  beforeAll(() => {
    const admin = process.env.TEST_DATABASE_URL;
    if (!admin) throw new Error('TEST_DATABASE_URL is not set; npm test sets it.');
    const name = `unit_${process.pid}_${Date.now()}_${randomUUID().slice(0, 8)}`;
    process.env.DATABASE_URL = admin.replace(/\/[^/]*$/, `/${name}`);
    migrate(demo);
  }, 60_000);
  afterAll(async () => {
    await closeReaders();
    await closeDatabase();
  });
}

/** Brings the database of DATABASE_URL to the newest migration, as a start does. */
export function migrate(demo: boolean): void {
  const root = process.cwd();
  execFileSync(
    path.join(root, 'node_modules/.bin/tsx'),
    ['scripts/migrate.ts', ...(demo ? ['--demo'] : [])],
    { env: process.env, cwd: root, stdio: 'pipe' },
  );
}

/** Somebody of another shop. */
export async function stranger(): Promise<Actor> {
  const shop = { id: randomUUID(), name: 'Zander Marine', town: 'Marrowby Quay' };
  await database().insert(shops).values(shop);
  return colleague(
    { personId: '', personName: '', shopId: shop.id, shopName: shop.name, town: shop.town },
    'Ola Zander',
  );
}

/** Another person of the same shop. */
export async function colleague(actor: Actor, name: string): Promise<Actor> {
  const person = { id: randomUUID(), shopId: actor.shopId, name, role: 'technician' };
  await database().insert(people).values(person);
  const [kept] = await database().select().from(people).where(eq(people.id, person.id));
  return { ...actor, personId: kept!.id, personName: kept!.name };
}
