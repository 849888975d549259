/**
 * One job's diagnosis: takes the complaint, the readings and what is open or refused, and gives the
 * suspects, the verdict and the next test. Everything slow is made once in `prepare`; what the readings say is
 * carried on from one question to the next.
 */

import type { Fault } from '../faults/faults';
import type { CircuitFile, PartKind } from '../format/circuitSchema';
import type { TestRef } from '../format/readingsSchema';
import { combineAlterations } from '../network/alteration';
import { CircuitModel } from '../network/model';
import { findContradiction } from './contradiction';
import { repairCost, type Stop, whetherToStop } from './decision';
import { EpisodeCounter } from './episodes';
import { EvidenceState, normalise, type TakenReading } from './evidence';
import {
  explainProposal,
  explainReading,
  explainsReading,
  type OutcomeMeaning,
  outcomeMeanings,
} from './explain';
import { type RepairGroup, repairGroups, withPairs } from './groups';
import { buildHypotheses, type Hypothesis, NO_FAULT, NOT_IN_MAP } from './hypotheses';
import { kindOf, setUpOf, spotOf, testId } from './kinds';
import { Names } from './kinds/kind';
import { type Live, liveRows, rankTests, type TestWorth } from './next';
import { Predictions } from './predictions';
import type { PriorTable } from './priors';
import { type SubstitutionTable, substitutionTables } from './substitution';
import { candidateTests, type TestCandidate } from './tests';

export interface Complaint {
  readonly function: string;
  readonly condition: string;
}

export interface AssessmentInput {
  readonly readings: readonly TakenReading[];
  /** Ids of tests that the technician cannot or will not do. */
  readonly refused: readonly string[];
  /** Places that are open already. */
  readonly opened: readonly string[];
}

export interface SuspectForm {
  readonly words: string;
  readonly chance: number;
  /** Its first fault; null for nothing and for what is not in the map. */
  readonly fault: Fault | null;
  readonly intermittent: boolean;
}

export interface Suspect {
  readonly id: string;
  readonly title: string;
  readonly parts: readonly string[];
  readonly chance: number;
  /** Its likeliest forms, in words, with their chances. */
  readonly forms: readonly SuspectForm[];
  readonly reason: string;
}

export interface ReadingEffect {
  readonly id: string;
  readonly sentence: string;
  /** Parts that this reading was the first to clear. */
  readonly clears: readonly string[];
  /** Fits none of the suspects that were left. */
  readonly unexpected: boolean;
}

export interface Proposal {
  readonly id: string;
  readonly ref: TestRef;
  readonly place: string | null;
  readonly lead: string;
  readonly minutes: number;
  readonly gainBits: number;
  readonly expected: string;
  readonly why: string;
  readonly outcomes: readonly OutcomeMeaning[];
}

export type Strength = 'provisional' | 'supported' | 'proved';

export interface Verdict {
  /** Null while nothing leads. */
  readonly suspect: string | null;
  readonly strength: Strength | null;
  readonly sentence: string;
  readonly evidence: readonly string[];
}

export interface PartStanding {
  readonly part: string;
  readonly chance: number;
  /** All of its faults are cleared, some, or none. */
  readonly standing: 'cleared' | 'partly' | 'open';
  readonly clearedBy: string | null;
  /** Faults of it that remain, in words. */
  readonly remaining: readonly string[];
}

export interface Assessment {
  readonly suspects: readonly Suspect[];
  readonly effects: readonly ReadingEffect[];
  readonly parts: readonly PartStanding[];
  readonly verdict: Verdict;
  readonly next: readonly Proposal[];
  readonly notInMap: number;
  /** Why to stop here; null while testing on is worth it. */
  readonly stop: Stop | null;
  /** What trying the leading repair would cost, in minutes; null while nothing leads. */
  readonly repair: { readonly minutes: number; readonly price: number; readonly wrong: number } | null;
  /** Tables of part by vehicle, for every part that something was substituted for. */
  readonly substitutions: readonly SubstitutionTable[];
  /** Suspects that only a refused test would tell apart, in words; null when there are none. */
  readonly mergedByRefusal: string | null;
  /** Not known whether it fails at this moment: something was touched, or it comes and goes. */
  readonly askFailsNow: boolean;
  /** The reading that disagrees with the others, and what to do about it; null while all fit together. */
  readonly contradiction: { readonly reading: string; readonly sentence: string } | null;
}

/** A group at this chance is likely; its confirming test is proposed. */
export const LIKELY = 0.95;
export const PROVED = 0.99;
/** A reading supports a group when it is this many times likelier under it than under the rest. */
const SUPPORTS = 3;
/** Likelihood ratio to the best below which a fault counts as cleared. */
const CLEARED = 0.02;
/** Tests that teach less than this are not proposed, bits. */
const NOTHING_TO_LEARN = 0.004;
const PROPOSALS = 8;
/** Parts that a map may lack another of without looking wrong. */
const STRETCH: readonly PartKind[] = ['wire', 'connector', 'splice', 'ground'];
/** From this chance on that it comes and goes, what was read before it last changed may be read again. */
const COMES_AND_GOES = 0.3;

/** Readings of one job worked in so far. */
interface Progress {
  readonly state: EvidenceState;
  readonly counter: EpisodeCounter;
  readonly taken: { readonly reading: TakenReading; readonly text: string; readonly episode: number }[];
  readonly effects: ReadingEffect[];
  readonly clearedBy: Map<string, string>;
  /** Log-likelihood without priors, by hypothesis. */
  readonly cumulative: Float64Array;
  /** Hypotheses that explain every reading so far. */
  explaining: readonly number[];
  mended: Predictions | null;
  mendedKey: string;
  /** Parts that are mended since, as of the last reading. */
  mendedParts: readonly string[];
  /** Episode in which the complaint was last looked at. */
  askedIn: number;
}

export interface SessionOptions {
  /** Weights that a shop has learned. */
  readonly priors?: PriorTable;
}

export class DiagnosisSession {
  readonly model: CircuitModel;
  readonly hypotheses: readonly Hypothesis[];
  readonly predictions: Predictions;
  private readonly names: Names;
  private readonly everyTest: ReadonlyMap<string, TestCandidate>;
  /** Tests that can tell anything, the most promising first. */
  private readonly tests: TestCandidate[] = [];
  private readonly byPart: ReadonlyMap<string, readonly number[]>;
  private preparing: Generator<{ done: number; total: number }> | null;
  private ungrouped: readonly RepairGroup[] | null = null;
  private grouped: { key: string; groups: RepairGroup[] } | null = null;
  private progress: Progress | null = null;

  constructor(
    readonly circuit: CircuitFile,
    readonly complaint: Complaint,
    options: SessionOptions = {},
  ) {
    this.model = new CircuitModel(circuit);
    this.names = new Names(circuit);
    this.hypotheses = buildHypotheses(this.model, complaint, options.priors);
    this.predictions = new Predictions(this.model, this.hypotheses);
    this.everyTest = new Map(candidateTests(this.model, complaint).map((test) => [test.id, test]));
    const byPart = new Map<string, number[]>();
    this.hypotheses.forEach(({ parts: [part], second }, h) => {
      if (part !== undefined && second === undefined) byPart.set(part, [...(byPart.get(part) ?? []), h]);
    });
    this.byPart = byPart;
    this.preparing = this.prepareAll();
  }

  /**
   * Works out what every fault would show in every test, a few tests at a time, so that a worker can tell how far
   * it is and stop. `assess` does what is left by itself.
   */
  prepare(): Generator<{ done: number; total: number }> {
    return this.preparing ?? this.prepareAll();
  }

  private *prepareAll(): Generator<{ done: number; total: number }> {
    const here = (ref: TestRef) => ('condition' in ref && ref.condition === this.complaint.condition ? 0 : 1);
    const slow = (ref: TestRef) => (ref.kind === 'volts' || ref.kind === 'function' ? 0 : 1);
    const offered = [...this.everyTest.values()].filter((test) => !kindOf(test.ref).onRequest);
    const ordered = offered.sort((x, y) => here(x.ref) - here(y.ref) || slow(x.ref) - slow(y.ref));
    let done = 0;
    for (const test of ordered) {
      if (this.predictions.of(test.id, test.ref).tells) this.tests.push(test);
      done += 1;
      yield { done, total: ordered.length };
    }
    this.preparing = null;
  }

  /** Works out what `prepare` has not. */
  private ready(): void {
    const preparing = this.preparing;
    if (preparing) while (!preparing.next().done);
  }

  /** Every permitted test, for whoever goes their own way. */
  get permitted(): readonly TestCandidate[] {
    return [...this.everyTest.values()];
  }

  /** Repair groups when some tests are refused; formed anew only when that changes. */
  groups(refused: readonly string[]): { groups: RepairGroup[] } {
    this.ready();
    const key = [...refused].sort().join('\n');
    if (this.grouped?.key === key) return this.grouped;
    const allowed = this.tests.filter((test) => !refused.includes(test.id));
    const groups =
      refused.length === 0 ? [...this.allGroups()] : repairGroups(this.hypotheses, allowed, this.predictions);
    this.grouped = { key, groups };
    return this.grouped;
  }

  /** What the refused tests would have told apart. */
  private mergedByRefusal(groups: readonly RepairGroup[]): string | null {
    const all = this.allGroups();
    const merged = groups.filter(
      (group) => !all.some((one) => group.units.every((unit) => one.units.includes(unit))),
    );
    if (merged.length === 0) return null;
    const names = merged.map((group) => this.title(group)).join('; ');
    return `Without the refused test these cannot be told apart and count as one: ${names}.`;
  }

  private allGroups(): readonly RepairGroup[] {
    this.ungrouped ??= repairGroups(this.hypotheses, this.tests, this.predictions);
    return this.ungrouped;
  }

  /** The readings worked in, carried on from the last question where they begin alike. */
  private workIn(readings: readonly TakenReading[]): Progress {
    const texts = readings.map((reading) => JSON.stringify(reading));
    const before = this.progress;
    const goesOn =
      before !== null &&
      before.taken.length <= readings.length &&
      before.taken.every(({ text }, index) => text === texts[index]);
    const progress = goesOn ? before : this.begin();
    for (let index = progress.taken.length; index < readings.length; index++) {
      this.takeIn(progress, readings, index, texts[index]!);
    }
    this.progress = progress;
    return progress;
  }

  private begin(): Progress {
    return {
      state: new EvidenceState(this.predictions),
      counter: new EpisodeCounter(this.model, this.complaint),
      taken: [],
      effects: [],
      clearedBy: new Map(),
      cumulative: new Float64Array(this.hypotheses.length),
      explaining: this.hypotheses.map((_, h) => h),
      mended: null,
      mendedKey: '',
      mendedParts: [],
      askedIn: -1,
    };
  }

  private takeIn(progress: Progress, readings: readonly TakenReading[], index: number, text: string): void {
    const { state, counter, clearedBy, cumulative } = progress;
    const reading = readings[index]!;
    const predictions = this.predictionsFor(progress, readings, reading.before);
    const prediction = predictions.of(testId(reading.test), reading.test);
    const earlier = progress.taken.map((one) => one.reading);
    const renewed = progress.mendedParts.filter((part) => !reading.before?.includes(part));
    if (renewed.length > 0) state.renew(renewed);
    progress.mendedParts = reading.before ?? [];
    const episode = counter.next(reading);
    const says = state.take(reading, episode, predictions);
    progress.taken.push({ reading, text, episode: episode.number });
    if (this.isComplaint(reading.test) && reading.sure?.tester !== false) progress.askedIn = episode.number;
    const cleared: string[] = [];
    if (says) {
      for (let h = 0; h < cumulative.length; h++) {
        cumulative[h] = state.evidenceFor(h);
      }
      for (const part of this.clearedParts(cumulative)) {
        if (clearedBy.has(part)) continue;
        clearedBy.set(part, reading.id);
        cleared.push(part);
      }
    }
    const still = progress.explaining.filter((h) => explainsReading(predictions, prediction, reading, h));
    // The first reading that leaves no explanation is the odd one; later ones are judged against the rest.
    const explained = still.length > 0 || progress.explaining.length === 0;
    if (still.length > 0) progress.explaining = still;
    progress.effects.push({
      id: reading.id,
      clears: cleared,
      ...explainReading(predictions, reading, prediction, says, explained, cleared, earlier),
    });
  }

  /** Readings from before a repair were taken on a circuit that had the mended fault as well. */
  private predictionsFor(
    progress: Progress,
    readings: readonly TakenReading[],
    parts: readonly string[] | undefined,
  ): Predictions {
    if (!parts || parts.length === 0) return this.predictions;
    const key = parts.join(' ');
    if (progress.mendedKey !== key) {
      progress.mendedKey = key;
      progress.mended = this.withFault(this.mendedFault(readings, key, parts));
    }
    return progress.mended ?? this.predictions;
  }

  /** The predictions with a fault that has been mended since. */
  private withFault(mended: Hypothesis | null): Predictions | null {
    const alteration = mended?.alteration;
    if (!mended || !alteration) return null;
    const hypotheses = this.hypotheses.map(
      (one): Hypothesis =>
        one.alteration === null
          ? one
          : {
              ...one,
              faults: [...mended.faults, ...one.faults],
              alteration: combineAlterations(alteration, one.alteration),
            },
    );
    return new Predictions(this.model, hypotheses);
  }

  /** Which fault it was that the repaired parts had, by the readings that were taken before. */
  private mendedFault(
    readings: readonly TakenReading[],
    key: string,
    parts: readonly string[],
  ): Hypothesis | null {
    const state = new EvidenceState(this.predictions);
    const counter = new EpisodeCounter(this.model, this.complaint);
    for (const reading of readings) {
      if (reading.before?.join(' ') === key) state.take(reading, counter.next(reading));
    }
    let best: Hypothesis | null = null;
    let weight = Number.NEGATIVE_INFINITY;
    this.hypotheses.forEach((one, h) => {
      const [first] = one.parts;
      if (one.second !== undefined || first === undefined || !parts.includes(first)) return;
      if (state.logWeight[h]! > weight) {
        weight = state.logWeight[h]!;
        best = one;
      }
    });
    return best;
  }

  /** Suspects, verdict and next tests for what is known now. */
  assess(input: AssessmentInput): Assessment {
    this.ready();
    const { groups: plain } = this.groups(input.refused);
    const { state, counter, effects, clearedBy, cumulative, taken, askedIn } = this.workIn(input.readings);
    const logs = input.readings.map((reading) => state.logOf(reading.id));
    const p = normalise(state.logWeight);
    const { groups, groupOf, chance } = withPairs(this.hypotheses, plain, p);
    const order = groups.map((_, g) => g).sort((x, y) => chance[y]! - chance[x]!);
    const shown = order.filter((g, rank) => rank === 0 || chance[g]! >= 0.001);
    const suspects = shown.map((g) => this.suspect(groups[g]!, chance[g]!, p, input.readings, logs));
    const lead = order[0]!;
    const support = this.support(groups[lead]!, p, input.readings, logs);
    const verdict = this.verdict(groups[lead]!, chance[lead]!, support, suspects[0]!, input.readings);
    const found = findContradiction(this.hypotheses, logs);
    const odd = found ? input.readings[found.reading]! : null;
    const live = this.live(p, groupOf, state);
    const asked = { input, p, groups, live, state, counter, askedIn };
    const { proposals, stop } = this.propose(asked, lead, chance[lead]!, verdict, support, suspects[0]!);
    const repeat = odd && verdict.strength !== 'proved' ? this.repeatOf(odd, input, groups, live) : null;
    const next = repeat ? [repeat, ...proposals].slice(0, PROPOSALS) : proposals;
    const notInMap = this.hypotheses.findIndex((one) => one.id === NOT_IN_MAP);
    const leads = verdict.suspect !== null && groups[lead]!.parts.length > 0;
    const cost = repairCost(this.model, groups[lead]!.parts);
    return {
      suspects: suspects.filter((one) => one.chance >= 0.001),
      effects: effects.slice(),
      parts: this.standings(cumulative, p).map((one) => ({
        ...one,
        clearedBy: clearedBy.get(one.part) ?? null,
      })),
      verdict: stop?.reason === 'nothing-to-learn' ? withSentence(verdict, stop.sentence) : verdict,
      next,
      notInMap: p[notInMap]!,
      stop: repeat ? null : stop,
      repair: leads
        ? {
            minutes: cost.minutes,
            price: cost.price,
            wrong: (1 - chance[lead]!) * (cost.minutes + cost.price + cost.harm),
          }
        : null,
      substitutions: substitutionTables(input.readings, this.complaint),
      mergedByRefusal: this.mergedByRefusal(plain),
      askFailsNow: taken.length > 0 && askedIn < counter.current,
      contradiction:
        found && odd
          ? { reading: odd.id, sentence: this.contradictionWords(odd, found.restFits, input) }
          : null,
    };
  }

  private isComplaint(test: TestRef): boolean {
    return (
      test.kind === 'function' &&
      test.function === this.complaint.function &&
      test.condition === this.complaint.condition
    );
  }

  private live(p: Float64Array, groupOf: Int32Array, state: EvidenceState): Live {
    return liveRows(p, groupOf, this.predictions.sound, (h) =>
      this.hypotheses[h]!.lasting === null ? null : state.presentNow(h),
    );
  }

  private timesTaken(test: TestRef, input: AssessmentInput): number {
    const id = testId(test);
    return input.readings.filter((reading) => testId(reading.test) === id).length;
  }

  /** The card that repeats a reading, once; null where it was repeated already or cannot be. */
  private repeatOf(
    odd: TakenReading,
    input: AssessmentInput,
    groups: readonly RepairGroup[],
    live: Live,
  ): Proposal | null {
    const id = testId(odd.test);
    if (this.timesTaken(odd.test, input) > 1 || input.refused.includes(id)) return null;
    const card = this.cardOf(id, input, groups, live);
    if (!card) return null;
    const why =
      'This reading disagrees with the others. Taken again it shows whether the probe slipped, or whether the circuit does something that this map does not contain.';
    return { ...card, why };
  }

  private contradictionWords(odd: TakenReading, restFits: boolean, input: AssessmentInput): string {
    const what = this.nameOf(odd);
    if (restFits && this.timesTaken(odd.test, input) < 2) {
      return `The reading that disagrees with the others is ${what}. Repeat it; check the spot, the key and the switches.`;
    }
    return restFits
      ? `It still disagrees after a repeat: ${what}. The fault may lie in something that this map does not contain: a splice, a feed or a part behind that point.`
      : `These readings together fit nothing on this map; ${what} disagrees most. Look for what the map does not contain: a splice, a feed or a part that somebody added.`;
  }

  /** Log-likelihood below which a hypothesis counts as cleared. */
  private clearedBelow(cumulative: Float64Array): number {
    let best = Number.NEGATIVE_INFINITY;
    for (const value of cumulative) best = Math.max(best, value);
    return best + Math.log(CLEARED);
  }

  private clearedParts(cumulative: Float64Array): string[] {
    const limit = this.clearedBelow(cumulative);
    return [...this.byPart]
      .filter(([, members]) => members.every((h) => cumulative[h]! < limit))
      .map(([part]) => part);
  }

  private standings(cumulative: Float64Array, p: Float64Array): PartStanding[] {
    const limit = this.clearedBelow(cumulative);
    return [...this.byPart].map(([part, members]) => {
      const kept = members.filter((h) => cumulative[h]! >= limit);
      return {
        part,
        chance: members.reduce((sum, h) => sum + p[h]!, 0),
        standing: kept.length === 0 ? 'cleared' : kept.length < members.length ? 'partly' : 'open',
        clearedBy: null,
        // Several sizes of one bad joint are one thing to a reader.
        remaining: [...new Set(kept.map((h) => this.hypotheses[h]!.words.replace(/ \(about [^)]*\)/, '')))],
      };
    });
  }

  private title(group: RepairGroup): string {
    if (group.id === NO_FAULT || group.id === NOT_IN_MAP) return this.hypotheses[group.members[0]!]!.words;
    const names = group.units.map((unit) => {
      const first = group.members.map((h) => this.hypotheses[h]!).find((one) => one.unit === unit)!;
      const name = this.model.network.parts.get(first.parts[0]!)?.name ?? unit;
      return unit.startsWith('short:') ? `${name}, shorted` : name;
    });
    return names.length > 3
      ? `${names.slice(0, 3).join(' / ')} and ${names.length - 3} more`
      : names.join(' / ');
  }

  private suspect(
    group: RepairGroup,
    chance: number,
    p: Float64Array,
    readings: readonly TakenReading[],
    logs: readonly (Float64Array | null)[],
  ): Suspect {
    const forms = group.members
      .map((h): SuspectForm => {
        const { words, faults, intermittent } = this.hypotheses[h]!;
        return { words, chance: p[h]!, fault: faults[0] ?? null, intermittent };
      })
      .sort((x, y) => y.chance - x.chance)
      .slice(0, 3);
    const support = this.support(group, p, readings, logs);
    const strongest = support.slice().sort((x, y) => y.ratio - x.ratio)[0];
    const reason =
      strongest && strongest.ratio >= 1.5
        ? `Best supported by ${this.nameOf(strongest.reading)}.`
        : readings.length === 0
          ? 'From experience with such parts; nothing has been measured yet.'
          : 'Not yet told apart from the others by a reading.';
    return { id: group.id, title: this.title(group), parts: group.parts, chance, forms, reason };
  }

  private nameOf({ test }: TakenReading): string {
    return kindOf(test).inSentence(this.names, test);
  }

  /** How much each reading speaks for a group against the rest, the other readings taken as given. */
  private support(
    group: RepairGroup,
    p: Float64Array,
    readings: readonly TakenReading[],
    logs: readonly (Float64Array | null)[],
  ): { reading: TakenReading; ratio: number }[] {
    const inside = new Set(group.members);
    const found: { reading: TakenReading; ratio: number }[] = [];
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

  private verdict(
    group: RepairGroup,
    chance: number,
    support: readonly { reading: TakenReading; ratio: number }[],
    suspect: Suspect,
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
      independentPair(strong.map((one) => one.reading)) || strong.some((one) => movesFault(one.reading));
    const proved = strong.length > 2 || strong.every(({ reading }) => surely(reading));
    if (chance >= PROVED && independent && proved) {
      return {
        suspect: group.id,
        strength: 'proved',
        sentence: `${suspect.title}: proved by ${evidence.length} readings that agree.${this.undrawn(group)}`,
        evidence,
      };
    }
    if (chance >= LIKELY) {
      return {
        suspect: group.id,
        strength: 'supported',
        sentence: `${suspect.title} is likely. A reading at another spot in another set-up would prove it.`,
        evidence,
      };
    }
    return {
      suspect: group.id,
      strength: 'provisional',
      sentence: `${suspect.title} leads, but not enough to act on.`,
      evidence,
    };
  }

  /** What no reading separates from a stretch of wires and joints: another joint on it. */
  private undrawn({ parts }: RepairGroup): string {
    const stretch = parts.every((id) => STRETCH.includes(this.model.network.parts.get(id)?.kind ?? 'module'));
    return stretch ? ' A joint on this stretch that was never drawn would look the same.' : '';
  }

  private propose(
    asked: Asked,
    lead: number,
    leadChance: number,
    verdict: Verdict,
    support: readonly { reading: TakenReading; ratio: number }[],
    suspect: Suspect,
  ): { proposals: Proposal[]; stop: Stop | null } {
    const { input, p, groups, live } = asked;
    const proved = verdict.strength === 'proved';
    const taken = this.alreadyTaken(asked, this.progress?.taken.map((one) => one.episode) ?? []);
    const refused = new Set(input.refused);
    const again = this.mayAskAgain(asked);
    const open = proved
      ? []
      : this.tests
          .filter((test) => (!taken.has(test.id) || test.id === again) && !refused.has(test.id))
          .map((test) => ({ test, prediction: this.predictions.of(test.id, test.ref) }));
    const ranked = rankTests(open, live, this.choiceContext(input));
    const learning = ranked.filter((one) => one.gainBits >= NOTHING_TO_LEARN);
    const confirming = leadChance >= LIKELY ? this.confirming(ranked, p, groups[lead]!, support) : [];
    const stop = whetherToStop({
      proved,
      title: suspect.title,
      chance: leadChance,
      likely: LIKELY,
      cost: repairCost(this.model, groups[lead]!.parts),
      confirmingMinutes: confirming.length > 0 ? Math.min(...confirming.map((one) => one.minutes)) : null,
      anythingToLearn: learning.length > 0,
      worksNow: this.worksNow(asked),
    });
    const chosen = [...confirming, ...learning.filter((one) => !confirming.includes(one))];
    return {
      stop,
      proposals: chosen.slice(0, PROPOSALS).map((worth) => this.proposal(worth, groups, live, input)),
    };
  }

  /** Something that comes and goes leads, and is away just now. */
  private worksNow({ p, state, counter }: Asked): boolean {
    const { function: of, condition } = this.complaint;
    const sound = this.model.outcome(this.model.function(of), this.model.sound(condition));
    return counter.symptomNow === sound && this.loose(p, (h) => 1 - state.presentNow(h)) > 0.5;
  }

  /** Chance of the faults that come and go, each times a share. */
  private loose(p: Float64Array, share: (h: number) => number = () => 1): number {
    let sum = 0;
    this.hypotheses.forEach((one, h) => {
      if (one.lasting !== null) sum += p[h]! * share(h);
    });
    return sum;
  }

  /** Tests that need not be done again: all that were, or those since it last came or went while it does so. */
  private alreadyTaken({ input, p, counter }: Asked, episodes: readonly number[]): ReadonlySet<string> {
    const comesAndGoes = this.loose(p) > COMES_AND_GOES;
    return new Set(
      input.readings
        .filter((_, index) => !comesAndGoes || (episodes[index] ?? 0) >= counter.changedIn)
        .map((reading) => testId(reading.test)),
    );
  }

  /** The complaint may be looked at again once something was touched since: does it fail now? */
  private mayAskAgain({ counter, askedIn }: Asked): string | null {
    return askedIn < counter.current ? testId({ kind: 'function', ...this.complaint }) : null;
  }

  private choiceContext({ opened }: AssessmentInput) {
    const minutes = new Map(this.circuit.places.map((place) => [place.id, place.minutesToOpen]));
    return { opened: new Set(opened), minutesToOpen: (place: string) => minutes.get(place) ?? 0 };
  }

  /** Tests that would make the leading group proved: another spot, another set-up, and telling. */
  private confirming(
    ranked: readonly TestWorth[],
    p: Float64Array,
    group: RepairGroup,
    support: readonly { reading: TakenReading; ratio: number }[],
  ): TestWorth[] {
    const strong = support.filter((one) => one.ratio >= SUPPORTS).map((one) => one.reading);
    const inside = new Set(group.members);
    const scored: { worth: TestWorth; score: number }[] = [];
    for (const worth of ranked) {
      const independent = strong.some(
        (reading) => spotOf(reading.test) !== worth.test.spot && setUpOf(reading.test) !== worth.test.setUp,
      );
      if (strong.length > 0 && !independent && !kindOf(worth.test.ref).intervenes) continue;
      const { outcomes, chances } = this.predictions.of(worth.test.id, worth.test.ref);
      let speaks = 0;
      let insideMass = 0;
      let outsideMass = 0;
      const insideChance = new Float64Array(outcomes);
      const outsideChance = new Float64Array(outcomes);
      for (let h = 0; h < p.length; h++) {
        const into = inside.has(h) ? insideChance : outsideChance;
        if (inside.has(h)) insideMass += p[h]!;
        else outsideMass += p[h]!;
        for (let k = 0; k < outcomes; k++) into[k] = into[k]! + p[h]! * chances[h * outcomes + k]!;
      }
      if (outsideMass <= 0) continue;
      for (let k = 0; k < outcomes; k++) {
        const one = insideChance[k]! / insideMass;
        const other = outsideChance[k]! / outsideMass;
        if (one > 0) speaks += one * Math.log(one / Math.max(other, 1e-9));
      }
      if (speaks > Math.log(SUPPORTS) / 2) {
        scored.push({ worth, score: speaks / (worth.minutes + (worth.test.disturbs ? 1 : 0)) });
      }
    }
    return scored
      .sort((x, y) => y.score - x.score)
      .map((one) => one.worth)
      .slice(0, 4);
  }

  private proposal(
    worth: TestWorth,
    groups: readonly RepairGroup[],
    live: Live,
    input: AssessmentInput,
  ): Proposal {
    const prediction = this.predictions.of(worth.test.id, worth.test.ref);
    const titles = (g: number) => this.title(groups[live.groups[g]!]!);
    const outcomes = outcomeMeanings(this.predictions, prediction, live, titles);
    const place = this.circuit.places.find((one) => one.id === worth.place);
    return {
      id: worth.test.id,
      ref: worth.test.ref,
      place: worth.place,
      lead: worth.lead,
      minutes: worth.minutes,
      gainBits: worth.gainBits,
      expected: outcomes.expected,
      why: explainProposal(outcomes.meanings, worth, place, place ? input.opened.includes(place.id) : true),
      outcomes: outcomes.meanings,
    };
  }

  private cardOf(
    id: string,
    input: AssessmentInput,
    groups: readonly RepairGroup[],
    live: Live,
  ): Proposal | null {
    const test = this.everyTest.get(id);
    if (!test) return null;
    const offered = [{ test, prediction: this.predictions.of(test.id, test.ref) }];
    const [worth] = rankTests(offered, live, this.choiceContext(input), false);
    return worth ? this.proposal(worth, groups, live, input) : null;
  }

  /** The card of any test the technician chooses, proposed or not; null when it is not permitted. */
  card(id: string, input: AssessmentInput): Proposal | null {
    this.ready();
    const { groups: plain } = this.groups(input.refused);
    const { state } = this.workIn(input.readings);
    const p = normalise(state.logWeight);
    const { groups, groupOf } = withPairs(this.hypotheses, plain, p);
    return this.cardOf(id, input, groups, this.live(p, groupOf, state));
  }
}

/** What a proposal is made from. */
interface Asked {
  readonly input: AssessmentInput;
  readonly p: Float64Array;
  readonly groups: readonly RepairGroup[];
  readonly live: Live;
  readonly state: EvidenceState;
  readonly counter: EpisodeCounter;
  readonly askedIn: number;
}

function withSentence(verdict: Verdict, sentence: string): Verdict {
  return { ...verdict, sentence: `${verdict.sentence} ${sentence}` };
}

/** A known good part restores it, or the part takes the fault along: one such result is worth two readings. */
function movesFault({ test, value }: TakenReading): boolean {
  if (!('state' in value)) return false;
  return (
    (test.kind === 'substitute' && value.state === 'works') ||
    (test.kind === 'elsewhere' && test.fitted === 'own' && value.state === 'dead')
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
