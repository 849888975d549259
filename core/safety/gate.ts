/** The one gate: whether a deed may be done on a circuit, why not, and what is said before it. */
import { CAUTIONS, type SafetyScene, type Warning } from './cautions';
import type { Deed } from './deed';

export interface SafetyGate {
  /** Nothing forbids it. */
  readonly allowed: boolean;
  /** Why it is forbidden, each reason once. */
  readonly reasons: readonly string[];
  /** What is said before it is done. */
  readonly warnings: readonly Warning[];
}

export function safetyGate(deed: Deed, scene: SafetyScene): SafetyGate {
  const met = CAUTIONS.filter((caution) => caution.concerns(deed, scene));
  const warnings = met.flatMap(({ id, moment, words, asks }) => {
    const said = words(deed, scene);
    return said === '' ? [] : [{ caution: id, moment, words: said, asks: asks?.(deed) ?? false }];
  });
  const waits = warnings.filter(({ caution, asks }) => asks && scene.notNow?.includes(caution));
  const reasons = [
    ...met.flatMap((caution) => caution.forbids?.(deed, scene) ?? []),
    ...waits.map(({ words }) => `“Not now” was the answer to: ${words}`),
  ];
  return { allowed: reasons.length === 0, reasons: [...new Set(reasons)], warnings };
}
