/** What the diagnosis does in the hand: refused, chosen, contradicted, coming and going, fed from behind, exchanged. */
import { PREDICTIONS_DB } from '../src/sync/predictionsPlace';
import { BACK_FED } from '../testing/backFed';
import { type App, openApp } from './app';
import { holdAnswers } from './held';
import { atRest } from './rest';
import { cardId, enterByKeyboard, faultyVehicle, openFanJob, valueFor } from './technician';
import { expect, type Page, test } from './test';

const VAN = ['van-proving-cabinet', 'van-hatch-fridge', 'van-demist'] as const;

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

async function openTrace(page: Page, job: string): Promise<void> {
  await page.goto(`${await app.job(job)}/trace`);
  await expect(page.getByTestId('card-title')).toBeVisible();
  await page.getByRole('button', { name: 'Tester proved' }).click();
  await expect(page.getByTestId('log')).toContainText('Tester proved');
}

/** Picks any permitted test by its words. */
async function chooseTest(page: Page, words: string, title: string): Promise<void> {
  await page.getByRole('button', { name: 'Another test' }).click();
  await page.getByLabel('Any other test, by a word of it').fill(words);
  await page.getByRole('dialog').getByRole('button', { name: title }).first().click();
  await expect(page.getByTestId('card-title')).toHaveText(title);
}

async function answerVolts(page: Page, text: string): Promise<void> {
  const entries = page.getByTestId('log').locator('li').filter({ hasText: text });
  const before = await entries.count();
  await page.getByLabel('Reading, in volts').fill(text);
  await page.keyboard.press('Enter');
  // The same test may be proposed again at once; what tells is the log.
  await expect(entries).toHaveCount(before + 1);
}

/** A browser that has worked nothing out yet. */
async function forgetPredictions(page: Page): Promise<void> {
  await page.goto(app.url);
  await page.evaluate(
    (name) =>
      new Promise((resolve, reject) => {
        const request = indexedDB.deleteDatabase(name);
        request.onsuccess = resolve;
        request.onerror = reject;
      }),
    PREDICTIONS_DB,
  );
}

test('with cores to spare others take a share of the work, and everything reads the same', async ({
  page,
}) => {
  const trace = `${await app.job('Proving-cabinet fan dead')}/trace`;
  await page.addInitScript(() => {
    const cores = () => Number(sessionStorage.getItem('cores'));
    Object.defineProperty(navigator, 'hardwareConcurrency', { get: cores });
  });
  let workers = 0;
  page.on('worker', () => {
    workers += 1;
  });
  const told: string[] = [];
  const worked: number[] = [];
  for (const cores of [1, 4]) {
    await forgetPredictions(page);
    await page.evaluate((count) => sessionStorage.setItem('cores', String(count)), cores);
    workers = 0;
    await page.goto(trace);
    await atRest(page);
    worked.push(workers);
    told.push(((await page.locator('#main').textContent()) ?? '').replace(/\s+/g, ' '));
  }
  expect(worked).toEqual([1, 3]);
  expect(told[0]).toContain('Suspects');
  expect(told[1]).toBe(told[0]);
});

test('while the rest is worked out the first card stands and takes a reading; no verdict, nothing cleared', async ({
  page,
}) => {
  const trace = `${await app.job('Proving-cabinet fan dead')}/trace`;
  await forgetPredictions(page);
  const { letGo } = await holdAnswers(page, true);
  await page.goto(trace);
  const title = page.getByTestId('card-title');
  await expect(title).toBeVisible();
  const first = await title.textContent();
  await expect(page.getByText('Working out what each fault would show')).toBeVisible();
  await expect(page.getByText(/^Cleared/)).toHaveCount(0);
  await expect(page.getByTestId('verdict')).toHaveCount(0);
  await page.getByRole('button', { name: 'Works w' }).click();
  await expect(page.getByText('Working out what each fault would show')).toBeVisible();
  await letGo();
  await expect(page.getByText(/^Cleared/).first()).toBeVisible();
  await expect(title).not.toHaveText(first!);
  expect(
    await app.query(`select body->'value'->>'state' as state from job_events where kind = 'reading'
      and body->'test'->>'function' = 'fridge' order by arrived_at desc limit 1`),
  ).toEqual([{ state: 'works' }]);
});

test('what was worked out is kept: the next visit begins with it', async ({ page }) => {
  const trace = `${await app.job('Proving-cabinet fan dead')}/trace`;
  await forgetPredictions(page);
  const kept = () =>
    page.evaluate(async (name) => {
      const request = indexedDB.open(name);
      await new Promise((resolve) => {
        request.onsuccess = resolve;
      });
      const db = request.result;
      if (!db.objectStoreNames.contains('predictions')) return [];
      const all = db.transaction('predictions').objectStore('predictions').getAll();
      await new Promise((resolve) => {
        all.onsuccess = resolve;
      });
      db.close();
      return (all.result as { circuit: string; usedAt: number; data: Uint8Array }[]).map(
        ({ circuit, usedAt, data }) => ({ circuit, usedAt, bytes: data.byteLength }),
      );
    }, PREDICTIONS_DB);
  const took: number[] = [];
  for (let visit = 0; visit < 2; visit++) {
    const began = performance.now();
    await page.goto(trace);
    await expect(page.getByTestId('card-title')).toBeVisible();
    took.push(performance.now() - began);
    await expect.poll(async () => (await kept()).length).toBe(1);
  }
  console.log(
    `from the address to the first card: ${took.map((ms) => (ms / 1000).toFixed(1)).join(' s, then ')} s, ${(took[1]! / took[0]!).toFixed(2)} of it`,
  );
  const [first] = await kept();
  // Every card and suspect stands as it did, and nothing was worked out for it: what is kept was used and not written anew.
  await page.reload();
  await expect(page.getByTestId('card-title')).toBeVisible();
  await expect.poll(async () => (await kept())[0]!.usedAt).toBeGreaterThan(first!.usedAt);
  expect((await kept())[0]).toMatchObject({ circuit: first!.circuit, bytes: first!.bytes });
});

test('a test refused, another chosen, a contradiction named and corrected', async ({ page }) => {
  const vehicle = faultyVehicle(VAN, { part: 'C12', mode: 'open' });
  await openTrace(page, 'Proving-cabinet fan dead');
  const refused = await cardId(page);
  await page.getByRole('button', { name: 'Cannot reach that' }).click();
  await expect(page.locator(`article[data-test="${refused}"]`)).toHaveCount(0);
  await expect(page.getByTestId('log')).toContainText('cannot reach that');

  await chooseTest(page, 'volts plug c12 box switch on', 'Volts at plug C12, box side');
  await expect(page.getByText('Your choice')).toBeVisible();
  await answerVolts(page, '12.4');
  for (let count = 0; count < 2; count++) {
    const id = await cardId(page);
    expect(id).not.toBe(refused);
    await enterByKeyboard(page, valueFor(vehicle, id));
    await expect(page.locator(`article[data-test="${id}"]`)).toHaveCount(0);
  }
  await expect(page.getByTestId('contradiction')).toHaveCount(0);

  // Dead at the relay's output, live behind it: these two cannot both be.
  await chooseTest(page, 'volts relay 4 pin 87 switch on', 'Volts at relay 4 pin 87');
  await answerVolts(page, '0.02');
  const contradiction = page.getByTestId('contradiction');
  await expect(contradiction).toContainText('disagrees');
  await expect(contradiction).toContainText('relay 4 pin 87');
  await expect(page.getByTestId('card-title')).toHaveText('Volts at relay 4 pin 87');
  await expect(page.getByTestId('card-why')).toContainText('disagrees with the others');

  const row = page.getByTestId('log').locator('li').filter({ hasText: 'Volts at relay 4 pin 87' }).first();
  await row.getByRole('button', { name: /Correct/ }).click();
  await expect(page.getByText('Correcting an entry')).toBeVisible();
  await answerVolts(page, '12.4');
  await expect(contradiction).toHaveCount(0);
  await expect(page.getByTestId('log')).toContainText('0.02');
});

test('a fault that comes and goes: nothing is cleared while it works, and waiting is the advice', async ({
  page,
}) => {
  await openTrace(page, 'Proving-cabinet fan dead');
  const says = async (word: string) => {
    const before = await page.getByTestId('log').locator('li').count();
    await page.getByRole('button', { name: word, exact: true }).first().click();
    await expect(page.getByTestId('log').locator('li')).toHaveCount(before + 1);
  };
  for (const word of ['Fails', 'Works', 'Fails', 'Works', 'Fails', 'Works']) await says(word);
  await expect(page.getByTestId('suspects')).toContainText('comes and goes');
  await chooseTest(page, 'volts plug c12 cabinet switch on', 'Volts at plug C12, cabinet side');
  await answerVolts(page, '12.1');
  const suspects = page.getByTestId('suspects');
  await page.getByText(/^Cleared:/).click();
  await expect(page.getByTestId('cleared')).not.toContainText('Plug C12');
  // Moved, it answers: and the trace asks whether it fails now.
  await chooseTest(page, 'wiggle plug c12', 'Wiggle Plug C12 cavity 3 and watch');
  // Moved by hand, the fan may start: that is answered once.
  await page.getByTestId('caution-ask').getByRole('button', { name: 'It is so, go on' }).click();
  await page.getByRole('button', { name: 'Changes' }).click();
  await expect(page.getByText('Proving-cabinet fan: Fails now?')).toBeVisible();
  await expect(suspects.locator('li').first()).toContainText('Plug C12');
});

test('a blown fuse that is fed from its load side is not passed by two live ends', async ({ page }) => {
  await page.goto(await app.vehicle('Beekeeper'));
  await page.locator('input[type=file]').setInputFiles({
    name: 'jacket.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(BACK_FED)),
  });
  await expect(page.getByTestId('import-outcome')).toContainText('Honey-tank warming jacket');
  await page.getByRole('link', { name: 'New job on it' }).click();
  await page.getByLabel(/What fails/).fill('Warming jacket stays cold');
  await page.getByRole('button', { name: /Open the job/ }).click();
  await page.getByLabel('What fails, in the customer’s words').fill('The jacket stays cold.');
  await page.getByLabel('The function that fails').selectOption('jacket');
  await page.getByLabel('Key and switches when it fails').selectOption('run-on');
  await page.getByRole('button', { name: 'Record the complaint' }).click();
  await page.getByRole('link', { name: 'Start the trace' }).click();
  await page.getByRole('button', { name: 'Tester proved' }).click();
  await page.getByRole('button', { name: 'Fails', exact: true }).click();
  await page.getByLabel('A stop that is tapped is read with').selectOption('run-off');
  for (const [stop, side, value] of [
    ['between Feed cable and Fuse J1', 'feed side of fuse J1', '12.5'],
    ['between Fuse J1 .* and Jacket switch', 'load side of fuse J1', '12.4'],
  ] as const) {
    await page
      .getByTestId('run')
      .getByRole('button', { name: new RegExp(stop) })
      .click();
    await expect(page.getByTestId('card-title')).toHaveText(`Volts at ${side}`);
    await answerVolts(page, value);
  }
  const log = page.getByTestId('log');
  await expect(log).toContainText('Both ends of Fuse J1 (15 A) are live');
  await expect(log).toContainText('pull it and read both holes');
  await chooseTest(
    page,
    'volts fuse j1 out key: run switch: off',
    'Volts at load side of fuse J1, Fuse J1 (15 A) out',
  );
  await answerVolts(page, '12.4');
  await expect(log).toContainText('its load side has a second feed');
  await chooseTest(page, 'fuse j1 out of the circuit', 'Fuse J1 (15 A) out of the circuit: does it conduct');
  await page.getByLabel('Reading, in ohms').fill('OL');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('suspects').locator('li').first()).toContainText('Fuse J1');
});

test('a known good relay makes it run: the cells, the claim and the missing cell', async ({ page }) => {
  await openTrace(page, 'Proving-cabinet fan dead');
  await chooseTest(page, 'known good relay 4', 'Known good part for Relay 4, cabinet fan');
  await expect(page.getByText(/Same rating, footprint, pin layout/)).toBeVisible();
  await page
    .locator('article[data-test]')
    .getByRole('button', { name: /^Works/ })
    .click();
  const table = page.getByTestId('substitution');
  await expect(table).toContainText('Relay 4, cabinet fan, exchanged');
  await expect(table).toContainText('Reseating alone may have cured it');
  await expect(table.getByLabel('a known good part here')).toContainText('works');
  await expect(page.getByTestId('suspects').locator('li').first()).toContainText('Relay 4');
  await table.getByRole('button', { name: 'Try it' }).click();
  await expect(page.getByTestId('card-title')).toHaveText('Relay 4, cabinet fan tried in another place');
  await page.locator('article[data-test]').getByRole('button', { name: /^Dead/ }).click();
  await expect(table).toContainText('The fault goes with the part.');
  await expect(table).toContainText('Still worth entering: the known good part where such a part works');
});

test('an appliance that took two fuses halts the third, and the shop’s own counts can be started anew', async ({
  page,
}) => {
  await openFanJob(page, app);
  await page.getByRole('button', { name: 'Change' }).first().click();
  await page.getByLabel('A portable appliance was plugged in when it failed').check();
  await page.getByLabel('Its watts').fill('180');
  await page.getByLabel('Fuses it has taken').fill('2');
  await page.getByRole('button', { name: 'Record the complaint' }).click();
  await page
    .getByRole('link', { name: /trace$/ })
    .first()
    .click();
  const appliance = page.getByTestId('appliance');
  await expect(appliance).toContainText('15.00 A (calculated)');
  await expect(appliance).toContainText('the appliance itself is the suspect');
  await expect(page.getByTestId('card-title')).toBeVisible();
  await page.getByRole('button', { name: 'It is set aside' }).click();
  await expect(appliance).toContainText('The appliance is set aside.');

  // What the shop has learned is begun anew by its owner.
  await page.goto(`${app.url}/shop`);
  await expect(page.getByRole('button', { name: 'Back to the starting table' })).toBeDisabled();
  await page.getByRole('button', { name: 'Josune Wray, owner' }).click();
  await page.waitForURL(`${app.url}/`);
  await page.goto(`${app.url}/shop`);
  await expect(page.getByTestId('learned-jobs')).toContainText('proved jobs count');
  await page.getByRole('button', { name: 'Back to the starting table' }).click();
  await page.getByRole('button', { name: 'Start anew' }).click();
  await expect(page.getByTestId('learned-jobs')).toContainText('0 proved jobs count, since');
});

test('what is heard, a unit between vehicles and a second open fuse are facts of the job', async ({
  page,
}) => {
  await openFanJob(page, app);
  await page.getByRole('button', { name: 'Change' }).first().click();
  await page.getByLabel('What is heard when it is switched on').selectOption('clicks');
  await page.getByRole('button', { name: 'Record the complaint' }).click();
  await expect(page.getByText('Heard: a click')).toBeVisible();

  const units = page.getByTestId('units');
  await units.getByRole('button').first().click();
  await units.getByLabel('Which unit').fill('Fan with its plug');
  await units.getByRole('button', { name: 'make its table' }).click();
  const table = page.getByTestId('unit-table');
  await table.getByLabel('a known good part here').getByRole('radio', { name: 'fails' }).click();
  await table.getByLabel('this part where such a part works').getByRole('radio', { name: 'works' }).click();
  await expect(table).toContainText('vehicle side');
  await expect(table).toContainText('still unproved');

  await page
    .getByRole('link', { name: /the trace$/ })
    .first()
    .click();
  await expect(page.getByTestId('card-title')).toBeVisible();
  const notice = page.getByTestId('appliance');
  for (const [words, title] of [
    ['look fuse 31', 'Look at Fuse 31 (15 A)'],
    ['look fuse 33', 'Look at Fuse 33 (5 A)'],
  ] as const) {
    await expect(notice).toHaveCount(0);
    await chooseTest(page, words, title);
    await page.getByRole('button', { name: /^Broken/ }).click();
    await expect(page.getByTestId('log')).toContainText(`${title}: broken`);
  }
  await expect(notice).toContainText('Two fuses are open');
  await expect(notice).toContainText('What was plugged in');
  await expect(page.getByTestId('card-title')).toBeVisible();
  await notice.getByLabel('Its watts').fill('180');
  await expect(notice.getByLabel('Its watts')).toHaveValue('180');
  await notice.getByRole('button', { name: 'A portable appliance was' }).click();
  await expect(notice).toContainText('15.00 A (calculated)');
  await expect(page.getByTestId('suspects')).toContainText('The appliance that was plugged in');
});

/** Breaks every worker of a page, as an error in its program would. */
async function breakWorkers(page: Page): Promise<void> {
  await Promise.all(
    page.workers().map((worker) =>
      worker.evaluate(() => {
        setTimeout(() => {
          throw new Error('broken by the test');
        }, 0);
      }),
    ),
  );
}

test('a worker that breaks is started again: the card comes back, and the next one after it', async ({
  page,
}) => {
  await openTrace(page, 'Proving-cabinet fan dead');
  await atRest(page);
  const first = await cardId(page);
  const another = page.waitForEvent('worker');
  await breakWorkers(page);
  await another;
  await atRest(page);
  expect(await cardId(page)).toBe(first);
  await page.getByRole('button', { name: 'Works w' }).click();
  await expect(page.locator(`article[data-test="${first}"]`)).toHaveCount(0);
  await expect(page.getByTestId('card-title')).toBeVisible();

  // Twice without an answer between: it is said, and a button starts it again.
  await page.evaluate(() => {
    const Plain = window.Worker;
    window.Worker = class extends Plain {
      override postMessage() {
        window.Worker = Plain;
        this.dispatchEvent(new MessageEvent('message', { data: { type: 'preparing', done: 0 } }));
        setTimeout(() => this.dispatchEvent(new Event('error')), 0);
      }
    };
  });
  await breakWorkers(page);
  await page.getByRole('button', { name: 'Start it again' }).click();
  await atRest(page);
  await expect(page.getByTestId('card-title')).toBeVisible();
});
