/** Over which way a request came: on this machine, or from the network, and from which address there. */

import { BlockList, isIP } from 'node:net';

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

/**
 * The address of the client, for counting tries: as the front says it, or a proxy of one's own that `EVERY_TRACE_PROXY`
 * names. Otherwise nobody is believed, and all count as one.
 */
export function clientAddress(headers: HeadersLike): string {
  const said = (headers.get('x-forwarded-for') ?? '').split(',').map((one) => one.trim());
  if (fromFront(headers)) return said[0] || 'unknown';
  const proxies = believedProxies();
  if (proxies === null) return 'this machine';
  // From its end: the nearest proxy has written that, and what stands before it may be anybody's word.
  return said.findLast((one) => one !== '' && !isBelieved(proxies, one)) ?? 'this machine';
}

/** The proxies of `EVERY_TRACE_PROXY`, addresses or networks separated by commas, and this machine; null where none is named. */
function believedProxies(): BlockList | null {
  const named = (process.env.EVERY_TRACE_PROXY ?? '').split(',').map((one) => one.trim());
  const list = new BlockList();
  let some = false;
  for (const one of named) {
    const [address = '', said] = one.split('/');
    const kind = isIP(address);
    const whole = kind === 4 ? 32 : 128;
    const bits = said === undefined ? whole : /^\d+$/.test(said) ? Number(said) : whole + 1;
    // What is no address and no network is nobody; `npm run doctor` says so.
    if (kind === 0 || bits > whole) continue;
    some = true;
    list.addSubnet(address, bits, kind === 4 ? 'ipv4' : 'ipv6');
  }
  if (!some) return null;
  list.addSubnet('127.0.0.0', 8, 'ipv4');
  list.addAddress('::1', 'ipv6');
  return list;
}

function isBelieved(proxies: BlockList, address: string): boolean {
  const plain = address.replace(/^::ffff:/, '');
  const kind = isIP(plain);
  return kind !== 0 && proxies.check(plain, kind === 4 ? 'ipv4' : 'ipv6');
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
