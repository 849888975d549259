/** Cookies of our own, besides that of the session: of a phone of the shop, of a helper, of the demo. */
import { isSecure, type Let, type Refused } from '@/access';
import { refuseWith } from './answers';

/** The value of a cookie; null where it is not there. Names differ by whether they came over TLS. */
export function cookieOf(headers: Headers, name: string): string | null {
  const wanted = cookieName(headers, name);
  for (const part of (headers.get('cookie') ?? '').split(/;\s*/)) {
    const at = part.indexOf('=');
    if (part.slice(0, at) === wanted) return part.slice(at + 1);
  }
  return null;
}

/** Sets a cookie that no script reads and no other site brings along; `seconds` 0 takes it away. */
export function setCookie(headers: Headers, name: string, value: string, seconds: number): string {
  const secure = isSecure(headers) ? '; Secure' : '';
  return `${cookieName(headers, name)}=${value}; Path=/; Max-Age=${seconds}; HttpOnly; SameSite=Lax${secure}`;
}

function cookieName(headers: Headers, name: string): string {
  return `${isSecure(headers) ? '__Secure-' : ''}${name}`;
}

/** Somebody is in or out, or was refused in words. */
export function letIn(outcome: Let | Refused, more: readonly string[] = []): Response {
  if (!outcome.ok) return refuseWith(outcome.status, 'not-let-in', outcome.message);
  const headers = new Headers({ 'Cache-Control': 'no-store' });
  for (const cookie of [...outcome.cookies, ...more]) headers.append('Set-Cookie', cookie);
  return Response.json({ ok: true }, { headers });
}
