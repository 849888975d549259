/** Whether a suspect is provisional, supported or proved, and by which readings. */
import type { PartKind } from '../../format';
import type { CircuitModel } from '../../network';
import type { Verdict } from '../assessment';
import type { TakenReading } from '../evidence/readings';
import type { RepairGroup } from '../evidence/repairGroup';
import { NOT_IN_MAP } from '../hypotheses/hypotheses';
import { byProbe, setUpOf, spotOf } from '../kinds';

/** A group at this chance is likely; its confirming test is proposed. */
export const LIKELY = 0.95;
const PROVED = 0.99;
/** A reading supports a group when it is this many times likelier under it than under the rest. */
export const SUPPORTS = 3;
/** Parts that a map may lack another of without looking wrong. */
const STRETCH: readonly PartKind[] = ['wire', 'connector', 'splice', 'ground'];

export interface Support {
  readonly reading: TakenReading;
  /** So many times likelier under the suspect than under the rest. */
  readonly ratio: number;
}

/** How much each reading speaks for a group against the rest, the other readings taken as given. */
export function supportOf(
  group: RepairGroup,
  p: Float64Array,
  readings: readonly TakenReading[],
  logs: readonly (Float64Array | null)[],
): Support[] {
  const inside = new Set(group.members);
  const found: Support[] = [];
  readings.forEach((reading, index) => {
    const log = logs[index] ?? null;
    if (!log) return;
    // Chances without this reading: its own likelihood divided out.
    let insideWith = 0;
    let insideWithout = 0;
    let outsideWith = 0;
    let outsideWithout = 0;
    for (let h = 0; h < p.length; h++) {
      const without = p[h]! / Math.exp(log[h]!);
      if (inside.has(h)) {
        insideWith += p[h]!;
        insideWithout += without;
      } else {
        outsideWith += p[h]!;
        outsideWithout += without;
      }
    }
    if (insideWithout > 0 && outsideWithout > 0 && outsideWith > 0) {
      found.push({ reading, ratio: insideWith / insideWithout / (outsideWith / outsideWithout) });
    }
  });
  return found;
}

export function verdictOn(
  model: CircuitModel,
  group: RepairGroup,
  chance: number,
  support: readonly Support[],
  title: string,
  readings: readonly TakenReading[],
): Verdict {
  const none: Verdict = {
    suspect: null,
    strength: null,
    sentence: readings.length === 0 ? 'Nothing measured yet.' : 'The readings leave several suspects.',
    evidence: [],
  };
  if (chance < 0.8) return none;
  const strong = support.filter((one) => one.ratio >= SUPPORTS);
  const evidence = strong.map((one) => one.reading.id);
  if (group.id === NOT_IN_MAP) {
    return {
      suspect: group.id,
      strength: 'provisional',
      sentence:
        'No part of the map explains these readings. Repeat the odd one; then look for a splice, feed or part that the map lacks.',
      evidence,
    };
  }
  const independent =
    independentPair(strong.map((one) => one.reading)) || strong.some((one) => movesFault(one.reading, group));
  const followed = strong.some(({ reading }) => takesFaultAlong(reading, group))
    ? ' The fault followed the part to its other place.'
    : '';
  const proved = strong.length > 2 || strong.every(({ reading }) => surely(reading));
  if (
    chance >= PROVED &&
    independent &&
    proved &&
    !decisiveReading(chance, strong) &&
    readAtPosts(model, group, strong)
  ) {
    return {
      suspect: group.id,
      strength: 'proved',
      sentence: `${title}: proved by ${evidence.length} readings that agree.${followed}${undrawn(model, group)}`,
      evidence,
    };
  }
  if (chance >= LIKELY) {
    return {
      suspect: group.id,
      strength: 'supported',
      sentence: `${title} is likely.${followed} A reading at another spot in another set-up would prove it.`,
      evidence,
    };
  }
  return {
    suspect: group.id,
    strength: 'provisional',
    sentence: `${title} leads, but not enough to act on.`,
    evidence,
  };
}

/** A battery is proved at its own posts and nowhere else; of any other part nothing is asked. */
function readAtPosts(model: CircuitModel, { parts }: RepairGroup, strong: readonly Support[]): boolean {
  const posts = parts.flatMap((id) => {
    const part = model.network.parts.get(id);
    return part?.kind === 'battery' ? [part.pins.plus] : [];
  });
  if (posts.length < parts.length || posts.length === 0) return true;
  return strong.some(
    ({ reading: { test } }) =>
      test.kind === 'battery' || (test.kind === 'volts' && posts.includes(test.node)),
  );
}

/** A reading of a probe, which may have slipped, without which the suspect would not even be the likeliest; null where none is. */
export function decisiveReading(chance: number, support: readonly Support[]): TakenReading | null {
  const odds = chance / (1 - chance);
  return support.find(({ reading, ratio }) => byProbe(reading.test) && odds / ratio < 1)?.reading ?? null;
}

/** What no reading separates from a stretch of wires and joints: another joint on it. */
function undrawn(model: CircuitModel, { parts }: RepairGroup): string {
  const stretch = parts.every((id) => STRETCH.includes(model.network.parts.get(id)?.kind ?? 'module'));
  return stretch ? ' A joint on this stretch that was never drawn would look the same.' : '';
}

/** The same verdict with one sentence more. */
export function withSentence(verdict: Verdict, sentence: string): Verdict {
  return { ...verdict, sentence: `${verdict.sentence} ${sentence}` };
}

/** A known good part restores it, or the part takes the fault along: one such result is worth two readings. */
function movesFault(reading: TakenReading, group: RepairGroup): boolean {
  const { test, value } = reading;
  if (!('state' in value)) return false;
  return (
    takesFaultAlong(reading, group) ||
    (test.kind === 'substitute' && value.state === 'works') ||
    (test.kind === 'elsewhere' && test.fitted === 'own' && value.state === 'dead')
  );
}

/** A function was seen while a part of the group stood in another's place. */
function takesFaultAlong({ test, fitted }: TakenReading, { parts }: RepairGroup): boolean {
  return (
    test.kind === 'function' &&
    (fitted?.exchanged ?? []).some(({ one, other }) => parts.includes(one) || parts.includes(other))
  );
}

/** Everything was made sure of before it. */
function surely({ sure }: TakenReading): boolean {
  return !sure || (sure.tester && sure.reference && sure.setUp);
}

/** Two readings that share neither spot nor set-up, so that no one mistake spoils both. */
function independentPair(readings: readonly TakenReading[]): boolean {
  return readings.some((one, index) =>
    readings
      .slice(index + 1)
      .some((other) => spotOf(one.test) !== spotOf(other.test) && setUpOf(one.test) !== setUpOf(other.test)),
  );
}
