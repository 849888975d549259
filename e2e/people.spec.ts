/** People of a shop: how they come in, what each role may, what stays when somebody leaves. */
import type { Route } from '@playwright/test';
import { PREDICTIONS_DB } from '../src/sync/predictionsPlace';
import { type App, openApp } from './app';
import { nothingTooWide } from './phone';
import { PHONE } from './sizes';
import { enterByKeyboard } from './technician';
import { type Browser, type BrowserContext, expect, type Page, test } from './test';

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

const PASSWORD = 'seven brass lanterns';

async function beginShop(page: Page, shop = 'Fenwold Electrics', name = 'mara'): Promise<void> {
  await page.goto(`${app.url}/begin`);
  await page.getByLabel('Name of the shop').fill(shop);
  await page.getByLabel('Town').fill('Fenwold');
  await page.getByLabel('Your name').fill('Mara Quill');
  await page.getByLabel('To sign in').fill(name);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Begin the shop' }).click();
  await page.waitForURL(`${app.url}/`);
}

async function signIn(page: Page, name: string, password = PASSWORD): Promise<void> {
  await page.goto(`${app.url}/sign-in`);
  await page.getByLabel('E-mail or name').fill(name);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.waitForURL(`${app.url}/`);
}

/** Adds somebody on the Shop page; gives the address of the link. */
async function add(page: Page, name: string, role: string): Promise<string> {
  await page.goto(`${app.url}/shop`);
  await page.getByLabel('Somebody new').fill(name);
  await page.getByRole('combobox', { name: /^As/ }).selectOption(role);
  await page.getByRole('button', { name: 'Add, and make a link' }).click();
  return page.getByTestId('link-made').getByRole('textbox').inputValue();
}

async function comeIn(page: Page, link: string, name: string, password = PASSWORD): Promise<void> {
  await page.goto(link);
  await page.getByLabel('To sign in').fill(name);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Come in' }).click();
  await page.waitForURL(`${app.url}/`);
}

async function asDemo(page: Page, name: string): Promise<void> {
  await page.goto(`${app.url}/sign-in`);
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  await page.waitForURL(`${app.url}/`);
}

async function another(browser: Browser, phone = false): Promise<{ context: BrowserContext; page: Page }> {
  const context = await browser.newContext(phone ? PHONE : {});
  return { context, page: await context.newPage() };
}

/** A job on a vehicle that nobody has mapped, begun by hand. */
async function newJob(page: Page, title: string): Promise<string> {
  await page.goto(`${app.url}/jobs/new`);
  await page.getByLabel('Its name').fill('Mill cart');
  await page.getByLabel('What fails, in a few words').fill(title);
  await page.getByRole('radio', { name: /^Fuse, switch, load/ }).click();
  await page.getByRole('radio', { name: '12 V', exact: true }).click();
  await page.getByRole('button', { name: 'To the first test' }).click();
  await page.getByTestId('card-title').waitFor();
  const [, id] = /jobs\/([0-9a-f-]{36})/.exec(page.url())!;
  return id!;
}

async function note(page: Page, job: string, words: string): Promise<void> {
  await page.evaluate(
    async ([jobId, text]) => {
      const body = { kind: 'note', words: text };
      const event = {
        id: crypto.randomUUID(),
        jobId,
        version: 1,
        madeAt: new Date().toISOString(),
        clientOrder: 1000,
        body,
      };
      await fetch('/api/events', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ events: [event] }),
      });
    },
    [job, words] as const,
  );
}

test('the demo opens at once and says so; a shop of one’s own begins empty, and the demo can go', async ({
  page,
  browser,
}) => {
  await page.goto(app.url);
  await expect(page.getByText('Demo', { exact: true })).toBeVisible();
  await expect(page.getByText('Imre Pellow', { exact: true })).toBeVisible();
  await beginShop(page);
  await expect(page.getByText('Fenwold Electrics, Fenwold')).toBeVisible();
  await expect(page.getByText('No job is open.')).toBeVisible();
  await expect(page.getByText('Demo', { exact: true })).toHaveCount(0);
  // Whoever opens the program now signs in, and gets to where they wanted.
  const other = await another(browser);
  await other.page.goto(`${app.url}/stock`);
  await expect(other.page).toHaveURL(/\/sign-in\?to=%2Fstock$/);
  await other.page.getByLabel('E-mail or name').fill('Mara');
  await other.page.getByLabel('Password').fill('seven brass lantern');
  await other.page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(other.page.getByRole('main').getByRole('alert')).toContainText('do not belong together');
  await expect(other.page.getByLabel('E-mail or name')).toHaveValue('Mara');
  await other.page.getByLabel('Password').fill(PASSWORD);
  await other.page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(other.page).toHaveURL(`${app.url}/stock`);
  // The demo is still there for who asks for it, and only then.
  const looker = await another(browser);
  await asDemo(looker.page, 'Imre Pellow');
  await expect(looker.page.getByText('Demo', { exact: true })).toBeVisible();
  await page.goto(`${app.url}/shop`);
  await page.getByRole('button', { name: 'Remove the demo' }).click();
  await page.getByRole('button', { name: 'Remove the demo' }).click();
  await expect(page.getByText('The demo is gone.', { exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Remove the demo' })).toHaveCount(0);
  const left = await app.query<{ of: string }>(
    'select count(*) as of from job_events union all select count(*) from shops',
  );
  expect(left.map(({ of }) => Number(of))).toEqual([0, 1]);
  await looker.page.goto(app.url);
  await expect(looker.page).toHaveURL(/\/sign-in$/);
});

test('an owner lets people in and out; what they did stays under their name; a role is kept to', async ({
  page,
  browser,
}) => {
  await beginShop(page);
  const link = await add(page, 'Odd Ferrer', 'technician');
  const odd = await another(browser, true);
  await odd.page.goto(link);
  await expect(odd.page.getByRole('heading', { name: 'Odd Ferrer' })).toBeVisible();
  await nothingTooWide(odd.page);
  await odd.page.getByLabel('To sign in').fill('odd@fenwold.example');
  await odd.page.getByLabel('Password').fill('password1234');
  await odd.page.getByRole('button', { name: 'Come in' }).click();
  await expect(odd.page.getByText('guessed first')).toBeVisible();
  await odd.page.getByLabel('Password').fill('blue kettle under rain');
  await odd.page.getByRole('button', { name: 'Come in' }).click();
  await odd.page.waitForURL(`${app.url}/`);
  const job = await newJob(odd.page, 'Grain auger dead');
  await note(odd.page, job, 'Cover off, nothing burnt');
  // A technician sees no people and no backup, and gets neither by hand.
  await odd.page.goto(`${app.url}/shop`);
  await expect(odd.page.getByTestId('people')).toHaveCount(0);
  await expect(odd.page.getByTestId('backup')).toHaveCount(0);
  expect((await odd.page.request.get(`${app.url}/api/shop/backup`)).status()).toBe(403);
  // The link was good once.
  const late = await another(browser);
  await late.page.goto(link);
  await expect(late.page.getByText('This link leads nowhere')).toBeVisible();
  await page.goto(`${app.url}/shop`);
  await page.getByRole('button', { name: 'What to do with Odd Ferrer' }).click();
  await page.getByRole('menuitem', { name: 'Has left the shop' }).click();
  await expect(page.getByText(/^Left .* stays under the name/)).toBeVisible();
  // Out everywhere, at once.
  expect((await odd.page.request.get(`${app.url}/api/me`)).status()).toBe(401);
  await odd.page.goto(`${app.url}/vehicles`);
  await expect(odd.page).toHaveURL(/\/sign-in/);
  // With the right password too, and it is said why.
  await odd.page.getByLabel('E-mail or name').fill('odd@fenwold.example');
  await odd.page.getByLabel('Password').fill('blue kettle under rain');
  await odd.page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(odd.page.getByText('belongs to no shop any more')).toBeVisible();
  // Another shop takes the same account in, for who knows its password.
  await late.page.request.post(`${app.url}/api/access/begin`, {
    data: { shop: 'Harl Marine', town: 'Harl', owner: 'Ines Harl', name: 'ines', password: PASSWORD },
  });
  const elsewhere = await add(late.page, 'Odd Ferrer', 'technician');
  await odd.page.goto(elsewhere);
  await odd.page.getByLabel('To sign in').fill('odd@fenwold.example');
  await odd.page.getByLabel('Password').fill('some other password here');
  await odd.page.getByRole('button', { name: 'Come in' }).click();
  await expect(odd.page.getByText('not with this password')).toBeVisible();
  await odd.page.getByLabel('Password').fill('blue kettle under rain');
  await odd.page.getByRole('button', { name: 'Come in' }).click();
  await odd.page.waitForURL(`${app.url}/`);
  await expect(odd.page.getByText('Harl Marine, Harl')).toBeVisible();
  await page.goto(`${app.url}/jobs/${job}/trace`);
  await expect(page.getByTestId('log')).toContainText('Cover off, nothing burnt');
  const [entry] = await app.query<{ name: string }>(
    `select people.name from job_events join people on people.id = person_id where body ->> 'words' like 'Cover off%'`,
  );
  expect(entry?.name).toBe('Odd Ferrer');
  // Nobody takes the last owner away.
  await page.goto(`${app.url}/shop`);
  await page.getByRole('button', { name: 'What to do with Mara Quill' }).click();
  await page.getByRole('menuitem', { name: 'Has left the shop' }).click();
  await expect(page.getByText('no owner left')).toBeVisible();
});

/** An entry that every job takes: it is handed over in the middle. */
async function handOver(page: Page, to: string): Promise<void> {
  await page.getByRole('link', { name: 'Hand over' }).first().click();
  await page.getByText('Hand it to a colleague in the middle').click();
  await page.getByLabel('Who takes it over').fill(to);
  await page.getByRole('button', { name: 'Hand it over' }).click();
}

test('somebody of two shops goes from one to the other, and each keeps its own', async ({
  page,
  browser,
}) => {
  await beginShop(page);
  await newJob(page, 'Grain auger dead');
  const second = await another(browser);
  await second.page.goto(`${app.url}/sign-in`);
  await second.page.request.post(`${app.url}/api/access/begin`, {
    data: { shop: 'Harl Marine', town: 'Harl', owner: 'Ines Harl', name: 'ines', password: PASSWORD },
  });
  const link = await add(second.page, 'Mara Quill', 'technician');
  // Something that could not be sent while the own shop was worked for.
  const away = (route: Route) => route.abort();
  await page.route('**/api/events', away);
  await handOver(page, 'Ines Harl');
  await expect(page.getByTestId('sending')).toContainText('kept');
  await page.goto(link);
  await page.getByRole('button', { name: 'Join as Mara Quill, who is signed in here' }).click();
  await page.waitForURL(`${app.url}/`);
  await page.unroute('**/api/events', away);
  await expect(page.getByText('Harl Marine, Harl')).toBeVisible();
  await expect(page.getByTestId('outgoing')).toContainText('sent when Mara Quill of Fenwold Electrics');
  await expect(page.getByText('No job is open.')).toBeVisible();
  const [own] = await app.query<{ id: string }>(`select id from jobs where title = 'Grain auger dead'`);
  await page.goto(`${app.url}/jobs/${own?.id}`);
  // Held in this browser, and still not shown to the other shop.
  await expect(page.getByText('There is no such job in this shop')).toBeVisible();
  await page.goto(`${app.url}/shop`);
  await page.getByRole('button', { name: 'Fenwold Electrics, owner' }).click();
  await page.waitForURL(`${app.url}/`);
  await expect(page.getByTestId('outgoing')).toHaveCount(0);
  await expect
    .poll(() => app.query(`select id from job_events where body::text like '%Ines Harl%'`))
    .toHaveLength(1);
  await expect(page.getByText('Grain auger dead').first()).toBeVisible();
  // An owner of one shop gives no new password to somebody who belongs to another too.
  await second.page.goto(`${app.url}/shop`);
  await second.page.getByRole('button', { name: 'What to do with Mara Quill' }).click();
  await second.page.getByRole('menuitem', { name: 'A link for a new password' }).click();
  await expect(second.page.getByText('belongs to another shop too')).toBeVisible();
});

test('a learner asks for a word, and the job closes on a technician’s', async ({ page, browser }) => {
  await asDemo(page, 'Bryn Tallis');
  const job = await app.job('Left marker weak');
  await page.goto(`${job}#end`);
  await page.getByRole('radio', { name: 'Made safe, not repaired' }).click();
  await page.getByLabel('What makes it safe').fill('Work lamp unplugged and tied back');
  await expect(page.getByRole('button', { name: 'Close the job' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Ask for the word to close it' }).click();
  await expect(page.getByTestId('asked')).toContainText('Bryn Tallis asks for a word');
  await expect(page.getByTestId('asked').getByRole('button', { name: 'Close it on my word' })).toHaveCount(0);
  await page.getByTestId('sending').getByText('All recorded').waitFor();
  // By hand it does not close either.
  const [, id] = /jobs\/([0-9a-f-]{36})/.exec(job)!;
  const answer = await page.request.post(`${app.url}/api/events`, {
    data: {
      events: [
        {
          id: '0a6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c',
          jobId: id,
          version: 1,
          madeAt: new Date().toISOString(),
          clientOrder: 999,
          body: { kind: 'state', state: 'closed' },
        },
      ],
    },
  });
  expect(answer.status()).toBe(400);
  expect(((await answer.json()) as { message: string }).message).toContain('asks for the word');
  const technician = await another(browser, true);
  await asDemo(technician.page, 'Imre Pellow');
  await expect(technician.page.getByText('Asks for a word')).toBeVisible();
  await technician.page.goto(`${job}#end`);
  await technician.page.getByLabel('Or not yet').fill('See the marker lit with the engine running');
  await technician.page.getByRole('button', { name: 'Not yet' }).click();
  // The learner sees why, without asking.
  await expect(page.getByRole('button', { name: 'Ask for the word to close it' })).toBeVisible();
  await page.getByRole('radio', { name: 'Made safe, not repaired' }).click();
  await page.getByLabel('What makes it safe').fill('Work lamp unplugged, marker seen lit');
  await page.getByRole('button', { name: 'Ask for the word to close it' }).click();
  const stillMissing = technician.page.getByLabel('Or not yet');
  await stillMissing.fill('See it again in the rain');
  await technician.page.getByRole('button', { name: 'Close it on my word' }).click();
  // Nothing that was written goes lost with it.
  await expect(technician.page.getByText('You wrote what is still to be done')).toBeVisible();
  await stillMissing.fill('');
  await technician.page.getByRole('button', { name: 'Close it on my word' }).click();
  await expect(technician.page.getByText('✓ Closed')).toBeVisible();
  await expect(page.getByText('✓ Closed')).toBeVisible();
  const [row] = await app.query<{ stage: string; name: string }>(
    `select stage, people.name from job_summaries join job_events using (job_id) join people on people.id = person_id
     where job_id = $1 and seq = job_summaries.last_seq`,
    [id],
  );
  expect(row).toEqual({ stage: 'closed', name: 'Imre Pellow' });
});

test('a guest reads one sheet by a link, and nothing else; it ends by its day and by hand', async ({
  page,
  browser,
}) => {
  const job = await app.job('Heated mirrors');
  const links: string[] = [];
  for (const who of ['Harbour master', 'Next owner']) {
    await page.goto(`${job}/sheet`);
    await page.getByText('A link for somebody without an account').click();
    await page.getByLabel('Who gets it').fill(who);
    await page.getByRole('button', { name: 'Make a link to the hand-over sheet' }).click();
    links.push(await page.getByTestId('guest-link').getByRole('textbox').inputValue());
  }
  const guest = await another(browser, true);
  await guest.page.goto(links[0]!);
  await expect(guest.page.getByTestId('sheet')).toContainText('Heated mirrors dead on both sides');
  await expect(guest.page.getByTestId('sheet')).toContainText('Mirror feed wire broken');
  await nothingTooWide(guest.page);
  const pdf = await guest.page.request.get(links[0]!.replace('/guest/', '/api/guest/'));
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  // Ended by hand, the other goes on.
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Harbour master' })
    .getByRole('button', { name: 'End it' })
    .click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Harbour master' })).toHaveCount(0);
  await guest.page.goto(links[0]!);
  await expect(guest.page.getByText('This link leads nowhere')).toBeVisible();
  await guest.page.goto(links[1]!);
  await expect(guest.page.getByTestId('sheet')).toBeVisible();
  app.moveClock(8);
  await guest.page.goto(links[1]!);
  await expect(guest.page.getByText('This link leads nowhere')).toBeVisible();
  expect((await guest.page.request.get(links[1]!.replace('/guest/', '/api/guest/'))).status()).toBe(404);
});

test('two on one job see each other, and each other’s entries within two seconds @alone', async ({
  page,
  browser,
}) => {
  const job = `${await app.job('Left marker weak')}/trace`;
  const other = await another(browser);
  await asDemo(other.page, 'Josune Wray');
  await page.goto(job);
  await other.page.goto(job);
  await expect(page.getByTestId('here-too')).toContainText('Josune Wray is here too');
  await expect(other.page.getByTestId('here-too')).toContainText('Imre Pellow is here too');
  // Both have worked in what is there.
  for (const one of [page, other.page]) await one.getByTestId('card-title').waitFor();
  const [, id] = /jobs\/([0-9a-f-]{36})/.exec(job)!;
  const seen = page.getByTestId('log').getByText('Plug cleaned before the next reading');
  const began = Date.now();
  await note(other.page, id!, 'Plug cleaned before the next reading');
  await seen.waitFor();
  const took = Date.now() - began;
  console.log(`an entry of another is seen after ${took} ms`);
  expect(took).toBeLessThan(2000);
  // A stream that was cut comes back by itself, and brings what was missed.
  await page.context().setOffline(true);
  await note(other.page, id!, 'Said while the other was away');
  await page.context().setOffline(false);
  await expect(page.getByTestId('log')).toContainText('Said while the other was away');
  await expect(page.getByTestId('here-too')).toBeVisible();
  await other.context.close();
  await expect(page.getByTestId('here-too')).toHaveCount(0);
});

test('on more pages of one job than anybody looks at, the oldest says that it hears later, and still shows what comes', async ({
  page,
}) => {
  const job = await app.job('Left marker weak');
  const listening = page.waitForResponse(/\/live\?page=/);
  await page.goto(`${job}/trace`);
  await page.getByTestId('card-title').waitFor();
  await listening;
  const words = page.getByText('open on more than six pages');
  const stop = new AbortController();
  const live = `${app.url}/api/jobs/${job.slice(-36)}/live`;
  const streams = [];
  for (let count = 0; count < 6; count++) {
    streams.push(await fetch(`${live}?page=${crypto.randomUUID()}`, { signal: stop.signal }));
  }
  expect(streams.every(({ status }) => status === 200)).toBe(true);
  await expect(words).toBeVisible();
  await note(page, job.slice(-36), 'Said on another page');
  await expect(page.getByTestId('log')).toContainText('Said on another page');
  stop.abort();
  // Turned to again it hears as before.
  await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
  await expect(words).toHaveCount(0);
});

test('somebody at the key with a phone sees one thing and answers it; the code dies with the card', async ({
  page,
  browser,
}) => {
  await page.goto(`${await app.job('Left marker weak')}/trace`);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Somebody at the key' }).click();
  await page.getByLabel('Who is at the key').fill('Wenna');
  await page.getByRole('button', { name: 'Understood, begin' }).click();
  await page.getByRole('button', { name: 'On a second phone' }).click();
  const code = (await page.getByTestId('helper-code').locator('p').nth(1).textContent())?.trim() ?? '';
  expect(code).toMatch(/^\d{3} \d{3} \d{3}$/);
  // Without a session, and on a phone that never was here.
  const key = await another(browser, true);
  await key.page.goto(`${app.url}/key`);
  await nothingTooWide(key.page);
  await key.page
    .getByLabel('Code on the technician’s screen')
    .fill(`${code.slice(0, 4)}${code.endsWith('111111') ? '222222' : '111111'}`);
  await key.page.getByLabel('Your name').fill('Wenna Roe');
  await key.page.getByRole('button', { name: 'I am at the key' }).click();
  await expect(key.page.getByText('This code is not good')).toBeVisible();
  await key.page.getByLabel('Code on the technician’s screen').fill(code);
  await key.page.getByRole('button', { name: 'I am at the key' }).click();
  await expect(key.page.getByTestId('at-the-key')).toContainText('Side-lamp switch: on');
  await expect(page.getByTestId('phone-at-key')).toContainText('Wenna Roe sees it');
  // What it carries opens nothing else.
  expect(
    (await key.page.request.get(`${app.url}/api/events?job=${page.url().slice(-42, -6)}&after=0`)).status(),
  ).not.toBe(500);
  await key.page.getByRole('button', { name: 'It stands so' }).click();
  await expect(page.getByTestId('helper-prompt')).toHaveCount(0);
  await expect(page.getByTestId('log')).toContainText(
    'Wenna Roe, at the key with a phone of their own: it stands so',
  );
  await enterByKeyboard(page, { lamp: 'off' });
  // The card is answered: nothing is to be touched until the next one asks.
  await expect(
    key.page.getByText(/Wait. Touch nothing.|Told. Leave it so.|It stands so/).first(),
  ).toBeVisible();
  const late = await another(browser, true);
  await late.page.goto(`${app.url}/key`);
  await late.page.getByLabel('Code on the technician’s screen').fill(code);
  await late.page.getByLabel('Your name').fill('Somebody else');
  await late.page.getByRole('button', { name: 'I am at the key' }).click();
  await expect(late.page.getByText('This code is not good')).toBeVisible();
});

test('what waits belongs to who made it: a session ends, somebody else signs in, nothing is sent under the wrong name', async ({
  page,
  browser,
}) => {
  await beginShop(page);
  const link = await add(page, 'Odd Ferrer', 'technician');
  const odd = await another(browser);
  await comeIn(odd.page, link, 'odd', 'blue kettle under rain');
  const job = await newJob(page, 'Grain auger dead');
  // The session ends elsewhere while a page is open.
  await app.query('delete from sessions where person_id = (select id from people where name = $1)', [
    'Mara Quill',
  ]);
  await handOver(page, 'Odd Ferrer');
  await expect(page.getByTestId('sending')).toContainText('kept here, sent when Mara Quill signs in');
  const count = async () =>
    Number(
      (await app.query<{ of: string }>('select count(*) as of from job_events where job_id = $1', [job]))[0]
        ?.of,
    );
  const before = await count();
  await page.goto(`${app.url}/sign-in`);
  await page.getByLabel('E-mail or name').fill('odd');
  await page.getByLabel('Password').fill('blue kettle under rain');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.waitForURL(`${app.url}/`);
  await expect(page.getByTestId('outgoing')).toContainText('sent when Mara Quill signs in');
  expect(await count()).toBe(before);
  await page.goto(`${app.url}/shop`);
  // What a diagnosis worked out is this person's, and goes when the person does.
  const workedOut = () =>
    page.evaluate(
      async (name) => (await indexedDB.databases()).some((one) => one.name === name),
      PREDICTIONS_DB,
    );
  expect(await workedOut()).toBe(true);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.waitForURL(`${app.url}/sign-in`);
  expect(await workedOut()).toBe(false);
  await signIn(page, 'mara');
  await expect.poll(count).toBeGreaterThan(before);
  await expect(page.getByTestId('outgoing')).toHaveCount(0);
  const names = await app.query<{ name: string }>(
    'select distinct people.name from job_events join people on people.id = person_id where job_id = $1',
    [job],
  );
  expect(names.map(({ name }) => name)).toEqual(['Mara Quill']);
});

test('on a phone of the shop a short code is enough, a few times wrong and only the password helps', async ({
  page,
  browser,
}) => {
  await beginShop(page);
  await page.goto(`${app.url}/shop`);
  await page.getByText('A short code for phones of the shop').click();
  const codes = page.locator('form').filter({ hasText: 'Short code, 4 to 8 digits' });
  await codes.getByLabel('Password').fill(PASSWORD);
  await codes.getByLabel('Short code').fill('4711');
  await codes.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('The short code works on phones of the shop.', { exact: true })).toBeVisible();
  const phone = await another(browser, true);
  await signIn(phone.page, 'mara');
  await phone.page.goto(`${app.url}/shop`);
  await phone.page.getByLabel('Name of the phone in your hand').fill('Bay phone');
  await phone.page.getByRole('button', { name: 'Make it one of the shop' }).click();
  await expect(phone.page.getByTestId('devices')).toContainText('Bay phone');
  await phone.page.getByRole('button', { name: 'Sign out' }).click();
  await phone.page.getByText('Phone of Fenwold Electrics').waitFor();
  await nothingTooWide(phone.page);
  await phone.page.getByLabel('Short code of Mara Quill').fill('4711');
  await phone.page.getByRole('button', { name: 'Come in' }).click();
  await phone.page.waitForURL(`${app.url}/`);
  const [session] = await app.query<{ hours: number }>(
    `select extract(epoch from expires_at - created_at) / 3600 as hours from sessions where begun_by = 'code'`,
  );
  expect(Math.round(Number(session?.hours))).toBe(12);
  await phone.page.goto(`${app.url}/shop`);
  await phone.page.getByRole('button', { name: 'Sign out' }).click();
  for (let tries = 0; tries < 5; tries++) {
    await phone.page.getByLabel('Short code of Mara Quill').fill('0000');
    await phone.page.getByRole('button', { name: 'Come in' }).click();
    await expect(phone.page.getByText('The code is not right.')).toBeVisible();
  }
  await phone.page.getByLabel('Short code of Mara Quill').fill('4711');
  await phone.page.getByRole('button', { name: 'Come in' }).click();
  await expect(phone.page.getByText('wrong too often')).toBeVisible();
  await phone.page.getByRole('button', { name: 'With a password' }).click();
  await phone.page.getByLabel('E-mail or name').fill('mara');
  await phone.page.getByLabel('Password').fill(PASSWORD);
  await phone.page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await phone.page.waitForURL(`${app.url}/`);
  // A browser that is no phone of the shop has no use for the code.
  const stranger = await another(browser);
  const [mara] = await app.query<{ id: string }>(`select id from people where name = 'Mara Quill'`);
  const answer = await stranger.page.request.post(`${app.url}/api/access/code`, {
    data: { person: mara?.id, code: '4711' },
  });
  expect(answer.status()).toBe(403);
});
