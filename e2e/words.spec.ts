/** What is said, offered and refused on vehicles that nobody mapped, in the words on the screen of a phone. */
import { boxOf } from '../testing/panels';
import { type App, openApp } from './app';
import { PHONE } from './sizes';
import { expect, type Page, test } from './test';

test.use(PHONE);

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

interface Wanted {
  readonly vehicle: string;
  readonly title: string;
  readonly load: string;
  readonly pattern: string;
  readonly kind: string;
  readonly how: string;
  readonly volts: number;
}

/** From nothing to the first card. */
async function newJob(
  page: Page,
  { vehicle, title, load, pattern, kind, how, volts }: Wanted,
): Promise<void> {
  await page.goto(`${app.url}/jobs/new`);
  await page.getByRole('combobox', { name: /^Vehicle/ }).selectOption({ label: 'One that is not here yet' });
  await page.getByLabel('Its name').fill(vehicle);
  await page.getByLabel('What fails, in a few words').fill(title);
  await page.getByRole('radio', { name: new RegExp(`^${pattern}`) }).tap();
  await page.getByLabel('What it feeds, as it is called').fill(load);
  await page.getByRole('radio', { name: kind, exact: true }).tap();
  await page.getByRole('radio', { name: how, exact: true }).tap();
  await page.getByRole('radio', { name: `${volts} V`, exact: true }).tap();
  await page.getByRole('button', { name: 'To the first test' }).tap();
  await expect(page.getByTestId('card-title')).toBeVisible();
}

/** Looks for a test by words; what is found stands in the dialog. */
async function seek(page: Page, words: string) {
  await page.getByRole('button', { name: 'Another test' }).tap();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox').fill(words);
  return dialog;
}

async function read(page: Page, words: string, title: RegExp, volts: string): Promise<void> {
  const dialog = await seek(page, words);
  await dialog.getByRole('button', { name: title }).first().tap();
  await expect(page.getByTestId('card-title')).toHaveText(title);
  const card = page.locator('article[data-test]');
  for (const key of volts) await card.getByRole('button', { name: key, exact: true }).tap();
  await card.getByRole('button', { name: 'Record' }).tap();
  await expect(page.getByTestId('log').locator('li').first()).toContainText(`entered “${volts}”`);
}

test('a weak blower of a launch on 24 V: no lamp of 12 V, the return by its busbar, and the sheet prints as open', async ({
  page,
}) => {
  await newJob(page, {
    vehicle: 'Grey launch',
    title: 'Bilge blower weak',
    load: 'Bilge blower',
    pattern: 'Fuse, switch, load',
    kind: 'Motor or fan',
    how: 'Weak',
    volts: 24,
  });
  await page.getByRole('button', { name: 'Tester proved' }).tap();
  const log = page.getByTestId('log');
  await expect(log).toContainText('a weak feed, a weak way to the minus busbar, or a load that is worn');
  await expect(page.locator('main')).not.toContainText('body metal');
  await expect(page.getByRole('list', { name: 'Set' })).not.toContainText('Key');
  // What the lamp is not made for is found by its name, with the reason.
  const lamps = await seek(page, 'test light');
  await expect(lamps.getByTestId('forbidden-test').first()).toContainText('The lamp at hand is for 12 V');
  await expect(lamps.getByRole('button', { name: /lamp/i })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await read(page, 'posts rested', /own posts/, '25.3');
  await expect(log).toContainText('do not prove that it can deliver current');
  await read(page, 'volts bilge blower plus', /plus terminal/, '24.6');
  await read(page, 'volts bilge blower minus', /minus terminal/, '5.8');
  // Told in the light of both: the first was read under load.
  await expect(log).toContainText('the way from here to the minus busbar is open or poor');
  await expect(log).toContainText('as expected under load: the feed is sound up to here');
  // The last was taken with everything off after all: it is worked in as such, and the first entry stays struck.
  const correct = page.getByRole('button', { name: /^Correct: Volts at Bilge blower, minus/ }).first();
  // From the log at the foot of the page one is taken to what is corrected, and may leave it.
  await correct.tap();
  await expect(page.getByTestId('circumstances')).toBeInViewport();
  await page.getByRole('button', { name: 'Leave it as it was' }).tap();
  await expect(page.getByTestId('circumstances')).toHaveCount(0);
  await correct.tap();
  await page.getByTestId('circumstances').getByRole('radio', { name: 'Everything off' }).tap();
  await expect(page.locator('article[data-test]')).toHaveAttribute('data-test', /l1-minus\|.*\|off$/);
  await page.locator('article[data-test]').getByRole('button', { name: 'Record' }).tap();
  await expect(log).toContainText('Struck');
  await expect(log).toContainText('live where it should be dead');
  await page.getByRole('button', { name: /steps of the job/ }).tap();
  await page.getByRole('link', { name: 'Hand over' }).tap();
  const sheet = page.getByTestId('sheet');
  await expect(sheet.getByTestId('sheet-standing')).toHaveText('OPEN: not handed over');
  await expect(sheet.locator('[data-part="Suspects by the readings"] li').first()).toBeVisible();
  await expect(sheet).toContainText('Struck: Volts at Bilge blower, minus terminal');
  await page.getByTestId('work-place').getByRole('button', { name: 'It was there' }).tap();
  await expect(sheet).toContainText('done at');
});

test('“not now” to a caution: what needs it waits with its reason, until it is in order', async ({
  page,
}) => {
  await newJob(page, {
    vehicle: 'Blue camper',
    title: 'Roof fan dead',
    load: 'Roof fan',
    pattern: 'Fuse, switch, load',
    kind: 'Motor or fan',
    how: 'Dead',
    volts: 12,
  });
  const feed = /^Feed Roof fan/;
  const choose = async () => {
    const dialog = await seek(page, 'inject');
    await dialog.getByRole('button', { name: feed }).tap();
    await expect(page.getByTestId('card-title')).toHaveText(feed);
  };
  await choose();
  const ask = page.getByTestId('caution-ask');
  await expect(ask).toContainText('It may spark');
  await expect(page.locator('article[data-test]').getByRole('button', { name: 'works' })).toHaveCount(0);
  await ask.getByRole('button', { name: 'Not now' }).tap();
  await expect(page.getByTestId('card-title')).not.toHaveText(feed);
  const waits = page.getByTestId('caution-waits');
  await expect(waits).toHaveCount(2);
  const dialog = await seek(page, 'inject');
  await expect(dialog.getByTestId('forbidden-test').first()).toContainText('“Not now” was the answer');
  await page.keyboard.press('Escape');
  await page.reload();
  await expect(waits).toHaveCount(2);
  await waits.first().getByRole('button', { name: 'In order now' }).tap();
  await expect(waits).toHaveCount(1);
  await waits.first().getByRole('button', { name: 'In order now' }).tap();
  await expect(waits).toHaveCount(0);
  await choose();
  await expect(page.locator('article[data-test]').getByRole('button', { name: 'works' })).toBeVisible();
  await page.getByRole('button', { name: /steps of the job/ }).tap();
  await page.getByRole('link', { name: 'Hand over' }).tap();
  const cautions = page.getByTestId('sheet').locator('[data-part="Gates overridden, cautions read"]');
  await expect(cautions).toContainText('Not now: It may spark');
  await expect(cautions).toContainText('Caution read: It may spark');
});

test('a printed name that suggests the brakes is asked about once; what runs unbidden is exchanged with nothing; a box drawn meanwhile is taken up', async ({
  page,
}) => {
  await newJob(page, {
    vehicle: 'White tipper',
    title: 'It runs with its switch off',
    load: 'ABS pump',
    pattern: 'Fuse, relay, load',
    kind: 'Pump',
    how: 'On when it should be off',
    volts: 12,
  });
  const question = page.getByTestId('safety-question');
  await expect(question).toContainText('looks like a part of the brakes');
  await expect(page.getByTestId('runs-unbidden')).toContainText('Isolate it and keep clear');
  const swaps = await seek(page, 'swap relay');
  await expect(swaps.getByTestId('forbidden-test').first()).toContainText('serves a safety function');
  await expect(swaps.getByTestId('forbidden-test').first()).toContainText('isolated first');
  await page.keyboard.press('Escape');
  await question.getByRole('button', { name: 'It is not' }).tap();
  await expect(question).toHaveCount(0);
  const again = await seek(page, 'swap relay');
  await expect(again.getByTestId('forbidden-test').first()).not.toContainText('serves a safety function');
  await expect(again.getByTestId('forbidden-test').first()).toContainText('isolated first');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Tester proved' }).tap();
  await read(page, 'volts relay terminal 87', /terminal 87/, '12.4');
  await expect(page.getByTestId('log')).toContainText('What would hold it up: Its relay: stuck closed');
  await expect(page.getByTestId('log').locator('li').first()).not.toContainText('earth');
  // Somebody draws the box.
  const job = page.url().match(/jobs\/([^/]+)/)![1]!;
  const { vehicle } = (await (await fetch(`${app.url}/api/jobs/${job}`)).json()) as {
    vehicle: { id: string };
  };
  const set = boxOf(4, 2, (index) => (index === 0 ? { label: 'REST CTRL' } : {}));
  const drawn = await fetch(`${app.url}/api/vehicles/${vehicle.id}/import`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: app.url },
    body: JSON.stringify({ id: crypto.randomUUID(), text: JSON.stringify(set) }),
  });
  expect(drawn.status).toBe(200);
  const newer = page.getByTestId('newer-maps');
  await expect(newer).toContainText('the boxes');
  await newer.getByRole('button', { name: 'Take it up' }).tap();
  await expect(newer).toHaveCount(0);
  await page.goto(`${app.url}/jobs/${job}/boxes`);
  // Its first slot bears a name: no lamp there until somebody has answered, and after a yes not either.
  await expect(page.getByTestId('safety-question')).toContainText('the restraints');
  await expect(page.getByTestId('safety-slot')).toContainText('no lamp, no lead');
  await expect(page.getByRole('button', { name: 'Both lit' })).toHaveCount(0);
  await page.getByRole('button', { name: 'It is, or not sure' }).tap();
  await expect(page.getByTestId('safety-question')).toHaveCount(0);
  await expect(page.getByTestId('safety-slot')).toBeVisible();
});

test('what is not at hand is never proposed, and a habit says what it costs', async ({ page }) => {
  await page.goto(`${app.url}/shop`);
  const form = page.getByTestId('hand-form');
  await form.getByRole('button', { name: /Filament test lamp/ }).tap();
  await expect(form).toContainText('Kept.');
  await form.getByRole('radio', { name: 'Pull first' }).tap();
  await expect(form.getByRole('radio', { name: 'Pull first' })).toBeChecked();
  await expect(form).toContainText('Kept.');
  await page.reload();
  await expect(form.getByRole('button', { name: /Filament test lamp/ })).toHaveAttribute(
    'aria-pressed',
    'false',
  );
  await newJob(page, {
    vehicle: 'White tipper',
    title: 'Step lamp dead',
    load: 'Step lamp',
    pattern: 'Fuse, switch, load',
    kind: 'Lamp',
    how: 'Dead',
    volts: 12,
  });
  const lamps = await seek(page, 'test light');
  await expect(lamps.getByTestId('forbidden-test').first()).toContainText(
    'not at hand, by your own settings',
  );
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('card-title')).not.toContainText('lamp at');
});

test('an LED lamp keeps both its sides on the run; full volts without load prove no feed; a minus sign is the leads', async ({
  page,
}) => {
  await newJob(page, {
    vehicle: 'Beekeeper’s other pickup',
    title: 'Hive lamp dead',
    load: 'Hive lamp',
    pattern: 'Fuse, switch, load',
    kind: 'LED light',
    how: 'Dead',
    volts: 12,
  });
  await page.getByRole('button', { name: 'Tester proved' }).tap();
  const log = page.getByTestId('log');
  await page.getByRole('tab', { name: 'Run' }).tap();
  await expect(page.getByTestId('run')).toContainText('Hive lamp');
  await expect(page.getByTestId('run')).toContainText('Earth wire');
  await page.getByRole('tab', { name: 'Card' }).tap();
  await read(page, 'volts hive lamp plus', /plus terminal/, '12.3');
  await expect(log).toContainText('but without load this does not prove it; a bad joint would show the same');
  await read(page, 'volts hive lamp minus', /minus terminal/, '12.2');
  await expect(log).toContainText('the way from here to earth is open or poor');
  await page.getByRole('tab', { name: 'Suspects' }).tap();
  const suspects = page.getByTestId('suspects').locator('li');
  await expect(suspects.first()).toContainText(/earth/i);
  await page.getByText(/^Cleared:/).tap();
  // Nothing flowed there: the feed is not the cause, and not proved either.
  await expect(page.getByTestId('excluded')).toContainText('Its fuse');
  await expect(page.getByTestId('cleared')).not.toContainText('Its fuse');
  await page.getByRole('tab', { name: 'Card' }).tap();
  // The same point once more, with the leads the wrong way round.
  const dialog = await seek(page, 'volts fuse load side');
  await dialog
    .getByRole('button', { name: /^Volts at Its fuse, load side/ })
    .first()
    .tap();
  const card = page.locator('article[data-test]');
  for (const key of '12.4') await card.getByRole('button', { name: key, exact: true }).tap();
  await card.getByRole('button', { name: 'Change sign' }).tap();
  await card.getByRole('button', { name: 'Record' }).tap();
  await expect(log).toContainText(
    'The minus sign says that the leads were the wrong way round: 12.40 V counts',
  );
  // Live with its switch off, at a place behind it: no bad earth says that.
  await page.getByRole('button', { name: /steps of the job$/ }).tap();
  await page.getByRole('link', { name: 'Hand over' }).tap();
  const sheet = page.getByTestId('sheet');
  await expect(sheet.locator('[data-part="Suspects by the readings"]')).toContainText('Its earth point');
  await expect(sheet.locator('[data-part="Evidence"]')).toContainText('the leads were the wrong way round');
  await expect(sheet).not.toContainText('Nothing known');
});

test('a text is remarked on while it is written; a sketch is drawn again under other ids; a box is never complete', async ({
  page,
}) => {
  await page.goto(`${await app.vehicle('Beekeeper')}/circuits/new`);
  await page
    .getByRole('textbox', { name: 'The circuit as text' })
    .fill(
      'circuit winch "Tail lift" 12 V\nbattery, wire W1 0.5 mm² 3 m, switch S1 "Lift switch", motor M1 "Tail winch" 400 W, earth G1',
    );
  const remarks = page.getByTestId('text-remarks');
  await expect(remarks).toContainText('Tail winch is reached from the battery without a fuse.');
  await expect(remarks).toContainText('for good');
  await expect(remarks).toContainText('stays where it is put');
  await expect(page.getByRole('button', { name: 'Save the circuit' })).toBeEnabled();
  await page.goto(`${await app.vehicle('Bakery van')}/panels?box=cab`);
  await expect(page.getByText(/\d+ of \d+ positions settled/)).toBeVisible();
  await expect(page.locator('main')).not.toContainText(/\bcomplete\b/i);
});
