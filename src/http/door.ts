/**
 * The one door of routes: nobody gets to what a route does but through it. It answers the application's own pages only, says
 * who acts, refuses who may not, and hands on what was asked; `open` doors say why they need nobody. A test walks all routes
 * and finds none without a door.
 */
import { may, type Need, whyNot } from '#core/log';
import { type Actor, enter } from '@/access';
import { journal } from '@/journal/journal';
import { answering, refuseWith } from './answers';

export interface Call<P> {
  readonly actor: Actor;
  readonly request: Request;
  readonly params: P;
}

type Handler<P> = (request: Request, context: { readonly params: Promise<P> }) => Promise<Response>;

/** Said to whoever is not signed in, or no longer. */
const SIGNED_OUT = 'Nobody is signed in here. Sign in, and what waits is sent.';

/** Header by which a browser says whose what it sends is. */
const WHOSE_HEADER = 'x-every-trace-person';

/** A route for people of a shop. */
export function door<P = Record<never, string>>(
  need: Need,
  work: (call: Call<P>) => Promise<Response> | Response,
): Handler<P> & { readonly need: Need } {
  const handler: Handler<P> = (request, { params }) =>
    answering(request, async () => {
      const entered = await enter(request.headers);
      if (entered.kind === 'nobody') return refuseWith(401, 'signed-out', SIGNED_OUT);
      const { actor } = entered;
      // What waits in a browser belongs to who made it, whoever is signed in there by now.
      const whose = request.headers.get(WHOSE_HEADER);
      if (whose !== null && whose !== actor.personId) {
        return refuseWith(
          409,
          'somebody-else',
          'This was made by somebody else, and waits until that person signs in.',
        );
      }
      if (!may(actor.role, need)) {
        const { pathname } = new URL(request.url);
        journal.warn({ person: actor.personId, method: request.method, path: pathname }, 'not allowed');
        return refuseWith(403, 'not-allowed', whyNot(need));
      }
      return keptByNobody(await work({ actor, request, params: await params }));
    });
  return Object.assign(handler, { need });
}

/** What is answered to somebody stays with that browser; where a route says nothing else, not even there. */
function keptByNobody(response: Response): Response {
  if (!response.headers.has('cache-control')) response.headers.set('Cache-Control', 'private, no-store');
  return response;
}

/** A route that needs nobody, and why: it is a way in, or asks for a secret of its own. */
export function open<P = Record<never, string>>(
  why: string,
  work: (call: Omit<Call<P>, 'actor'>) => Promise<Response> | Response,
): Handler<P> & { readonly why: string } {
  const handler: Handler<P> = (request, { params }) =>
    answering(request, async () => await work({ request, params: await params }));
  return Object.assign(handler, { why });
}
