/** The phone as the tool: on every card the answers lie under the thumb, whatever the screen, and nothing is wider than it. */
import { expect, type Page, test } from '@playwright/test';
import { type App, openApp } from './app';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async () => {
  await app.close();
});

const SCREENS = [
  { width: 390, height: 844 },
  { width: 390, height: 664 },
  { width: 360, height: 640 },
] as const;

/** Kinds of card by the words that find one, and what its answers are called. */
const CARDS: readonly (readonly [kind: string, search: string, answers: readonly string[]])[] = [
  ['volts', 'volts relay 4 pin 87', ['7', '0', 'Change sign', 'Record']],
  ['volts', 'drop plug C12', ['1', '.', 'Over limit', 'Record']],
  ['lamp', 'test lamp load side of fuse 31', ['Lit', 'Dim', 'Off']],
  ['continuity', 'continuity fuse 31', ['1', 'kilo', 'Over limit', 'Record']],
  ['function', 'does it work shelf', ['Works', 'Weak', 'Dead', 'Comes and goes']],
  ['click', 'click relay 4', ['Clicks', 'Silent', 'Chatters']],
  ['sound', 'listen fan', ['Silent', 'A click', 'Chatters', 'Hums']],
  ['look', 'look fuse 31', ['Whole', 'Broken']],
  ['clamp', 'current through fuse 31', ['5', 'Record']],
  ['fuse-drop', 'millivolts fuse 31', ['9', 'milli', 'Record']],
  ['battery', 'posts rested', ['2', 'Record']],
  ['substitute', 'known good relay 4', ['Works', 'Dead']],
  ['wiggle', 'wiggle plug', ['It is so, go on', 'Not now']],
  ['lamp-in-fuse', 'lamp instead fuse 31', ['Lit', 'Dim', 'Off']],
];

async function choose(page: Page, kind: string, search: string): Promise<void> {
  await page.getByRole('button', { name: 'Another test' }).tap();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox').fill(search);
  const rows = dialog.getByRole('listitem').getByRole('button');
  await rows.first().tap();
  await expect(page.locator(`article[data-test^="${kind}|"]`)).toBeVisible();
}

for (const screen of SCREENS) {
  test(`${screen.width} by ${screen.height}: every kind of card is answered without scrolling, in the lower part of the screen`, async ({
    page,
  }) => {
    await page.setViewportSize(screen);
    await page.goto(`${await app.job('Proving-cabinet fan dead')}/trace`);
    await page.getByRole('button', { name: 'Tester proved' }).tap();
    for (const [kind, search, answers] of CARDS) {
      await choose(page, kind, search);
      const card = page.locator('article[data-test]');
      await expect(card.getByTestId('card-picture')).toBeVisible();
      for (const name of answers) {
        const button = card.getByRole('button', { name, exact: true });
        const box = (await button.boundingBox())!;
        const at = {
          kind,
          name,
          top: box.y >= screen.height * 0.4,
          bottom: box.y + box.height <= screen.height,
        };
        expect(at).toEqual({ kind, name, top: true, bottom: true });
        expect({ kind, name, high: Math.round(box.height) >= 56 }).toEqual({ kind, name, high: true });
      }
      // What it is and where the leads go stand above the answers, whole.
      const answersTop = (await card.getByTestId('answers').boundingBox())!.y;
      const title = (await page.getByTestId('card-title').boundingBox())!;
      expect({ kind, title: title.y + title.height <= answersTop }).toEqual({ kind, title: true });
      const { wide, scrolled } = await page.evaluate(() => ({
        wide: document.documentElement.scrollWidth,
        scrolled: window.scrollY,
      }));
      expect({ kind, wide, scrolled }).toEqual({ kind, wide: screen.width, scrolled: 0 });
    }
  });
}

test('turned on its side the answers stand beside the card, and with text twice as large they stay', async ({
  page,
}) => {
  await page.goto(`${await app.job('Proving-cabinet fan dead')}/trace`);
  await page.getByRole('button', { name: 'Tester proved' }).tap();
  await choose(page, 'volts', 'volts relay 4 pin 87');
  await page.setViewportSize({ width: 844, height: 390 });
  const answers = page.getByTestId('answers');
  const record = answers.getByRole('button', { name: 'Record' });
  await expect(record).toBeInViewport({ ratio: 1 });
  expect((await answers.boundingBox())!.x).toBeGreaterThan(844 / 2 - 20);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.addStyleTag({ content: 'html { font-size: 32px !important; }' });
  await expect(record).toBeInViewport({ ratio: 1 });
  await expect(answers.getByRole('button', { name: '1', exact: true })).toBeInViewport({ ratio: 1 });
});

test('a reading: its taps, what is told of it where the thumb is, and the way back; the run and back keep the draft', async ({
  page,
}) => {
  await page.goto(`${await app.job('Proving-cabinet fan dead')}/trace`);
  await page.getByRole('button', { name: 'Tester proved' }).tap();
  await choose(page, 'volts', 'volts relay 4 pin 87');
  const card = page.locator('article[data-test]');
  for (const key of '12') await card.getByRole('button', { name: key, exact: true }).tap();
  // The picture leads to the whole run; the card and what was typed are there on the way back.
  await card.getByTestId('card-picture').tap();
  await expect(page.getByRole('tab', { name: 'Run' })).toHaveAttribute('aria-selected', 'true');
  await page.getByRole('tab', { name: 'Card' }).tap();
  await expect(page.getByLabel('Reading, in volts')).toHaveValue('12');
  for (const key of '.4') await card.getByRole('button', { name: key, exact: true }).tap();
  await card.getByRole('button', { name: 'Record' }).tap();
  console.log('a reading of four figures: 5 taps');
  const told = page.getByTestId('recorded');
  await expect(told).toContainText('12.40 V: Volts at relay 4 pin 87');
  const log = page.getByTestId('log').locator('li').filter({ hasText: 'Volts at relay 4 pin 87' });
  await expect(log).toHaveCount(1);
  await told.getByRole('button', { name: 'Undo' }).tap();
  await expect(log.first()).toContainText('Struck: taken back');
  await expect(told).toHaveCount(0);
  // Steps and everything else are behind the title and the dots.
  await expect(page.getByRole('navigation', { name: 'Main' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Everything else' }).tap();
  await expect(
    page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: 'Today' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Everything else' }).tap();
  await page.getByRole('button', { name: /steps of the job$/ }).tap();
  await page
    .getByRole('dialog')
    .getByRole('link', { name: /Conclude/ })
    .tap();
  await expect(page.getByRole('heading', { name: /Conclude/ })).toBeInViewport();
});

/** The thumb drawn over the screen. */
async function swipe(
  page: Page,
  from: readonly [number, number],
  to: readonly [number, number],
): Promise<void> {
  const cdp = await page.context().newCDPSession(page);
  const at = ([x, y]: readonly [number, number]) => [{ x, y }];
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(from) });
  for (let step = 1; step <= 6; step++) {
    const part = step / 6;
    const here = [from[0] + (to[0] - from[0]) * part, from[1] + (to[1] - from[1]) * part] as const;
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(here) });
  }
  await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
}

test('views of the trace are exchanged by a swipe, and the answers lie for the left hand where that is said', async ({
  page,
}) => {
  await page.goto(`${await app.job('Proving-cabinet fan dead')}/trace`);
  await page.getByRole('button', { name: 'Tester proved' }).tap();
  await choose(page, 'volts', 'volts relay 4 pin 87');
  const tab = (name: string) => page.getByRole('tab', { name });
  await swipe(page, [340, 330], [60, 335]);
  await expect(tab('Run')).toHaveAttribute('aria-selected', 'true');
  await swipe(page, [60, 330], [340, 335]);
  await expect(tab('Card')).toHaveAttribute('aria-selected', 'true');
  // Down the page is no swipe.
  await swipe(page, [200, 420], [215, 250]);
  await expect(tab('Card')).toHaveAttribute('aria-selected', 'true');
  // A page that still glides takes the next tap as a halt.
  await expect(async () => {
    const before = await page.evaluate(() => window.scrollY);
    await page.waitForTimeout(250);
    expect(await page.evaluate(() => window.scrollY)).toBe(before);
  }).toPass();
  const answers = page.getByTestId('answers');
  const x = async (name: string) =>
    (await answers.getByRole('button', { name, exact: true }).boundingBox())!.x;
  expect(await x('1')).toBeLessThan(await x('Over limit'));
  await page.getByRole('button', { name: 'More', exact: true }).tap();
  await page.getByLabel('Answers for the left hand').check();
  await page.getByRole('button', { name: 'Close' }).tap();
  expect(await x('1')).toBeGreaterThan(await x('Over limit'));
  await page.reload();
  await choose(page, 'volts', 'volts relay 4 pin 87');
  expect(await x('1')).toBeGreaterThan(await x('Over limit'));
});
