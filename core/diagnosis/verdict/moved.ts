/** What a reading speaks for and against: how the chances of what would be repaired moved with it, in words. */
import type { CircuitModel } from '../../network';
import { withPairs } from '../evidence/groups';
import type { RepairGroup } from '../evidence/repairGroup';
import { NO_FAULT, NOT_IN_MAP } from '../hypotheses/hypotheses';
import type { Hypothesis } from '../hypotheses/hypothesis';
import { joinWords } from './joinWords';
import { titleOf } from './suspects';

/** A change smaller than this is not spoken of. */
const MOVED = 0.03;
/** Nor is one that leaves things about as they were: a rise by less than this factor, a fall by less than half. */
const RAISED = 1.3;
const LOWERED = 0.5;
/** A rise of so much is spoken of whatever it was before. */
const RAISED_MUCH = 0.1;
const NAMED = 3;

/** What is no part of the circuit, as it stands in a sentence. */
const NO_PARTS: Readonly<Record<string, string>> = {
  [NO_FAULT]: 'a key or switch that is not where it was believed to be',
  [NOT_IN_MAP]: 'something that is not on this map',
};

/** "Speaks for G4; against F31 and R4."; nothing where little moved. Told by the suspects as they are shown. */
export function movedWords(
  model: CircuitModel,
  hypotheses: readonly Hypothesis[],
  groups: readonly RepairGroup[],
  before: Float64Array,
  after: Float64Array,
): string {
  const then = withPairs(hypotheses, groups, before).chance;
  const moved = [...withPairs(hypotheses, groups, after).chance].map((now, index) => ({
    group: groups[index]!,
    now,
    was: then[index]!,
  }));
  const raised = moved
    .filter(({ now, was }) => now - was >= RAISED_MUCH || (now - was >= MOVED && now >= RAISED * was))
    .sort((one, other) => other.now - other.was - (one.now - one.was));
  const lowered = moved
    .filter(({ now, was }) => was - now >= MOVED && now <= LOWERED * was)
    .sort((one, other) => one.now - one.was - (other.now - other.was));
  const names = (of: readonly { readonly group: RepairGroup }[]) =>
    joinWords(
      of.map(({ group }) => NO_PARTS[group.id] ?? titleOf(model, hypotheses, group)),
      NAMED,
    );
  if (raised.length === 0) return lowered.length > 0 ? ` Speaks against ${names(lowered)}.` : '';
  return lowered.length > 0
    ? ` Speaks for ${names(raised)}; against ${names(lowered)}.`
    : ` Speaks for ${names(raised)}.`;
}
