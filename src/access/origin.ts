/** Over which way a request came: on this machine, or from the network, and from which address there. */

/** What is read of the headers. */
export interface HeadersLike {
  get(name: string): string | null;
}

/** Header by which the front of this installation proves that what it says of the client is its own word. */
const FRONT_HEADER = 'x-every-trace-front';

const LOOPBACK_HOST = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;
const LOOPBACK_ADDRESS = /^(::1|(::ffff:)?127\.\d+\.\d+\.\d+)$/;

/** Whether the front vouches for what stands in the forwarded headers. */
function fromFront(headers: HeadersLike): boolean {
  const secret = process.env.EVERY_TRACE_FRONT;
  return secret !== undefined && secret !== '' && headers.get(FRONT_HEADER) === secret;
}

/** The address of the client, for counting tries: believed from the front only. */
export function clientAddress(headers: HeadersLike): string {
  if (!fromFront(headers)) return 'this machine';
  return headers.get('x-forwarded-for')?.split(',')[0]?.trim() || 'unknown';
}

/** Whether the client speaks TLS with the front. */
export function isSecure(headers: HeadersLike): boolean {
  return fromFront(headers) && headers.get('x-forwarded-proto') === 'https';
}

/**
 * Whether somebody sits at this machine: by a name of the loopback, and forwarded by nobody. A proxy that somebody put
 * in front says for whom it asks; whoever it is comes from elsewhere.
 */
export function isAtThisMachine(headers: HeadersLike): boolean {
  if (fromFront(headers) || !LOOPBACK_HOST.test(headers.get('host') ?? '')) return false;
  if (headers.get('forwarded') || headers.get('via')) return false;
  const said = headers.get('x-forwarded-for');
  return said === null || said.split(',').every((one) => LOOPBACK_ADDRESS.test(one.trim()));
}

/** Whether the program was told to serve others than this machine. */
export function isShared(): boolean {
  return process.env.EVERY_TRACE_SHARED === '1' || (process.env.EVERY_TRACE_HOSTS ?? '').trim() !== '';
}
