/** Whom wrong tries keep out: the one who makes them, and neither those at the same address nor those they pretend to be. */
import { randomUUID } from 'node:crypto';
import { database } from '@/db/client';
import { people, shops } from '@/db/schema';
import { transaction } from '@/db/transaction';
import { withDatabase } from '../../testing/database';
import { knownMark, makeAccount, signIn } from './accounts';
import { triedOnce, triedWell } from './tries';

withDatabase();

const PASSWORD = 'four wrens on a gatepost';
const HERE = new Headers({ host: '127.0.0.1' });

async function owner(name: string): Promise<string> {
  const shopId = randomUUID();
  await database().insert(shops).values({ id: shopId, name, town: 'Fenwold' });
  await transaction(async (tx) => {
    const userId = await makeAccount(tx, { name, password: PASSWORD, shown: name });
    await tx.insert(people).values({ id: randomUUID(), shopId, name, role: 'owner', userId });
  });
  return name;
}

test('a browser that has signed in before is let in by the right password, however often others were wrong', async () => {
  const name = await owner('fenwold');
  const mark = await knownMark(name);
  expect(await signIn(HERE, name, 'four wrens on a fence')).toMatchObject({ status: 401 });
  // The rest of what a name has, by whomever.
  for (let tried = 1; tried < 8; tried++) await triedOnce('name', name);
  expect(await signIn(HERE, name, PASSWORD)).toMatchObject({ status: 429 });
  expect(await signIn(HERE, name, PASSWORD, ['made up', mark])).toMatchObject({ ok: true });
  // The mark is of one name, and opens nothing by itself.
  const other = await owner('saltby');
  expect(await signIn(HERE, other, 'four wrens on a fence', [mark])).toMatchObject({ status: 401 });
  expect(await signIn(HERE, name, 'four wrens on a fence', [mark])).toMatchObject({ status: 401 });
});

test('what was right is not counted: more may sign in at one address than may be wrong there', async () => {
  const name = await owner('wychmere');
  await triedWell('address', 'this machine');
  // As many wrong ones as an address has, but for two.
  for (let wrong = 0; wrong < 60 - 2; wrong++) await triedOnce('address', 'this machine');
  for (let tried = 0; tried < 4; tried++)
    expect(await signIn(HERE, name, PASSWORD)).toMatchObject({ ok: true });
});
