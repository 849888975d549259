/** What runs when it should be off is isolated first: no part is exchanged and no lead put on while it runs. */
import type { TestRef } from '../format/readingsSchema';

/** Tests that put one part in the place of another, or a lead in place of a contact. */
const EXCHANGES: readonly TestRef['kind'][] = ['substitute', 'elsewhere', 'bridge', 'apply'];

export function isExchange({ kind }: TestRef): boolean {
  return EXCHANGES.includes(kind);
}
