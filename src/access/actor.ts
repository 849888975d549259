/** Somebody who acts, in one shop and one role. */
import type { Role } from '#core/format';

export interface Actor {
  readonly personId: string;
  readonly personName: string;
  readonly role: Role;
  readonly shopId: string;
  readonly shopName: string;
  readonly town: string;
  /** Whether the shop is the demo. */
  readonly demo: boolean;
  /** The account and session; null for somebody in the demo, who has not signed in. */
  readonly account: { readonly userId: string; readonly sessionId: string; readonly token: string } | null;
}
