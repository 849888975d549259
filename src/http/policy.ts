/** What a document may load and run. No `eval`; scripts that stand in a document are named one by one. */
import { createHash } from 'node:crypto';

/** Scripts with this nonce, and what they load. */
export function policyWithNonce(nonce: string, development: boolean): string {
  return policy(`'nonce-${nonce}' 'strict-dynamic'${development ? " 'unsafe-eval'" : ''}`, development);
}

/**
 * Files of this application, and the scripts that stand in a document which is the same for everybody, by what they
 * say. `html` is that document; null while developing, where it is made anew for each request.
 */
export function policyOfDocument(html: string | null): string {
  return html === null
    ? policy("'unsafe-inline' 'unsafe-eval'", true)
    : policy(
        inlineScripts(html)
          .map((script) => `'sha256-${createHash('sha256').update(script).digest('base64')}'`)
          .join(' '),
        false,
      );
}

/** Texts of the scripts that stand in a document, without those that it loads. */
export function inlineScripts(html: string): string[] {
  return [...html.matchAll(/<script(?<attributes>[^>]*)>(?<text>.*?)<\/script>/gs)]
    .filter(({ groups }) => !/\ssrc=/.test(groups?.attributes ?? ''))
    .map(({ groups }) => groups?.text ?? '');
}

function policy(scripts: string, development: boolean): string {
  return [
    "default-src 'self'",
    `script-src 'self' ${scripts}`,
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
