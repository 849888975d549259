/** Changes played before a wire is touched, then done step by step. */
import { readFileSync } from 'node:fs';
import type { Locator } from '@playwright/test';
import type { CircuitFile, CircuitPart } from '../core/format';
import { FAN, fuse, lamp, PLATE, SCALE } from '../testing/plannedChanges';
import { type App, openApp } from './app';
import { DESK, SIZES } from './sizes';
import { expect, type Page, test } from './test';

let app: App;
test.beforeEach(async () => {
  app = await openApp();
});
test.afterEach(async ({ browser }) => {
  await app.close(browser);
});

const STATES = [
  'Key off',
  'Key off, after the wait',
  'Key at accessory',
  'Key at run',
  'Cranking',
  'Engine running',
  'Key at run, what it serves switched on',
] as const;

/** Fuses as they are in a car, and points by names that can be read. */
function named(
  circuit: CircuitFile,
  names: Readonly<Record<string, string>>,
  more: readonly CircuitPart[] = [],
): CircuitFile {
  const parts = [...circuit.parts, ...more].map((part) =>
    part.kind === 'fuse' ? { ...part, family: 'mini' as const } : part,
  );
  const points = new Set(parts.flatMap((part) => Object.values(part.pins as Record<string, string>)));
  const known = new Set(circuit.nodes.map(({ id }) => id));
  return {
    ...circuit,
    places: [],
    parts,
    nodes: [
      ...circuit.nodes.map(({ id }) => ({ id, name: names[id] ?? `Point ${id}` })),
      ...[...points].filter((id) => !known.has(id)).map((id) => ({ id, name: names[id] ?? `Point ${id}` })),
    ],
  };
}

async function post(page: Page, path: string, data: object): Promise<void> {
  const answer = await page.request.post(app.url + path, { data });
  expect([path, answer.status(), await answer.text()]).toEqual([path, 200, expect.any(String)]);
}

/** A vehicle of which nothing is known but its name. */
async function newVehicle(page: Page, name: string): Promise<void> {
  await post(page, '/api/vehicles', {
    id: crypto.randomUUID(),
    vehicleId: crypto.randomUUID(),
    name,
    nominalVolts: 12,
  });
}

/** A job that changes something on a vehicle, with a circuit of its own where one is given. */
async function changeJob(
  page: Page,
  vehicleName: string,
  title: string,
  circuit?: CircuitFile,
): Promise<{ job: string; vehicle: string }> {
  if (vehicleName.endsWith('the second')) await newVehicle(page, vehicleName);
  const vehicle = await app.vehicle(vehicleName);
  const vehicleId = vehicle.slice(-36);
  if (circuit)
    await post(page, `/api/vehicles/${vehicleId}/import`, {
      id: crypto.randomUUID(),
      text: JSON.stringify(circuit),
    });
  const id = crypto.randomUUID();
  await post(page, '/api/jobs', { id, vehicleId, title, work: 'change' });
  return { job: `${app.url}/jobs/${id}`, vehicle };
}

const intent = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click();
const into = (page: Page) => page.getByRole('button', { name: 'Into the plan' }).click();
const verdict = (page: Page) => page.getByTestId('plan-verdict');
const tab = (page: Page, name: RegExp) => page.getByRole('tab', { name }).click();
const step = (page: Page): Locator => page.getByTestId('work-step');

/** What somebody does at a step: lit in which states at which end of a wire, and what a reading is; all else is in order. */
interface Found {
  readonly ends?: Readonly<
    Record<string, { readonly a?: readonly string[]; readonly b?: readonly string[] }>
  >;
  readonly value?: string;
  /** Steps that are passed, by words in them, with the reason. */
  readonly passed?: Readonly<Record<string, string>>;
  /** Stops before a step in whose words this stands. */
  readonly until?: string;
}

/** Goes through the work, a step at a time; gives the words of the steps in the order in which they came. */
async function work(page: Page, found: Found = {}): Promise<string[]> {
  const seen: string[] = [];
  for (let count = 0; count < 90; count++) {
    await expect(step(page).or(page.getByTestId('carry-out'))).toBeVisible();
    if (await page.getByTestId('carry-out').isVisible()) return seen;
    const words = (await step(page).getByRole('heading').textContent()) ?? '';
    if (found.until && words.includes(found.until)) return seen;
    seen.push(words);
    const here = step(page);
    const gone = () => expect(step(page).getByRole('heading', { name: words, exact: true })).toBeHidden();
    const go = here.getByRole('button', { name: 'It is so, go on' });
    if (await go.isVisible()) await go.click();
    const reason = Object.entries(found.passed ?? {}).find(([part]) => words.includes(part))?.[1];
    if (reason) {
      await here.getByLabel('Or all the same, because').fill(reason);
      await here.getByRole('button', { name: 'Pass it' }).click();
      await gone();
      continue;
    }
    if (await here.getByRole('table').isVisible()) {
      const ends = Object.entries(found.ends ?? {}).find(([part]) => words.includes(part))?.[1] ?? {};
      for (const state of STATES) {
        for (const end of ['a', 'b'] as const) {
          const live = (ends[end] ?? []).includes(state);
          await here
            .getByRole('button', { name: `End ${end}, ${state}: ${live ? 'live' : 'dead'}`, exact: true })
            .click();
        }
      }
      await gone();
      continue;
    }
    const watching = here.getByLabel('Who is watching');
    if (await watching.isVisible()) {
      await watching.fill('Bea Wray');
      await here.getByRole('button', { name: 'It ran, and it is off' }).click();
      await gone();
      continue;
    }
    const record = here.getByRole('button', { name: 'Record' });
    if (await record.isVisible()) {
      await here
        .getByRole('textbox')
        .first()
        .fill(found.value ?? '0.02');
      await record.click();
      await gone();
      continue;
    }
    await here
      .getByRole('button', {
        name: /^(Tester proved|Done|Seen, all of it is so|It reads dead|One hole live|Live|It is on|It is off|It does|All of (them|it))/,
      })
      .first()
      .click();
    await gone();
  }
  throw new Error(`The work does not end: ${seen.slice(-3).join(' / ')}`);
}

async function keptPlan(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Keep it on the job' }).first().click();
  await tab(page, /^Work/);
  await expect(step(page)).toBeVisible();
}

async function carryOut(page: Page): Promise<void> {
  await expect(page.getByTestId('carry-out')).toContainText('Every step is done');
  await page.getByRole('button', { name: 'Carry it out' }).click();
  await expect(page.getByTestId('ended-plan')).toContainText('Carried out');
}

for (const [size, use] of SIZES) {
  test.describe(size, () => {
    test.use(use);

    test('the pickup: points of the hive scale live only with the key, the first source too small, the second break asked for', async ({
      page,
    }) => {
      const circuit = named(SCALE, { scale: 'hive-scale points', fc: 'load side of the old fuse' }, [
        fuse('FJ', 'plus', 'fj', 1),
        {
          id: 'KJ',
          kind: 'key-contact',
          name: 'Radio key contact',
          pins: { in: 'fj', out: 'jr' },
          closedIn: ['run'],
        },
        fuse('FM', 'jr', 'fm', 3),
        lamp('LJ', 'fm', 2, 'minus'),
      ]);
      const { job, vehicle } = await changeJob(
        page,
        'Beekeeper’s pickup',
        'Hive scale only with the key',
        circuit,
      );
      await page.goto(`${job}/change`);
      await intent(page, 'Make this live only with the key');
      await page.getByLabel('The wire that brings its feed now').selectOption('WC');
      await page.getByLabel('What hangs on it draws').fill('a lot');
      await page.getByLabel('Length of the new wire').fill('2,5');
      await page.getByLabel('Feed to be tapped').selectOption('FM');
      await into(page);
      await expect(page.getByText('“a lot” is no number')).toBeVisible();
      await page.getByLabel('What hangs on it draws').fill('1.7');
      // Nothing typed is lost by a reload before it is in the plan.
      await page.reload();
      await expect(page.getByLabel('Length of the new wire')).toHaveValue('2,5');
      await into(page);
      await expect(verdict(page)).toContainText('danger');
      await tab(page, /^Shows/);
      await expect(page.getByTestId('findings')).toContainText('Fuse FJ would carry');
      await tab(page, /^Plan/);
      await page.getByRole('button', { name: 'Undo', exact: true }).click();

      await intent(page, 'Make this live only with the key');
      await page.getByLabel('The wire that brings its feed now').selectOption('WC');
      await page.getByLabel('Feed to be tapped').selectOption('FR');
      await page.getByLabel('What hangs on it draws').fill('1.7');
      await page.getByLabel('Length of the new wire').fill('2,5');
      await into(page);
      await expect(verdict(page)).toContainText('No danger found');
      // Without the second break: once somebody puts the fuse back, two sources meet.
      const second = page.getByRole('button', { name: /^Take out of the plan: Take out Wire WC/ });
      await second.click();
      await tab(page, /^Shows/);
      await expect(page.locator('[data-finding="second-break"]')).toContainText('once somebody puts it back');
      await page
        .locator('[data-finding="second-break"]')
        .getByRole('button', { name: 'See it live' })
        .click();
      await expect(page.getByRole('dialog')).toContainText('After the change, in this setting');
      await page.keyboard.press('Escape');
      await tab(page, /^Plan/);
      await page.getByRole('button', { name: 'Undo', exact: true }).click();
      await expect(verdict(page)).toContainText('No danger found');

      // Before and after in every setting, what differs marked.
      await tab(page, /^Drawing/);
      await expect(page.getByTestId('change-table')).toContainText('on → off');
      await tab(page, /^Plan/);
      await keptPlan(page);
      const steps = await work(page, {
        ends: { 'Wire WC': { a: ['Key off', 'Key at run'], b: ['Key at run'] } },
      });
      const at = (words: string) => steps.findIndex((one) => one.includes(words));
      expect(at('both ends')).toBeGreaterThan(-1);
      expect(at('Pull Fuse FC')).toBeGreaterThan(at('Earthed pole of every battery off'));
      expect(at('Read it dead')).toBeGreaterThan(at('Pull Fuse FC'));
      expect(at('Free Wire WC')).toBeGreaterThan(at('Read it dead'));
      expect(at('Label on Fuse FC')).toBeGreaterThan(at('Free Wire WC'));
      expect(at('added lead live?')).toBeGreaterThan(at('Earthed pole on'));
      await carryOut(page);
      await page.goto(vehicle);
      await expect(page.getByRole('region', { name: 'Changes in force' })).toContainText(
        'Make this live only with the key',
      );
      await page.goto(`${job}/sheet`);
      await expect(page.getByText('Carried out: Make this live only').first()).toBeVisible();
      await expect(page.getByText('1. Take the label off Fuse FC').first()).toBeVisible();
      await expect(page.getByText('Wire WC, end a: lit (key off)').first()).toBeVisible();
      const pdf = await page.request.get(`${job.replace('/jobs/', '/api/jobs/')}/labels`);
      expect(pdf.headers()['content-type']).toBe('application/pdf');
    });

    test('the launch: the fan’s controller woken by a tap, its direction proved', async ({ page }) => {
      const circuit = named(
        { ...FAN, parts: FAN.parts.filter(({ id }) => id !== 'SF') },
        { 'c-wake': 'wake lead of the fan controller' },
      );
      const { job } = await changeJob(page, 'Harbour launch', 'Fan with the key', circuit);
      await page.goto(`${job}/change`);
      await intent(page, 'Bring a feed to a point that is there');
      await page.getByLabel('The point').selectOption('c-wake');
      await page.getByLabel('Feed to be tapped').selectOption('F2');
      await page.getByRole('radio', { name: 'at accessory and run' }).click();
      await page.getByLabel('What hangs on it draws').fill('0.1');
      await page.getByLabel('Length of the new wire').fill('1');
      await into(page);
      // A constant slot is not what was asked for, and the fan was not named.
      await tab(page, /^Shows/);
      await expect(page.locator('[data-finding="goals"]').first()).toContainText('was to be off (key off)');
      await expect(page.locator('[data-finding="functions"]').first()).toContainText(
        'Engine-room fan: off before, on after',
      );
      await tab(page, /^Plan/);
      await page.getByRole('button', { name: /^Take out of the plan: Tap the slot/ }).click();
      await expect(page.getByText('It cannot be played from here on')).toBeVisible();
      await page.getByRole('button', { name: 'Undo', exact: true }).click();
      await page.getByRole('button', { name: 'Undo', exact: true }).click();
      await intent(page, 'Add a wire');
      await page.getByLabel('From').selectOption('acc');
      await page.getByLabel('To', { exact: true }).selectOption('c-wake');
      await page.getByLabel('Length').fill('1');
      await page.getByLabel('Size').fill('0.75');
      await into(page);
      await page.getByRole('button', { name: 'Ask for something more' }).click();
      await page.getByLabel('Of what').selectOption('fan');
      for (const [state, wish] of [
        ['Key off', 'off'],
        ['Key at accessory', 'on'],
        ['Key at run', 'on'],
      ] as const)
        await page
          .getByRole('radiogroup', { name: state, exact: true })
          .getByRole('radio', { name: wish, exact: true })
          .click();
      await page.getByRole('button', { name: 'Ask for it' }).click();
      await expect(verdict(page)).toContainText('No danger found');
      await keptPlan(page);
      await work(page);
      await carryOut(page);
    });

    test('the van: the hatch lamp’s wire to another cavity, both ends read in every state, the switch table', async ({
      page,
    }) => {
      const { job } = await changeJob(page, 'Bakery van', 'Hatch lamp with the cabinet switch');
      await page.goto(`${job}/wires`);
      // From the wire’s own row into a plan.
      await page.goto(`${job}/change?intent=move-wire&wire=W52`);
      await expect(page.getByLabel('The wire')).toHaveValue('W52');
      await page.getByLabel('To', { exact: true }).selectOption('s8-out');
      await into(page);
      await tab(page, /^Shows/);
      await expect(page.getByTestId('findings')).toContainText('Serving-hatch lamp');
      await tab(page, /^Drawing/);
      await expect(page.getByTestId('change-table')).toContainText('▲ on → off');
      await tab(page, /^Plan/);
      await page.getByRole('button', { name: 'Keep it on the job' }).click();
      // What nobody asked for is a danger; it may stay only with a reason, which stands on the sheet.
      await tab(page, /^Work/);
      await work(page, {
        until: 'Key off',
        ends: { 'Hatch-lamp feed': { a: ['Key at run'], b: ['Key at accessory'] } },
      });
      await expect(page.getByTestId('barred')).toContainText('dangers stand in this plan');
      await tab(page, /^Shows/);
      for (;;) {
        const reason = page.getByLabel('Or all the same, because').first();
        if (!(await reason.isVisible())) break;
        const count = await page.getByText('Stays, because:').count();
        await reason.fill('the owner wants it so');
        await page.getByRole('button', { name: 'It stays' }).first().click();
        await expect(page.getByText('Stays, because:')).toHaveCount(count + 1);
      }
      await tab(page, /^Work/);
      // A rule about lights holds the job open until it is answered.
      const steps = await work(page);
      expect(steps.join(' ')).toContain('Serving-hatch lamp: rules looked up, aim and glare seen.');
      await carryOut(page);
      await page.goto(`${job}/sheet`);
      await expect(page.getByText('the owner wants it so').first()).toBeVisible();
      await expect(page.getByText('Hatch-lamp feed, end a: lit (key at run)').first()).toBeVisible();
    });

    test('the van: the steam plate by a button, its controller kept, a countdown with somebody who watches', async ({
      page,
    }) => {
      const { job, vehicle } = await changeJob(
        page,
        'Bakery van, the second',
        'Plate by a button',
        named(PLATE, { 'k-in': 'feed of the controller' }),
      );
      await page.goto(`${job}/change`);
      await intent(page, 'Put a switch in place of a controller');
      await page.getByLabel('The controller').selectOption('KC');
      await page.getByRole('radio', { name: 'stays where it is put' }).click();
      await into(page);
      await tab(page, /^Shows/);
      await expect(page.locator('[data-finding="short-time"]')).toContainText(
        'may be on for 20 s only and stays on by itself',
      );
      await tab(page, /^Plan/);
      await page.getByRole('button', { name: 'Undo', exact: true }).click();
      await intent(page, 'Put a switch in place of a controller');
      await page.getByLabel('The controller').selectOption('KC');
      await expect(page.getByTestId('worked')).toContainText('only a switch that springs back');
      await into(page);
      await tab(page, /^Shows/);
      await expect(page.locator('[data-finding="short-time"]')).toHaveCount(0);
      await tab(page, /^Plan/);
      await page.getByRole('button', { name: 'Ask for something more' }).click();
      await page.getByLabel('Of what').selectOption('plate');
      await page
        .getByRole('radiogroup', { name: 'Key off', exact: true })
        .getByRole('radio', { name: 'on', exact: true })
        .click();
      await page.getByRole('button', { name: 'Ask for it' }).click();
      await expect(verdict(page)).toContainText('No danger found');
      await keptPlan(page);
      await work(page, {
        until: 'at most 20 s',
        passed: { 'Why Plate controller failed': 'sent to the maker' },
        value: '0.02',
      });
      // The countdown: on, off, and nobody does it alone.
      await expect(step(page).getByRole('button', { name: 'It ran, and it is off' })).toBeDisabled();
      await step(page).getByRole('button', { name: 'It is on' }).click();
      await expect(page.getByTestId('duty-clock')).toContainText(/\d+ s left/);
      await step(page).getByRole('button', { name: 'It is off', exact: true }).click();
      await work(page, { passed: { 'Why Plate controller failed': 'sent to the maker' } });
      await carryOut(page);
      // What was only passed stays owed: the cause of the controller.
      await page.goto(vehicle);
      await expect(page.getByText(/Why Plate controller failed/).first()).toBeVisible();
    });

    test('the camper: leftovers of a fridge written down, then out, the far end found late', async ({
      page,
    }) => {
      const { job, vehicle } = await changeJob(
        page,
        'Camper, the second',
        'Leftovers of a fridge out',
        named(SCALE, {}),
      );
      await page.goto(`${job}/change`);
      await intent(page, 'Write down a leftover wire');
      await page.getByLabel('What it looks like').fill('Thick red wire');
      await page.getByLabel('One end is found at').fill('the fridge bay');
      await into(page);
      await expect(verdict(page)).toContainText('No danger found');
      await page.getByRole('button', { name: /^Marks along the loom/ }).click();
      await page
        .getByLabel('One a line, before it is opened')
        .fill('keeper 120 mm\nbranch to the step 430 mm');
      await keptPlan(page);
      // Nothing is called dead before it is read; the hidden end stays owed.
      await work(page, { passed: { 'Read both ends of Thick red wire': 'far end behind the tank' } });
      await carryOut(page);
      const print = await page.request.get(
        `${job.replace('/jobs/', '/api/jobs/')}/work?plan=${new URL(page.url()).searchParams.get('plan') ?? ''}`,
      );
      expect(print.ok()).toBe(true);
      await page.goto(vehicle);
      await expect(page.getByText(/Read both ends of Thick red wire/).first()).toBeVisible();
      // Found at last: it is in the ledger of wires, and comes out with both its ends read.
      const later = crypto.randomUUID();
      await post(page, '/api/jobs', {
        id: later,
        vehicleId: vehicle.slice(-36),
        title: 'Far end found',
        work: 'change',
      });
      await page.goto(`${app.url}/jobs/${later}/change`);
      await intent(page, 'Take a dead wire out');
      await page.getByLabel('The wire').selectOption({ label: 'Thick red wire · NW1' });
      await into(page);
      await expect(verdict(page)).toContainText('No danger found');
      await keptPlan(page);
      const steps = await work(page);
      expect(steps.join(' ')).toContain('Continuity of what stays');
      await carryOut(page);
    });

    test('a plan left half done is found by another technician, who takes it back; then a whole one is undone from the ledger', async ({
      page,
    }) => {
      const circuit = named(SCALE, { scale: 'hive-scale points' });
      const { job, vehicle } = await changeJob(page, 'Beekeeper’s pickup', 'Scale with the key', circuit);
      const plan = async (address: string) => {
        await page.goto(`${address}/change`);
        await intent(page, 'Make this live only with the key');
        await page.getByLabel('The wire that brings its feed now').selectOption('WC');
        await page.getByLabel('Feed to be tapped').selectOption('FR');
        await page.getByLabel('What hangs on it draws').fill('1.7');
        await page.getByLabel('Length of the new wire').fill('2');
        await into(page);
        await keptPlan(page);
      };
      await plan(job);
      await work(page, { until: 'Lay New feed' });
      await expect(page.getByTestId('half-done')).toContainText(
        'Half done: 3 things stand on the vehicle, 1 in danger',
      );
      await expect(page.getByTestId('sending')).toHaveText('All recorded');
      // The vehicle’s page and the sheet say in what state it is.
      await page.goto(vehicle);
      await expect(page.getByTestId('hazards')).toContainText('Fuse FC is out and must not be refitted.');
      await page.goto(`${job}/sheet`);
      await expect(page.getByText('In the middle of a change: Make this live only').first()).toBeVisible();

      // Another browser, nothing of it here before.
      const other = await page.context().browser()!.newContext(use);
      const colleague = await other.newPage();
      await colleague.goto(`${job}/change`);
      await colleague.getByRole('button', { name: /Half done/ }).click();
      await expect(colleague.getByTestId('half-done')).toContainText('must not be refitted');
      await colleague.getByRole('button', { name: 'Take it back' }).click();
      for (let left = 3; left > 0; left--) {
        await expect(colleague.getByTestId('take-back')).toContainText(`${left} left`);
        await colleague.getByTestId('take-back').getByRole('button', { name: 'Done' }).click();
      }
      await colleague.getByRole('button', { name: 'All is as it was' }).click();
      await expect(colleague.getByTestId('ended-plan')).toContainText('Taken back');
      await expect(colleague.getByTestId('sending')).toHaveText('All recorded');
      await colleague.goto(vehicle);
      await expect(colleague.getByText('must not be refitted')).toHaveCount(0);
      await other.close();

      // Done whole, and undone step by step: the circuit is as it was.
      const [before] = await app.query<{ file: object }>(
        'select file from circuit_versions v join circuits c on c.id = v.circuit_id where c.vehicle_id = $1 order by v.version desc limit 1',
        [vehicle.slice(-36)],
      );
      const again = crypto.randomUUID();
      await post(page, '/api/jobs', {
        id: again,
        vehicleId: vehicle.slice(-36),
        title: 'Scale with the key',
        work: 'change',
      });
      await plan(`${app.url}/jobs/${again}`);
      await work(page);
      await carryOut(page);
      await page.goto(vehicle);
      await page.getByRole('button', { name: /^Undo it step by step/ }).click();
      await expect(page.getByRole('tab', { name: /^Work/ })).toBeVisible();
      await work(page);
      await carryOut(page);
      await page.goto(vehicle);
      await expect(page.getByRole('button', { name: /^Undo it step by step/ })).toHaveCount(0);
      const [after] = await app.query<{ file: object }>(
        'select file from circuit_versions v join circuits c on c.id = v.circuit_id where c.vehicle_id = $1 order by v.version desc limit 1',
        [vehicle.slice(-36)],
      );
      expect(JSON.stringify(after!.file)).toBe(JSON.stringify(before!.file));
    });
  });
}

test.describe('at the desk', () => {
  test.use(DESK);

  test('where nothing is drawn, a change is stated for what it touches; a recipe starts on another vehicle, unverified; files leave', async ({
    page,
  }) => {
    const { job } = await changeJob(page, 'Camper, the second', 'Fan only with the key');
    await page.goto(`${job}/change`);
    await expect(page.getByRole('heading', { name: 'What does the change touch?' })).toBeVisible();
    await page.getByRole('button', { name: 'State the change' }).click();
    await expect(page.getByText('Say what hangs on it.')).toBeVisible();
    await page.getByLabel('What hangs on it', { exact: true }).fill('roof fan');
    await page.getByLabel('Its fuse').fill('fuse 12');
    await page.getByLabel('Each draws').fill('4');
    await page.reload();
    await expect(page.getByLabel('Its fuse')).toHaveValue('fuse 12');
    await page.getByRole('button', { name: 'State the change' }).click();
    await intent(page, 'Take a part out, or disable it');
    await page.getByLabel('The part').selectOption('FU');
    await into(page);
    await expect(page.getByRole('region', { name: 'Not known here' })).toContainText(
      'Other circuits of the vehicle are not drawn',
    );
    await expect(verdict(page)).toContainText('danger');

    const first = await changeJob(page, 'Beekeeper’s pickup', 'Scale with the key', named(SCALE, {}));
    await page.goto(`${first.job}/change`);
    await intent(page, 'Make this live only with the key');
    await page.getByLabel('The wire that brings its feed now').selectOption('WC');
    await page.getByLabel('Feed to be tapped').selectOption('FR');
    await page.getByLabel('What hangs on it draws').fill('1.7');
    await page.getByLabel('Length of the new wire').fill('2');
    await into(page);
    await page.getByRole('button', { name: 'Files, and as a recipe' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Plan (JSON)' }).click();
    const file = JSON.parse(readFileSync((await (await download).path())!, 'utf8'));
    expect(file).toMatchObject({ format: 'every-trace/plan', version: 1, edits: expect.any(Array) });
    const netlist = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Netlist after' }).click();
    expect(readFileSync((await (await netlist).path())!, 'utf8')).toContain('.options');
    await page.getByRole('button', { name: 'Keep as a recipe of the shop' }).click();
    await expect(page.getByText('✓ Kept as a recipe of the shop')).toBeVisible();

    const second = await changeJob(page, 'Harbour launch', 'The same on the launch', named(SCALE, {}));
    await page.goto(`${second.job}/change`);
    await page.getByRole('button', { name: /^From a recipe of the shop/ }).click();
    await page.getByLabel('Recipe').selectOption({ index: 1 });
    await page.getByRole('button', { name: 'Start it here, unverified' }).click();
    await expect(page.getByRole('region', { name: 'Not known here' })).toContainText('is taken for');
    await page.getByRole('button', { name: 'Seen here' }).first().click();
    await expect(verdict(page)).toContainText('No danger found');
  });

  test('written in the circuit’s text, or begun at a part of the drawing, it becomes sentences of the plan', async ({
    page,
  }) => {
    const { job } = await changeJob(page, 'Bakery van', 'A smaller hatch lamp');
    await page.goto(`${job}/change`);
    await page.getByRole('button', { name: 'Write it as text' }).click();
    const text = page.getByLabel('The circuit, as the plan makes it');
    await expect(text).toHaveValue(/21\s?W/);
    const was = await text.inputValue();
    await text.fill(was.replace(/21\s?W/, '1 parsnip'));
    await expect(page.getByRole('alert').filter({ hasText: 'parsnip' })).toBeVisible();
    await text.fill(was.replace(/21(\s?)W/, '5$1W'));
    await page.getByRole('button', { name: 'Into the plan' }).click();
    await expect(page.getByTestId('plan-sentences')).toContainText('By the text: change Serving-hatch lamp');
    await expect(verdict(page)).toContainText('No danger found');
    await page.getByRole('button', { name: 'The sums behind it' }).click();
    await expect(page.getByText(/Asleep, key off:/)).toBeVisible();
    await tab(page, /^Drawing/);
    await page.locator('section[aria-label="After"] [data-part="W52"]').first().press('Enter');
    await page
      .getByRole('region', { name: 'The chosen part' })
      .getByRole('button', { name: 'Cut a wire' })
      .click();
    await expect(page.getByLabel('The wire')).toHaveValue('W52');
    await into(page);
    await expect(page.getByTestId('plan-sentences')).toContainText('Cut Hatch-lamp feed; a cap on each end.');
    await expect(verdict(page)).toContainText('danger');

    // Two who change it at once: the second is told, and nothing of the first is written over without a word.
    await page.getByRole('button', { name: 'Keep it on the job' }).click();
    const other = await page.context().browser()!.newContext(DESK);
    const colleague = await other.newPage();
    const rename = async (on: Page, name: string) => {
      await on.getByRole('tab', { name: /^Plan/ }).click();
      await on.getByRole('button', { name: 'Its name, what for, two builds' }).click();
      await on.getByLabel('Called').fill(name);
    };
    await expect(page.getByTestId('sending')).toHaveText('All recorded');
    await colleague.goto(`${job}/change`);
    await rename(page, 'Mine');
    await rename(colleague, 'Theirs');
    await colleague.getByRole('button', { name: 'Keep it on the job' }).click();
    await expect(page.getByText('Somebody kept another version of this plan meanwhile.')).toBeVisible();
    await page.getByRole('button', { name: 'Take theirs instead' }).click();
    await expect(page.getByRole('heading', { name: 'Theirs' })).toBeVisible();
    await other.close();
  });
});
