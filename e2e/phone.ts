/** Pages held against the width of a phone. */
import { expect, type Page } from '@playwright/test';

const WIDTHS = [360, 390] as const;

async function tooWide(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const wrong: string[] = [];
    const { clientWidth, scrollWidth } = document.documentElement;
    if (scrollWidth > clientWidth) wrong.push(`the page is ${scrollWidth} wide`);
    for (const item of document.querySelectorAll('body > div > aside :is(a, button)')) {
      const box = item.getBoundingClientRect();
      if (box.width > 0 && (box.left < 0 || box.right > innerWidth || box.bottom > innerHeight + 1)) {
        wrong.push(`${item.textContent} of the bar is cut`);
      }
    }
    return wrong;
  });
}

/** Nothing of the page that is shown is wider than a phone; the page keeps the last width. */
export async function nothingTooWide(page: Page): Promise<void> {
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 700 });
    await expect(async () => {
      expect([page.url(), width, await tooWide(page)]).toEqual([page.url(), width, []]);
    }).toPass({ timeout: 3000 });
  }
}
