import {
  type Checked,
  type CompiledValidator,
  fail,
  type Problem,
  readJson,
  validateWith,
} from '#core/format';
/** What routes have in common: reading a body no larger than it may be, and saying whose fault a failure is. */

import { dataRefusal, isPoolFull } from '@/db/errors';
import { journal } from '@/journal/journal';
import { permittedHosts } from './hosts';
import { NotNow } from './notNow';
import { foreignRequest } from './origin';

const MEGABYTE = 1024 * 1024;

function sizeWords(bytes: number): string {
  return bytes < MEGABYTE / 10
    ? `${Math.ceil(bytes / 1024)} kB`
    : `${Number((bytes / MEGABYTE).toFixed(1))} MB`;
}

export type Body<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly answer: Response };

/** Refuses in words: `message` for a person, `problems` for whoever wants places as well. */
export function refuse(status: number, problems: readonly Problem[]): Response {
  const message = problems
    .map((one) => one.message)
    .join(' ')
    .slice(0, 2000);
  return Response.json({ message, problems }, { status });
}

export function refuseWith(status: number, code: string, message: string): Response {
  return refuse(status, [{ code, path: '', message }]);
}

/** Not now, but after so many seconds. */
function busy(message: string, seconds: number): Response {
  const answer = refuseWith(503, 'busy', message);
  answer.headers.set('Retry-After', String(seconds));
  return answer;
}

function tooLarge(bytes: number, limit: number, what: string): Response {
  const message = `${what} has ${sizeWords(bytes)}; at most ${sizeWords(limit)} are taken.`;
  return refuseWith(413, 'too-large', message);
}

/** The body as bytes. What says that it is too large is not read at all; what does not say is read no further. */
export async function readBytes(request: Request, limit: number, what: string): Promise<Body<Uint8Array>> {
  const said = Number(request.headers.get('content-length') ?? 0);
  if (said > limit) return { ok: false, answer: tooLarge(said, limit, what) };
  const chunks: Uint8Array[] = [];
  let size = 0;
  for await (const chunk of (request.body ?? []) as AsyncIterable<Uint8Array>) {
    size += chunk.length;
    if (size > limit) return { ok: false, answer: tooLarge(size, limit, `${what}, as far as it was read,`) };
    chunks.push(chunk);
  }
  return { ok: true, value: Buffer.concat(chunks) };
}

/** The body of a JSON route: JSON by its type, its size and its form. */
export async function readJsonBody(request: Request, limit: number): Promise<Body<unknown>> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/json\s*(;|$)/i.test(type)) {
    const message = 'This address takes JSON: send it with the type application/json.';
    return { ok: false, answer: refuseWith(415, 'not-json-type', message) };
  }
  const bytes = await readBytes(request, limit, 'What was sent');
  if (!bytes.ok) return bytes;
  const text = readText(bytes.value);
  const json = text.ok ? readJson(text.value, limit) : text;
  return json.ok ? json : { ok: false, answer: refuse(400, json.problems) };
}

/** The body of a JSON route that a schema describes. Small: what is large has a route and a limit of its own. */
export async function readRequest<T>(
  request: Request,
  validate: CompiledValidator,
  limit = 64 * 1024,
): Promise<Body<T>> {
  const body = await readJsonBody(request, limit);
  if (!body.ok) return body;
  const checked = validateWith<T>(validate, body.value);
  return checked.ok ? checked : { ok: false, answer: refuse(400, checked.problems) };
}

function readText(bytes: Uint8Array): Checked<string> {
  try {
    return { ok: true, value: new TextDecoder('utf-8', { fatal: true }).decode(bytes) };
  } catch {
    return fail('not-utf8', '', 'What was sent is not UTF-8 text.');
  }
}

/** Whether whoever asked has gone before the question was whole, or before it was answered: nothing has failed then. */
function hasGone(request: Request, error: unknown): boolean {
  const { code, message } = error as { readonly code?: unknown; readonly message?: unknown };
  return request.signal.aborted || (code === 'ECONNRESET' && message === 'aborted');
}

/**
 * Runs a route, for the application's own pages alone. What the database refuses for what it is (SQLSTATE classes 22 and 23)
 * is the sender's fault and will never be taken: 400. Everything else is ours: 503, to be tried again, and written down.
 */
export async function answering(request: Request, work: () => Promise<Response>): Promise<Response> {
  const foreign = foreignRequest(
    {
      method: request.method,
      path: new URL(request.url).pathname,
      header: (name) => request.headers.get(name),
    },
    permittedHosts(),
  );
  if (foreign) return Response.json({ message: foreign }, { status: 403 });
  try {
    return await work();
  } catch (error) {
    // Nobody reads this answer.
    if (hasGone(request, error)) return new Response(null, { status: 499 });
    const refused = dataRefusal(error);
    if (refused) return refuseWith(400, 'refused-by-database', refused);
    if (error instanceof NotNow) return busy(error.words, error.seconds);
    if (isPoolFull(error)) {
      journal.warn({ err: error }, 'every connection to the database was in use');
      return busy('Many are working at once. Nothing was changed; try again.', 2);
    }
    journal.error({ err: error }, 'a route failed');
    return refuseWith(
      503,
      'cannot-now',
      'The server cannot do this at the moment. Nothing was changed; try again.',
    );
  }
}
