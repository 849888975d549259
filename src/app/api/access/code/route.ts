import { type CodeSignInRequest, validateCodeSignIn } from '#core/format';
import { shopOfDevice, signInByCode } from '@/access';
import { DEVICE_COOKIE, peopleWithCode } from '@/features/people/server';
import { readRequest } from '@/http/answers';
import { cookieOf, letIn } from '@/http/cookies';
import { open } from '@/http/door';

/** Who may come in by a short code on this phone: nobody where it is none of a shop. */
export const GET = open(
  'It answers a phone of the shop, by the secret that the phone carries.',
  async ({ request }) => {
    const device = cookieOf(request.headers, DEVICE_COOKIE);
    const shop = device === null ? null : await shopOfDevice(device);
    const people = shop === null ? [] : await peopleWithCode(shop);
    return Response.json({ people }, { headers: { 'Cache-Control': 'no-store' } });
  },
);

/** Signs in by a short code, on a phone of the shop. */
export const POST = open(
  'It is the way in on a phone of the shop; tries are counted.',
  async ({ request }) => {
    const input = await readRequest<CodeSignInRequest>(request, validateCodeSignIn);
    if (!input.ok) return input.answer;
    const device = cookieOf(request.headers, DEVICE_COOKIE);
    return letIn(await signInByCode(request.headers, device, input.value.person, input.value.code));
  },
);
