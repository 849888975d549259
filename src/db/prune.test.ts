/** What is over goes, and what may still be asked for stays. */
import { randomUUID } from 'node:crypto';
import { eq, inArray } from 'drizzle-orm';
import { demoActor, withDatabase } from '../../testing/database';
import { database } from './client';
import { prune } from './prune';
import { entryLinks, helpers, jobs, presence, requests, sessions, tries, users } from './schema';

withDatabase();

const DAY_MS = 86_400_000;
const ago = (days: number) => new Date(Date.now() - days * DAY_MS);

test('requests, tries, sessions, links, helpers and presence go after their time, not before', async () => {
  const { shopId, personId } = await demoActor();
  const db = database();
  const [job] = await db.select().from(jobs).where(eq(jobs.shopId, shopId)).limit(1);
  const own = { shopId, personId };
  const [oldRequest, newRequest] = [randomUUID(), randomUUID()];
  await db.insert(requests).values([
    { id: oldRequest, ...own, kind: 'job', answer: { ok: true }, madeAt: ago(181).toISOString() },
    { id: newRequest, ...own, kind: 'job', answer: { ok: true }, madeAt: ago(179).toISOString() },
  ]);
  await db.insert(tries).values([
    { key: 'name:over', points: 8, expire: Date.now() - 1000 },
    { key: 'name:on', points: 8, expire: Date.now() + 60_000 },
  ]);
  const userId = randomUUID();
  await db.insert(users).values({ id: userId, name: 'Bea Wray', email: 'bea@fenwold.example' });
  await db.insert(sessions).values([
    { id: randomUUID(), token: 'over', userId, expiresAt: ago(31) },
    { id: randomUUID(), token: 'ended, still told', userId, expiresAt: ago(29) },
    { id: randomUUID(), token: 'on', userId, expiresAt: ago(-1) },
  ]);
  await db.insert(entryLinks).values([
    { id: randomUUID(), ...own, tokenHash: 'over', expiresAt: ago(91).toISOString() },
    { id: randomUUID(), ...own, tokenHash: 'on', expiresAt: ago(-1).toISOString() },
  ]);
  const helper = { shopId, jobId: job!.id };
  await db.insert(helpers).values([
    { id: randomUUID(), ...helper, tokenHash: 'over', expiresAt: ago(91).toISOString() },
    { id: randomUUID(), ...helper, tokenHash: 'on', expiresAt: ago(-1).toISOString() },
  ]);
  const [gone, there] = [randomUUID(), randomUUID()];
  await db.insert(presence).values([
    { ...own, jobId: job!.id, page: gone, seenAt: ago(2).toISOString() },
    { ...own, jobId: job!.id, page: there, seenAt: ago(0).toISOString() },
  ]);

  expect(await prune()).toMatchObject({
    requests: 1,
    tries: 1,
    sessions: 1,
    links: 1,
    helpers: 1,
    presence: 1,
  });
  const left = {
    requests: (
      await db
        .select()
        .from(requests)
        .where(inArray(requests.id, [oldRequest, newRequest]))
    ).map(({ id }) => id),
    tries: (await db.select().from(tries)).map(({ key }) => key),
    sessions: (await db.select().from(sessions).where(eq(sessions.userId, userId)))
      .map(({ token }) => token)
      .sort(),
    links: (await db.select().from(entryLinks)).map(({ tokenHash }) => tokenHash),
    helpers: (await db.select().from(helpers)).map(({ tokenHash }) => tokenHash),
    presence: (await db.select().from(presence)).map(({ page }) => page),
  };
  expect(left).toEqual({
    requests: [newRequest],
    tries: ['name:on'],
    sessions: ['ended, still told', 'on'],
    links: ['on'],
    helpers: ['on'],
    presence: [there],
  });
  // Asked again at once, there is nothing.
  expect(Object.values(await prune()).every((count) => count === 0)).toBe(true);
});
