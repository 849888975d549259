/** One workshop cannot keep another from its sheets, nor a guest the people of the workshop. */
import type { Sheet } from '#core/log';
import { NotNow } from '@/http/notNow';
import { SheetTurns } from './sheetTurns';

const sheet = (words: string) => ({ standing: words }) as unknown as Sheet;

/** Sheets that are finished by hand. */
function byHand() {
  const began: string[] = [];
  const finish = new Map<string, () => void>();
  const make = (name: string) => () => {
    began.push(name);
    return new Promise<Sheet>((resolve) => finish.set(name, () => resolve(sheet(name))));
  };
  return { began, finish, make };
}

const settle = () => new Promise((resolve) => setTimeout(resolve, 5));

test('of a workshop one is made and two wait; the fourth is told so, and another workshop is served', async () => {
  const turns = new SheetTurns();
  const { began, finish, make } = byHand();
  const ask = (shop: string, key: string, guest = false) => turns.made({ shop, key, guest }, make(key));
  const first = ask('a', 'a1');
  const second = ask('a', 'a2');
  const third = ask('a', 'a3');
  await settle();
  await expect(ask('a', 'a4')).rejects.toBeInstanceOf(NotNow);
  const other = ask('b', 'b1');
  await settle();
  expect(began).toEqual(['a1', 'b1']);
  finish.get('b1')!();
  expect(await other).toEqual(sheet('b1'));
  for (const [name, turn] of Object.entries({ a1: first, a2: second, a3: third })) {
    await settle();
    finish.get(name)!();
    expect(await turn).toEqual(sheet(name));
  }
  const again = ask('a', 'a4');
  await settle();
  finish.get('a4')!();
  expect(await again).toEqual(sheet('a4'));
});

test('guests who wait keep nobody of the workshop from waiting', async () => {
  const turns = new SheetTurns();
  const { finish, make } = byHand();
  const ask = (key: string, guest: boolean) => turns.made({ shop: 'a', key, guest }, make(key));
  const all = [ask('now', false), ask('g1', true), ask('g2', true)];
  await settle();
  await expect(ask('g3', true)).rejects.toBeInstanceOf(NotNow);
  all.push(ask('p1', false));
  for (const name of ['now', 'p1', 'g1', 'g2']) {
    await settle();
    finish.get(name)!();
  }
  expect(await Promise.all(all)).toHaveLength(4);
});

test('people come before guests', async () => {
  const turns = new SheetTurns();
  const { began, finish, make } = byHand();
  const running = turns.made({ shop: 'a', key: 'now', guest: false }, make('now'));
  const guest = turns.made({ shop: 'a', key: 'guest', guest: true }, make('guest'));
  const person = turns.made({ shop: 'a', key: 'person', guest: false }, make('person'));
  for (const name of ['now', 'person', 'guest']) {
    await settle();
    finish.get(name)!();
  }
  await Promise.all([running, guest, person]);
  expect(began).toEqual(['now', 'person', 'guest']);
});

test('the same sheet is made once, for all who ask while it is made and after; one that failed is made again', async () => {
  const turns = new SheetTurns();
  const { began, finish, make } = byHand();
  const turn = { shop: 'a', key: 'same', guest: false };
  const asked = Array.from({ length: 50 }, () => turns.made(turn, make('same')));
  await settle();
  finish.get('same')!();
  await Promise.all(asked);
  expect(await turns.made(turn, make('same'))).toEqual(sheet('same'));
  expect(began).toEqual(['same']);
  const broken = { ...turn, key: 'broken' };
  await expect(turns.made(broken, () => Promise.reject(new Error('no paper')))).rejects.toThrow('no paper');
  expect(await turns.made(broken, () => Promise.resolve(sheet('made')))).toEqual(sheet('made'));
});

test('what is kept has a bound: what was used longest ago goes', async () => {
  const turns = new SheetTurns(1000);
  let made = 0;
  const ask = (key: string) =>
    turns.made({ shop: 'a', key, guest: false }, () => {
      made += 1;
      return Promise.resolve(new Uint8Array(400));
    });
  for (const key of ['one', 'two', 'one', 'three', 'one', 'two']) await ask(key);
  expect(made).toBe(4);
});
