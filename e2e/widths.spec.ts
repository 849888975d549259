/** Nothing of a job is wider than the phone, in any stage. */
import type { EventBody } from '../core/format/jobSchema';
import { so } from '../testing/whole';
import { type App, openApp } from './app';
import { nothingTooWide } from './phone';
import { expect, test } from './test';

let app: App;
test.beforeAll(async () => {
  app = await openApp();
});
test.afterAll(async ({ browser }) => {
  await app.close(browser);
});

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

test('a job in every stage: its pages, and what closes it, stay within reach of a thumb', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const [job] = await app.query<{ id: string }>("select id from jobs where title like 'Proving%'");
  let order = 100;
  for (const [index, [stage, bodies]] of STAGES.entries()) {
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
    // Every stage in `npm run verify`; else the middle one, and the last with all that came before.
    if (index % so(1, 3) !== so(0, 2)) continue;
    for (const [tail, ready] of [
      ['', 'Function check'],
      ['/trace', 'What each result would mean'],
      ['/boxes', 'Both lit'],
      ['/wires', 'Colour, base'],
      ['/combinations', 'Tap a cell'],
      ['/sheet', 'What was found'],
    ] as const) {
      const address = `/jobs/${job?.id}${tail}`;
      // Loaded once a stage; from view to view as a link goes.
      if (tail === '') await page.goto(app.url + address);
      else await page.evaluate((to) => window.history.pushState(null, '', to), address);
      await expect(page.getByText(ready).first()).toBeVisible();
      await nothingTooWide(page);
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
