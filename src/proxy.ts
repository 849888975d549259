import { type NextRequest, NextResponse } from 'next/server';
import { foreignRequest, isApi } from '@/http/origin';

/** Hosts besides loopback that a proxy in front serves, separated by commas. */
const KNOWN_HOSTS = (process.env.EVERY_TRACE_HOSTS ?? '')
  .split(',')
  .map((one) => one.trim())
  .filter((one) => one !== '');

/** Stands on every answer, of whatever path. */
const ALWAYS: readonly (readonly [string, string])[] = [
  ['X-Content-Type-Options', 'nosniff'],
  ['X-Frame-Options', 'DENY'],
  ['Referrer-Policy', 'same-origin'],
  ['Cross-Origin-Opener-Policy', 'same-origin'],
  ['Cross-Origin-Resource-Policy', 'same-origin'],
];

/** Refuses what comes from elsewhere; content security policy with a nonce for each answer, no `eval`. */
export function proxy(request: NextRequest) {
  const path = request.nextUrl.pathname;
  const foreign = foreignRequest(
    { method: request.method, path, header: (name) => request.headers.get(name) },
    KNOWN_HOSTS,
  );
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const policy = policyWith(nonce);
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('Content-Security-Policy', policy);
  const response = foreign ? refusal(foreign, path) : NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  for (const [name, value] of ALWAYS) response.headers.set(name, value);
  return response;
}

function refusal(message: string, path: string): NextResponse {
  if (isApi(path)) return NextResponse.json({ message }, { status: 403 });
  return new NextResponse(message, { status: 403, headers: { 'Content-Type': 'text/plain; charset=utf-8' } });
}

function policyWith(nonce: string): string {
  const development = process.env.NODE_ENV === 'development';
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${development ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "worker-src 'self' blob:",
    `connect-src 'self'${development ? ' ws:' : ''}`,
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}
