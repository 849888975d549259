/** Others are told that somebody is on a job, or is not any more: not of each page that they open there. */
import { randomUUID } from 'node:crypto';
import { database } from '@/db/client';
import { listenTo, tell } from '@/db/news';
import { jobs } from '@/db/schema';
import { colleague, demoActor, withDatabase } from '../../../testing/database';
import { isGone, isHere, whoIsOn } from './presence';

withDatabase();
afterAll(async () => {
  const held = globalThis as unknown as { everyTraceNews?: { client: { end(): Promise<void> } | null } };
  const listening = held.everyTraceNews;
  delete held.everyTraceNews;
  await listening?.client?.end();
});

test('whoever comes and goes is told of, however many pages they have', async () => {
  const actor = await demoActor();
  const other = await colleague(actor, 'Bent Lorne');
  const [job] = await database().select({ id: jobs.id }).from(jobs).limit(1);
  let told = 0;
  let marks = 0;
  const stop = listenTo(job!.id, (news) => {
    if (news === 'here') told += 1;
    else marks += 1;
  });
  /** What was told by all that was done until now: news come in their order. */
  const toldSoFar = async () => {
    const before = marks;
    await tell(database(), job!.id, 'entries');
    for (let tries = 0; tries < 400 && marks === before; tries++)
      await new Promise((resolve) => setTimeout(resolve, 5));
    return told;
  };
  // Told of once the connection listens.
  while (marks === 0) await toldSoFar();
  const pages = Array.from({ length: 30 }, () => randomUUID());
  await isHere(actor, job!.id, pages[0]!);
  expect(await toldSoFar()).toBeGreaterThan(0);
  await Promise.all(pages.slice(1).map((page) => isHere(actor, job!.id, page)));
  const first = await toldSoFar();
  expect(first).toBeLessThan(5);
  const theirs = randomUUID();
  await isHere(other, job!.id, theirs);
  expect(await toldSoFar()).toBeGreaterThan(first);
  expect((await whoIsOn(job!.id)).map(({ name }) => name).sort()).toEqual(
    [actor.personName, 'Bent Lorne'].sort(),
  );
  const both = await toldSoFar();
  await Promise.all(pages.slice(1).map((page) => isGone(job!.id, page)));
  expect(await toldSoFar()).toBe(both);
  await isGone(job!.id, pages[0]!);
  expect(await toldSoFar()).toBe(both + 1);
  expect((await whoIsOn(job!.id)).map(({ name }) => name)).toEqual(['Bent Lorne']);
  await isGone(job!.id, theirs);
  expect(await toldSoFar()).toBe(both + 2);
  stop();
});
