import { type BeginRequest, validateBegin } from '#core/format';
import { DEMO_COOKIE } from '@/access';
import { beginShop } from '@/features/people/server';
import { readRequest } from '@/http/answers';
import { letIn, setCookie } from '@/http/cookies';
import { open } from '@/http/door';

/** Begins a shop and signs its owner in. */
export const POST = open(
  'It refuses whoever is not at the machine and owns no shop.',
  async ({ request }) => {
    const input = await readRequest<BeginRequest>(request, validateBegin);
    if (!input.ok) return input.answer;
    const outcome = await beginShop(request.headers, input.value);
    return letIn(outcome, [setCookie(request.headers, DEMO_COOKIE, '', 0)]);
  },
);
