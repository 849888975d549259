/** The demo workshop, brought in through the same imports, the same stock and the same log that people use. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { checkCircuitText } from '#core/circuit';
import {
  type CircuitFile,
  checkPanelSetText,
  type Role,
  type StockItem,
  type StockPlace,
  type StockRequest,
} from '#core/format';
import type { Actor } from '@/access';
import type { Transaction } from '@/db/client';
import { keepVehicle } from '@/db/projections/searchRows';
import { people, shops, vehicles } from '@/db/schema';
import { change } from '@/features/stock/server';
import { importIn } from '@/features/vehicles/server';
import { demoId } from './demoId';
import { bringJob, type DemoJob } from './demoJob';

interface Workshop {
  shop: { name: string; town: string };
  people: { key: string; name: string; role: Role }[];
  vehicles: (Omit<typeof vehicles.$inferInsert, 'id' | 'shopId'> & { key: string; files: string[] })[];
  jobs: DemoJob[];
}

/** Into an empty database; gives how much it is. */
export async function bringShop(
  tx: Transaction,
  folder: string,
): Promise<{ readonly vehicles: number; readonly jobs: number }> {
  const workshop = JSON.parse(readFileSync(path.join(folder, 'workshop.json'), 'utf8')) as Workshop;
  const shopId = demoId('shop');
  const first = workshop.people[0]!;
  const actor: Actor = {
    personId: demoId(first.key),
    personName: first.name,
    shopId,
    shopName: workshop.shop.name,
    town: workshop.shop.town,
    role: first.role,
    demo: true,
    account: null,
  };
  await tx.insert(shops).values({ id: shopId, demo: true, ...workshop.shop });
  await tx
    .insert(people)
    .values(workshop.people.map(({ key, ...person }) => ({ ...person, id: demoId(key), shopId })));
  const brought = await tx
    .insert(vehicles)
    .values(
      workshop.vehicles.map(({ key, files: _files, ...vehicle }) => ({
        ...vehicle,
        id: demoId(key),
        shopId,
      })),
    )
    .returning();
  for (const vehicle of brought) await keepVehicle(tx, vehicle);
  const circuitOf = new Map<string, CircuitFile>();
  for (const vehicle of workshop.vehicles) {
    for (const file of vehicle.files) {
      const text = readFileSync(path.join(folder, file), 'utf8');
      const circuit = checkCircuitText(text);
      const checked = file.includes('panel-set') ? checkPanelSetText(text) : circuit;
      const result = checked.ok ? await importIn(tx, actor, demoId(vehicle.key), checked.value) : checked;
      if (!result.ok) throw new Error(`${file}: ${result.problems.map((one) => one.message).join(' ')}`);
      if (circuit.ok) circuitOf.set(circuit.value.id, circuit.value);
    }
  }
  await bringStock(tx, actor, folder);
  for (const job of workshop.jobs) {
    const by = workshop.people.find(({ key }) => key === job.by) ?? first;
    await bringJob(tx, { ...actor, personId: demoId(by.key), personName: by.name }, job, circuitOf);
  }
  return { vehicles: workshop.vehicles.length, jobs: workshop.jobs.length };
}

interface DemoStock {
  places: (Omit<StockPlace, 'id' | 'vehicleId'> & { key: string; vehicle?: string })[];
  items: (Omit<StockItem, 'id'> & { counts: Record<string, number> })[];
}

/** Places, items and what lies where, through the door that people use. */
async function bringStock(tx: Transaction, actor: Actor, folder: string): Promise<void> {
  const stock = JSON.parse(readFileSync(path.join(folder, 'stock.json'), 'utf8')) as DemoStock;
  const put = async (request: StockRequest) => {
    const answer = await change(tx, actor, request);
    if (!answer.ok) throw new Error(answer.message);
  };
  for (const { key, vehicle, ...place } of stock.places) {
    const vehicleId = vehicle === undefined ? {} : { vehicleId: demoId(vehicle) };
    const id = demoId(`stock place ${key}`);
    await put({ kind: 'place', id, place: { ...place, id, ...vehicleId } });
  }
  const items = stock.items.map(({ counts, ...item }) => ({
    counts,
    item: { ...item, id: demoId(`stock ${item.name}`) },
  }));
  for (const { key } of stock.places) {
    await put({
      kind: 'import',
      id: demoId(`stock at ${key}`),
      place: demoId(`stock place ${key}`),
      items: items.map(({ item }) => item),
      counts: items.flatMap(({ item, counts }) =>
        counts[key] === undefined ? [] : [{ item: item.id, count: counts[key] }],
      ),
    });
  }
}
