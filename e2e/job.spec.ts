/** The whole task, from complaint to hand-over, as a technician plays it. */
import { readFileSync } from 'node:fs';
import { checkCircuit } from '../core/circuit/checkCircuit';
import type { JobFile } from '../core/format/jobSchema';
import { type App, openApp } from './app';
import { countAtRest } from './rest';
import { PHONE } from './sizes';
import { cardId, enterByKeyboard, enterByTouch, faultyVehicle, openFanJob, valueFor } from './technician';
import { expect, type Page, test } from './test';

const VAN = ['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'] as const;
const MOST_TESTS = 14;

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

/** Collects what must never appear: script errors and breaches of the content security policy. */
function watch(page: Page): string[] {
  const found: string[] = [];
  page.on('pageerror', (error) => found.push(error.message));
  page.on('console', (message) => {
    if (message.type() === 'error') found.push(message.text());
  });
  return found;
}

/** In the hand: the setting is looked for by its name, the function answered in its row. */
async function checkByThumb(page: Page, setting: string, name: string, state: string): Promise<void> {
  const grid = page.getByTestId('function-grid');
  while (!(await grid.getByText(setting, { exact: true }).isVisible())) {
    await grid.getByRole('button', { name: 'Setting after' }).tap();
  }
  await grid.getByRole('button', { name: `${name}: ${state}` }).tap();
}

async function check(page: Page, cell: string, state: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${cell}: `) }).click();
  await page.getByRole('dialog').getByRole('button', { name: state, exact: false }).click();
}

test('by keyboard: dead fan to proved plug, reloaded in the middle, one reading corrected', async ({
  page,
}) => {
  const errors = watch(page);
  const vehicle = faultyVehicle(VAN, { part: 'C12', mode: 'open' });
  await page.goto(app.url);
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await page.getByRole('link', { name: /^Proving-cabinet fan dead/ }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Complaint' })).toBeVisible();

  // Seen at the vehicle, not only reported: a fan that merely runs weakly is out of the question.
  await check(page, 'Proving-cabinet fan, Key on, cabinet switch on', 'dead');
  // The grid says what is expected, takes what is seen, and shows what that clears.
  const lights = page.getByRole('button', {
    name: /^Left shelf light, Key off, shelf lights on: not tried, expected works/,
  });
  await lights.focus();
  await page.keyboard.press('Enter');
  await page.getByRole('dialog').getByRole('button', { name: 'works' }).focus();
  await page.keyboard.press('Enter');
  const cleared = page.getByTestId('shared-parts');
  await expect(cleared).toContainText('✓ Main fuse 2 (60 A) — left shelf light');
  // What only a heavier load shows is not cleared by a small lamp.
  await expect(cleared).toContainText('Still suspect');
  await expect(cleared.getByText(/^Fuse 31/)).toBeVisible();

  await page.getByRole('link', { name: 'Start the trace' }).press('Enter');
  await expect(page.getByTestId('card-title')).toBeVisible();
  await page.getByRole('button', { name: 'Tester proved' }).press('Enter');

  let corrected = false;
  for (let count = 0; count < MOST_TESTS; count++) {
    const card = page.locator('article[data-test]');
    await expect(card.or(page.getByTestId('finished'))).toBeVisible();
    if (await page.getByTestId('finished').isVisible()) break;
    const id = await cardId(page);
    await expect(page.getByTestId('card-expected')).not.toBeEmpty();
    await expect(page.getByTestId('card-why')).toContainText('min');
    const value = valueFor(vehicle, id);
    if (!corrected && 'volts' in value) {
      // A slip of the finger, noticed and corrected with u.
      corrected = true;
      const slips = page.getByTestId('log').getByText('1.23 V');
      await page.keyboard.type('1.23');
      await page.keyboard.press('Enter');
      // It is in the log; u brings back the card and what was typed.
      await expect(slips.first()).toBeVisible();
      await expect(page.locator(`article[data-test="${id}"]`)).toHaveCount(0);
      await expect(card).toBeVisible();
      await page.keyboard.press('u');
      await expect(card).toHaveAttribute('data-test', id);
      await expect(page.getByLabel('Reading, in volts')).toHaveValue('1.23');
      await page.getByLabel('Reading, in volts').fill('');
      // Half typed, then the page is reloaded: the draft and every reading are still there.
      await page.keyboard.type('1');
      await page.getByTestId('sending').getByText('All recorded').waitFor();
      await page.keyboard.press('Backspace');
    }
    // The same test may be asked again at once, where one reading decides: what tells is the log.
    const entries = page.getByTestId('log').locator('li');
    const before = await entries.count();
    await enterByKeyboard(page, value);
    await expect(entries).toHaveCount(before + 1);
    if (count === 2) {
      await expect(page.getByTestId('sending')).toHaveText('All recorded');
      const shown = page.getByTestId('log').locator('li');
      // The log is drawn after the card; it is counted when it stands still.
      const before = await countAtRest(page, shown);
      await page.reload();
      await expect(shown).toHaveCount(before);
    }
  }
  expect(corrected).toBe(true);
  await expect(page.getByTestId('finished')).toContainText('The fault stands proved');
  await expect(page.getByTestId('verdict')).toContainText('Plug C12 cavity 3');
  await expect(page.getByTestId('suspects').locator('li').first()).toContainText('Plug C12 cavity 3');
  await expect(page.getByTestId('log')).toContainText('entered “1.23”');
  await expect(page.getByTestId('log').locator('.line-through').first()).toContainText('1.23 V');

  await page.getByRole('link', { name: 'Conclude' }).last().press('Enter');
  await expect(page.getByLabel('What was found')).toHaveValue(/Plug C12 cavity 3/);
  await page.getByRole('radio', { name: 'Proved' }).press('Space');
  await page.getByLabel('The cause in words').fill('Terminal pushed back in its cavity');
  await page.getByRole('button', { name: 'Record what was found' }).press('Enter');

  await page.getByLabel('What was done').fill('Terminal renewed and locked, pull-tested');
  await page.getByLabel('Part 1', { exact: true }).fill('Plug terminal, 1.5 mm²');
  await page.getByLabel('Minutes').fill('20');
  await page.getByLabel('How to undo it').fill('Nothing to undo');
  await page.getByRole('button', { name: 'Record the repair' }).press('Enter');

  // Proving: the complaint and what shares the plug; closing is blocked until it is done.
  await page.getByRole('button', { name: 'Close the job' }).press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Not everything is proved yet' })).toBeVisible();
  await page
    .getByRole('button', { name: 'Proving-cabinet fan, Key on, cabinet switch on: works' })
    .press('Enter');
  await page.getByRole('button', { name: 'Proving-cabinet fan, Key off, switches off: off' }).press('Enter');
  // The lamps that stop are seen before anything goes out.
  const lamps = page.locator('[data-owed=safety-lamps]');
  await lamps.getByRole('radio', { name: 'Seen to work' }).press('Space');
  await expect(lamps).toContainText('✓');
  await page.getByRole('button', { name: 'Close the job' }).press('Enter');
  await expect(page.getByText('✓ Closed')).toBeVisible();

  await page.getByRole('link', { name: 'Hand-over sheet' }).press('Enter');
  const sheet = page.getByTestId('sheet');
  for (const words of [
    'Fan in the proving cabinet just stopped',
    'Terminal pushed back',
    'Terminal renewed',
    'Nothing is temporary',
    'off, as it should be',
  ]) {
    await expect(sheet).toContainText(words);
  }
  await expect(sheet).not.toContainText('Not verified');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Export the job (JSON)' }).press('Enter');
  const file = JSON.parse(readFileSync((await (await download).path()) ?? '', 'utf8')) as JobFile;
  expect(file.format).toBe('every-trace/job');
  expect(file.circuits.every((circuit) => checkCircuit(circuit).ok)).toBe(true);
  expect(file.events.map((event) => event.seq)).toEqual(file.events.map((_, index) => index + 1));
  expect(
    file.events.filter((event) => event.body.kind === 'reading' && event.body.raw === '1.23'),
  ).toHaveLength(1);
  expect(file.events.filter((event) => event.body.kind === 'correction')).toHaveLength(1);
  expect(errors).toEqual([]);
});

test.describe('on the phone', () => {
  test.use(PHONE);

  test('by touch: dead fan to a relay that does not close, with the slot in the turned box', async ({
    page,
  }) => {
    const errors = watch(page);
    const vehicle = faultyVehicle(VAN, { part: 'R4', mode: 'contact-open' });
    await page.goto(app.url);
    await page.getByRole('link', { name: /^Proving-cabinet fan dead/ }).tap();
    await checkByThumb(page, 'Key off, shelf lights on', 'Left shelf light', 'works');
    await page.getByRole('link', { name: 'Start the trace' }).tap();
    await page.getByRole('button', { name: 'Tester proved' }).tap();
    let sawSlot = false;
    for (let count = 0; count < MOST_TESTS; count++) {
      const card = page.locator('article[data-test]');
      await expect(card.or(page.getByTestId('finished'))).toBeVisible();
      if (await page.getByTestId('finished').isVisible()) break;
      const id = await cardId(page);
      const where = card.getByText('Where it is in the load-bay box');
      if (!sawSlot && (await where.isVisible())) {
        sawSlot = true;
        await where.tap();
        const sentence = card.getByTestId('slot-sentence');
        await expect(sentence).toContainText('With the cable duct at the bottom');
        await card.getByRole('button', { name: 'Turn a quarter' }).tap();
        await expect(sentence).toContainText('With the cable duct to the left');
        await card.getByRole('button', { name: 'How it is held' }).tap();
        await card.getByRole('radio', { name: 'bottom', exact: true }).tap();
        await expect(sentence).toContainText('With the cable duct at the bottom');
      }
      await enterByTouch(page, valueFor(vehicle, id));
      await expect(card.and(page.locator(`[data-test="${id}"]`))).toHaveCount(0);
    }
    expect(sawSlot).toBe(true);
    await expect(page.getByTestId('finished')).toContainText('The fault stands proved');
    await page.getByRole('tab', { name: 'Suspects' }).tap();
    await expect(page.getByTestId('suspects').locator('li').first()).toContainText('Relay 4, cabinet fan');
    await page.getByRole('tab', { name: 'Run' }).tap();
    await expect(page.getByTestId('run')).toContainText('Relay 4, cabinet fan');
    // Nothing is wider than the hand-held screen.
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(overflow).toBeLessThanOrEqual(0);
    expect(errors).toEqual([]);
  });
});

test('a reading that is no number stays in the field and changes nothing', async ({ page }) => {
  await page.goto(`${await app.job('Left marker weak')}/trace`);
  const log = page.getByTestId('log').locator('li');
  await expect(log.first()).toBeVisible();
  const before = await log.count();
  await page.getByTestId('run').getByRole('button').first().click();
  const entry = page.getByLabel('Reading, in volts');
  for (const [text, words] of [
    ['1,200', '“1,200” can mean 1200 or 1.2'],
    ['twelve', 'is not a reading'],
    ['5 kOhm', 'This card takes volts'],
  ] as const) {
    await entry.fill(text);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert').filter({ hasText: words })).toBeVisible();
    await expect(entry).toHaveValue(text);
  }
  await expect(log).toHaveCount(before);
  // A comma is a decimal sign, and the draft survives a reload.
  await entry.fill('12,4');
  const id = await cardId(page);
  await page.reload();
  await page.getByTestId('run').getByRole('button').first().click();
  expect(await cardId(page)).toBe(id);
  await expect(entry).toHaveValue('12,4');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('log')).toContainText('12.40 V');
  await expect(page.getByTestId('log')).toContainText('entered “12,4”');
});

test('what is recorded in the moment in which the page is left is there afterwards, once', async ({
  page,
}) => {
  const trace = `${await openFanJob(page, app)}/trace`;
  await page.goto(trace);
  await expect(page.getByTestId('card-title')).toBeVisible();
  // Pressed and left in one breath, while the browser's database is busy with something else.
  const left = page.evaluate(async (url) => {
    const open = indexedDB.open('every-trace');
    await new Promise((resolve) => {
      open.onsuccess = resolve;
    });
    const held = open.result.transaction('outbox', 'readwrite').objectStore('outbox');
    const hold = () => {
      held.count().onsuccess = hold;
    };
    hold();
    const button = [...document.querySelectorAll('button')].find(
      (one) => one.textContent === 'Tester proved',
    );
    button?.click();
    window.location.assign(url);
  }, `${trace}?again`);
  // The page may be gone before it can say that it has left.
  await left.catch(() => undefined);
  await page.waitForURL(/again/);
  await expect(page.getByTestId('log')).toContainText('Tester proved');
  await expect(page.getByRole('button', { name: 'Tester proved' })).toHaveCount(0);
  await page.getByTestId('sending').getByText('All recorded').waitFor();
  const [row] = await app.query<{ count: string }>(
    "select count(*) from job_events where body->>'kind' = 'tester-proved' and job_id = $1",
    [/jobs\/([0-9a-f-]+)/.exec(trace)?.[1]],
  );
  expect(row?.count).toBe('1');
  expect(
    await page.evaluate(() => Object.keys(localStorage).filter((key) => key.includes('entries'))),
  ).toEqual([]);
});

test('whoever looks elsewhere and comes back by the browser finds what was recorded', async ({ page }) => {
  await page.goto(app.url);
  await page.getByRole('link', { name: /^Proving-cabinet fan dead/ }).click();
  await page.getByRole('link', { name: 'Start the trace' }).click();
  await page.getByRole('button', { name: 'Tester proved' }).click();
  await expect(page.getByTestId('log')).toContainText('Tester proved');
  await page.getByTestId('sending').getByText('All recorded').waitFor();
  await page.getByRole('link', { name: 'Today', exact: true }).first().click();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  await page.goBack();
  await expect(page.getByTestId('log')).toContainText('Tester proved');
  await expect(page.getByRole('button', { name: 'Tester proved' })).toHaveCount(0);
});

test('a reading entered while the server is down arrives once when it is back', async ({ page }) => {
  await page.goto(`${await app.job('Left marker weak')}/trace`);
  await expect(page.getByTestId('card-title')).toBeVisible();
  const id = await cardId(page);
  const vehicle = faultyVehicle(['trailer-lamps'], { part: 'P3', mode: 'high-resistance', ohms: 2.2 });
  const before = await app.query<{ count: string }>('select count(*) from job_events');
  await app.kill();
  await enterByKeyboard(page, valueFor(vehicle, id));
  await expect(page.getByTestId('sending')).toContainText('kept here');
  await expect(page.getByTestId('log')).toContainText('waiting to be sent');
  // The ranking goes on without the server.
  await expect(page.locator(`article[data-test="${id}"]`)).toHaveCount(0);
  await app.start();
  await expect(page.getByTestId('sending')).toHaveText('All recorded', { timeout: 30_000 });
  await page.reload();
  await expect(page.getByTestId('log')).not.toContainText('waiting to be sent');
  const after = await app.query<{ count: string }>('select count(*) from job_events');
  expect(Number(after[0]?.count)).toBe(Number(before[0]?.count) + 1);
});

test('what was entered offline on one job arrives once the server is back, from whatever page is open', async ({
  page,
}) => {
  await page.goto(`${await app.job('Left marker weak')}/trace`);
  await expect(page.getByTestId('card-title')).toBeVisible();
  const id = await cardId(page);
  const vehicle = faultyVehicle(['trailer-lamps'], { part: 'P3', mode: 'high-resistance', ohms: 2.2 });
  const count = async () => (await app.query<{ count: string }>('select count(*) from job_events'))[0]?.count;
  const before = Number(await count());
  // Away for this page alone, so that another page can be opened.
  await page.route('**/api/events', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  );
  await enterByKeyboard(page, valueFor(vehicle, id));
  await expect(page.getByTestId('sending')).toContainText('kept here');
  await page.goto(`${app.url}/vehicles`);
  await expect(page.getByTestId('outgoing')).toContainText('1 entry of one job');
  expect(Number(await count())).toBe(before);
  await page.unroute('**/api/events');
  await page.goto(`${app.url}/shop`);
  await expect.poll(count).toBe(String(before + 1));
  await expect(page.getByTestId('outgoing')).toHaveCount(0);
});
