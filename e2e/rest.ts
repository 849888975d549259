/** When a page has come to rest: what a test waits for in place of a time. */
import type { Locator, Page } from '@playwright/test';

/** Everything that the page fetches and works out by itself is there, what it fetches ahead of its use too. */
export async function atRest(page: Page): Promise<void> {
  await page.locator('html[data-at-rest]').waitFor({ state: 'attached' });
}

/** The page has drawn so many times: what it was to draw is drawn. */
export async function drawn(page: Page, times = 20): Promise<void> {
  await page.evaluate(async (count) => {
    for (let n = 0; n < count; n++) await new Promise((resolve) => requestAnimationFrame(resolve));
  }, times);
}

/** A figure that is read in the page again and again stays what it is over thirty drawings; gives it. */
export async function settled(page: Page, read: () => Promise<number>): Promise<number> {
  for (;;) {
    const before = await read();
    await drawn(page, 30);
    if ((await read()) === before) return before;
  }
}

/** How many there are once no more are drawn. */
export const countAtRest = (page: Page, all: Locator) => settled(page, () => all.count());
