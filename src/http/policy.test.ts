import { createHash } from 'node:crypto';
import { inlineScripts, policyOfDocument, policyWithNonce } from './policy';

const HTML =
  '<html><head><script>one()</script><script src="/a.js" async=""></script></head><body><script id="x">two("<b>")</script></body></html>';

const hash = (text: string) => `'sha256-${createHash('sha256').update(text).digest('base64')}'`;

test('the scripts that stand in a document are allowed by what they say, and no other', () => {
  expect(inlineScripts(HTML)).toEqual(['one()', 'two("<b>")']);
  const policy = policyOfDocument(HTML);
  expect(policy).toContain(`script-src 'self' ${hash('one()')} ${hash('two("<b>")')};`);
  expect(policy).not.toMatch(/script-src[^;]*(unsafe|nonce)/);
});

test('a page that is made for who asks has a nonce; eval is for developing only', () => {
  expect(policyWithNonce('abc', false)).toContain("script-src 'self' 'nonce-abc' 'strict-dynamic';");
  expect(policyWithNonce('abc', true)).toContain("'unsafe-eval'");
  expect(policyOfDocument(null)).toContain("'unsafe-eval'");
});
