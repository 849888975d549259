/** How phones reach this installation, while it is shared. */
import qr from 'qrcode';
import { isShared } from '@/access';
import { permittedHosts } from '@/http/hosts';

export interface ShareInfo {
  /** The address that stays the same. */
  readonly address: string;
  /** Others, by the addresses of the machine. */
  readonly others: readonly string[];
  /** Where a new phone is told how to trust it. */
  readonly trust: string | null;
  /** The same as a QR code, SVG. */
  readonly code: string | null;
}

/** The address by which another phone comes in; null while nothing is shared. */
export function shareAddress(): string | null {
  const [first] = permittedHosts();
  return isShared() && first ? `https://${first}` : null;
}

export async function shareInfo(): Promise<ShareInfo | null> {
  const address = shareAddress();
  if (address === null) return null;
  const numbered = permittedHosts().filter((host) => /^\d+\.\d+\.\d+\.\d+:\d+$/.test(host));
  const { EVERY_TRACE_TRUST_PORT: port } = process.env;
  const [number] = numbered;
  const trust = port && number ? `http://${number.replace(/:\d+$/, '')}:${port}/` : null;
  return {
    address,
    others: numbered.map((host) => `https://${host}`),
    trust,
    code: trust === null ? null : await qr.toString(trust, { type: 'svg', margin: 2 }),
  };
}
