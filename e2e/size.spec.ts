/** What a page asks for by itself before anybody taps: its script, compressed; workers and what comes ahead of use apart. */
import { type App, openApp } from './app';
import { atRest, settled } from './rest';
import { expect, type Page, test } from './test';

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

/** Kilobytes of script that were asked for before the page first showed what it is for. */
async function scriptOf(page: Page, address: string, shows: string): Promise<number> {
  const fresh = await page.context().newPage();
  // The moment is taken in the page: what comes after it does not count, however late this test looks.
  await fresh.addInitScript((selector) => {
    const watching = new MutationObserver(() => {
      if (!document.querySelector(selector)) return;
      (window as unknown as { shownAt: number }).shownAt = performance.now();
      watching.disconnect();
    });
    watching.observe(document, { childList: true, subtree: true });
  }, shows);
  await fresh.goto(address);
  await fresh.locator(shows).first().waitFor();
  const kilobytes = await fresh.evaluate(() => {
    const { shownAt } = window as unknown as { shownAt: number };
    const bytes = performance
      .getEntriesByType('resource')
      .map((one) => one as PerformanceResourceTiming)
      .filter((one) => one.name.endsWith('.js') && one.initiatorType !== 'other' && one.startTime <= shownAt)
      .reduce((sum, one) => sum + one.encodedBodySize, 0);
    return Math.round(bytes / 1024);
  });
  await fresh.close();
  return kilobytes;
}

/** Kilobytes that the views of a job ask for at the most: what they are now, with a little room. */
const MOST = { job: 255, boxes: 250, sheet: 241 } as const;

test('what a page asks for before anybody taps stays small', async ({ page }) => {
  const job = await app.job('Proving-cabinet fan dead');
  const today = await scriptOf(page, app.url, 'h1');
  const views: Record<string, number> = {};
  for (const [tail, shows] of [
    ['', '#complaint'],
    ['/boxes', '[data-testid=slot-title]'],
    ['/sheet', '[data-testid=sheet]'],
  ] as const)
    views[tail === '' ? 'job' : tail.slice(1)] = await scriptOf(page, job + tail, shows);
  const said = Object.entries(views).map(([view, kilobytes]) => `${view} ${kilobytes} kB`);
  console.log(`script before anybody taps: Today ${today} kB; ${said.join(', ')}`);
  expect(today).toBeGreaterThan(20);
  expect(today).toBeLessThanOrEqual(180);
  for (const [view, most] of Object.entries(MOST)) {
    expect({ view, small: views[view]! <= most }).toEqual({ view, small: true });
  }
});

/**
 * Scripts that a page asks for until it shows what it is for, in rounds: each only after the round before has come. One that
 * came before is in the browser's cache.
 */
async function roundsOf(page: Page, address: string, shows: string): Promise<string[][]> {
  const came = new Set<string>();
  const waiting: { name: string; go: () => Promise<void> }[] = [];
  await page.route('**/*.js*', async (route) => {
    const name = new URL(route.request().url()).pathname.split('/').pop()!;
    if (came.has(name)) return route.continue();
    waiting.push({ name, go: () => route.continue() });
  });
  await page.goto(address, { waitUntil: 'commit' });
  const rounds: string[][] = [];
  const shown = page.locator(shows).first();
  for (;;) {
    await expect.poll(async () => waiting.length > 0 || (await shown.isVisible())).toBe(true);
    if (await shown.isVisible()) break;
    await settled(page, async () => waiting.length);
    const round = waiting.splice(0);
    for (const { name } of round) came.add(name);
    rounds.push([...new Set(round.map(({ name }) => name))]);
    await Promise.all(round.map(({ go }) => go()));
  }
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  return rounds;
}

test('before the first card no script is asked for later than in the second round after the document’s own', async ({
  page,
}) => {
  const job = await app.job('Proving-cabinet fan dead');
  const rounds = await roundsOf(page, `${job}/trace`, '[data-testid=card-title]');
  console.log(`scripts before the first card, round by round: ${rounds.map((one) => one.length).join(', ')}`);
  expect(rounds.length).toBeLessThanOrEqual(3);
  // The worker's own are among those of the second round, or the count says nothing of it.
  expect(rounds[1]?.filter((name) => name.startsWith('turbopack')).length).toBeGreaterThanOrEqual(2);
  // What was fetched ahead holds no connection that others wait for.
  await atRest(page);
});
