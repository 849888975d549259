/** Ways in: a shop begun, a link taken, what a person changes of the own account. */
import { randomUUID } from 'node:crypto';
import { and, eq, gt, isNull, ne } from 'drizzle-orm';
import { type BeginRequest, type EntryRequest, type SelfRequest, shortCodeProblem } from '#core/format';
import { may } from '#core/log';
import {
  type Actor,
  accountOf,
  accountProblem,
  begin,
  clientAddress,
  enter,
  givenBack,
  hashed,
  hashOf,
  isAtThisMachine,
  isPasswordOf,
  type Let,
  makeAccount,
  passwordProblem,
  type Refused,
  refused,
  SESSION_S,
  setPassword,
  signIn,
  triedOnce,
  triedWell,
  waitWords,
} from '@/access';
import { now } from '@/clock/now';
import { database, type Transaction } from '@/db/client';
import { all } from '@/db/once';
import { entryLinks, people, sessions, shops } from '@/db/schema';
import { transaction } from '@/db/transaction';

const TAKEN = 'Somebody signs in with this name already. Take another.';
const NOT_YOURS =
  'Somebody signs in with this name already, and not with this password. If that is you, type your own password; else take another name.';
const MEMBER = 'Your account is one of this shop already.';

/** Whether a shop may be begun from here: at the machine itself, or by the owner of one. */
export async function mayBegin(headers: Headers): Promise<boolean> {
  if (isAtThisMachine(headers)) return true;
  const entered = await enter(headers);
  return entered.kind === 'actor' && !entered.actor.demo && may(entered.actor.role, 'own');
}

/** Begins a shop, empty, and signs its owner in. */
export async function beginShop(headers: Headers, request: BeginRequest): Promise<Let | Refused> {
  if (!(await mayBegin(headers))) {
    return refused(403, 'A shop is begun on the machine itself, or by the owner of one.');
  }
  const problem = await accountProblem(request.name, request.password, [
    request.owner,
    request.shop,
    request.town,
  ]);
  if (problem) return refused(400, problem);
  const made = await all(async (tx) => {
    const userId = await makeAccount(tx, { ...request, shown: request.owner });
    if (userId === null) return refused(409, TAKEN);
    const shopId = randomUUID();
    await tx.insert(shops).values({ id: shopId, name: request.shop, town: request.town });
    await tx.insert(people).values({ id: randomUUID(), shopId, name: request.owner, role: 'owner', userId });
    return { ok: true as const };
  });
  return made.ok ? signIn(headers, request.name, request.password) : made;
}

const GONE = refused(404, 'This link leads nowhere: it was used, it is too old, or a newer one was made.');

/** Whom a link lets in; null where it leads nowhere. */
export async function entryOf(token: string) {
  const [row] = await database()
    .select({
      link: entryLinks.id,
      personId: people.id,
      personName: people.name,
      userId: people.userId,
      shopId: shops.id,
      shopName: shops.name,
      town: shops.town,
    })
    .from(entryLinks)
    .innerJoin(people, eq(people.id, entryLinks.personId))
    .innerJoin(shops, eq(shops.id, entryLinks.shopId))
    .where(
      and(
        eq(entryLinks.tokenHash, hashOf(token)),
        isNull(entryLinks.usedAt),
        gt(entryLinks.expiresAt, now().toISOString()),
        isNull(people.leftAt),
      ),
    );
  return row ?? null;
}

/** Takes a link: sets a password, the first or a new one; or joins the account that is signed in to the shop. */
export async function takeEntry(headers: Headers, request: EntryRequest): Promise<Let | Refused> {
  const address = clientAddress(headers);
  const wait = await triedOnce('address', address);
  if (wait !== null) return refused(429, waitWords(wait));
  const entry = await entryOf(request.token);
  if (!entry) return GONE;
  await givenBack('address', address);
  const { password } = request;
  if (password === undefined) return joinShop(headers, entry);
  const name = request.name ?? '';
  const account = entry.userId === null ? await accountOf(name) : null;
  if (account !== null) return joinAs(headers, entry, account, password);
  const near = [entry.personName, entry.shopName, entry.town];
  // A new password does not change the name.
  const problem =
    entry.userId === null
      ? await accountProblem(name, password, near)
      : await passwordProblem(password, near);
  if (problem) return refused(400, problem);
  const taken = await all(async (tx) => {
    const used = await spendLink(tx, entry.link);
    if (!used) return GONE;
    if (entry.userId !== null) {
      await setPassword(tx, entry.userId, password);
      return { ok: true as const, userId: entry.userId };
    }
    const userId = await makeAccount(tx, { name, password, shown: entry.personName });
    if (userId === null) return refused(409, TAKEN);
    await tx.update(people).set({ userId }).where(eq(people.id, entry.personId));
    return { ok: true as const, userId };
  });
  if (!taken.ok) return taken;
  // Whoever was locked out by wrong tries comes in with the new password.
  await triedWell('code', entry.personId);
  return begin(headers, taken.userId, SESSION_S, 'link', entry.personId);
}

type Entry = NonNullable<Awaited<ReturnType<typeof entryOf>>>;

/** Somebody who has an account, of another shop or of one that was left, comes in by its name and password. */
async function joinAs(
  headers: Headers,
  entry: Entry,
  userId: string,
  password: string,
): Promise<Let | Refused> {
  const right = await isPasswordOf(userId, password);
  if (right !== true) return right === false ? refused(409, NOT_YOURS) : right;
  const joined = await all((tx) => join(tx, entry, userId));
  return joined.ok ? begin(headers, userId, SESSION_S, 'link', entry.personId) : joined;
}

/** An account becomes that of the person whom a link was made for. */
async function join(tx: Transaction, entry: Entry, userId: string): Promise<{ readonly ok: true } | Refused> {
  const [member] = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.userId, userId), eq(people.shopId, entry.shopId)));
  if (member) return refused(409, MEMBER);
  if (!(await spendLink(tx, entry.link))) return GONE;
  await tx.update(people).set({ userId }).where(eq(people.id, entry.personId));
  return { ok: true };
}

/** Somebody who is signed in becomes one of another shop's people. */
async function joinShop(headers: Headers, entry: Entry): Promise<Let | Refused> {
  const entered = await enter(headers);
  const account = entered.kind === 'actor' ? entered.actor.account : null;
  if (!account)
    return refused(401, 'Sign in first, then take the link again; or choose a name and a password.');
  if (entry.userId !== null) return refused(409, `${entry.personName} has an account already.`);
  return all(async (tx) => {
    const joined = await join(tx, entry, account.userId);
    if (!joined.ok) return joined;
    await tx.update(sessions).set({ personId: entry.personId }).where(eq(sessions.id, account.sessionId));
    return { ok: true as const, cookies: [] };
  });
}

/** Marks a link as used; false where somebody was quicker. */
async function spendLink(tx: Transaction, id: string): Promise<boolean> {
  const used = await tx
    .update(entryLinks)
    .set({ usedAt: now().toISOString() })
    .where(and(eq(entryLinks.id, id), isNull(entryLinks.usedAt)))
    .returning({ id: entryLinks.id });
  return used.length > 0;
}

/** What a person changes of the own account: password, short code, shop, sessions. */
export async function changeSelf(
  actor: Actor,
  request: SelfRequest,
): Promise<{ readonly ok: true } | Refused> {
  const { account } = actor;
  if (!account) return refused(409, 'Nobody signs in to the demo.');
  const { userId, sessionId } = account;
  const db = database();
  if (request.kind === 'password' || request.kind === 'code') {
    const said = request.kind === 'password' ? request.now : request.password;
    const right = await isPasswordOf(userId, said);
    if (right !== true) return right === false ? refused(401, 'The password is not right.') : right;
  }
  switch (request.kind) {
    case 'password': {
      const problem = await passwordProblem(request.next, [actor.personName, actor.shopName, actor.town]);
      if (problem) return refused(400, problem);
      await transaction((tx) => setPassword(tx, userId, request.next, sessionId));
      return { ok: true };
    }
    case 'code': {
      const problem = request.code === null ? null : shortCodeProblem(request.code);
      if (problem) return refused(400, problem);
      const codeHash = request.code === null ? null : await hashed(request.code);
      await db.update(people).set({ codeHash }).where(eq(people.id, actor.personId));
      await triedWell('code', actor.personId);
      return { ok: true };
    }
    case 'shop': {
      const [person] = await db
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.id, request.person), eq(people.userId, userId), isNull(people.leftAt)));
      if (!person) return refused(404, 'You belong to no such shop.');
      await db.update(sessions).set({ personId: person.id }).where(eq(sessions.id, sessionId));
      return { ok: true };
    }
    case 'end-session':
      await db.delete(sessions).where(and(eq(sessions.id, request.session), eq(sessions.userId, userId)));
      return { ok: true };
    case 'end-others':
      await db.delete(sessions).where(and(eq(sessions.userId, userId), ne(sessions.id, sessionId)));
      return { ok: true };
  }
}
