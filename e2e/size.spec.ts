/** What a page asks for by itself before anybody taps: its script, compressed; workers and what comes ahead of use apart. */
import { type App, openApp } from './app';
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
const MOST = { job: 255, boxes: 250, sheet: 240 } as const;

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
