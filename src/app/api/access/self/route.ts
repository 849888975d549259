import { type SelfRequest, validateSelf } from '#core/format';
import { changeSelf } from '@/features/people/server';
import { readRequest, refuseWith } from '@/http/answers';
import { door } from '@/http/door';

/** What a person changes of the own account: password, short code, shop, sessions. */
export const POST = door('see', async ({ actor, request }) => {
  const input = await readRequest<SelfRequest>(request, validateSelf);
  if (!input.ok) return input.answer;
  const changed = await changeSelf(actor, input.value);
  return changed.ok
    ? Response.json({ ok: true })
    : refuseWith(changed.status === 401 ? 400 : changed.status, 'not-changed', changed.message);
});
