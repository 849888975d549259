import { type NextRequest, NextResponse } from 'next/server';

/** Content security policy with a nonce for each answer; nothing from elsewhere, no `eval`. */
export function proxy(request: NextRequest) {
  if (isForeign(request)) {
    return NextResponse.json(
      { message: 'Entries are taken from this application’s own pages only.' },
      { status: 403 },
    );
  }
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const development = process.env.NODE_ENV === 'development';
  const policy = [
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
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('Content-Security-Policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  response.headers.set('X-Content-Type-Options', 'nosniff');
  response.headers.set('Referrer-Policy', 'same-origin');
  return response;
}

/** A request that changes something and comes from a page of another site. */
function isForeign(request: NextRequest): boolean {
  if (request.method === 'GET' || request.method === 'HEAD') return false;
  const origin = request.headers.get('origin');
  return origin !== null && URL.canParse(origin) && new URL(origin).host !== request.headers.get('host');
}

export const config = { matcher: [{ source: '/((?!_next/static|favicon.ico).*)' }] };
