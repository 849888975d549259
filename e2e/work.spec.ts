/** The work views of a job: one document, what the browser holds, and no page asked of the server between them. */
import { type App, openApp } from './app';
import { atRest } from './rest';
import { openFanJob } from './technician';
import { expect, type Page, test } from './test';

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

const step = (page: Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Steps of the job' }).getByRole('link', { name });

/** Documents and router data that are asked of the server from here on. */
function pagesAsked(page: Page): string[] {
  const asked: string[] = [];
  page.on('request', (request) => {
    const to = new URL(request.url());
    if (request.resourceType() === 'document' || to.searchParams.has('_rsc')) asked.push(to.pathname);
  });
  return asked;
}

test('the document of a job is the same for every job, allows its scripts by what they say, and holds no nonce', async ({
  page,
  request,
}) => {
  const job = await openFanJob(page, app);
  const [one, other] = await Promise.all([request.get(`${job}/trace`), request.get(`${job}/wires`)]);
  expect(await one.text()).toBe(await other.text());
  const policy = one.headers()['content-security-policy'] ?? '';
  expect(policy).toMatch(/script-src 'self' 'sha256-[^;]*;/);
  expect(policy).not.toMatch(/nonce|script-src[^;]*unsafe/);
  expect(await one.text()).not.toContain('nonce=');
  const answer = await page.goto(`${app.url}/jobs/0a6f8a52-3c7e-4f7e-9d62-6d6f6a1f2b3c`);
  expect(answer?.status()).toBe(200);
  await expect(page.getByRole('heading', { name: 'There is no such job in this shop' })).toBeVisible();
});

test('moves inside a job ask the server for no page; back and forward show what was there', async ({
  page,
}) => {
  const job = await openFanJob(page, app);
  const asked = pagesAsked(page);
  await step(page, /Trace/).click();
  await expect(page.getByTestId('card-title')).toBeVisible();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('link', { name: 'Boxes' }).click();
  await expect(page).toHaveURL(`${job}/boxes`);
  await step(page, /Hand over/).click();
  await expect(page).toHaveURL(`${job}/sheet`);
  await page.goBack();
  await expect(page).toHaveURL(`${job}/boxes`);
  await page.goBack();
  await expect(page.getByTestId('card-title')).toBeVisible();
  // To a place of the first view, which stands far below.
  await step(page, /Prove/).click();
  await expect(page).toHaveURL(`${job}#prove`);
  await expect(page.locator('#prove')).toBeInViewport();
  expect(asked).toEqual([]);
});

test('with the server gone every view of a held job opens, also of another; what is recorded arrives when it is back', async ({
  page,
}) => {
  const job = await openFanJob(page, app);
  // What works in the background is in this browser as well by then.
  await expect(page.getByText('First suspect')).toBeVisible({ timeout: 30_000 });
  await page.goto(await app.job('Heated mirrors dead'));
  await expect(page.locator('h1')).toContainText('Heated mirrors dead');
  await atRest(page);
  await app.kill();
  await page.keyboard.press('Control+k');
  await page.getByPlaceholder(/A job, a vehicle/).fill('proving cabinet');
  await page.getByRole('option', { name: /in this browser/ }).click();
  await expect(page).toHaveURL(job);
  await expect(page.locator('h1')).toContainText('Proving-cabinet fan dead');
  for (const [link, seen] of [
    [/Hand over/, 'sheet'],
    [/Trace/, 'trace'],
  ] as const) {
    await step(page, link).click();
    await expect(page).toHaveURL(`${job}/${seen}`);
  }
  await expect(page.getByTestId('card-title')).toBeVisible();
  await page.getByRole('button', { name: 'Tester proved' }).click();
  await expect(page.getByTestId('sending')).toContainText('kept here');
  await app.start();
  await expect(page.getByTestId('sending')).toContainText('All recorded', { timeout: 30_000 });
  const id = job.split('/').at(-1);
  const rows = await app.query(
    `select 1 from job_events where job_id = $1 and body->>'kind' = 'tester-proved'`,
    [id],
  );
  expect(rows).toHaveLength(1);
});
