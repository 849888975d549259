/** A whole box under one thumb. */
import { expect, type Page, test } from '@playwright/test';
import { boxOf } from '../testing/panels';
import { type App, openApp } from './app';

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async () => {
  await app.close();
});

/** A job on the pickup with a box brought in. */
async function jobWithBox(page: Page, count: number, perRow: number): Promise<void> {
  await page.goto(`${app.url}/vehicles`);
  await page.getByRole('link', { name: /Beekeeper/ }).click();
  await page.locator('input[type=file]').setInputFiles({
    name: 'boxes.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(boxOf(count, perRow))),
  });
  await expect(page.getByTestId('import-outcome')).toContainText('Boxes of the pickup');
  await page.getByRole('link', { name: 'New job on it' }).click();
  await page.getByLabel(/What fails/).fill('Several things dead');
  await page.getByRole('button', { name: /Open the job/ }).click();
  await page.getByRole('link', { name: 'Test the whole box' }).click();
  await expect(page.getByTestId('slot-title')).toBeVisible();
}

test.describe('by touch', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('twelve slots with the key off: passes, one open, two awaiting the key, one fed from elsewhere', async ({
    page,
  }) => {
    await jobWithBox(page, 12, 6);
    await expect(page.getByText('Prove the tester')).toBeVisible();
    await page.getByRole('button', { name: 'Tester proved' }).tap();
    const started = Date.now();
    const title = page.getByTestId('slot-title');
    const pairs = [...Array<string>(9).fill('Both lit'), 'Feed side only', 'Both dark', 'Both dark'];
    for (const [index, pair] of pairs.entries()) {
      await expect(title).toContainText(`Fuse ${index + 1} `);
      await page.getByRole('button', { name: pair }).tap();
    }
    // One of the nine is pulled, and its load side is still live.
    await page
      .getByTestId('verdicts')
      .getByRole('button', { name: /Fuse 4 / })
      .tap();
    await page.getByRole('button', { name: 'Fuse is out' }).tap();
    await page.getByRole('button', { name: 'Load side still live' }).tap();
    await expect(page.getByTestId('triage-counts')).toHaveText(
      '8 provisional passes, 1 suspected open, 2 await the right key position, 1 fed from elsewhere.',
    );
    const seconds = (Date.now() - started) / 1000;
    console.log(`twelve slots by touch: ${seconds.toFixed(1)} s`);
    expect(seconds).toBeLessThan(90);
    // A slip is taken back, and everything is there after a reload.
    await page.getByRole('button', { name: 'Undo' }).tap();
    await expect(page.getByTestId('triage-counts')).toContainText('9 provisional passes');
    await page.getByTestId('sending').getByText('All recorded').waitFor({ state: 'attached' });
    await page.reload();
    await expect(page.getByTestId('triage-counts')).toContainText('9 provisional passes');
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(overflow).toBeLessThanOrEqual(0);
  });

  test('twenty-four pairs in under two minutes', async ({ page }) => {
    await jobWithBox(page, 24, 8);
    await page.getByRole('button', { name: 'Tester proved' }).tap();
    const started = Date.now();
    for (let index = 1; index <= 24; index++) {
      await expect(page.getByTestId('slot-title')).toContainText(`Fuse ${index} `);
      await page.getByRole('button', { name: 'Both lit' }).tap();
    }
    await expect(page.getByTestId('triage-counts')).toHaveText('24 provisional passes.');
    const seconds = (Date.now() - started) / 1000;
    console.log(`twenty-four pairs by touch: ${seconds.toFixed(1)} s`);
    expect(seconds).toBeLessThan(120);
  });
});

test('a delayed feed shows itself over the key positions, and each reading keeps its own', async ({
  page,
}) => {
  await jobWithBox(page, 3, 3);
  await page.getByRole('button', { name: 'What feeds it when' }).click();
  // Live in: slot 1 always, slot 2 until the modules sleep, slot 3 with the key at run.
  const live: Readonly<Record<string, readonly boolean[]>> = {
    'Key off': [true, true, false],
    'Key off, after the wait': [true, false, false],
    'Key at accessory': [true, true, false],
    'Key at run': [true, true, true],
    Cranking: [true, false, false],
    'Engine running': [true, true, true],
  };
  const states = Object.keys(live);
  for (const [index, state] of states.entries()) {
    await expect(page.getByTestId('survey-state')).toContainText(state);
    for (const on of live[state]!) await page.getByRole('button', { name: on ? /^Live/ : /^Dead/ }).click();
    const next = states[index + 1];
    if (next) await page.getByRole('button', { name: `${next}: go on` }).click();
  }
  const rows = page.getByTestId('survey').locator('tbody tr');
  await expect(rows.nth(0)).toContainText('constant');
  await expect(rows.nth(1)).toContainText('delayed');
  await expect(rows.nth(2)).toContainText('run');
  await expect(page.getByText('Every slot is read in every state')).toBeVisible();
});
