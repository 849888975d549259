/** Who asks: by a session, or at this machine in the demo. The one place that decides it, for routes and pages. */
import { and, asc, eq, exists, isNull, sql } from 'drizzle-orm';
import { database } from '@/db/client';
import { people, sessions, shops } from '@/db/schema';
import type { Actor } from './actor';
import { auth, isLibraryRefusal } from './auth';
import { type HeadersLike, isAtThisMachine, isSecure, isShared } from './origin';

export type Entered =
  | { readonly kind: 'actor'; readonly actor: Actor }
  /** Signed in by nobody; `ended` where a session is over, or its person has left the shop. */
  | { readonly kind: 'nobody'; readonly ended: boolean };

/** Cookie that names the person of the demo that somebody at this machine wants to be. */
export const DEMO_COOKIE = 'every-trace.demo';

export async function enter(headers: Headers): Promise<Entered> {
  const cookie = headers.get('cookie') ?? '';
  const ended = /(^|;\s*)(__Secure-)?every-trace\.session_token=/.test(cookie);
  if (ended) {
    const actor = await bySession(headers);
    if (actor) return { kind: 'actor', actor };
  }
  const demo = await inDemo(headers, cookie);
  return demo ? { kind: 'actor', actor: demo } : { kind: 'nobody', ended };
}

const AS_ACTOR = {
  personId: people.id,
  personName: people.name,
  role: people.role,
  shopId: shops.id,
  shopName: shops.name,
  town: shops.town,
  demo: shops.demo,
};

async function bySession(headers: Headers): Promise<Actor | null> {
  // A database that is away is an error; nobody is signed out by it.
  const found = await (await auth(isSecure(headers))).api.getSession({ headers }).catch(isLibraryRefusal);
  if (!found) return null;
  const { id, token, userId, personId } = found.session;
  const account = { userId, sessionId: id, token };
  // As whom the session is now; where that person has left, as somebody else whom the account is elsewhere.
  const persons = await database()
    .select(AS_ACTOR)
    .from(people)
    .innerJoin(shops, eq(people.shopId, shops.id))
    .where(and(eq(people.userId, userId), isNull(people.leftAt)))
    .orderBy(asc(shops.name));
  const person = persons.find((one) => one.personId === personId) ?? persons[0];
  if (!person) return null;
  if (person.personId !== personId) {
    await database().update(sessions).set({ personId: person.personId }).where(eq(sessions.id, id));
  }
  return { ...person, account };
}

/** Whether somebody is here who may see the demo without signing in: at this machine, while nothing is shared. */
export function mayUseDemo(headers: HeadersLike): boolean {
  return !isShared() && isAtThisMachine(headers);
}

/**
 * A person of the demo. Where a shop of people's own is there, only for who has asked for the demo: nobody is to write
 * real work into it by mistake.
 */
async function inDemo(headers: HeadersLike, cookie: string): Promise<Actor | null> {
  if (!mayUseDemo(headers)) return null;
  const [, asked] =
    new RegExp(`(?:^|;\\s*)${DEMO_COOKIE.replace('.', '\\.')}=([0-9a-f-]{36})`).exec(cookie) ?? [];
  const db = database();
  const persons = await db
    .select({
      ...AS_ACTOR,
      own: exists(db.select({ one: sql`1` }).from(people).where(sql`${people.userId} is not null`)),
    })
    .from(people)
    .innerJoin(shops, eq(people.shopId, shops.id))
    .where(and(eq(shops.demo, true), isNull(people.leftAt)))
    .orderBy(asc(shops.name), sql`${people.role} <> 'technician'`, asc(people.name));
  const chosen = persons.find((one) => one.personId === asked);
  const person = chosen ?? (persons[0]?.own ? undefined : persons[0]);
  if (!person) return null;
  const { own: _own, ...actor } = person;
  return { ...actor, account: null };
}

/** The people of the demo, for whoever may look at it. */
export async function demoPeople(): Promise<
  readonly Pick<Actor, 'personId' | 'personName' | 'role' | 'shopName'>[]
> {
  return database()
    .select({ personId: people.id, personName: people.name, role: people.role, shopName: shops.name })
    .from(people)
    .innerJoin(shops, eq(people.shopId, shops.id))
    .where(and(eq(shops.demo, true), isNull(people.leftAt)))
    .orderBy(asc(shops.name), sql`${people.role} <> 'technician'`, asc(people.name));
}
