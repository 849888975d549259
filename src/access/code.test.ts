/** Short codes on phones of a shop: whose tries they use up, and what sets the count right again. */
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { database } from '@/db/client';
import { people, shopDevices, shops } from '@/db/schema';
import { withDatabase } from '../../testing/database';
import { makeAccount, signIn, signInByCode } from './accounts';
import { hashed } from './hashing';
import { hashOf } from './secrets';

withDatabase();

const PASSWORD = 'four wrens on a gatepost';
const HEADERS = new Headers({ host: '127.0.0.1' });

/** A shop with one person, who has an account and a short code, and one phone of the shop; gives ids and the phone's secret. */
async function shopWithPhone(name: string): Promise<{ person: string; phone: string }> {
  const [shopId, person, phone] = [randomUUID(), randomUUID(), randomUUID()];
  const db = database();
  await db.insert(shops).values({ id: shopId, name, town: 'Fenwold' });
  await db.transaction(async (tx) => {
    const userId = await makeAccount(tx, { name: `${name}-owner`, password: PASSWORD, shown: name });
    await tx.insert(people).values({
      ...{ id: person, shopId, name: `${name} owner`, role: 'owner', userId },
      codeHash: await hashed('4711'),
    });
    await tx.insert(shopDevices).values({
      ...{ id: randomUUID(), shopId, name: 'Bay phone', tokenHash: hashOf(phone), madeBy: person },
      madeAt: new Date().toISOString(),
      expiresAt: new Date(Date.now() + 86_400_000).toISOString(),
    });
  });
  return { person, phone };
}

test('after five wrong codes none is taken; a sign-in by password, and the right code is', async () => {
  const { person, phone } = await shopWithPhone('fenwold');
  for (let tried = 0; tried < 5; tried++) {
    expect(await signInByCode(HEADERS, phone, person, '9025')).toMatchObject({ status: 401 });
  }
  expect(await signInByCode(HEADERS, phone, person, '4711')).toMatchObject({
    status: 429,
    message: 'This code was wrong too often. Sign in with your password; then it works again.',
  });
  expect(await signIn(HEADERS, 'fenwold-owner', 'four wrens on a fence post')).toMatchObject({ status: 401 });
  expect(await signInByCode(HEADERS, phone, person, '4711')).toMatchObject({ status: 429 });
  expect(await signIn(HEADERS, 'fenwold-owner', PASSWORD)).toMatchObject({ ok: true });
  expect(await signInByCode(HEADERS, phone, person, '4711')).toMatchObject({ ok: true });
});

test('the phone of another shop does not use up the tries of a person', async () => {
  const [own, other] = [await shopWithPhone('wychmere'), await shopWithPhone('saltby')];
  for (let tried = 0; tried < 8; tried++) {
    expect(await signInByCode(HEADERS, other.phone, own.person, '9025')).toMatchObject({ status: 401 });
  }
  expect(await signInByCode(HEADERS, own.phone, own.person, '4711')).toMatchObject({ ok: true });
});

test('whoever has left comes in by no code', async () => {
  const { person, phone } = await shopWithPhone('harrowby');
  await database().update(people).set({ leftAt: new Date().toISOString() }).where(eq(people.id, person));
  expect(await signInByCode(HEADERS, phone, person, '4711')).toMatchObject({ status: 401 });
});
