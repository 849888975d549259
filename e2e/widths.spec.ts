/** Nothing is wider than the phone, on any page, in any stage of a job. */
import { expect, type Page, test } from '@playwright/test';
import type { EventBody } from '../core/format/jobSchema';
import { type App, openApp } from './app';

let app: App;
test.beforeAll(async () => {
  app = await openApp();
});
test.afterAll(async () => {
  await app.close();
});

const WIDTHS = [360, 390] as const;
const LONG = 'Replaced the eight-way plug behind the serving-hatch panel, sealed, tied back and pulled';

/** What a job gains on its way, stage after stage. */
const STAGES: readonly (readonly [string, readonly EventBody[]])[] = [
  ['complaint', []],
  [
    'testing',
    [
      { kind: 'tester-proved', on: 'battery' },
      { kind: 'note', words: 'x'.repeat(300) },
    ],
  ],
  [
    'found',
    [
      {
        kind: 'found',
        parts: ['C12'],
        fault: LONG,
        strength: 'supported',
        cause: 'unknown',
        causeWords: '',
        evidence: [],
      },
    ],
  ],
  [
    'repaired',
    [
      {
        kind: 'repair',
        words: LONG,
        partsUsed: [{ name: LONG, count: 2 }],
        temporary: true,
        due: '2026-12-24',
      },
    ],
  ],
  [
    'proved',
    [
      { kind: 'proof', function: 'cabinet-fan', condition: 'fan-on', state: 'works', expected: 'works' },
      { kind: 'watch', words: LONG, due: '2026-12-24' },
    ],
  ],
  ['closed', [{ kind: 'state', state: 'closed', override: LONG }]],
];

async function tooWide(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const wrong: string[] = [];
    const { clientWidth, scrollWidth } = document.documentElement;
    if (scrollWidth > clientWidth) wrong.push(`the page is ${scrollWidth} wide`);
    for (const item of document.querySelectorAll('body > div > aside :is(a, button)')) {
      const box = item.getBoundingClientRect();
      if (box.width > 0 && (box.left < 0 || box.right > innerWidth || box.bottom > innerHeight + 1)) {
        wrong.push(`${item.textContent} of the bar is cut`);
      }
    }
    return wrong;
  });
}

async function look(page: Page, address: string, ready: string): Promise<void> {
  await page.goto(`${app.url}${address}`);
  await lookHere(page, address, ready);
}

async function lookHere(page: Page, address: string, ready: string): Promise<void> {
  await expect(page.getByText(ready).first()).toBeVisible();
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 700 });
    await expect(async () => {
      expect([address, width, await tooWide(page)]).toEqual([address, width, []]);
    }).toPass({ timeout: 3000 });
  }
}

test('pages for choosing and maps', async ({ page }) => {
  const [van] = await app.query<{ id: string }>("select id from vehicles where name = 'Bakery van'");
  for (const [address, ready] of [
    ['/', 'Open jobs'],
    ['/follow-ups', 'outlive'],
    ['/vehicles', 'Bakery van'],
    ['/vehicles?slot=fuse', 'slots'],
    ['/shop', 'What usually fails'],
    ['/jobs/new', 'What fails'],
    [`/vehicles/${van?.id}`, 'Bring a file in'],
    [`/vehicles/${van?.id}/panels?box=cab&slot=fuse-14`, 'With the hinge'],
    [`/vehicles/${van?.id}/panels/edit?box=cab`, 'Save as a new version'],
    [`/vehicles/${van?.id}/panels/print?box=cab`, 'Known from'],
    [`/vehicles/${van?.id}/circuits/van-proving-cabinet`, '12.'],
    [`/vehicles/${van?.id}/circuits/new`, '✓ 5 parts'],
    ['/no-such-page', 'There'],
  ] as const) {
    await look(page, address, ready);
  }
});

test('a job in every stage: its pages, and what closes it, stay within reach of a thumb', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const [job] = await app.query<{ id: string }>("select id from jobs where title like 'Proving%'");
  let order = 100;
  for (const [stage, bodies] of STAGES) {
    if (bodies.length > 0) {
      const events = bodies.map((body) => ({
        id: crypto.randomUUID(),
        jobId: job!.id,
        madeAt: new Date().toISOString(),
        clientOrder: order++,
        body,
      }));
      const response = await fetch(`${app.url}/api/events`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ events }),
      });
      expect([stage, response.status]).toEqual([stage, 200]);
    }
    for (const [tail, ready] of [
      ['', 'Complaint'],
      ['/trace', 'What each result would mean'],
      ['/boxes', 'Both lit'],
      ['/wires', 'Choose a wire'],
      ['/sheet', 'What was found'],
    ] as const) {
      const address = `/jobs/${job?.id}${tail}`;
      // Loaded once a stage; from view to view as a link goes.
      if (tail === '') await look(page, address, ready);
      else {
        await page.evaluate((to) => window.history.pushState(null, '', to), address);
        await lookHere(page, address, ready);
      }
    }
    if (stage !== 'closed') {
      await page.goto(`${app.url}/jobs/${job?.id}`);
      const close = page.getByRole('button', { name: 'Close the job' });
      await close.scrollIntoViewIfNeeded();
      // Playwright refuses to click what something else covers.
      await close.click({ trial: true });
    }
  }
});
