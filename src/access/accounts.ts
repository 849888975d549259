/** Accounts: made, signed in and out, given another password. Every try is counted before it is judged. */
import { createHmac, randomUUID } from 'node:crypto';
import { and, eq, isNull, ne } from 'drizzle-orm';
import { now } from '@/clock/now';
import { database, type Transaction } from '@/db/client';
import { accounts, people, sessions, shopDevices, users } from '@/db/schema';
import { journal } from '@/journal/journal';
import { auth, CODE_SESSION_S, isLibraryRefusal, isSignInName, signInName } from './auth';
import { hashed, isOfHash } from './hashing';
import { clientAddress, isSecure } from './origin';
import { passwordProblem } from './password';
import { hashOf } from './secrets';
import { givenBack, triedOnce, triedWell, waitWords } from './tries';

export interface Refused {
  readonly ok: false;
  readonly status: 400 | 401 | 403 | 404 | 409 | 429;
  readonly message: string;
}

/** Somebody is in, or out: these cookies say so to the browser. */
export interface Let {
  readonly ok: true;
  readonly cookies: readonly string[];
}

export function refused(status: Refused['status'], message: string): Refused {
  return { ok: false, status, message };
}

/** Said to somebody whose name and password are right, and who has left every shop. */
const OF_NO_SHOP = 'This account belongs to no shop any more. Ask the owner of the shop to bring you back.';
const WRONG = 'Name and password do not belong together.';
const WRONG_CODE = 'The code is not right.';
/** Of an account without an address; no such domain can be (RFC 2606). */
const NO_ADDRESS = '@none.invalid';

/**
 * What a browser carries that has signed in with a name before: it is counted by itself, so that nobody else can lock it
 * out. It opens nothing.
 */
export async function knownMark(name: string): Promise<string> {
  const { secret } = await (await auth(false)).$context;
  return createHmac('sha256', secret)
    .update(`known ${signInName(name)}`)
    .digest('base64url');
}

/**
 * Signs in by a name or an address, and a password. A session that this browser had before is ended. `known`: the marks
 * that the browser carries. Only what was wrong stays counted.
 */
export async function signIn(
  headers: Headers,
  name: string,
  password: string,
  known: readonly string[] = [],
): Promise<Let | Refused> {
  const key = signInName(name);
  const address = clientAddress(headers);
  const isKnown = known.includes(await knownMark(name));
  const wait = isKnown
    ? await triedOnce('known', key)
    : ((await triedOnce('address', address)) ?? (await triedOnce('name', key)));
  if (wait !== null) {
    written('sign-in halted', headers, key);
    return refused(429, waitWords(wait));
  }
  const { api } = await auth(isSecure(headers));
  const asked = { headers: withoutCookies(headers), returnHeaders: true } as const;
  const answer = await (key.includes('@')
    ? api.signInEmail({ body: { email: key, password }, ...asked })
    : api.signInUsername({ body: { username: key, password }, ...asked })
  ).catch(isLibraryRefusal);
  const token = answer?.response?.token;
  if (!answer || !token) {
    written('sign-in refused', headers, key);
    return refused(401, WRONG);
  }
  written('signed in', headers, key);
  if (isKnown) await triedWell('known', key);
  else await givenBack('address', address);
  await triedWell('name', key);
  const person = await enterAs(token, 'password');
  if (person === null) {
    await database().delete(sessions).where(eq(sessions.token, token));
    return refused(403, OF_NO_SHOP);
  }
  // As it was said when the code was wrong too often.
  await triedWell('code', person);
  await endHere(headers);
  return { ok: true, cookies: answer.headers.getSetCookie() };
}

/** Who comes in, and who does not, is written down: the name as a mark, by which the same name is known again. */
function written(what: string, headers: Headers, name: string): void {
  journal.info({ from: clientAddress(headers), name: hashOf(name).slice(0, 10) }, what);
}

/** A session is never carried over from one sign-in to the next. */
function withoutCookies(headers: Headers): Headers {
  const kept = new Headers();
  const agent = headers.get('user-agent');
  if (agent) kept.set('user-agent', agent.slice(0, 300));
  return kept;
}

/**
 * Writes down how a session was begun, and as whom: as `personId`, or as whom the account belongs to a shop. Gives the
 * person; null where it belongs to none.
 */
async function enterAs(token: string, begunBy: string, personId?: string): Promise<string | null> {
  const db = database();
  const [session] = await db.select().from(sessions).where(eq(sessions.token, token));
  if (!session) return null;
  const [person] = await db
    .select({ id: people.id })
    .from(people)
    .where(
      and(
        eq(people.userId, session.userId),
        isNull(people.leftAt),
        personId === undefined ? undefined : eq(people.id, personId),
      ),
    );
  await db
    .update(sessions)
    .set({ begunBy, personId: person?.id ?? null })
    .where(eq(sessions.id, session.id));
  return person?.id ?? null;
}

/** Ends the session of this browser, in the database and not only here. */
async function endHere(headers: Headers): Promise<readonly string[]> {
  const { api } = await auth(isSecure(headers));
  const out = await api.signOut({ headers, returnHeaders: true }).catch(isLibraryRefusal);
  return out?.headers.getSetCookie() ?? [];
}

export async function signOut(headers: Headers): Promise<Let> {
  return { ok: true, cookies: await endHere(headers) };
}

/** Signs in by the short code of a person, on a phone of that person's shop. */
export async function signInByCode(
  headers: Headers,
  device: string | null,
  personId: string,
  code: string,
): Promise<Let | Refused> {
  const address = clientAddress(headers);
  const wait = await triedOnce('address', address);
  if (wait !== null) return refused(429, waitWords(wait));
  const shop = device === null ? null : await shopOfDevice(device);
  if (!shop) return refused(403, 'Short codes work on phones of the shop only. Sign in with your password.');
  const [person] = await database()
    .select()
    .from(people)
    .where(and(eq(people.id, personId), eq(people.shopId, shop), isNull(people.leftAt)));
  // A phone of another shop cannot use up somebody's tries.
  if (!person) return refused(401, WRONG_CODE);
  // Counted before it is judged: tries that come at once count as much as those one after another.
  const tooMany = (await triedOnce('code', personId)) !== null;
  if (tooMany) {
    return refused(429, 'This code was wrong too often. Sign in with your password; then it works again.');
  }
  const right =
    person.codeHash !== null &&
    person.userId !== null &&
    (await isOfHash({ hash: person.codeHash, password: code }));
  if (!right || !person.userId) {
    written('short code refused', headers, personId);
    return refused(401, WRONG_CODE);
  }
  written('signed in by short code', headers, personId);
  await triedWell('code', personId);
  await givenBack('address', address);
  return begin(headers, person.userId, CODE_SESSION_S, 'code', personId);
}

/**
 * Begins a session of an account whose owner was proved by other means than its password. One that this browser had
 * before is ended.
 */
export async function begin(
  headers: Headers,
  userId: string,
  seconds: number,
  begunBy: 'code' | 'link',
  personId: string,
): Promise<Let> {
  const { api } = await auth(isSecure(headers));
  await endHere(headers);
  const made = await api.beginSession({
    body: { userId, seconds },
    headers: withoutCookies(headers),
    returnHeaders: true,
  });
  await enterAs(made.response.token, begunBy, personId);
  return { ok: true, cookies: made.headers.getSetCookie() };
}

/** The shop of a phone that carries this secret; null where it is none, or no longer. */
export async function shopOfDevice(secret: string): Promise<string | null> {
  const [row] = await database()
    .select({ shopId: shopDevices.shopId, expiresAt: shopDevices.expiresAt })
    .from(shopDevices)
    .where(and(eq(shopDevices.tokenHash, hashOf(secret)), isNull(shopDevices.endedAt)));
  return row && new Date(row.expiresAt) > now() ? row.shopId : null;
}

/** Why a name and a password cannot be those of an account; null where they can. */
export async function accountProblem(
  name: string,
  password: string,
  near: readonly string[],
): Promise<string | null> {
  const key = signInName(name);
  if (key.includes('@') ? !/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(key) : !isSignInName(key) || key.length < 2) {
    return 'To sign in, take an e-mail address, or a name of letters and digits.';
  }
  if (key.endsWith(NO_ADDRESS)) return 'This address belongs to nobody.';
  return passwordProblem(password, [key, ...near]);
}

/** Makes an account; null where the name is taken. The name and password were found fit before. */
export async function makeAccount(
  tx: Transaction,
  { name, password, shown }: { readonly name: string; readonly password: string; readonly shown: string },
): Promise<string | null> {
  const key = signInName(name);
  const id = randomUUID();
  const named = key.includes('@')
    ? { email: key }
    : { email: `${id}${NO_ADDRESS}`, username: key, displayUsername: name.trim() };
  const [made] = await tx
    .insert(users)
    .values({ id, name: shown, ...named })
    .onConflictDoNothing()
    .returning({ id: users.id });
  if (!made) return null;
  await tx.insert(accounts).values({
    id: randomUUID(),
    accountId: id,
    providerId: 'credential',
    userId: id,
    password: await hashed(password),
  });
  return id;
}

/** Whether a password is that of an account. Counted like a sign-in. */
export async function isPasswordOf(userId: string, password: string): Promise<boolean | Refused> {
  const wait = await triedOnce('name', `account ${userId}`);
  if (wait !== null) return refused(429, waitWords(wait));
  const [row] = await database()
    .select({ hash: accounts.password })
    .from(accounts)
    .where(and(eq(accounts.userId, userId), eq(accounts.providerId, 'credential')));
  const right = row?.hash != null && (await isOfHash({ hash: row.hash, password }));
  if (right) await triedWell('name', `account ${userId}`);
  return right;
}

/** Gives an account another password; all of its sessions but `keep` end. */
export async function setPassword(
  tx: Transaction,
  userId: string,
  password: string,
  keep: string | null = null,
): Promise<void> {
  const hash = await hashed(password);
  await tx
    .update(accounts)
    .set({ password: hash, updatedAt: new Date() })
    .where(and(eq(accounts.userId, userId), eq(accounts.providerId, 'credential')));
  await tx
    .delete(sessions)
    .where(and(eq(sessions.userId, userId), keep === null ? undefined : ne(sessions.id, keep)));
}

/** Whose account a name or an address is; null where it is nobody's. */
export async function accountOf(name: string): Promise<string | null> {
  const key = signInName(name);
  const [row] = await database()
    .select({ id: users.id })
    .from(users)
    .where(key.includes('@') ? eq(users.email, key) : eq(users.username, key));
  return row?.id ?? null;
}
