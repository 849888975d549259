/**
 * Methods that are answered at all. The framework cannot make a request of TRACE and the like and ends in an error of the
 * server; they are refused before it sees them.
 */
import type http from 'node:http';

/** What routes answer; each says itself which of them it has. */
const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);

const ALLOWED = [...METHODS].join(', ');

/** Answers 405 to a method that no route has; whether it did. */
export function refuseOddMethod(request: http.IncomingMessage, response: http.ServerResponse): boolean {
  if (METHODS.has(request.method ?? '')) return false;
  response.writeHead(405, { Allow: ALLOWED, 'Content-Type': 'text/plain; charset=utf-8' });
  response.end('This method is not answered here.');
  return true;
}
