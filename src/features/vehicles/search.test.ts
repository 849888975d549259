/** What the search over a shop finds: vehicles by plate and name, slots by what is printed on them. */
import { randomUUID } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { database } from '@/db/client';
import { rebuildSearch } from '@/db/projections/searchRows';
import { searchEntries } from '@/db/schema';
import { demoActor, stranger, withDatabase } from '../../../testing/database';
import { importFile, listVehicles, loadVehicle, searchShop } from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

const bakery = async () => (await listVehicles(await demoActor())).find((one) => one.name === 'Bakery van')!;

test('a vehicle by its plate, however it is spaced, and by its name', async () => {
  const actor = await demoActor();
  const van = await bakery();
  const spaced = van.plate.split('').join(' ').toLowerCase();
  for (const text of [
    van.plate,
    van.plate.replace(/\W/g, ''),
    spaced,
    van.plate.slice(-4),
    'bakery',
    'van bak',
  ]) {
    expect([text, (await searchShop(actor, text)).vehicles.map((one) => one.id)]).toEqual([text, [van.id]]);
  }
  expect((await searchShop(await stranger(), van.plate)).vehicles).toEqual([]);
});

test('a slot by its printed number, letters and all, and by number with plate or name', async () => {
  const actor = await demoActor();
  const van = await bakery();
  const set = (await loadVehicle(actor, van.id))!.panelSet!;
  const [panel, ...others] = set.file.panels;
  const [slot, ...rest] = panel!.slots;
  const printed = { ...slot!, number: 'F7/2' };
  const text = JSON.stringify({ ...set.file, panels: [{ ...panel!, slots: [printed, ...rest] }, ...others] });
  expect(await importFile(actor, van.id, { id: randomUUID(), text })).toMatchObject({ ok: true });
  for (const words of ['F7/2', 'f7-2', 'f72', `${van.plate} F7/2`, 'bakery f7/2', 'f7/2 bakery']) {
    const [first] = (await searchShop(actor, words)).slots;
    expect([words, first?.slotId]).toEqual([words, slot!.id]);
  }
  const [fourteen] = (await searchShop(actor, 'bakery fuse 14')).slots;
  expect(fourteen).toMatchObject({
    detail: expect.stringMatching(/^Bakery van/),
    name: expect.stringMatching(/^fuse 14/),
  });
});

test('a text of nothing but signs, quotes and operators asks for nothing and breaks nothing', async () => {
  const actor = await demoActor();
  for (const text of [
    "'",
    "''",
    '\\',
    "fan' | 'pump",
    '!& fan:*',
    '( )',
    '=shop',
    '14:A',
    'ﬀ',
    'a'.repeat(500),
  ]) {
    await expect(searchShop(actor, text)).resolves.toBeDefined();
  }
  expect((await searchShop(actor, `=shop ${actor.shopId}`)).vehicles).toEqual([]);
});

test('jobs and circuits by words of their names, also together with the vehicle', async () => {
  const actor = await demoActor();
  const { jobs, circuits } = await searchShop(actor, 'bakery');
  expect(jobs.length).toBeGreaterThan(0);
  expect(circuits.length).toBeGreaterThan(1);
  expect(jobs.every((one) => one.detail === 'job on Bakery van')).toBe(true);
  const [circuit] = circuits;
  const word = circuit!.name.split(' ')[0]!;
  const both = await searchShop(actor, `bakery ${word}`);
  expect(both.circuits.map((one) => one.href)).toContain(circuit!.href);
});

test('rows of the search made anew are the rows that were kept', async () => {
  const read = () =>
    database()
      .select({
        key: searchEntries.key,
        name: searchEntries.name,
        detail: searchEntries.detail,
        href: searchEntries.href,
        slot: searchEntries.slot,
        sentence: searchEntries.sentence,
        words: searchEntries.words,
      })
      .from(searchEntries)
      .orderBy(searchEntries.key);
  const kept = await read();
  await rebuildSearch();
  expect(await read()).toEqual(kept);
  // By code of its own: one row for each slot of the newest boxes, each vehicle, circuit and job.
  const [count] = (
    await database().execute<{ of: string }>(sql`
      select (select count(*) from vehicles) + (select count(*) from circuits) + (select count(*) from jobs) +
        (select coalesce(sum(json_array_length(one -> 'slots')), 0)
         from (select distinct on (panel_set_id) file from panel_set_versions order by panel_set_id, version desc) as newest,
              json_array_elements(newest.file -> 'panels') as one) as of`)
  ).rows;
  expect(kept.length).toBe(Number(count?.of));
});
