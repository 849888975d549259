/**
 * Methods that are answered at all. The framework cannot make a request of TRACE and the like and ends in an error of the
 * server; they are refused before it sees them.
 */
import http from 'node:http';

/** What routes answer; each says itself which of them it has. */
const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);

const ALLOWED = [...METHODS].join(', ');

let refuses = false;

/** From now on every server of this process answers 405 to any other method. */
export function refuseOddMethods(): void {
  if (refuses) return;
  refuses = true;
  const { emit } = http.Server.prototype;
  http.Server.prototype.emit = function (this: http.Server, event: string | symbol, ...told: unknown[]) {
    const [request, response] = told as [http.IncomingMessage, http.ServerResponse];
    if (event !== 'request' || METHODS.has(request.method ?? '')) {
      return emit.apply(this, [event, ...told] as unknown as Parameters<typeof emit>);
    }
    response.writeHead(405, { Allow: ALLOWED, 'Content-Type': 'text/plain; charset=utf-8' });
    response.end('This method is not answered here.');
    return true;
  };
}
