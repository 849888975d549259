import { type HelperJoinRequest, validateHelperJoin } from '#core/format';
import { HELPER_COOKIE, HELPER_MS, joinByCode } from '@/features/helper/server';
import { readRequest } from '@/http/answers';
import { letIn, setCookie } from '@/http/cookies';
import { open } from '@/http/door';

/** A phone joins by the code on the technician's screen. */
export const POST = open(
  'It is the way in for the person at the key; tries are counted.',
  async ({ request }) => {
    const input = await readRequest<HelperJoinRequest>(request, validateHelperJoin);
    if (!input.ok) return input.answer;
    const joined = await joinByCode(request.headers, input.value.code, input.value.name.trim());
    if (!joined.ok) return letIn(joined);
    return letIn({
      ok: true,
      cookies: [setCookie(request.headers, HELPER_COOKIE, joined.token, HELPER_MS / 1000)],
    });
  },
);
