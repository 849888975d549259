import { type SignInRequest, validateSignIn } from '#core/format';
import { DEMO_COOKIE, knownMark, signIn } from '@/access';
import { readRequest } from '@/http/answers';
import { cookieOf, letIn, setCookie } from '@/http/cookies';
import { open } from '@/http/door';

/** Names that have signed in on this browser, as marks that open nothing. */
const KNOWN_COOKIE = 'every-trace.known';
const MOST_KNOWN = 8;
const KNOWN_S = 400 * 24 * 3600;

/** Signs in by name and password. */
export const POST = open('It is the way in; tries are counted.', async ({ request }) => {
  const input = await readRequest<SignInRequest>(request, validateSignIn);
  if (!input.ok) return input.answer;
  const { headers } = request;
  const { name, password } = input.value;
  const known = (cookieOf(headers, KNOWN_COOKIE) ?? '').split('.').filter(Boolean);
  const outcome = await signIn(headers, name, password, known);
  const more = [setCookie(headers, DEMO_COOKIE, '', 0)];
  if (outcome.ok) {
    const marks = [...new Set([await knownMark(name), ...known])].slice(0, MOST_KNOWN);
    more.push(setCookie(headers, KNOWN_COOKIE, marks.join('.'), KNOWN_S));
  }
  return letIn(outcome, more);
});
