import { type SignInRequest, validateSignIn } from '#core/format';
import { DEMO_COOKIE, signIn } from '@/access';
import { readRequest } from '@/http/answers';
import { letIn, setCookie } from '@/http/cookies';
import { open } from '@/http/door';

/** Signs in by name and password. */
export const POST = open('It is the way in; tries are counted.', async ({ request }) => {
  const input = await readRequest<SignInRequest>(request, validateSignIn);
  if (!input.ok) return input.answer;
  const outcome = await signIn(request.headers, input.value.name, input.value.password);
  return letIn(outcome, [setCookie(request.headers, DEMO_COOKIE, '', 0)]);
});
