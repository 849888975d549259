import { createHash } from 'node:crypto';

/** The same id for the same name, so that addresses of the demo stay what they were. */
export function demoId(name: string): string {
  const hex = createHash('sha256').update(`every-trace demo ${name}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
