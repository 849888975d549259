import { DEMO_COOKIE, signOut } from '@/access';
import { letIn, setCookie } from '@/http/cookies';
import { open } from '@/http/door';

/** Ends the session of this browser. */
export const POST = open('Whoever is out already stays out.', async ({ request }) =>
  letIn(await signOut(request.headers), [setCookie(request.headers, DEMO_COOKIE, '', 0)]),
);
