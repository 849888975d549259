/** Every view: reachable, and in words when something is wrong. */
import { demoText } from '../testing/circuits';
import { type App, openApp } from './app';
import { atRest } from './rest';
import { expect, test } from './test';

let app: App;
test.beforeAll(async () => {
  app = await openApp();
});
test.afterAll(async ({ browser }) => {
  await app.close(browser);
});

async function addressOf(title: string): Promise<string> {
  const [job] = await app.query<{ id: string }>('select id from jobs where title like $1', [title]);
  return `${app.url}/jobs/${job?.id}`;
}

test('a job, a vehicle and an address that do not exist each get a page in words', async ({ page }) => {
  const nothing = 'There is nothing at this address';
  for (const [path, status, words] of [
    // The document of a job is the same for all; whether there is such a one turns out in the browser.
    ['/jobs/00000000-0000-4000-8000-000000000000', 200, 'There is no such job in this shop'],
    ['/jobs/nonsense/trace', 404, nothing],
    ['/vehicles/x', 404, nothing],
    ['/nowhere', 404, nothing],
  ] as const) {
    const response = await page.goto(app.url + path);
    expect([path, response?.status()]).toEqual([path, status]);
    await expect(page.getByRole('heading', { name: words })).toBeVisible();
    await page.getByRole('link', { name: 'To Today', exact: true }).click();
    await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible();
  }
});

test('bringing files in: every problem in words and nothing changed, then a clean one', async ({ page }) => {
  const [pickup] = await app.query<{ id: string }>("select id from vehicles where name like 'Beekeeper%'");
  await page.goto(`${app.url}/vehicles/${pickup?.id}`);
  const outcome = page.getByTestId('import-outcome');
  const bring = (name: string, text: string) =>
    page
      .getByLabel('Choose a file')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  const clean = demoText('trailer-lamps.circuit.json');
  await bring('broken.json', clean.slice(0, -40));
  await expect(outcome).toContainText('broken.json was not brought in: 1 problem. Nothing was changed.');
  await bring('noise.json', 'x'.repeat(5 * 1024 * 1024));
  await expect(outcome).toContainText('at most 4 MB');
  await bring(
    'wrong.json',
    clean.replace('"out": "ft1-out"', '"out": "lost"').replace('"kind": "ground"', '"kind": "gronud"'),
  );
  await expect(outcome).toContainText('“gronud” is not a kind');
  await bring(
    'wrong.json',
    clean.replace('"out": "ft1-out"', '"out": "lost"').replace('"lug": "gt"', '"lug": "gone"'),
  );
  await expect(outcome).toContainText('Pin out of Fuse 1, left side lamps (5 A) leads to “lost”');
  await expect(outcome).toContainText('“gone”');
  await bring('lamp.txt', 'battery, fuze F1 10 A, lamp L1, earth');
  await expect(outcome).toContainText('Did you mean “fuse”?');
  await expect(page.getByText('No circuit is mapped yet.')).toBeVisible();
  await bring('clean.json', clean);
  await expect(outcome).toContainText('is in as version 1');
  await expect(page.getByText('28 parts · Left marker lamp')).toBeVisible();
  await bring('panels.json', demoText('trailer.panel-set.json'));
  await expect(outcome).toContainText('1 boxes, 4 slots');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Export (JSON)' }).last().click();
  expect(
    JSON.parse((await import('node:fs')).readFileSync((await (await download).path()) ?? '', 'utf8')),
  ).toEqual(JSON.parse(clean));
});

test('a job file comes in on the page of jobs: one that is here already is said to be, another opens', async ({
  page,
}) => {
  const [job] = await app.query<{ id: string }>(
    "select job_id as id from job_summaries where stage = 'closed'",
  );
  const file = await (await page.request.get(`${app.url}/api/jobs/${job!.id}/file`)).text();
  await page.goto(`${app.url}/jobs`);
  const bring = async (text: string) => {
    const choose = page.locator('#bring-job ~ label input[type=file]');
    await choose.setInputFiles({ name: 'job.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  };
  await bring(file);
  await expect(page.getByTestId('import-outcome')).toContainText('This job is here already');
  const ids = [...new Set(file.match(/[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g))];
  await bring(ids.reduce((text, id) => text.replaceAll(id, crypto.randomUUID()), file));
  await expect(page.getByTestId('import-outcome')).toContainText('is in, on Bakery van');
  await page.getByRole('link', { name: 'To the job' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Heated mirrors dead');
});

test('two odometers are shown before one is kept, and without a voltage there is no verdict', async ({
  page,
}) => {
  await page.goto(await addressOf('Proving-cabinet%'));
  await page.getByLabel('Odometer now, km').fill('140000');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByRole('alert').filter({ hasText: '148210 km stand recorded' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep 148210 km' }).click();
  await expect(page.getByText('148,210 km')).toBeVisible();

  await page.goto(`${app.url}/jobs/new`);
  await page.getByLabel('Vehicle').selectOption({ label: 'Harbour launch · SKERRY 22' });
  await page.getByLabel('What fails, in a few words').fill('Bilge lamp dead');
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page.getByText('Nominal voltage? No verdict is given without it.')).toBeVisible();
  await page.getByRole('radio', { name: '24 V' }).click();
  await expect(page.getByText('24 V system')).toBeVisible();
});

test('finding a slot: by number with type, by label, by synonym; a turn keeps the tapped slot', async ({
  page,
}) => {
  const [van] = await app.query<{ id: string }>("select id from vehicles where name = 'Bakery van'");
  await page.goto(`${app.url}/vehicles/${van?.id}/panels`);
  for (const words of ['fuse 14', 'H MIR', 'mirror heating']) {
    await page.getByLabel('Find a slot').fill(words);
    await page
      .getByRole('list', { name: 'Slots found' })
      .getByRole('button', { name: /^fuse 14/ })
      .click();
    await expect(page.getByTestId('slot-sentence')).toContainText('printed “H MIR”');
  }
  await page.getByLabel('Find a slot').fill('4');
  const found = page.getByRole('list', { name: 'Slots found' });
  await expect(found.getByRole('button', { name: /^relay 4/ }).first()).toBeVisible();
  await expect(found.getByRole('button', { name: /^fuse 4/ }).first()).toBeVisible();
  await page.getByRole('button', { name: /^fuse 22, printed DEMIST/ }).click();
  await expect(page.getByTestId('slot-sentence')).toContainText('With the hinge to the left');
  await page.getByRole('button', { name: 'Turn a quarter' }).click();
  await page.getByRole('button', { name: 'Turn a quarter' }).click();
  await expect(page.getByTestId('slot-sentence')).toContainText('With the hinge to the right');
  await expect(page.getByRole('button', { name: /^fuse 22, printed DEMIST/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});

test('an entry that comes from another site’s page is refused', async ({ request }) => {
  const [job] = await app.query<{ id: string }>('select id from jobs limit 1');
  const data = {
    events: [
      {
        id: '22222222-2222-4222-8222-222222222222',
        jobId: job?.id,
        madeAt: '2026-11-24T05:00:00Z',
        clientOrder: 0,
        body: { kind: 'note', words: 'from elsewhere' },
      },
    ],
  };
  const foreign = await request.post(`${app.url}/api/events`, {
    data,
    headers: { Origin: 'http://elsewhere.example' },
  });
  expect(foreign.status()).toBe(403);
  expect(await app.query('select 1 from job_events where id = $1', [data.events[0]?.id])).toEqual([]);
  // A batch that is not one is answered in words.
  const broken = await request.post(`${app.url}/api/events`, { data: { events: [{ id: 'x' }] } });
  expect(broken.status()).toBe(400);
  expect(JSON.stringify(await broken.json())).toContain('“body” is missing');
});

test('the palette finds a slot by its number and a vehicle by its plate', async ({ page }) => {
  const [van] = await app.query<{ plate: string }>("select plate from vehicles where name = 'Bakery van'");
  await page.goto(app.url);
  await page.keyboard.press('Control+k');
  const input = page.getByPlaceholder(/A job, a vehicle or its plate/);
  await input.fill(van!.plate.replace(/\W/g, '').toLowerCase());
  await expect(page.getByRole('option', { name: /Bakery van/ }).first()).toBeVisible();
  await input.fill('fuse 31');
  await page
    .getByRole('option', { name: /^fuse 31/ })
    .first()
    .click();
  await page.waitForURL(/panels\?box=.*slot=fuse-31/);
});

test('what a slot serves and applies to is shown and printed; a box is held only on its own vehicle as it was turned', async ({
  page,
}) => {
  const rows = await app.query<{ id: string; name: string }>('select id, name from vehicles');
  const of = (name: string) => rows.find((one) => one.name.includes(name))!.id;
  const [van, pickup] = [of('Bakery van'), of('pickup')];
  const send = (to: string, body: object) =>
    fetch(`${app.url}${to}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  const set = JSON.parse(demoText('van.panel-set.json'));
  const slot = set.panels
    .find((one: { id: string }) => one.id === 'cab')
    .slots.find((one: { id: string }) => one.id === 'fuse-14');
  delete slot.meaning;
  Object.assign(slot, { functions: ['Bread shelf lamps'], applies: 'built from 2018 on' });
  for (const vehicle of [van, pickup]) {
    const answer = await send(`/api/vehicles/${vehicle}/import`, {
      id: crypto.randomUUID(),
      text: JSON.stringify(set),
    });
    expect(answer.status).toBe(200);
  }
  await page.goto(`${app.url}/vehicles/${van}/panels?box=cab&slot=fuse-14`);
  await expect(page.getByText('built from 2018 on')).toBeVisible();
  await expect(page.getByTestId('coverage')).toContainText('Bread shelf lamps');
  const right = page.getByRole('radio', { name: 'right', exact: true });
  await atRest(page);
  await right.click();
  await expect(right).toBeChecked();
  await page.goto(`${app.url}/vehicles/${pickup}/panels?box=cab&slot=fuse-14`);
  await expect(page.getByRole('radio', { name: 'left', exact: true })).toBeChecked();
  await page.goto(`${app.url}/vehicles/${van}/panels?box=cab&slot=fuse-14`);
  await expect(right).toBeChecked();
  await page.goto(`${app.url}/vehicles/${van}/panels/print?box=cab`);
  const printed = page.getByRole('row', { name: /^fuse 14/ });
  await expect(printed).toContainText('serves Bread shelf lamps');
  await expect(printed).toContainText('applies to built from 2018 on');
});
