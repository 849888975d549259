/** Hundreds of pages on one job: who is there is asked a few times, not by each for each. */
import type { Here } from './presence';
import { enterRoom } from './room';

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

/** A job whose people are these; counts how often it was asked. */
function job(here: () => readonly Here[]) {
  const asked = { times: 0 };
  const ask = async () => {
    asked.times += 1;
    return here();
  };
  const id = `job-${Math.random()}`;
  const open = (personId: string) => {
    const page = { said: [] as (readonly Here[])[], ended: 0 };
    const guest = {
      personId,
      say: (all: readonly Here[]) => page.said.push(all),
      tooMany: () => {
        page.ended += 1;
      },
    };
    return { page, ...enterRoom(id, guest, ask) };
  };
  return { asked, open };
}

test('five hundred pages of a hundred people come at once: asked once, told once each, nobody is ended', async () => {
  const people = Array.from({ length: 100 }, (_, at) => ({ personId: `p${at}`, name: `Person ${at}` }));
  const { asked, open } = job(() => people);
  const pages = people.flatMap(({ personId }) => Array.from({ length: 5 }, () => open(personId)));
  // Each is told of by the database to every page of the process.
  for (const { changed } of pages) for (let news = 0; news < 5; news++) changed();
  await jest.advanceTimersByTimeAsync(300);
  expect(asked.times).toBe(1);
  expect(pages.every(({ page }) => page.said.length === 1 && page.ended === 0)).toBe(true);
  // One closes one of five pages: the people are the same, and nobody is told.
  pages[0]!.leave();
  pages[1]!.changed();
  await jest.advanceTimersByTimeAsync(300);
  expect(asked.times).toBe(2);
  expect(pages.every(({ page }) => page.said.length === 1)).toBe(true);
});

test('somebody who comes later hears who is there, and the others hear of them', async () => {
  let people: readonly Here[] = [{ personId: 'a', name: 'Ada' }];
  const { open } = job(() => people);
  const first = open('a');
  await jest.advanceTimersByTimeAsync(300);
  people = [...people, { personId: 'b', name: 'Bo' }];
  const second = open('b');
  await jest.advanceTimersByTimeAsync(300);
  expect(first.page.said.map((all) => all.length)).toEqual([1, 2]);
  expect(second.page.said.map((all) => all.length)).toEqual([2]);
});

test('the seventh page of a person ends the oldest, which is told; those of others stay', async () => {
  const { open } = job(() => []);
  const other = open('b');
  const own = Array.from({ length: 7 }, () => open('a'));
  expect(own.map(({ page }) => page.ended)).toEqual([1, 0, 0, 0, 0, 0, 0]);
  expect(other.page.ended).toBe(0);
  own[3]!.leave();
  open('a');
  expect(own.map(({ page }) => page.ended)).toEqual([1, 0, 0, 0, 0, 0, 0]);
});

test('a database that does not answer ends no page; the next change asks again', async () => {
  let fails = true;
  const { asked, open } = job(() => {
    if (fails) throw new Error('no answer');
    return [{ personId: 'a', name: 'Ada' }];
  });
  const one = open('a');
  await jest.advanceTimersByTimeAsync(300);
  fails = false;
  one.changed();
  await jest.advanceTimersByTimeAsync(300);
  expect(asked.times).toBe(2);
  expect(one.page.said).toEqual([[{ personId: 'a', name: 'Ada' }]]);
  expect(one.page.ended).toBe(0);
});
