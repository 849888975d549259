/** What a person typed or took survives every tap, reload, restart and refusal, and goes only by their own word. */
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
import type { CircuitFile } from '../core/format/circuitSchema';
import type { PanelSetFile } from '../core/format/panelSchema';
import { CHROMIUM_OPTIONS } from '../scripts/lib/browser.mjs';
import { type App, openApp } from './app';
import { atRest } from './rest';
import { cardId, enterByKeyboard, faultyVehicle, openFanJob, valueFor } from './technician';
import { expect, type Page, test } from './test';

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

async function vehicleId(name = 'Bakery van'): Promise<string> {
  const [row] = await app.query<{ id: string }>('select id from vehicles where name = $1', [name]);
  return row!.id;
}

async function newestBoxes(vehicle: string): Promise<{ file: PanelSetFile; version: number }> {
  const [row] = await app.query<{ file: PanelSetFile; version: number }>(
    'select v.file, v.version from panel_set_versions v join panel_sets s on s.id = v.panel_set_id where s.vehicle_id = $1 order by v.version desc limit 1',
    [vehicle],
  );
  return row!;
}

/** What another person's page would send. */
async function importByAnother(vehicle: string, file: object, base: number): Promise<number> {
  const response = await fetch(`${app.url}/api/vehicles/${vehicle}/import`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ id: crypto.randomUUID(), text: JSON.stringify(file), base }),
  });
  return response.status;
}

/** A form is drawn by the server first; the page is waited for before something is typed into it. */
async function fill(page: Page, label: string, text: string): Promise<void> {
  await atRest(page);
  await page.getByLabel(label, { exact: false }).first().fill(text);
}

/** Chooses a slot by key; drawn by the server first, it hears once the page runs. */
async function choose(page: Page, slot: string): Promise<void> {
  await atRest(page);
  const drawn = page.locator(`[data-slot="${slot}"]`);
  await drawn.press('Enter');
  await expect(drawn).toHaveAttribute('aria-pressed', 'true');
}

test('a photo that the server refuses is there after a restart of the browser, with the reason, until it is given up', async () => {
  const profile = mkdtempSync(path.join(tmpdir(), 'every-trace-profile-'));
  const open = () => chromium.launchPersistentContext(profile, CHROMIUM_OPTIONS);
  const refuse = (context: Awaited<ReturnType<typeof open>>) =>
    context.route('**/api/photos?*', (route) =>
      route.fulfill({ status: 400, json: { message: 'The picture cannot be read: it is damaged.' } }),
    );
  try {
    const first = await open();
    await refuse(first);
    const page = await first.newPage();
    const job = await openFanJob(page, app);
    await page.goto(`${job}/boxes`);
    await page.getByRole('radio', { name: 'Open, isolate, exchange' }).click();
    await page.getByTestId('photos').locator('input[type=file]').setInputFiles('docs/screenshots/panel.png');
    await expect(page.getByTestId('refusals')).toContainText('it is damaged');
    // The entry that names it went on its way.
    await expect(page.getByTestId('sending')).toHaveText('All recorded');
    await first.close();

    const second = await open();
    await refuse(second);
    const again = await second.newPage();
    await again.goto(job);
    const refusals = again.getByTestId('refusals');
    await expect(refusals).toContainText('it is damaged');
    await expect(refusals.getByRole('img')).toBeVisible();
    const download = again.waitForEvent('download');
    await refusals.getByRole('button', { name: 'Save as a file' }).click();
    expect((await download).suggestedFilename()).toMatch(/^photo-.*\.jpeg$/);
    await refusals.getByRole('button', { name: 'Give it up' }).click();
    await refusals.getByRole('button', { name: 'Keep it' }).click();
    await expect(refusals).toContainText('it is damaged');
    // The server has changed its mind: asked again, it takes it.
    await second.unroute('**/api/photos?*');
    await refusals.getByRole('button', { name: 'Try again' }).click();
    await expect(refusals).toHaveCount(0);
    const [row] = await app.query<{ count: string }>('select count(*) from photos');
    expect(row?.count).toBe('1');
    await second.close();
  } finally {
    rmSync(profile, { recursive: true, force: true });
  }
});

test('a photo that is named before it has come is said to be on its way, and shown once it is there', async ({
  page,
}) => {
  const job = await openFanJob(page, app);
  const [jobId, photo] = [job.slice(-36), crypto.randomUUID()];
  const body = { kind: 'photo', photo, when: 'before', words: 'Seat box, lid off' };
  const madeAt = new Date().toISOString();
  const named = await page.request.post(`${app.url}/api/events`, {
    data: { events: [{ id: crypto.randomUUID(), jobId, madeAt, clientOrder: 900, body }] },
  });
  expect(named.status()).toBe(200);
  await page.goto(`${job}/sheet`);
  const words = page.getByText('This picture has not been received yet.');
  await expect(words).toBeVisible();
  const sent = await page.request.post(`${app.url}/api/photos?job=${jobId}&id=${photo}`, {
    data: readFileSync('docs/screenshots/panel.png'),
    headers: { 'content-type': 'image/png' },
  });
  expect(sent.status()).toBe(200);
  await expect(page.getByRole('img', { name: 'Taken before the work' })).toBeVisible();
  await expect(words).toHaveCount(0);
});

test('an entry that the server refuses is named, keeps no other back, and goes by name only', async ({
  page,
}) => {
  const job = await openFanJob(page, app);
  let refusing = true;
  await page.route('**/api/events', async (route) => {
    const { events } = route.request().postDataJSON() as { events: { id: string; body: { kind: string } }[] };
    const bad = events.find((event) => event.body.kind === 'tester-proved');
    if (!bad || !refusing) return route.continue();
    const problem = { code: 'x', path: `/events/${bad.id}/body`, message: 'This build has no such entry.' };
    return route.fulfill({ status: 400, json: { message: problem.message, problems: [problem] } });
  });
  await page.goto(`${job}/trace`);
  await page.getByRole('button', { name: 'Tester proved' }).click();
  const refusals = page.getByTestId('refusals');
  await expect(refusals).toContainText('Tester proved');
  await expect(refusals).toContainText('no such entry');
  await page.reload();
  await expect(refusals).toContainText('no such entry');
  await refusals.getByRole('button', { name: 'Give it up' }).click();
  await refusals.getByRole('button', { name: /^Yes, give up: Tester proved/ }).click();
  await expect(refusals).toHaveCount(0);
  refusing = false;
  await page.getByRole('button', { name: 'Tester proved' }).click();
  await expect(page.getByTestId('sending')).toHaveText('All recorded');
});

test.describe('in the box editor', () => {
  const open = async (page: Page) => {
    await page.goto(`${app.url}/vehicles/${await vehicleId()}/panels/edit?box=cab`);
    await expect(page.getByRole('button', { name: 'Save as a new version' })).toBeVisible();
  };
  test('what was typed in a slot is there after another was tapped, and after a reload; what cannot be read is not saved over', async ({
    page,
  }) => {
    await open(page);
    await choose(page, 'fuse-14');
    const form = page.getByTestId('slot-form');
    // Typed, and another slot tapped at once, by a finger.
    await form.getByLabel('Meaning').fill('Mirror heating, both sides');
    await page
      .locator('[data-slot="fuse-15"]')
      .dispatchEvent('pointerdown', { pointerId: 1, isPrimary: true });
    await choose(page, 'fuse-15');
    await choose(page, 'fuse-14');
    await expect(form.getByLabel('Meaning')).toHaveValue('Mirror heating, both sides');
    await form.getByLabel('Rating, ampere').fill('ten or so');
    await choose(page, 'fuse-15');
    await choose(page, 'fuse-14');
    await expect(form.getByLabel('Rating, ampere')).toHaveValue('ten or so');
    await expect(form.getByRole('alert')).toContainText('is no number');
    // Left by a reload in the middle of a word.
    await form.getByLabel('Label').fill('H MIR 2');
    await page.reload();
    await page.getByRole('button', { name: 'Go on with it' }).click();
    await choose(page, 'fuse-14');
    await expect(form.getByLabel('Meaning')).toHaveValue('Mirror heating, both sides');
    await expect(form.getByLabel('Label')).toHaveValue('H MIR 2');
    await expect(form.getByLabel('Rating, ampere')).toHaveValue('ten or so');
    await page.getByRole('button', { name: 'Save as a new version' }).click();
    await expect(page.getByTestId('editor-problems')).toContainText('fuse 14, Rating, ampere');
    await form.getByLabel('Rating, ampere').fill('10');
    await page.getByRole('button', { name: 'Save as a new version' }).click();
    await expect(page.getByTestId('editor-status')).toHaveText('✓ Saved');
    await page.reload();
    await choose(page, 'fuse-14');
    await expect(form.getByLabel('Label')).toHaveValue('H MIR 2');
    await expect(page.getByRole('button', { name: 'Go on with it' })).toHaveCount(0);
  });

  test('a new box saved once and reloaded is that box; after rows were added a tap singles one out', async ({
    page,
  }) => {
    const vehicle = await vehicleId('Livestock trailer');
    await page.goto(`${app.url}/vehicles/${vehicle}/panels/edit`);
    await fill(page, 'Name', 'Nose box');
    await page.getByLabel('Where it is').fill('behind the nose flap');
    await page.getByRole('button', { name: 'Add the rows' }).click();
    const slots = page.locator('[data-slot]');
    await expect(slots.first()).toHaveAttribute('aria-pressed', 'true');
    await slots.nth(1).click();
    await expect(page.locator('[data-slot][aria-pressed="true"]')).toHaveCount(1);
    await page.getByRole('button', { name: 'Save as a new version' }).click();
    await expect(page.getByTestId('editor-status')).toHaveText('✓ Saved');
    await page.waitForURL(/box=box-/);
    const count = await slots.count();
    await page.reload();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Nose box');
    await expect(slots).toHaveCount(count);
    // Never ordered is not taken without how that is known.
    await choose(page, (await slots.first().getAttribute('data-slot'))!);
    const form = page.getByTestId('slot-form');
    await form.getByLabel(/^State/).selectOption('not-ordered');
    await form.getByLabel(/How it is known/).fill('empty');
    await form.getByRole('button', { name: 'Keep it' }).click();
    await expect(form.getByRole('alert')).toContainText('Give the source');
    await form.getByLabel(/How it is known/).fill('build list');
    // Another slot tapped before it is kept: it is still there afterwards.
    await choose(page, (await slots.nth(1).getAttribute('data-slot'))!);
    await choose(page, (await slots.first().getAttribute('data-slot'))!);
    await expect(form.getByLabel(/How it is known/)).toHaveValue('build list');
    await form.getByRole('button', { name: 'Keep it' }).click();
    await expect(form).toContainText('Known from: build list');
  });

  test('two people who change two slots both keep theirs; of one field both values are shown', async ({
    page,
  }) => {
    const vehicle = await vehicleId();
    await open(page);
    const row = await newestBoxes(vehicle);
    const theirs = structuredClone(row!.file);
    const cab = theirs.panels.find((one) => one.id === 'cab')!;
    Object.assign(cab.slots.find((one) => one.id === 'fuse-15')!, { meaning: 'Till drawer' });
    Object.assign(cab.slots.find((one) => one.id === 'fuse-14')!, { label: 'MIR HTR' });
    await choose(page, 'fuse-14');
    await page.getByTestId('slot-form').getByLabel('Meaning').fill('Heated mirrors');
    expect(await importByAnother(vehicle, theirs, row!.version)).toBe(200);
    await page.getByRole('button', { name: 'Save as a new version' }).click();
    await expect(page.getByTestId('editor-status')).toHaveText('✓ Saved');
    await expect(page.getByTestId('slot-form').getByLabel('Label')).toHaveValue('MIR HTR');
    await choose(page, 'fuse-15');
    await expect(page.getByTestId('slot-form').getByLabel('Meaning')).toHaveValue('Till drawer');
    // The same field of the same slot.
    const label = (words: string): PanelSetFile => ({
      ...theirs,
      panels: theirs.panels.map((one) =>
        one.id === 'cab'
          ? {
              ...one,
              slots: one.slots.map((slot) => (slot.id === 'fuse-15' ? { ...slot, meaning: words } : slot)),
            }
          : one,
      ),
    });
    await page.getByTestId('slot-form').getByLabel('Meaning').fill('Cash drawer');
    expect(await importByAnother(vehicle, label('Drawer lamp'), row!.version + 1)).toBe(200);
    await page.getByRole('button', { name: 'Save as a new version' }).click();
    await expect(page.getByTestId('editor-problems')).toContainText('“Drawer lamp”; you have “Cash drawer”');
    await page.getByRole('button', { name: 'Save as a new version' }).click();
    await expect(page.getByTestId('editor-status')).toHaveText('✓ Saved');
  });
});

test('a draft of a box that was begun before somebody else saved undoes nothing of theirs', async ({
  page,
}) => {
  const vehicle = await vehicleId();
  const address = `${app.url}/vehicles/${vehicle}/panels/edit?box=cab`;
  await page.goto(address);
  await choose(page, 'fuse-14');
  const form = page.getByTestId('slot-form');
  await form.getByLabel('Meaning').fill('Heated mirrors, both');
  await form.getByLabel('Label').focus();
  const row = await newestBoxes(vehicle);
  const theirs = structuredClone(row!.file);
  const cab = theirs.panels.find((one) => one.id === 'cab')!;
  Object.assign(cab.slots.find((one) => one.id === 'fuse-15')!, { meaning: 'Till drawer' });
  expect(await importByAnother(vehicle, theirs, row!.version)).toBe(200);
  await page.goto(address);
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await page.getByRole('button', { name: 'Save as a new version' }).click();
  await expect(page.getByTestId('editor-status')).toHaveText('✓ Saved');
  await choose(page, 'fuse-15');
  await expect(form.getByLabel('Meaning')).toHaveValue('Till drawer');
  await choose(page, 'fuse-14');
  await expect(form.getByLabel('Meaning')).toHaveValue('Heated mirrors, both');
});

test('a circuit text that is refused stays as it was typed; theirs is shown when it is asked for', async ({
  page,
}) => {
  const vehicle = await vehicleId();
  await page.goto(`${app.url}/vehicles/${vehicle}/circuits/van-hatch-fridge`);
  await page.getByRole('radio', { name: 'Text' }).click();
  const text = page.getByTestId('notation').locator('.cm-content');
  await text.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('\nnote "seen at the hatch"');
  await expect(page.getByTestId('text-status')).toContainText('✓');
  const [row] = await app.query<{ file: CircuitFile; version: number }>(
    "select v.file, v.version from circuit_versions v join circuits c on c.id = v.circuit_id where c.file_id = 'van-hatch-fridge' order by v.version desc limit 1",
  );
  expect(await importByAnother(vehicle, { ...row!.file, name: 'Hatch of the other' }, row!.version)).toBe(
    200,
  );
  await page.getByRole('button', { name: 'Save as a new version' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'saved by somebody else meanwhile' })).toBeVisible();
  await expect(text).toContainText('seen at the hatch');
  await expect(page.getByTestId('saved-meanwhile')).toBeVisible();
  await page.getByRole('button', { name: 'Look at theirs' }).click();
  await expect(text).toContainText('Hatch of the other');
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(text).toContainText('seen at the hatch');
  // And over a reload.
  await page.reload();
  await page.getByRole('radio', { name: 'Text' }).click();
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(text).toContainText('seen at the hatch');
  // Saved again by the other while the draft lay here: said before anything is put in its place.
  expect(await importByAnother(vehicle, { ...row!.file, name: 'Hatch once more' }, row!.version + 1)).toBe(
    200,
  );
  await page.reload();
  await page.getByRole('radio', { name: 'Text' }).click();
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page.getByTestId('saved-meanwhile')).toBeVisible();
  await page.getByRole('button', { name: 'Put mine in its place' }).click();
  await page.getByRole('button', { name: 'Save as a new version' }).click();
  await expect(page.getByTestId('saved-meanwhile')).toHaveCount(0);
  await expect
    .poll(
      async () =>
        (await app.query("select 1 from circuit_versions where file::text like '%seen at the hatch%'"))
          .length,
    )
    .toBe(1);
});

test('the words of a new job survive a reload and a server that is away, and are the complaint’s; so do those of the complaint', async ({
  page,
}) => {
  const vehicle = await vehicleId();
  await page.goto(`${app.url}/jobs/new?vehicle=${vehicle}`);
  await fill(page, 'What fails, in a few words', 'Oven lamp flickers on rough roads');
  await page.reload();
  const words = page.getByLabel('What fails, in a few words');
  await expect(words).toHaveValue('Oven lamp flickers on rough roads');
  await app.kill();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'did not answer' })).toBeVisible();
  await expect(words).toHaveValue('Oven lamp flickers on rough roads');
  await app.start();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}$/);
  // Which function is meant is asked at once, under the words that were said.
  const said = page.getByLabel('What fails, in the customer’s words');
  await expect(said).toHaveValue('Oven lamp flickers on rough roads');
  await fill(page, 'What was changed before', 'a new lamp last week');
  await page.getByLabel('The function that fails').selectOption({ index: 1 });
  const condition = page.getByLabel('Key and switches when it fails');
  const likeliest = await condition.inputValue();
  await condition.selectOption({ index: 2 });
  const chosen = await condition.inputValue();
  expect(chosen).not.toBe(likeliest);
  await page.reload();
  await expect(page.getByLabel('What was changed before')).toHaveValue('a new lamp last week');
  await expect(condition).toHaveValue(chosen);
  await expect(said).toHaveValue('Oven lamp flickers on rough roads');
});

test('what another person records on the same job is seen within five seconds, without a reload', async ({
  browser,
}) => {
  const [one, other] = [
    await (await browser.newContext()).newPage(),
    await (await browser.newContext()).newPage(),
  ];
  const job = await openFanJob(one, app);
  await one.goto(`${job}/trace`);
  await other.goto(`${job}/trace`);
  await expect(other.getByTestId('card-title')).toBeVisible();
  await one.getByRole('button', { name: 'Tester proved' }).click();
  await expect(other.getByTestId('log')).toContainText('Tester proved', { timeout: 6000 });
});

test('a proof that failed is not called proved, and a watch item is listed until somebody says what was found', async ({
  page,
}) => {
  const [mirrors] = await app.query<{ id: string }>("select id from jobs where title like 'Heated mirrors%'");
  // Twenty old items of another job hide no new one.
  const send = (events: object[]) =>
    fetch(`${app.url}/api/events`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ events }),
    });
  const event = (clientOrder: number, body: object) => ({
    id: crypto.randomUUID(),
    jobId: mirrors!.id,
    madeAt: new Date().toISOString(),
    clientOrder,
    body,
  });
  await send(
    Array.from({ length: 22 }, (_, n) =>
      event(100 + n, { kind: 'watch', words: `old item ${n}`, due: `2025-01-${Math.min(10 + n, 28)}` }),
    ),
  );
  const soon = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10);
  await send([event(200, { kind: 'watch', words: 'look at the new loom', due: soon })]);
  await page.goto(app.url);
  await expect(page.getByTestId('overdue')).toContainText('24');
  await expect(page.getByText('look at the new loom')).toBeVisible();
  await page.getByRole('link', { name: /^All 2\d of them/ }).click();
  await expect(page.getByTestId('follow-up')).toHaveCount(28);

  const job = await openFanJob(page, app);
  await page.getByRole('button', { name: 'It was found by looking' }).click();
  await page.getByLabel('At which part').selectOption({ label: 'Plug C12 cavity 3' });
  await page.getByLabel('What was found').fill('Plug C12: green pin');
  await page.getByRole('radio', { name: 'Unknown' }).check();
  await page.getByRole('button', { name: 'Record what was found' }).click();
  await page.getByLabel('What was done').fill('Pin renewed');
  // Nobody looked at a clock.
  await page.getByRole('button', { name: 'Record the repair' }).click();
  const proofs = page.getByTestId('proofs');
  await proofs
    .getByRole('listitem')
    .first()
    .getByRole('button', { name: /: dead$/ })
    .click();
  await expect(page.getByTestId('stage')).toContainText('Repaired');
  await page.goto(app.url);
  await expect(page.getByRole('link', { name: /^Proving-cabinet fan dead/ })).toContainText('Repaired');
  await page.goto(job);
  await proofs
    .getByRole('listitem')
    .first()
    .getByRole('button', { name: /: works$/ })
    .click();
  await expect(page.getByTestId('stage')).toContainText('Proved');
  await page.getByLabel('Watch item').fill('Plug C12 dry?');
  await page.getByLabel('Due', { exact: true }).fill('2026-01-15');
  await page.getByRole('button', { name: 'Add' }).click();
  await page.getByTestId('watch').getByRole('button', { name: 'Dealt with' }).click();
  await page.getByLabel('What was found').last().fill('dry and tight');
  await page.getByTestId('watch').getByRole('button', { name: 'Record' }).click();
  await expect(page.getByTestId('watch')).toContainText('dry and tight');
  await page.getByTestId('sending').getByText('All recorded').waitFor();
  await page.goto(app.url);
  await expect(page.getByTestId('overdue')).toContainText('24');
});

test('another tab that brings a newer schema is not kept waiting by this one, and what is recorded here still arrives', async ({
  page,
}) => {
  await page.goto(`${await app.job('Left marker weak')}/trace`);
  await expect(page.getByTestId('card-title')).toBeVisible();
  const other = await page.context().newPage();
  await other.goto(`${app.url}/shop`);
  const opened = await other.evaluate(
    () =>
      new Promise<string>((resolve) => {
        const request = indexedDB.open('every-trace', 99);
        request.onblocked = () => resolve('blocked');
        request.onsuccess = () => resolve('open');
        request.onerror = () => resolve(`error ${request.error?.name}`);
        setTimeout(() => resolve('still waiting'), 5000);
      }),
  );
  expect(opened).toBe('open');
  const count = async () => (await app.query<{ of: string }>('select count(*) as of from job_events'))[0]?.of;
  const before = Number(await count());
  const vehicle = faultyVehicle(['trailer-lamps'], { part: 'P3', mode: 'high-resistance', ohms: 2.2 });
  await enterByKeyboard(page, valueFor(vehicle, await cardId(page)));
  await expect.poll(count).toBe(String(before + 1));
});
