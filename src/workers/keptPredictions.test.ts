/** What the diagnosis worked out is kept for whom it was worked out, as far as there is room. */
import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import type { KeptPredictions } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import { PREDICTIONS_DB } from '@/sync/predictionsPlace';
import type { KeptOfCircuit as Kept, KeptFor } from './keptPredictions';

const ME: KeptFor = { person: 'imre', shop: 'pellow' };
const FAN = { function: 'fan', condition: 'on' };
const LIGHT = { function: 'light', condition: 'on' };
const circuit = (name: string) => ({ name }) as CircuitFile;

/** Predictions of one test; so many numbers that no compression makes smaller. */
function predictions(name: string, count = 4): KeptPredictions {
  const mean = Float64Array.from({ length: count }, () => Math.random());
  const test = { id: 'volts|a', outcomes: 1, columns: { mean } };
  const rows = Array.from({ length: count }, (_, row) => `${name} ${row}`);
  return { rows, tests: new Map([[test.id, test]]) };
}

/** As another visit has it, by a program with this hash. */
function visit(program: string): typeof Kept {
  process.env.NEXT_PUBLIC_CORE = program;
  let made: typeof Kept | undefined;
  jest.isolateModules(() => {
    made = jest.requireActual<{ KeptOfCircuit: typeof Kept }>('./keptPredictions').KeptOfCircuit;
  });
  return made!;
}

const rowsOf = async (kept: Kept, complaint: typeof FAN) =>
  (await kept.of(complaint)).kept.map(({ rows }) => rows[0]);

async function keys(): Promise<string[]> {
  const db = await openDB(PREDICTIONS_DB);
  const all = await db.getAllKeys('predictions');
  db.close();
  return all.map(String);
}

async function usedLast(): Promise<number> {
  const db = await openDB(PREDICTIONS_DB);
  const all = await db.getAllFromIndex('predictions', 'byUse');
  db.close();
  return all.at(-1).usedAt;
}

test('it comes back exactly at the next visit; the same complaint first, another of the circuit where it is new', async () => {
  const van = circuit('van');
  const first = predictions('fan');
  await new (visit('one'))(van, ME).keep(FAN, first);
  const again = new (visit('one'))(van, ME);
  expect(await again.of(FAN)).toEqual({ kept: [{ ...first, groups: undefined }], whole: true });
  expect((await again.of(LIGHT)).whole).toBe(false);
  expect(await rowsOf(again, LIGHT)).toEqual(['fan 0']);
  await again.keep(LIGHT, predictions('light'));
  expect(await rowsOf(new (visit('one'))(van, ME), LIGHT)).toEqual(['light 0']);
});

test('another person, another shop, another circuit and nobody find nothing', async () => {
  const Now = visit('one');
  for (const [file, owner] of [
    [circuit('van'), { ...ME, person: 'mara' }],
    [circuit('van'), { ...ME, shop: 'fenwold' }],
    [circuit('pickup'), ME],
    [circuit('van'), null],
  ] as const) {
    expect(await rowsOf(new Now(file, owner), FAN)).toEqual([]);
  }
  const before = await keys();
  await new Now(circuit('van'), null).keep(FAN, predictions('nobody'));
  expect(await keys()).toEqual(before);
});

test('another program finds nothing of it, and lets go of it when it keeps its own', async () => {
  const Later = visit('two');
  const van = new Later(circuit('van'), ME);
  expect(await rowsOf(van, FAN)).toEqual([]);
  await van.keep(FAN, predictions('new'));
  expect((await keys()).every((key) => key.includes('|two|'))).toBe(true);
});

test('what was used longest ago makes room', async () => {
  const Now = visit('two');
  Now.mostBytes = 300_000;
  let now = Date.now() + 1_000_000;
  const clock = jest.spyOn(Date, 'now').mockImplementation(() => now++);
  // About a hundred kilobytes each.
  const large = 12_800;
  for (const name of ['a', 'b']) await new Now(circuit(name), ME).keep(FAN, predictions(name, large));
  const before = await usedLast();
  expect(await rowsOf(new Now(circuit('a'), ME), FAN)).toEqual(['a 0']);
  // That it was used is written down a moment later.
  while ((await usedLast()) === before) await new Promise((resolve) => setTimeout(resolve, 2));
  await new Now(circuit('c'), ME).keep(FAN, predictions('c', large));
  const left = (await keys()).length;
  // What the tests before kept is small, and older than all of these.
  expect(left).toBe(2);
  expect(await rowsOf(new Now(circuit('b'), ME), FAN)).toEqual([]);
  clock.mockRestore();
});

test('a record that is damaged is not believed', async () => {
  const Now = visit('two');
  await new Now(circuit('damaged'), ME).keep(FAN, predictions('whole'));
  expect(await rowsOf(new Now(circuit('damaged'), ME), FAN)).toEqual(['whole 0']);
  const db = await openDB(PREDICTIONS_DB);
  for (const one of await db.getAll('predictions')) {
    await db.put('predictions', { ...one, data: one.data.slice(0, 20) });
  }
  db.close();
  expect(await rowsOf(new Now(circuit('damaged'), ME), FAN)).toEqual([]);
});

test('a store that never answers is not waited for', async () => {
  const silent = jest
    .spyOn(indexedDB, 'open')
    .mockImplementation(() => new EventTarget() as IDBOpenDBRequest);
  try {
    const kept = new (visit('silent'))(circuit('any'), ME);
    expect(await kept.of(FAN)).toEqual({ kept: [], whole: false });
  } finally {
    silent.mockRestore();
  }
});
