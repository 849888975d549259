/** What the tests share: a context that has served one test serves the next, and ends when it cannot be emptied. */
import { type App, openApp } from './app';
import { expect, test } from './test';

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

test('a context is handed on empty; one whose server is gone is closed for good', async ({ browser }) => {
  const choice = { viewport: { width: 401, height: 733 } };
  const first = await browser.newContext(choice);
  const page = await first.newPage();
  await page.goto(app.url);
  await page.evaluate(() => localStorage.setItem('left', 'behind'));
  await first.close();
  const second = await browser.newContext(choice);
  expect(second).toBe(first);
  const again = await second.newPage();
  await again.goto(app.url);
  expect(await again.evaluate(() => localStorage.getItem('left'))).toBeNull();
  await app.kill();
  await second.close();
  expect(browser.contexts()).not.toContain(second);
  const third = await browser.newContext(choice);
  expect(third).not.toBe(first);
  await third.close();
});
