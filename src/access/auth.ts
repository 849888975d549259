/**
 * The sign-in library on the shop's database: accounts, passwords (scrypt), sessions and their cookies. Its own routes
 * are not served: the routes of `app/api/access` call it, behind the one door, with tries counted.
 */
import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { type Database, database } from '@/db/client';
import { accounts, installation, sessions, users, verifications } from '@/db/schema';
import { hashed, isOfHash } from './hashing';

/** A session on a phone of one's own: what waits there has to find its way back in. */
export const SESSION_S = 30 * 24 * 3600;
/** A session begun by a short code, on a phone that others use too. */
export const CODE_SESSION_S = 12 * 3600;

/**
 * The secret that signs cookies, made with the database: every process on it, and every part of a process, holds the
 * same one.
 */
async function secretOf(db: Database): Promise<string> {
  const [row] = await db.select().from(installation).where(eq(installation.key, 'secret'));
  if (!row)
    throw new Error('The database holds no secret for cookies; `npm start` brings it to its newest form.');
  return row.value;
}

/** The library itself: read with the first person who has an account, not with the program. */
async function library() {
  const [{ betterAuth }, { drizzleAdapter }, { username }, api, { setSessionCookie }, { z }] =
    await Promise.all([
      import('better-auth/minimal'),
      import('better-auth/adapters/drizzle'),
      import('better-auth/plugins/username'),
      import('better-auth/api'),
      import('better-auth/cookies'),
      import('zod'),
    ]);
  const { APIError, createAuthEndpoint } = api;
  /**
   * Begins a session of an account whose owner was proved by other means than its password. It is called by the server
   * alone; no route leads to it.
   */
  const beginSession = createAuthEndpoint(
    '/begin-session',
    {
      method: 'POST',
      body: z.object({ userId: z.string(), seconds: z.number() }),
      metadata: { SERVER_ONLY: true },
    },
    async (ctx) => {
      const { internalAdapter } = ctx.context;
      const user = await internalAdapter.findUserById(ctx.body.userId);
      if (!user) throw new APIError('UNAUTHORIZED');
      const expiresAt = new Date(Date.now() + ctx.body.seconds * 1000);
      const session = await internalAdapter.createSession(user.id, false, { expiresAt }, true);
      await setSessionCookie(ctx, { session, user });
      return ctx.json({ token: session.token });
    },
  );
  return { betterAuth, drizzleAdapter, username, beginSession };
}

type Library = Awaited<ReturnType<typeof library>>;

function make(
  { betterAuth, drizzleAdapter, username, beginSession }: Library,
  db: Database,
  secret: string,
  secure: boolean,
) {
  return betterAuth({
    secret,
    baseURL: 'http://127.0.0.1',
    telemetry: { enabled: false },
    logger: { disabled: true },
    database: drizzleAdapter(db, {
      provider: 'pg',
      schema: { user: users, session: sessions, account: accounts, verification: verifications },
    }),
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: 1,
      maxPasswordLength: 128,
      password: { hash: hashed, verify: isOfHash },
    },
    session: {
      expiresIn: SESSION_S,
      disableSessionRefresh: true,
      additionalFields: {
        personId: { type: 'string', required: false, input: false },
        begunBy: { type: 'string', required: false, input: false },
      },
    },
    // Tries are counted in the database, by `tries.ts`.
    rateLimit: { enabled: false },
    advanced: {
      cookiePrefix: 'every-trace',
      useSecureCookies: secure,
      database: { generateId: () => randomUUID() },
      // Whether a request comes from our own pages is decided before, for all of them (`http/origin.ts`).
      disableCSRFCheck: true,
    },
    plugins: [
      username({
        minUsernameLength: 2,
        maxUsernameLength: 60,
        usernameValidator: isSignInName,
        usernameNormalization: signInName,
      }),
      { id: 'begin-session', endpoints: { beginSession } },
    ],
  });
}

/** A name as it is compared: without blanks at its ends, in small letters. */
export function signInName(name: string): string {
  return name.normalize('NFC').trim().toLowerCase();
}

/** Letters and digits of any script, with points, dashes and blanks between them. */
export function isSignInName(name: string): boolean {
  return /^[\p{L}\p{N}][\p{L}\p{N}\p{M} ._'-]*$/u.test(name);
}

type Auth = ReturnType<typeof make>;
let made: { readonly of: Database; readonly plain: Auth; readonly secure: Auth } | null = null;

/** The library, for requests over TLS or for those on this machine: the cookies differ by name and by `Secure`. */
export async function auth(secure: boolean): Promise<Auth> {
  const db = database();
  if (made?.of !== db) {
    const [all, secret] = await Promise.all([library(), secretOf(db)]);
    made = { of: db, plain: make(all, db, secret, false), secure: make(all, db, secret, true) };
  }
  return secure ? made.secure : made.plain;
}

/** What the library refuses is no answer; what fails in it is an error like any other. */
export function isLibraryRefusal(error: unknown): null {
  const status = (error as { statusCode?: unknown }).statusCode;
  if (typeof status === 'number' && status < 500) return null;
  throw error;
}
