import { type DemoPersonRequest, validateDemoPerson } from '#core/format';
import { DEMO_COOKIE, demoPeople, mayUseDemo, refused, signOut } from '@/access';
import { readRequest } from '@/http/answers';
import { letIn, setCookie } from '@/http/cookies';
import { open } from '@/http/door';

const DAY_S = 24 * 3600;

/** Opens the demo as one of its people, or leaves it. */
export const POST = open(
  'The demo needs no sign-in at the machine; elsewhere it is refused.',
  async ({ request }) => {
    const input = await readRequest<DemoPersonRequest>(request, validateDemoPerson);
    if (!input.ok) return input.answer;
    const { person } = input.value;
    const { headers } = request;
    if (person === null) return letIn({ ok: true, cookies: [setCookie(headers, DEMO_COOKIE, '', 0)] });
    if (!mayUseDemo(headers)) return letIn(refused(403, 'The demo is seen on the machine itself.'));
    if (!(await demoPeople()).some(({ personId }) => personId === person)) {
      return letIn(refused(404, 'There is no such person in the demo.'));
    }
    return letIn(await signOut(headers), [setCookie(headers, DEMO_COOKIE, person, DAY_S)]);
  },
);
