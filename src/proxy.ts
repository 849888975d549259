import { readFileSync } from 'node:fs';
import path from 'node:path';
import { type NextRequest, NextResponse } from 'next/server';
import { ASKED_HEADER } from '@/http/asked';
import { permittedHosts } from '@/http/hosts';
import { ALLOWED_OF_PAGES, isMethodOfPages } from '@/http/methodsOfPages';
import { foreignRequest, isApi } from '@/http/origin';
import { jobPlace, WORK_DOCUMENT } from '@/http/places';
import { policyOfDocument, policyWithNonce } from '@/http/policy';

const DEVELOPMENT = process.env.NODE_ENV === 'development';

/**
 * Everything but what carries a body to a route: of that the framework would keep a copy, cut it at 10 MB, and call it an
 * error of the server where a sender is gone before the end. The door of the routes asks the same (`http/answers.ts`).
 */
export const config = {
  matcher: [
    '/((?!api/).*)',
    {
      source: '/api/:path*',
      missing: [
        { type: 'header', key: 'content-length' },
        { type: 'header', key: 'transfer-encoding' },
      ],
    },
  ],
};

/** Refuses what comes from elsewhere, and says of each document what it may run. */
export function proxy(request: NextRequest) {
  const place = request.nextUrl.pathname;
  const foreign = foreignRequest(
    { method: request.method, path: place, header: (name) => request.headers.get(name) },
    permittedHosts(),
  );
  if (foreign) return refusal(foreign, place, 403);
  if (!isReadable(place)) {
    return refusal('This address cannot be read: what is escaped in it is not text.', place, 400);
  }
  if (isApi(place)) return NextResponse.next();
  if (!isMethodOfPages(request.method)) {
    const refused = refusal('This method is not answered here.', place, 405);
    refused.headers.set('Allow', ALLOWED_OF_PAGES);
    return refused;
  }
  return jobPlace(place) || place === WORK_DOCUMENT ? workDocument() : page(request);
}

/** The page that the server makes, with a nonce for this one answer. */
function page(request: NextRequest): NextResponse {
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const policy = policyWithNonce(nonce, DEVELOPMENT);
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set(ASKED_HEADER, `${request.nextUrl.pathname}${request.nextUrl.search}`);
  headers.set('Content-Security-Policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  return response;
}

/** The one document of all work views, which `next.config.ts` puts at their addresses. */
function workDocument(): NextResponse {
  const response = NextResponse.next();
  response.headers.set('Content-Security-Policy', workPolicy());
  return response;
}

let known: string | null = null;

function workPolicy(): string {
  if (DEVELOPMENT) return policyOfDocument(null);
  const built = path.join(process.env.NEXT_DIST_DIR ?? '.next', 'server/app', `${WORK_DOCUMENT}.html`);
  known ??= policyOfDocument(readFileSync(built, 'utf8'));
  return known;
}

function refusal(message: string, place: string, status: number): NextResponse {
  const response = isApi(place)
    ? NextResponse.json({ message }, { status })
    : new NextResponse(message, { status, headers: { 'Content-Type': 'text/plain; charset=utf-8' } });
  response.headers.set('Content-Security-Policy', policyOfDocument(''));
  return response;
}

/** Whether what is escaped in a path can be read. */
function isReadable(place: string): boolean {
  try {
    decodeURIComponent(place);
    return true;
  } catch {
    return false;
  }
}
