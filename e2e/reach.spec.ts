/** Of every view: nothing moves by itself once it is seen, and all of it is reached by keys alone. */
import { type App, openApp } from './app';
import { addresses, PAGES, seenInHand } from './pages';
import { atRest, drawn } from './rest';
import { expect, test } from './test';

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

const SIZES = [
  ['phone', { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true }],
  ['desk', { viewport: { width: 1280, height: 800 } }],
] as const;

for (const [size, use] of SIZES) {
  test(`on the ${size} nothing moves under the finger: the shift of every view`, async ({ browser }) => {
    test.setTimeout(240_000);
    const addressOf = await addresses(app);
    const context = await browser.newContext(use);
    const page = await context.newPage();
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
    const sums: number[] = [];
    for (const [place, ready] of Object.values(PAGES).flat()) {
      await page.goto(app.url + addressOf(place));
      const shows = size === 'phone' ? seenInHand(ready) : ready;
      await expect(page.getByText(shows).first()).toBeVisible();
      // What comes late has come, and is drawn.
      await atRest(page);
      await drawn(page);
      // Words of a person, and none of the program's own.
      const words = ((await page.locator('#main').textContent()) ?? '').replace(/\s+/g, ' ');
      const own = /.{0,40}(\[object |undefined|\bNaN\b).{0,20}/.exec(words)?.[0] ?? null;
      expect({ place, own }).toEqual({ place, own: null });
      const shifts = await page.evaluate(
        () => (window as unknown as { shifts: { value: number; of: string[] }[] }).shifts,
      );
      const sum = shifts.reduce((all, { value }) => all + value, 0);
      sums.push(sum);
      expect({ place, shifts: sum < 0.02 ? [] : shifts }).toEqual({ place, shifts: [] });
    }
    console.log(
      `layout shift on the ${size}: ${sums.length} views, ${Math.max(...sums).toFixed(4)} at the most`,
    );
    await context.close();
  });
}

test('every view by keys alone: Tab comes to all that can be pressed or typed in, and out again', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const addressOf = await addresses(app);
  let reached = 0;
  for (const [place, ready] of Object.values(PAGES).flat()) {
    await page.goto(app.url + addressOf(place));
    await expect(page.getByText(ready).first()).toBeVisible();
    await atRest(page);
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
    expect({ place, missed }).toEqual({ place, missed: [] });
    reached += seen.size;
  }
  console.log(`by Tab alone: ${reached} controls of ${Object.values(PAGES).flat().length} views`);
});
