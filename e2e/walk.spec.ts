/**
 * Every view, loaded once at the desk and once in the hand, with everything that holds of all of them: nothing moves by
 * itself once it is seen, no word of the program's own, no serious accessibility finding in daylight and in footwell,
 * nothing wider than a phone, and all of it reached by keys alone.
 */
import AxeBuilder from '@axe-core/playwright';
import { type App, openApp } from './app';
import { addresses, NARROW, PAGES, seenInHand } from './pages';
import { nothingTooWide } from './phone';
import { atRest, drawn } from './rest';
import { DESK, PHONE } from './sizes';
import { expect, type Page, test } from './test';

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

const AT_DESK = { ...DESK, colorScheme: 'light' } as const;
const IN_HAND = { ...PHONE, colorScheme: 'light' } as const;

interface Shift {
  readonly value: number;
  readonly of: readonly string[];
}

/** Has every page from now on keep what moves in it by itself. */
async function watchShifts(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const shifts: { value: number; of: string[] }[] = [];
    (window as unknown as { shifts: typeof shifts }).shifts = shifts;
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as unknown as {
        value: number;
        hadRecentInput: boolean;
        sources: { node: Node | null }[];
      }[]) {
        if (entry.hadRecentInput) continue;
        const of = entry.sources.map(({ node }) => (node as Element | null)?.outerHTML?.slice(0, 90) ?? '');
        shifts.push({ value: entry.value, of });
      }
    }).observe({ type: 'layout-shift', buffered: true });
  });
}

/** What has moved since the page came, as the browser sums it up. */
async function nothingMoved(page: Page): Promise<number> {
  const shifts = await page.evaluate(() => (window as unknown as { shifts: Shift[] }).shifts);
  const sum = shifts.reduce((all, { value }) => all + value, 0);
  expect({ page: page.url(), shifts: sum < 0.02 ? [] : shifts }).toEqual({ page: page.url(), shifts: [] });
  return sum;
}

/** Words of a person, and none of the program's own. */
async function noOwnWords(page: Page): Promise<void> {
  const words = ((await page.locator('#main').textContent()) ?? '').replace(/\s+/g, ' ');
  const own = /.{0,40}(\[object |undefined|\bNaN\b).{0,20}/.exec(words)?.[0] ?? null;
  expect({ page: page.url(), own }).toEqual({ page: page.url(), own: null });
}

async function serious(page: Page, rules?: string[]): Promise<string[]> {
  // No page of ours stands in a frame, so none is looked into; only what is wrong is written down.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze();
  return violations
    .filter((one) => one.impact === 'serious' || one.impact === 'critical')
    .map((one) => `${page.url()} ${one.id}: ${one.nodes[0]?.html}`);
}

/** Tab comes to all that can be pressed or typed in, and out again; gives how many that are. */
async function reachedByTab(page: Page): Promise<number> {
  // Marked, so that each is known again; those that arrow keys go to, and what is switched off, are left out.
  const wanted = await page.evaluate(() => {
    (document.activeElement as HTMLElement | null)?.blur();
    const all = document.querySelectorAll<HTMLElement>(
      'a[href], button, input, select, textarea, [tabindex="0"]',
    );
    let count = 0;
    for (const one of all) {
      const { tabIndex } = one;
      // A group hands the key on to the one of its own that is chosen.
      const group = one.matches('[role=toolbar], [role=radiogroup], [role=tablist]');
      const off = group || (one as HTMLButtonElement).disabled || tabIndex < 0;
      const styled = one.checkVisibility({ visibilityProperty: true });
      if (off || !styled || one.closest('[inert], [aria-hidden="true"]')) continue;
      one.dataset.wanted = String(count++);
    }
    return count;
  });
  const seen = new Set<string>();
  for (let press = 0; press < wanted + 60 && seen.size < wanted; press++) {
    await page.keyboard.press('Tab');
    const here = await page.evaluate(() => (document.activeElement as HTMLElement | null)?.dataset.wanted);
    if (here !== undefined) seen.add(here);
  }
  const missed = await page.evaluate(
    (got) =>
      [...document.querySelectorAll<HTMLElement>('[data-wanted]')]
        .filter(({ dataset }) => !got.includes(dataset.wanted!))
        .map((one) => one.outerHTML.slice(0, 120)),
    [...seen],
  );
  expect({ page: page.url(), missed }).toEqual({ page: page.url(), missed: [] });
  return seen.size;
}

/** The page as it is when everything on it has come. */
async function come(page: Page, address: string, shows: string): Promise<void> {
  await page.goto(address);
  await expect(page.getByText(shows).first()).toBeVisible();
  await atRest(page);
  await drawn(page);
}

for (const [kind, pages] of Object.entries(PAGES)) {
  test(`pages ${kind} at the desk: nothing moves, every control by Tab, contrast and structure in both themes`, async ({
    browser,
  }) => {
    test.setTimeout(240_000);
    const addressOf = await addresses(app);
    const context = await browser.newContext(AT_DESK);
    const page = await context.newPage();
    await watchShifts(page);
    const theme = async (name: 'Footwell' | 'Daylight') => {
      await page.getByRole('button', { name, exact: true }).click();
      await expect(page.locator('html')).toHaveAttribute('data-theme', name.toLowerCase());
    };
    const sums: number[] = [];
    let reached = 0;
    for (const [place, shows] of pages) {
      await come(page, app.url + addressOf(place), shows);
      await noOwnWords(page);
      sums.push(await nothingMoved(page));
      expect(await serious(page)).toEqual([]);
      reached += await reachedByTab(page);
      // Structure is the same in both themes; colours are not.
      await theme('Footwell');
      expect(await serious(page, ['color-contrast'])).toEqual([]);
      await theme('Daylight');
    }
    console.log(
      `pages ${kind} at the desk: ${sums.length}, moved by ${Math.max(...sums).toFixed(4)} at the most, ${reached} controls by Tab alone`,
    );
    await context.close();
  });

  test(`pages ${kind} in the hand: nothing moves, nothing too wide, contrast and structure in both themes`, async ({
    browser,
  }) => {
    test.setTimeout(240_000);
    const addressOf = await addresses(app);
    const context = await browser.newContext(IN_HAND);
    const page = await context.newPage();
    await watchShifts(page);
    const sums: number[] = [];
    for (const [place, shows] of pages) {
      await come(page, app.url + addressOf(place), seenInHand(shows));
      await noOwnWords(page);
      sums.push(await nothingMoved(page));
      expect(await serious(page)).toEqual([]);
      await page.evaluate(() => {
        document.documentElement.dataset.theme = 'footwell';
      });
      expect(await serious(page, ['color-contrast'])).toEqual([]);
      await nothingTooWide(page);
      await page.setViewportSize(PHONE.viewport);
    }
    for (const [place, shows] of NARROW[kind as keyof typeof PAGES]) {
      await page.goto(app.url + place);
      await expect(page.getByText(shows).first()).toBeVisible();
      await nothingTooWide(page);
      await page.setViewportSize(PHONE.viewport);
    }
    console.log(
      `pages ${kind} in the hand: ${sums.length}, moved by ${Math.max(...sums).toFixed(4)} at the most`,
    );
    await context.close();
  });
}
