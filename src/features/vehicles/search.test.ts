/** What the search over a shop finds: vehicles by plate and name, slots by what is printed on them. */
import { randomUUID } from 'node:crypto';
import { currentActor } from '@/access';
import { stranger, withDatabase } from '../../../testing/database';
import { importFile, listVehicles, loadVehicle, searchShop } from './server';

jest.mock('react', () => ({ ...jest.requireActual('react'), cache: (work: unknown) => work }));

withDatabase();

const bakery = async () =>
  (await listVehicles(await currentActor())).find((one) => one.name === 'Bakery van')!;

test('a vehicle by its plate, however it is spaced, and by its name', async () => {
  const actor = await currentActor();
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
  const actor = await currentActor();
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
  expect(fourteen).toMatchObject({ vehicle: 'Bakery van', name: expect.stringMatching(/^fuse 14/) });
});
