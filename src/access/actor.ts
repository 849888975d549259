/** Who acts, and for which shop: the one place that knows. Signing in will change this file and no other. */
import { asc, eq } from 'drizzle-orm';
import { cache } from 'react';
import { database } from '@/db/client';
import { people, shops } from '@/db/schema';

export interface Actor {
  readonly personId: string;
  readonly personName: string;
  readonly shopId: string;
  readonly shopName: string;
  readonly town: string;
}

/** The demo technician of the first shop. Throws when the database holds no shop. */
export const currentActor = cache(async (): Promise<Actor> => {
  const [row] = await database()
    .select({
      personId: people.id,
      personName: people.name,
      shopId: shops.id,
      shopName: shops.name,
      town: shops.town,
    })
    .from(people)
    .innerJoin(shops, eq(people.shopId, shops.id))
    .orderBy(asc(shops.name), asc(people.name))
    .limit(1);
  if (!row) throw new Error('The database holds no shop yet. Run npm start, which brings the demo in.');
  return row;
});
