import { type HelperStandsRequest, validateHelperStands } from '#core/format';
import { atTheKey, HELPER_COOKIE, itStandsSo } from '@/features/helper/server';
import { readRequest, refuseWith } from '@/http/answers';
import { cookieOf } from '@/http/cookies';
import { open } from '@/http/door';

const OVER = () => refuseWith(404, 'over', 'Nobody is needed at the key at the moment.');

/** What the phone at the key sees now. */
export const GET = open(
  'It answers a phone that has joined, by the secret that the phone carries.',
  async ({ request }) => {
    const token = cookieOf(request.headers, HELPER_COOKIE);
    const here = token === null ? null : await atTheKey(token);
    if (!here) return OVER();
    const { jobId: _job, ...seen } = here;
    return Response.json(seen, { headers: { 'Cache-Control': 'no-store' } });
  },
);

/** It stands so. */
export const POST = open(
  'It answers a phone that has joined, by the secret that the phone carries.',
  async ({ request }) => {
    const input = await readRequest<HelperStandsRequest>(request, validateHelperStands);
    if (!input.ok) return input.answer;
    const token = cookieOf(request.headers, HELPER_COOKIE);
    const here = token === null ? null : await itStandsSo(token, input.value.card);
    if (!here) return OVER();
    const { jobId: _job, ...seen } = here;
    return Response.json(seen);
  },
);
