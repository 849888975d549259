/** The one gate: whether a deed may be done on a circuit, why not, and what is said before it. */
import { CAUTIONS, type Moment, type SafetyScene } from './cautions';
import type { Deed } from './deed';

export interface Warning {
  readonly caution: string;
  readonly moment: Moment;
  readonly words: string;
}

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
  const reasons = met.flatMap((caution) => caution.forbids?.(deed, scene) ?? []);
  const warnings = met.flatMap(({ id, moment, words }) => {
    const said = words(deed, scene);
    return said === '' ? [] : [{ caution: id, moment, words: said }];
  });
  return { allowed: reasons.length === 0, reasons: [...new Set(reasons)], warnings };
}
