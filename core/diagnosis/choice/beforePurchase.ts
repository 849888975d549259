/** Tests that stand before a part is bought: naming a part for purchase before it is proved names them with it. */
import type { PartKind } from '../../format';
import type { CircuitModel } from '../../network';
import type { Proposal, Verdict } from '../assessment';
import { kindOf } from '../kinds';
import { Names } from '../kinds/kind';

/** What is cleaned, re-terminated or laid anew, and not bought as a part. */
const NOT_BOUGHT: readonly PartKind[] = ['wire', 'connector', 'splice', 'ground'];
/** So many are named; more stand on the card. */
const NAMED = 2;
/** What a battery goes through first, whatever its posts read. */
const BATTERY = 'charge it, let it rest, then test it under load';

/** In the order in which they are worth doing; none once it is proved, and of what is not bought. */
export function beforePurchase(
  model: CircuitModel,
  parts: readonly string[],
  verdict: Verdict,
  next: readonly Proposal[],
): string[] {
  if (verdict.suspect === null || verdict.strength === 'proved') return [];
  const kinds = parts.map((id) => model.network.parts.get(id)?.kind);
  if (kinds.every((kind) => kind === undefined || NOT_BOUGHT.includes(kind))) return [];
  const names = new Names(model.circuit);
  return [
    ...(kinds.includes('battery') ? [BATTERY] : []),
    ...next.slice(0, NAMED).map(({ ref }) => kindOf(ref).inSentence(names, ref)),
  ];
}
