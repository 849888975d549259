/** The people of a shop: who they are, how they come in, and that what they did stays when they leave. */
import { and, asc, count, eq, gt, isNotNull, isNull, max, ne, sql } from 'drizzle-orm';
import type { PeopleRequest, Role } from '#core/format';
import { type Actor, hashOf, newToken, type Refused, refused } from '@/access';
import { now } from '@/clock/now';
import { database, type Transaction } from '@/db/client';
import { all } from '@/db/once';
import { entryLinks, people, sessions, shopDevices, shops, users } from '@/db/schema';
import { removeDemo } from './removeDemo';

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly leftAt: string | null;
  /** What is typed to sign in; null where there is no account yet. */
  readonly signIn: string | null;
  readonly hasCode: boolean;
  /** Open sessions, and when the last of them was begun. */
  readonly sessions: number;
  readonly lastIn: string | null;
  /** Until when a link lets the person in; null where none is open. */
  readonly linkUntil: string | null;
}

/** All people of the shop, those who left last. */
export async function peopleOf(actor: Actor): Promise<readonly Person[]> {
  const db = database();
  const moment = now().toISOString();
  const [rows, links, open] = await Promise.all([
    db
      .select({ person: people, username: users.displayUsername, email: users.email })
      .from(people)
      .leftJoin(users, eq(users.id, people.userId))
      .where(eq(people.shopId, actor.shopId))
      .orderBy(sql`${people.leftAt} is not null`, asc(people.name)),
    db
      .select({ personId: entryLinks.personId, until: max(entryLinks.expiresAt) })
      .from(entryLinks)
      .where(
        and(eq(entryLinks.shopId, actor.shopId), isNull(entryLinks.usedAt), gt(entryLinks.expiresAt, moment)),
      )
      .groupBy(entryLinks.personId),
    db
      .select({ personId: sessions.personId, of: count(), last: max(sessions.createdAt) })
      .from(sessions)
      .innerJoin(people, eq(people.id, sessions.personId))
      .where(and(eq(people.shopId, actor.shopId), gt(sessions.expiresAt, now())))
      .groupBy(sessions.personId),
  ]);
  return rows.map(({ person, username, email }) => {
    const here = open.find((one) => one.personId === person.id);
    return {
      id: person.id,
      name: person.name,
      role: person.role,
      leftAt: person.leftAt,
      signIn: username ?? email,
      hasCode: person.codeHash !== null,
      sessions: here?.of ?? 0,
      lastIn: here?.last?.toISOString() ?? null,
      linkUntil: links.find((one) => one.personId === person.id)?.until ?? null,
    };
  });
}

/** Phones and tablets that people of the shop share. */
export function devicesOf(actor: Actor) {
  return database()
    .select({ id: shopDevices.id, name: shopDevices.name, since: shopDevices.madeAt })
    .from(shopDevices)
    .where(
      and(
        eq(shopDevices.shopId, actor.shopId),
        isNull(shopDevices.endedAt),
        gt(shopDevices.expiresAt, now().toISOString()),
      ),
    )
    .orderBy(asc(shopDevices.name));
}

export type Changed =
  | {
      readonly ok: true;
      /** The secret of a new link; it is told once. */
      readonly token?: string;
      /** The secret of a phone that was made one of the shop. */
      readonly device?: string;
    }
  | Refused;

const DAY_MS = 86_400_000;
/** A first link waits for somebody to find the time; one for a new password does not. */
const FIRST_LINK_MS = 7 * DAY_MS;
const NEW_PASSWORD_MS = DAY_MS;
export const DEVICE_MS = 365 * DAY_MS;
/** Cookie by which a phone of the shop is known. */
export const DEVICE_COOKIE = 'every-trace.device';

export async function changePeople(actor: Actor, request: PeopleRequest): Promise<Changed> {
  if (request.kind === 'remove-demo') return removeDemo(actor);
  return all((tx) => changeIn(tx, actor, request));
}

async function changeIn(
  tx: Transaction,
  actor: Actor,
  request: Exclude<PeopleRequest, { kind: 'remove-demo' }>,
): Promise<Changed> {
  switch (request.kind) {
    case 'add': {
      if (actor.demo) return refused(409, NO_ACCOUNTS_IN_DEMO);
      const [made] = await tx
        .insert(people)
        .values({ id: request.id, shopId: actor.shopId, name: request.name, role: request.role })
        .onConflictDoNothing()
        .returning({ id: people.id });
      if (!made && !(await personIn(tx, actor, request.id)))
        return refused(409, 'This id stands for somebody else.');
      return linkFor(tx, actor, request.id);
    }
    case 'link':
      return linkFor(tx, actor, request.person);
    case 'role':
      return withOwnerLeft(tx, actor, request.person, request.role !== 'owner', async () => {
        await tx.update(people).set({ role: request.role }).where(eq(people.id, request.person));
      });
    case 'leave':
      return withOwnerLeft(tx, actor, request.person, true, async () => {
        const { person } = request;
        await tx
          .update(people)
          .set({ leftAt: now().toISOString(), codeHash: null })
          .where(eq(people.id, person));
        await tx.delete(sessions).where(eq(sessions.personId, person));
        await tx.delete(entryLinks).where(eq(entryLinks.personId, person));
      });
    case 'return':
      if (!(await personIn(tx, actor, request.person))) return UNKNOWN;
      await tx.update(people).set({ leftAt: null }).where(eq(people.id, request.person));
      return { ok: true };
    case 'device': {
      if (actor.demo) return refused(409, NO_ACCOUNTS_IN_DEMO);
      const device = newToken();
      await tx.insert(shopDevices).values({
        id: crypto.randomUUID(),
        shopId: actor.shopId,
        name: request.name,
        tokenHash: hashOf(device),
        madeBy: actor.personId,
        madeAt: now().toISOString(),
        expiresAt: new Date(now().getTime() + DEVICE_MS).toISOString(),
      });
      return { ok: true, device };
    }
    case 'end-device':
      await tx
        .update(shopDevices)
        .set({ endedAt: now().toISOString() })
        .where(and(eq(shopDevices.id, request.device), eq(shopDevices.shopId, actor.shopId)));
      return { ok: true };
  }
}

const UNKNOWN = refused(404, 'There is no such person in this shop.');
const NO_ACCOUNTS_IN_DEMO = 'Nobody signs in to the demo. Begin a shop of your own; it has its own people.';

async function personIn(tx: Transaction, actor: Actor, id: string) {
  const [person] = await tx
    .select()
    .from(people)
    .where(and(eq(people.id, id), eq(people.shopId, actor.shopId)))
    .for('update');
  return person ?? null;
}

/** A link by which a person sets a password, the first or a new one; the one before leads nowhere from then on. */
async function linkFor(tx: Transaction, actor: Actor, personId: string): Promise<Changed> {
  if (actor.demo) return refused(409, NO_ACCOUNTS_IN_DEMO);
  const person = await personIn(tx, actor, personId);
  if (!person) return UNKNOWN;
  if (person.leftAt !== null)
    return refused(409, `${person.name} has left. Bring ${person.name} back first.`);
  const elsewhere = await belongsElsewhere(tx, actor.shopId, person.userId);
  if (elsewhere) {
    const message = `${person.name} belongs to another shop too, so an owner here gives no new password. It is done on the machine: npm run recover.`;
    return refused(409, message);
  }
  const lasts = person.userId === null ? FIRST_LINK_MS : NEW_PASSWORD_MS;
  return { ok: true, token: await makeEntryLink(tx, { ...person, madeBy: actor.personId }, lasts) };
}

async function belongsElsewhere(tx: Transaction, shopId: string, userId: string | null): Promise<boolean> {
  if (userId === null) return false;
  const [other] = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.userId, userId), ne(people.shopId, shopId), isNull(people.leftAt)));
  return other !== undefined;
}

/** Makes the link of a person; gives its secret, of which only the hash is kept. */
export async function makeEntryLink(
  tx: Transaction,
  person: { readonly id: string; readonly shopId: string; readonly madeBy: string | null },
  lastsMs: number,
): Promise<string> {
  const token = newToken();
  await tx.delete(entryLinks).where(eq(entryLinks.personId, person.id));
  await tx.insert(entryLinks).values({
    id: crypto.randomUUID(),
    shopId: person.shopId,
    personId: person.id,
    tokenHash: hashOf(token),
    madeBy: person.madeBy,
    madeAt: now().toISOString(),
    expiresAt: new Date(now().getTime() + lastsMs).toISOString(),
  });
  return token;
}

/** Does something to a person, and takes it back where no owner with an account would be left. */
async function withOwnerLeft(
  tx: Transaction,
  actor: Actor,
  personId: string,
  takesOwner: boolean,
  work: () => Promise<void>,
): Promise<Changed> {
  // All owners are locked, or two of them could let each other go at once.
  const owners = await tx
    .select({ id: people.id })
    .from(people)
    .where(
      and(
        eq(people.shopId, actor.shopId),
        eq(people.role, 'owner'),
        isNull(people.leftAt),
        actor.demo ? undefined : isNotNull(people.userId),
      ),
    )
    .for('update');
  if (!(await personIn(tx, actor, personId))) return UNKNOWN;
  if (takesOwner && owners.length > 0 && owners.every(({ id }) => id === personId)) {
    return refused(409, 'The shop would have no owner left. Make somebody else an owner first.');
  }
  await work();
  return { ok: true };
}

/** The shops that an account belongs to, for going from one to the other. */
export async function shopsOf(actor: Actor) {
  if (!actor.account) return [];
  return database()
    .select({ personId: people.id, role: people.role, shopName: shops.name, town: shops.town })
    .from(people)
    .innerJoin(shops, eq(shops.id, people.shopId))
    .where(and(eq(people.userId, actor.account.userId), isNull(people.leftAt)))
    .orderBy(asc(shops.name));
}

/** The people whose short code works on a phone of a shop. */
export async function peopleWithCode(shopId: string) {
  return database()
    .select({ id: people.id, name: people.name, shopName: shops.name })
    .from(people)
    .innerJoin(shops, eq(shops.id, people.shopId))
    .where(
      and(
        eq(people.shopId, shopId),
        isNull(people.leftAt),
        isNotNull(people.codeHash),
        isNotNull(people.userId),
      ),
    )
    .orderBy(asc(people.name));
}

/** The open sessions of an account, the one that asks marked. */
export async function sessionsOf(actor: Actor) {
  if (!actor.account) return [];
  const { userId, sessionId } = actor.account;
  const rows = await database()
    .select({
      id: sessions.id,
      agent: sessions.userAgent,
      begunBy: sessions.begunBy,
      since: sessions.createdAt,
      until: sessions.expiresAt,
      shopName: shops.name,
    })
    .from(sessions)
    .leftJoin(people, eq(people.id, sessions.personId))
    .leftJoin(shops, eq(shops.id, people.shopId))
    .where(and(eq(sessions.userId, userId), gt(sessions.expiresAt, now())))
    .orderBy(asc(sessions.createdAt));
  return rows.map((row) => ({
    ...row,
    since: row.since.toISOString(),
    until: row.until.toISOString(),
    here: row.id === sessionId,
  }));
}

/** Whether a shop of people's own is there: one that somebody can sign in to. */
export async function hasOwnShop(): Promise<boolean> {
  const [row] = await database()
    .select({ id: people.id })
    .from(people)
    .where(isNotNull(people.userId))
    .limit(1);
  return row !== undefined;
}

/** Whether the demo is still there. */
export async function hasDemo(): Promise<boolean> {
  const [row] = await database().select({ id: shops.id }).from(shops).where(eq(shops.demo, true)).limit(1);
  return row !== undefined;
}
