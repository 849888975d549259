/**
 * `test` as the browser tests have it: a context that one test has done with serves the next that asks for the same, with
 * its cache of scripts and with what the diagnosis has worked out, and with nothing else of the test before.
 */
import { type Browser, type BrowserContext, test as base, type Page } from '@playwright/test';
import { PREDICTIONS_DB } from '../src/sync/predictionsPlace';

export { type Browser, type BrowserContext, expect, type Page } from '@playwright/test';

/** So long a context may take to be made ready for another test; one that does not is closed. */
const READY_MS = 5000;

/** What a test may listen to on a context. Its end is not among them: the library itself waits for that to close it. */
const LISTENED_TO = [
  'page',
  'request',
  'response',
  'requestfinished',
  'requestfailed',
  'console',
  'dialog',
  'weberror',
];

const isPage = (page: Page) => /^https?:/.test(page.url());

/** Takes away what a test has left in a context; false where that cannot be done, as where the server is gone. */
async function emptied(context: BrowserContext): Promise<boolean> {
  const origins = new Set(
    context
      .pages()
      .filter(isPage)
      .map((page) => new URL(page.url()).origin),
  );
  await context.setOffline(false);
  await context.unrouteAll({ behavior: 'ignoreErrors' });
  const page = await context.newPage();
  await Promise.all(
    context
      .pages()
      .filter((one) => one !== page)
      .map((one) => one.close()),
  );
  await context.clearCookies();
  for (const origin of origins) {
    const answer = await page.goto(`${origin}/icon.svg`, { timeout: READY_MS });
    if (!answer?.ok()) return false;
    await page.evaluate(async (kept) => {
      localStorage.clear();
      for (const { name } of await indexedDB.databases()) {
        if (!name || name === kept) continue;
        await new Promise((resolve, reject) => {
          const request = indexedDB.deleteDatabase(name);
          request.onsuccess = resolve;
          request.onerror = reject;
        });
      }
    }, PREDICTIONS_DB);
  }
  await page.close();
  return true;
}

/** What the test that runs has chosen (`test.use`): every context of it begins with that, whoever makes it. */
let chosen = '';

/** Contexts of one browser that wait for another test, by what they were asked for with. */
function shareContexts(browser: Browser): () => void {
  const plain = browser.newContext.bind(browser);
  const waiting = new Map<string, BrowserContext[]>();
  browser.newContext = async (options) => {
    const key = `${chosen} ${JSON.stringify(options ?? {})}`;
    const found = waiting.get(key)?.pop();
    const context = found ?? (await plain(options));
    const end = found ? null : context.close.bind(context);
    if (end) {
      let waits = false;
      context.close = async (reason) => {
        if (waits) return;
        waits = true;
        const late = new Promise<false>((resolve) => setTimeout(() => resolve(false), READY_MS).unref());
        const ready = await Promise.race([emptied(context), late]).catch(() => false);
        if (!ready) return end(reason);
        for (const kind of LISTENED_TO) context.removeAllListeners(kind);
        waiting.set(key, [...(waiting.get(key) ?? []), context]);
      };
      (context as BrowserContext & { taken: () => void }).taken = () => {
        waits = false;
      };
    }
    (context as BrowserContext & { taken: () => void }).taken();
    return context;
  };
  return () => {
    browser.newContext = plain;
  };
}

export const test = base.extend<{ choice: undefined }, object>({
  choice: [
    async ({ viewport, hasTouch, isMobile, colorScheme, locale, timezoneId, contextOptions }, use) => {
      chosen = JSON.stringify({
        viewport,
        hasTouch,
        isMobile,
        colorScheme,
        locale,
        timezoneId,
        contextOptions,
      });
      await use(undefined);
    },
    { auto: true },
  ],
  browser: [
    async ({ browser }, use) => {
      const end = shareContexts(browser);
      await use(browser);
      end();
    },
    { scope: 'worker' },
  ],
});
