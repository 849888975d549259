/** A fuse that is open, and what may have opened it: one suspect as long as no test has told them apart. */
import type { CircuitFile, TestRef } from '../../format';
import type { CircuitModel } from '../../network';
import type { Suspect } from '../assessment';
import type { RepairGroup } from '../evidence/repairGroup';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { kindOf } from '../kinds';
import { joinWords } from './joinWords';

/** What opened it is out of the question below this chance, all together. */
const OUT_OF_QUESTION = 0.005;
/** From this chance on that a short is behind it no new fuse is fitted as a test. */
const MAY_BLOW = 0.05;

export const OPENED_BY_SOMETHING =
  'The fuse is open; what opened it is not yet known, and would open the next one: look for it before a new one is fitted.';

/** Whether a fault opens one of these fuses, and would open the next. */
function opens({ blows, parts }: Hypothesis, fuses: readonly string[]): boolean {
  return blows && parts.slice(1).some((part) => fuses.includes(part));
}

/**
 * Where a fuse by itself leads: the groups that would have opened it and are not out of the question. Empty where
 * something else leads, or where the fuse went by itself.
 */
export function openedBy(
  model: CircuitModel,
  hypotheses: readonly Hypothesis[],
  groups: readonly RepairGroup[],
  chance: Float64Array,
  lead: number,
): number[] {
  const fuses = groups[lead]!.units.filter((unit) => model.network.parts.get(unit)?.kind === 'fuse');
  if (fuses.length === 0 || fuses.length < groups[lead]!.units.length) return [];
  const found = [...groups.keys()].filter(
    (g) => g !== lead && groups[g]!.members.some((h) => opens(hypotheses[h]!, fuses)),
  );
  const sum = found.reduce((total, g) => total + chance[g]!, 0);
  const kept = found.filter((g) => chance[g]! >= 0.001).sort((x, y) => chance[y]! - chance[x]!);
  return sum > OUT_OF_QUESTION ? kept : [];
}

/** Chance of what would open one of these fuses, new or not. */
function chanceOfOpening(
  hypotheses: readonly Hypothesis[],
  fuses: readonly string[],
  p: Float64Array,
): number {
  return hypotheses.reduce((sum, one, h) => (opens(one, fuses) ? sum + p[h]! : sum), 0);
}

/** Whether a test would feed what blew a fuse, which may still be there: that is looked for without feeding it. */
export function wouldBlow(
  circuit: CircuitFile,
  hypotheses: readonly Hypothesis[],
  ref: TestRef,
  p: Float64Array,
): boolean {
  const fuses = kindOf(ref).feedsBehind?.(circuit, ref) ?? [];
  return fuses.length > 0 && chanceOfOpening(hypotheses, fuses, p) > MAY_BLOW;
}

/** The suspects with a fuse that leads and what may have opened it as one, the likeliest form first. */
export function withWhatOpenedIt(
  suspects: readonly Suspect[],
  opening: readonly string[],
): readonly Suspect[] {
  const [fuse, ...rest] = suspects;
  const others = rest.filter((one) => opening.includes(one.id));
  if (!fuse || others.length === 0) return suspects;
  const all = [fuse, ...others];
  const titles = joinWords(
    others.map((one) => one.title),
    2,
  );
  const together: Suspect = {
    ...fuse,
    title: `${fuse.title}, or what opened it: ${titles}`,
    units: all.flatMap((one) => one.units),
    parts: [...new Set(all.flatMap((one) => one.parts))],
    chance: all.reduce((sum, one) => sum + one.chance, 0),
    forms: all
      .flatMap((one) => one.forms)
      .sort((x, y) => y.chance - x.chance)
      .slice(0, 4),
    reason: `${fuse.title} is open; what opened it is not known. ${fuse.reason}`,
  };
  return [together, ...rest.filter((one) => !others.includes(one))];
}
