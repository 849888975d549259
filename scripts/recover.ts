/** `npm run recover [-- NAME]`: a link by which a person sets a new password; for the owner, who has nobody to ask. */
import { and, asc, eq, isNull } from 'drizzle-orm';
import { closeDatabase, database } from '../src/db/client';
import { people, shops } from '../src/db/schema';
import { transaction } from '../src/db/transaction';
import { makeEntryLink } from '../src/features/people/server';

const HOUR_MS = 3_600_000;
const wanted = process.argv
  .slice(2)
  .filter((one) => one !== '--')
  .join(' ')
  .trim()
  .toLowerCase();

const all = await database()
  .select({ id: people.id, name: people.name, role: people.role, shopId: shops.id, shopName: shops.name })
  .from(people)
  .innerJoin(shops, eq(shops.id, people.shopId))
  .where(and(eq(shops.demo, false), isNull(people.leftAt)))
  .orderBy(asc(shops.name), asc(people.name));
const found =
  wanted === ''
    ? all.filter(({ role }) => role === 'owner')
    : all.filter(({ name }) => name.toLowerCase() === wanted);
if (found.length === 1) {
  const person = found[0]!;
  const token = await transaction((tx) => makeEntryLink(tx, { ...person, madeBy: null }, HOUR_MS));
  console.log(`For ${person.name} of ${person.shopName}, once, within an hour: /enter/${token}`);
  console.log('Put the address of the program before it, as http://127.0.0.1:4012.');
} else {
  console.error(
    all.length === 0
      ? 'The database holds no shop that anybody signs in to.'
      : `Say for whom: npm run recover -- NAME. There are: ${all.map(({ name, shopName }) => `${name} (${shopName})`).join(', ')}.`,
  );
  process.exitCode = 1;
}
await closeDatabase();
