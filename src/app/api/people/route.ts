import { type PeopleRequest, validatePeople } from '#core/format';
import { changePeople, DEVICE_COOKIE, DEVICE_MS } from '@/features/people/server';
import { readRequest, refuseWith } from '@/http/answers';
import { setCookie } from '@/http/cookies';
import { door } from '@/http/door';

/** What an owner does about the people and phones of the shop. The secret of a new link is told once. */
export const POST = door('own', async ({ actor, request }) => {
  const input = await readRequest<PeopleRequest>(request, validatePeople);
  if (!input.ok) return input.answer;
  const changed = await changePeople(actor, input.value);
  if (!changed.ok) return refuseWith(changed.status, 'not-changed', changed.message);
  const headers = new Headers({ 'Cache-Control': 'no-store' });
  if (changed.device) {
    headers.append('Set-Cookie', setCookie(request.headers, DEVICE_COOKIE, changed.device, DEVICE_MS / 1000));
  }
  return Response.json(
    { ok: true, ...(changed.token ? { link: `/enter/${changed.token}` } : {}) },
    { headers },
  );
});
