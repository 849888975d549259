/**
 * Parts that do not stand in their own places: relays exchanged for one another, a known good part in the place of a
 * suspect one. A fault goes with its part; from then on the circuit is predicted as it is fitted.
 */
import { faultAlteration } from '../../faults';
import type { CircuitFile, Reading } from '../../format';
import { type CircuitModel, combineAlterations } from '../../network';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { Names } from '../kinds/kind';

export type Fitted = NonNullable<Reading['fitted']>;

/** The same text for the same state; empty where every part stands in its own place. */
export function fittedKey(fitted: Fitted | undefined): string {
  if (!fitted) return '';
  const pairs = fitted.exchanged.map(({ one, other }) => [one, other].sort().join('=')).sort();
  return [...pairs, ...[...fitted.knownGood].sort().map((part) => `+${part}`)].join(' ');
}

/** The place that a part stands in; null where a known good one has taken its place. */
function placeOf(part: string, { exchanged, knownGood }: Fitted): string | null {
  if (knownGood.includes(part)) return null;
  for (const { one, other } of exchanged) {
    if (part === one) return other;
    if (part === other) return one;
  }
  return part;
}

/** The hypotheses in the same order, each with its faults where their parts stand now. */
export function asFitted(
  model: CircuitModel,
  hypotheses: readonly Hypothesis[],
  fitted: Fitted,
): readonly Hypothesis[] {
  return hypotheses.map((one) => {
    if (one.alteration === null || one.faults.every(({ part }) => placeOf(part, fitted) === part)) return one;
    const faults = one.faults.flatMap((fault) => {
      const part = placeOf(fault.part, fitted);
      return part === null ? [] : [{ ...fault, part }];
    });
    const alteration = combineAlterations(...faults.map((fault) => faultAlteration(model.network, fault)));
    return { ...one, faults, alteration };
  });
}

/** The same in a few words each, for what is set before a test and for its title. */
export function fittedInShort(circuit: CircuitFile, { exchanged, knownGood }: Fitted): string[] {
  const names = new Names(circuit);
  return [
    ...exchanged.map(({ one, other }) => `${names.part(one)} and ${names.part(other)} exchanged`),
    ...knownGood.map((part) => `known good part in the place of ${names.part(part)}`),
  ];
}

/** Which one sits where, a sentence for each. */
export function fittedWords(circuit: CircuitFile, { exchanged, knownGood }: Fitted): string[] {
  const names = new Names(circuit);
  return [
    ...exchanged.map(
      ({ one, other }) =>
        `${names.part(one)} and ${names.part(other)} stand exchanged: in the place of ${names.part(one)} sits ${names.part(other)}, and the other way round.`,
    ),
    ...knownGood.map((part) => `In the place of ${names.part(part)} sits the known good part.`),
  ];
}
