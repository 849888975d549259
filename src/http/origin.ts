/**
 * Whether a request comes from this application's own pages. A browser carries other people's pages too: they may send
 * forms and fetches here, frame us, or let a name of theirs point at this machine. None of that reads or writes.
 */

/** What of a request decides. Header names in small letters. */
export interface Asked {
  readonly method: string;
  readonly path: string;
  header(name: string): string | null;
}

const LOOPBACK: readonly string[] = ['127.0.0.1', 'localhost', '[::1]'];
const READS: readonly string[] = ['GET', 'HEAD'];

/**
 * Why a request is not answered, in words; null when it is. `known` are hosts besides loopback, as a browser names
 * them, with the port where it is not the usual one.
 */
export function foreignRequest(asked: Asked, known: readonly string[] = []): string | null {
  const host = asked.header('host') ?? '';
  if (!isKnownHost(host, known)) return 'This address does not belong to the application.';
  const reads = READS.includes(asked.method);
  const origin = asked.header('origin');
  // A sandboxed frame and a form without referrer say “null”.
  if (origin !== null && hostOf(origin) !== host) return FOREIGN;
  const site = asked.header('sec-fetch-site');
  if (site === null || site === 'same-origin' || site === 'none') return null;
  // A link from elsewhere may open a page; it gets nothing else.
  const opensPage =
    reads &&
    asked.header('sec-fetch-mode') === 'navigate' &&
    asked.header('sec-fetch-dest') === 'document' &&
    !isApi(asked.path);
  return opensPage ? null : FOREIGN;
}

const FOREIGN = 'The application answers its own pages only.';

export function isApi(path: string): boolean {
  return path === '/api' || path.startsWith('/api/');
}

function isKnownHost(host: string, known: readonly string[]): boolean {
  if (known.includes(host)) return true;
  return LOOPBACK.includes(host.replace(/:\d+$/, ''));
}

function hostOf(origin: string): string | null {
  if (!/^https?:\/\//.test(origin) || !URL.canParse(origin)) return null;
  return new URL(origin).host;
}
