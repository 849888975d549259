/** Takes the pictures of the README. Not a test: it asserts nothing but that the views come up. */
import { type App, openApp } from './app';
import { atRest, drawn } from './rest';
import { DESK, PHONE } from './sizes';
import { cardId, enterByKeyboard, faultyVehicle, valueFor } from './technician';
import { type BrowserContext, expect, type Page, test } from './test';

const FOLDER = 'docs/screenshots';

let app: App;
test.beforeAll(async () => {
  app = await openApp();
});
test.afterAll(async ({ browser }) => {
  await app.close(browser);
});

async function idOf(text: string): Promise<string> {
  const [row] = await app.query<{ id: string }>(text);
  return row?.id ?? '';
}

async function shot(page: Page, name: string): Promise<void> {
  await atRest(page);
  await drawn(page);
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
}

/** Pictures side by side, as one: of a phone, or of a desk. */
async function beside(
  context: BrowserContext,
  name: string,
  pictures: readonly Buffer[],
  { viewport }: { viewport: { width: number; height: number } } = PHONE,
): Promise<void> {
  const page = await context.newPage();
  await page.setViewportSize({
    width: (viewport.width + 12) * pictures.length + 12,
    height: viewport.height + 24,
  });
  const images = pictures
    .map((one) => `<img src="data:image/png;base64,${one.toString('base64')}">`)
    .join('');
  await page.setContent(
    `<style>body{margin:0;display:flex;gap:12px;padding:12px;background:#8a8378}</style>${images}`,
  );
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
  await page.close();
}

async function themed(context: BrowserContext, theme: string): Promise<void> {
  await context.addCookies([{ name: 'theme', value: theme, url: app.url }]);
}

/** A job on the van that changes something. */
async function changeOf(page: Page, vehicleId: string): Promise<string> {
  const id = crypto.randomUUID();
  const data = { id, vehicleId, title: 'Shelf lights only with the key', work: 'change' };
  const answer = await page.request.post(`${app.url}/api/jobs`, { data });
  expect(answer.ok()).toBe(true);
  return id;
}

test('pictures', async ({ browser }) => {
  test.setTimeout(240_000);
  const van = await idOf("select id from vehicles where name = 'Bakery van'");
  const fan = await idOf("select id from jobs where title like 'Proving%'");
  const mirrors = await idOf("select id from jobs where title like 'Heated%'");
  const vehicle = faultyVehicle(['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'], {
    part: 'C12',
    mode: 'open',
  });
  const desk = await browser.newContext(DESK);
  await themed(desk, 'daylight');
  const page = await desk.newPage();
  const looked = async () => {
    await atRest(page);
    return page.screenshot();
  };
  await page.goto(app.url);
  const today = await looked();
  await page.goto(`${app.url}/vehicles/${van}`);
  await beside(desk, 'today-and-vehicle', [today, await looked()], DESK);
  await page.goto(`${app.url}/vehicles/${van}/panels?box=cab&slot=fuse-14`);
  await shot(page, 'panel');

  await page.goto(`${app.url}/jobs/${fan}`);
  await page.getByRole('button', { name: /^Left shelf light, Key off, shelf lights on/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'works' }).click();
  await page.getByRole('button', { name: /^Proving-cabinet fan, Key on, cabinet switch on/ }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'dead' }).click();
  await expect(page.getByTestId('shared-parts')).toContainText('Cleared');
  await page.evaluate(() => window.scrollTo(0, 0));
  await shot(page, 'job');
  await page.goto(`${app.url}/jobs/${fan}/trace`);
  await page.getByRole('button', { name: 'Tester proved' }).click();
  for (let count = 0; count < 3; count++) {
    await expect(page.getByTestId('card-title')).toBeVisible();
    const id = await cardId(page);
    await enterByKeyboard(page, valueFor(vehicle, id));
    await expect(page.locator(`article[data-test="${id}"]`)).toHaveCount(0);
  }
  const tracing = await looked();
  const night = await browser.newContext(DESK);
  await themed(night, 'footwell');
  const dark = await night.newPage();
  await dark.goto(`${app.url}/jobs/${fan}/trace`);
  await expect(dark.getByTestId('card-title')).toBeVisible();
  await atRest(dark);
  await beside(desk, 'trace', [tracing, await dark.screenshot()], DESK);

  const hand = await browser.newContext({ ...PHONE });
  await themed(hand, 'daylight');
  const phone = await hand.newPage();
  await phone.goto(`${app.url}/jobs/${fan}/trace`);
  await expect(phone.getByTestId('card-title')).toBeVisible();
  const held = async () => {
    await atRest(phone);
    return phone.screenshot();
  };
  const card = await held();
  await phone.getByRole('tab', { name: 'Run' }).tap();
  const run = await held();
  await phone.getByRole('tab', { name: 'Suspects' }).tap();
  await beside(desk, 'phone-trace', [card, run, await held()]);

  await page.goto(`${app.url}/jobs/${fan}/boxes`);
  await page.getByRole('radio', { name: 'Load-bay box', exact: true }).click();
  await page.getByRole('radio', { name: 'Key at run', exact: true }).click();
  for (const pair of [/^Both lit/, /^Both lit/, /^Only the upper end lit/, /^Both lit/, /^Both dark/]) {
    await page.getByRole('button', { name: pair }).click();
  }
  const tested = await looked();
  await page.getByRole('radio', { name: 'What feeds it when' }).click();
  await page.getByRole('button', { name: /^Live/ }).click();
  await beside(desk, 'boxes', [tested, await looked()], DESK);
  await phone.goto(`${app.url}/jobs/${fan}/boxes`);
  await expect(phone.getByTestId('slot-title')).toBeVisible();
  const boxTest = await held();
  await phone.goto(`${app.url}/vehicles/${van}/panels?box=cab&slot=fuse-14`);
  await expect(phone.getByTestId('slot-sentence')).toBeVisible();
  const box = await held();
  await phone.goto(`${app.url}/vehicles/${van}/panels/edit?box=cab`);
  await phone.locator('[data-slot="fuse-14"]').press('Enter');
  await expect(phone.getByTestId('thumb-row')).toBeVisible();
  await phone.evaluate(() => window.scrollTo(0, 0));
  await beside(desk, 'phone-box', [boxTest, box, await held()]);

  await page.goto(`${app.url}/vehicles/${van}/panels/edit?box=bay`);
  await page.locator('[data-slot="fuse-31"]').press('Enter');
  await expect(page.getByTestId('slot-form')).toBeVisible();
  await shot(page, 'editor');

  const circuit = `${app.url}/vehicles/${van}/circuits/van-proving-cabinet`;
  await page.goto(circuit);
  await expect(page.getByTestId('diagram')).toBeVisible();
  await page.locator('[data-part="R4"]').first().press('Enter');
  await page.evaluate(() => window.scrollTo(0, 0));
  const drawn = await looked();
  await page.getByRole('radio', { name: 'Text' }).click();
  await expect(page.getByTestId('notation')).toContainText('battery');
  await beside(desk, 'circuit', [drawn, await looked()], DESK);
  await page.goto(`${app.url}/jobs/${fan}/feed?load=5+A&purpose=roof+fan&taps=mini`);
  await expect(page.getByTestId('feed-counts')).toBeVisible();
  const feeds = await looked();
  await page.goto(`${app.url}/sums/wire?load=48+A&metres=3.1+m&drop=0.4+V`);
  await expect(page.locator('.recharts-line')).toBeVisible();
  await beside(desk, 'feed-and-sums', [feeds, await looked()], DESK);
  await phone.goto(`${app.url}/jobs/${fan}/boxes?do=survey&box=bay&key=run`);
  await expect(phone.getByTestId('survey-answers')).toBeVisible();
  const survey = await held();
  await phone.goto(`${app.url}/jobs/${fan}/boxes?do=drain&box=bay`);
  for (const millivolts of ['0.4', '3.1', '0.2']) {
    await phone.getByLabel('Across the fuse, mV').fill(millivolts);
    await phone.getByRole('button', { name: 'Record', exact: true }).tap();
  }
  await phone.getByTestId('drain-sentence').scrollIntoViewIfNeeded();
  const drain = await held();
  await phone.goto(`${app.url}/jobs/${fan}/feed?load=5+A&purpose=roof+fan&taps=mini`);
  await phone.getByTestId('feed-counts').scrollIntoViewIfNeeded();
  await phone.getByTestId('feed-states').first().scrollIntoViewIfNeeded();
  const feed = await held();
  await phone.goto(`${app.url}/sums/battery?usable=80+Ah&draw=0.3+A&standing=14+days`);
  await expect(phone.getByTestId('sum-main')).toBeVisible();
  await phone.getByTestId('sum-main').scrollIntoViewIfNeeded();
  await beside(desk, 'phone-feed', [survey, drain, feed, await held()]);
  await page.goto(`${app.url}/jobs/${fan}/wires`);
  await page.getByTestId('ledger').getByRole('button', { name: /W32/ }).click();
  await page.getByRole('button', { name: 'End a, Key off: dead', exact: true }).click();
  await page.getByRole('button', { name: 'End b, Key off: dead', exact: true }).click();
  await shot(page, 'wires');
  const change = `${app.url}/jobs/${await changeOf(page, van)}/change`;
  await page.goto(change);
  await page.getByRole('button', { name: 'Make this live only with the key' }).click();
  await page.getByLabel('The wire that brings its feed now').selectOption('W36');
  await page.getByLabel('Feed to be tapped').selectOption('F33');
  await page.getByRole('radio', { name: 'at accessory and run' }).click();
  await page.getByLabel('What hangs on it draws').fill('2');
  await page.getByLabel('Length of the new wire').fill('2.5');
  await page.getByRole('button', { name: 'Into the plan' }).click();
  await expect(page.getByTestId('plan-verdict')).toContainText('No danger');
  await page.evaluate(() => window.scrollTo(0, 0));
  const planned = await looked();
  await page.getByRole('button', { name: 'Keep it on the job' }).click();
  await page.getByRole('tab', { name: /^Drawing/ }).click();
  await expect(page.getByTestId('diagram')).toHaveCount(2);
  await atRest(page);
  await beside(desk, 'change', [planned, await looked()], DESK);
  await phone.goto(`${change}?see=plan`);
  await expect(phone.getByTestId('plan-sentences')).toBeVisible();
  const sentences = await held();
  await phone.getByRole('tab', { name: /^Shows/ }).tap();
  await expect(phone.getByTestId('findings')).toBeVisible();
  const shows = await held();
  await phone.getByRole('tab', { name: /^Work/ }).tap();
  await phone.getByRole('button', { name: 'Tester proved' }).tap();
  await expect(phone.getByTestId('work-step').getByRole('table')).toBeVisible();
  const ends = await held();
  await phone.getByLabel('Or all the same, because').fill('read by the last shift, on paper');
  await phone.getByRole('button', { name: 'Pass it' }).tap();
  for (const reason of ['both holes as the survey has them']) {
    await phone.getByLabel('Or all the same, because').fill(reason);
    await phone.getByRole('button', { name: 'Pass it' }).tap();
  }
  await phone.getByRole('button', { name: 'It is so, go on' }).tap();
  for (let count = 0; count < 3; count++) {
    await phone.getByTestId('work-step').getByRole('button', { name: 'Done' }).tap();
    await atRest(phone);
  }
  await phone.getByRole('button', { name: /Half done/ }).tap();
  await beside(desk, 'phone-change', [sentences, shows, ends, await held()]);
  await phone.goto(`${app.url}/jobs/new`);
  await phone.getByRole('combobox', { name: /^Vehicle/ }).selectOption({ label: 'One that is not here yet' });
  await phone.getByLabel('Its name').fill('White tipper');
  await phone.getByLabel('What fails, in a few words').fill('Warming jacket dead');
  await phone.getByRole('radio', { name: /^Fuse, relay, load/ }).tap();
  await phone.getByText('What its circuit is like').scrollIntoViewIfNeeded();
  await phone.evaluate(() => window.scrollBy(0, 420));
  const newJob = await held();
  await phone.goto(`${app.url}/jobs/${fan}`);
  // Sections that come later draw the page anew.
  await atRest(phone);
  await phone.getByTestId('function-grid').scrollIntoViewIfNeeded();
  await phone.evaluate(() => window.scrollTo(0, 360));
  const functions = await held();
  // A second phone at the key, for a card of the desk.
  const marker = await idOf("select id from jobs where title like 'Left marker%'");
  await page.goto(`${app.url}/jobs/${marker}/trace`);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Somebody at the key' }).click();
  await page.getByLabel('Who is at the key').fill('Wenna');
  await page.getByRole('button', { name: 'Understood, begin' }).click();
  await page.getByRole('button', { name: 'On a second phone' }).click();
  const code = await page.getByTestId('helper-code').locator('p').nth(1).textContent();
  await phone.goto(`${app.url}/key`);
  await phone.getByLabel('Code on the technician’s screen').fill(code ?? '');
  await phone.getByLabel('Your name').fill('Wenna');
  await phone.getByRole('button', { name: 'I am at the key' }).tap();
  await expect(phone.getByTestId('at-the-key')).toBeVisible();
  const atTheKey = await held();
  await phone.goto(app.url);
  await expect(phone.getByTestId('go-on')).toBeVisible();
  await beside(desk, 'phone-day', [await held(), newJob, functions, atTheKey]);
  await phone.goto(`${app.url}/jobs/${fan}`);
  await phone.getByRole('button', { name: 'Which part, and what was done to it' }).tap();
  const line = phone.getByTestId('repair-line');
  await line.getByRole('combobox', { name: 'Part', exact: true }).selectOption({ label: 'Fuse 31 (15 A)' });
  await line.getByRole('radio', { name: 'Replaced' }).tap();
  await line.getByLabel('Rating, A, fitted').fill('20');
  await line.getByLabel('Family, fitted').selectOption('mini');
  await line.evaluate((one) => window.scrollTo(0, one.getBoundingClientRect().top + window.scrollY - 70));
  const repair = await held();
  const lamp = await idOf("select id from jobs where title like 'Work lamp dead%'");
  await phone.goto(`${app.url}/jobs/${lamp}`);
  await phone.getByTestId('temporaries').scrollIntoViewIfNeeded();
  await phone.evaluate(() => window.scrollBy(0, 160));
  const temporary = await held();
  await phone.goto(`${app.url}/stock`);
  await expect(phone.getByText('Mini blade 15 A')).toBeVisible();
  const stock = await held();
  await phone.goto(`${app.url}/stock/count`);
  await expect(phone.getByTestId('counting')).toBeVisible();
  await beside(desk, 'phone-after', [repair, temporary, stock, await held()]);
  await page.goto(`${app.url}/jobs/${fan}/combinations`);
  await expect(page.getByTestId('state-table')).toBeVisible();
  await shot(page, 'combinations');

  await page.goto(`${app.url}/sign-in`);
  await page.getByRole('button', { name: 'Josune Wray, owner' }).click();
  await page.waitForURL(`${app.url}/`);
  await page.goto(`${app.url}/shop`);
  await expect(page.getByTestId('people')).toBeVisible();
  await shot(page, 'shop');
  await page.goto(`${app.url}/jobs/${mirrors}/sheet`);
  await expect(page.getByTestId('sheet')).toContainText('chafed');
  // What has to be seen is worked out beside the page.
  await expect(page.getByTestId('sheet')).not.toContainText('still being worked out');
  await shot(page, 'sheet');
});
