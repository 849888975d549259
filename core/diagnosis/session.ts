/**
 * One job's diagnosis: takes the complaint, the readings and what is open or refused, and gives the
 * suspects, the verdict and the next test. Everything slow is made once in the constructor.
 */
import { CircuitModel } from '../circuit/model';
import type { CircuitFile } from '../format/circuitSchema';
import type { TestRef } from '../format/readingsSchema';
import { findContradiction } from './contradiction';
import { EvidenceState, normalise, type TakenReading } from './evidence';
import {
  explainProposal,
  explainReading,
  explainsReading,
  type OutcomeMeaning,
  outcomeMeanings,
} from './explain';
import { type RepairGroup, repairGroups } from './groups';
import { buildHypotheses, type Hypothesis, NO_FAULT, NOT_IN_MAP } from './hypotheses';
import { rankTests, type TestWorth } from './next';
import { Predictions } from './predictions';
import { candidateTests, setUpOf, spotOf, type TestCandidate, testId } from './tests';

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

export interface Suspect {
  readonly id: string;
  readonly title: string;
  readonly parts: readonly string[];
  readonly chance: number;
  /** Its likeliest forms, in words, with their chances. */
  readonly forms: readonly { readonly words: string; readonly chance: number }[];
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

export class DiagnosisSession {
  readonly model: CircuitModel;
  readonly hypotheses: readonly Hypothesis[];
  readonly predictions: Predictions;
  private readonly tests: readonly TestCandidate[];
  private grouped: { key: string; groups: RepairGroup[]; groupOf: Int32Array } | null = null;

  constructor(
    readonly circuit: CircuitFile,
    readonly complaint: Complaint,
  ) {
    this.model = new CircuitModel(circuit);
    this.hypotheses = buildHypotheses(this.model);
    this.predictions = new Predictions(this.model, this.hypotheses);
    this.tests = candidateTests(this.model, complaint);
    for (const test of this.tests) this.predictions.of(test.id, test.ref);
    this.groups([]);
  }

  /** Repair groups when some tests are refused; formed anew only when that changes. */
  groups(refused: readonly string[]): { groups: RepairGroup[]; groupOf: Int32Array } {
    const key = [...refused].sort().join('\n');
    if (this.grouped?.key === key) return this.grouped;
    const allowed = this.tests.filter((test) => !refused.includes(test.id));
    const groups = repairGroups(this.hypotheses, allowed, this.predictions);
    const groupOf = new Int32Array(this.hypotheses.length);
    groups.forEach((group, g) => {
      for (const h of group.members) groupOf[h] = g;
    });
    this.grouped = { key, groups, groupOf };
    return this.grouped;
  }

  /** Suspects, verdict and next tests for what is known now. */
  assess(input: AssessmentInput): Assessment {
    const { groups, groupOf } = this.groups(input.refused);
    const state = new EvidenceState(this.predictions);
    const logs: (Float64Array | null)[] = [];
    const effects: ReadingEffect[] = [];
    const cumulative = new Float64Array(this.hypotheses.length);
    const clearedBy = new Map<string, string>();
    /** Hypotheses that explain every reading so far. */
    let explaining = this.hypotheses.map((_, h) => h);
    for (const reading of input.readings) {
      const prediction = this.predictions.of(testId(reading.test), reading.test);
      const log = state.take(prediction, reading);
      logs.push(log);
      const cleared: string[] = [];
      if (log) {
        for (let h = 0; h < log.length; h++) cumulative[h] = cumulative[h]! + log[h]!;
        for (const standing of this.standings(cumulative, normalise(state.logWeight))) {
          if (standing.standing === 'cleared' && !clearedBy.has(standing.part)) {
            clearedBy.set(standing.part, reading.id);
            cleared.push(standing.part);
          }
        }
      }
      const still = explaining.filter((h) => explainsReading(this.predictions, prediction, reading, h));
      // The first reading that leaves no explanation is the odd one; later ones are judged against the rest.
      const explained = still.length > 0 || explaining.length === 0;
      if (still.length > 0) explaining = still;
      effects.push({
        id: reading.id,
        clears: cleared,
        ...explainReading(this.predictions, reading, prediction, log !== null, explained, cleared),
      });
    }
    const p = normalise(state.logWeight);
    const mass = new Float64Array(groups.length);
    for (let h = 0; h < p.length; h++) mass[groupOf[h]!] = mass[groupOf[h]!]! + p[h]!;
    const order = groups.map((_, g) => g).sort((x, y) => mass[y]! - mass[x]!);
    const suspects = order.map((g) => this.suspect(groups[g]!, mass[g]!, p, input.readings, logs));
    const lead = order[0]!;
    const support = this.support(groups[lead]!, p, input.readings, logs);
    const verdict = this.verdict(groups[lead]!, mass[lead]!, support, suspects[0]!, input.readings);
    const found = findContradiction(this.hypotheses, logs);
    const odd = found ? input.readings[found.reading]! : null;
    const proposed = this.propose(input, p, groups, groupOf, lead, mass[lead]!, verdict, support);
    const repeat = odd && verdict.strength !== 'proved' ? this.repeatOf(odd, input) : null;
    const next = repeat ? [repeat, ...proposed].slice(0, PROPOSALS) : proposed;
    const notInMap = this.hypotheses.findIndex((one) => one.id === NOT_IN_MAP);
    return {
      suspects: suspects.filter((one) => one.chance >= 0.001),
      effects,
      parts: this.standings(cumulative, p).map((one) => ({
        ...one,
        clearedBy: clearedBy.get(one.part) ?? null,
      })),
      verdict: { ...verdict, sentence: this.closing(verdict, next) },
      next,
      notInMap: p[notInMap]!,
      contradiction:
        found && odd
          ? { reading: odd.id, sentence: this.contradictionWords(odd, found.restFits, input) }
          : null,
    };
  }

  private timesTaken(test: TestRef, input: AssessmentInput): number {
    const id = testId(test);
    return input.readings.filter((reading) => testId(reading.test) === id).length;
  }

  /** The card that repeats a reading, once; null where it was repeated already or cannot be. */
  private repeatOf(odd: TakenReading, input: AssessmentInput): Proposal | null {
    const id = testId(odd.test);
    if (this.timesTaken(odd.test, input) > 1 || input.refused.includes(id)) return null;
    const card = this.card(id, input);
    if (!card) return null;
    const why =
      'This reading disagrees with the others. Taken again it shows whether the probe slipped, or whether the circuit does something that this map does not contain.';
    return { ...card, why };
  }

  private contradictionWords(odd: TakenReading, restFits: boolean, input: AssessmentInput): string {
    const what = this.readingName(odd);
    if (restFits && this.timesTaken(odd.test, input) < 2) {
      return `The reading that disagrees with the others is ${what}. Repeat it; check the spot, the key and the switches.`;
    }
    return restFits
      ? `It still disagrees after a repeat: ${what}. The fault may lie in something that this map does not contain: a splice, a feed or a part behind that point.`
      : `These readings together fit nothing on this map; ${what} disagrees most. Look for what the map does not contain: a splice, a feed or a part that somebody added.`;
  }

  private closing(verdict: Verdict, next: readonly Proposal[]): string {
    if (verdict.strength !== 'proved' && next.length === 0) {
      return `${verdict.sentence} No test on this map would tell more: decide by looking, or by the cheapest repair.`;
    }
    return verdict.sentence;
  }

  private standings(cumulative: Float64Array, p: Float64Array): PartStanding[] {
    let best = Number.NEGATIVE_INFINITY;
    for (const value of cumulative) best = Math.max(best, value);
    const limit = best + Math.log(CLEARED);
    const byPart = new Map<string, { chance: number; kept: string[]; gone: number }>();
    this.hypotheses.forEach((one, h) => {
      const part = one.parts[0];
      if (part === undefined) return;
      const entry = byPart.get(part) ?? { chance: 0, kept: [], gone: 0 };
      entry.chance += p[h]!;
      if (cumulative[h]! < limit) entry.gone++;
      else entry.kept.push(one.words);
      byPart.set(part, entry);
    });
    return [...byPart.entries()].map(([part, entry]) => ({
      part,
      chance: entry.chance,
      standing: entry.kept.length === 0 ? 'cleared' : entry.gone > 0 ? 'partly' : 'open',
      clearedBy: null,
      remaining: entry.kept,
    }));
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
      .map((h) => ({ words: this.hypotheses[h]!.words, chance: p[h]! }))
      .sort((x, y) => y.chance - x.chance)
      .slice(0, 3);
    const support = this.support(group, p, readings, logs);
    const strongest = support.slice().sort((x, y) => y.ratio - x.ratio)[0];
    const reason =
      strongest && strongest.ratio >= 1.5
        ? `Best supported by ${this.readingName(strongest.reading)}.`
        : readings.length === 0
          ? 'From experience with such parts; nothing has been measured yet.'
          : 'Not yet told apart from the others by a reading.';
    return { id: group.id, title: this.title(group), parts: group.parts, chance, forms, reason };
  }

  private readingName(reading: TakenReading): string {
    const ref = reading.test;
    const node = (id: string) => this.circuit.nodes.find((one) => one.id === id)?.name ?? id;
    const part = (id: string) => this.model.network.parts.get(id)?.name ?? id;
    switch (ref.kind) {
      case 'volts':
        return ref.against === this.circuit.reference
          ? `the volts at ${node(ref.node)}`
          : `the drop from ${node(ref.node)} to ${node(ref.against)}`;
      case 'lamp':
        return `the lamp at ${node(ref.node)}`;
      case 'function':
        return `what ${this.model.function(ref.function).name.toLowerCase()} does`;
      case 'continuity':
        return `${part(ref.part)} measured out of the circuit`;
      case 'lamp-in-fuse':
        return `the lamp in place of ${part(ref.part)}`;
      case 'click':
        return `the click of ${part(ref.part)}`;
      case 'look':
        return `how ${part(ref.part)} looks`;
      case 'clamp':
        return `the current through ${part(ref.part)}`;
      case 'bridge':
        return `${part(ref.part)} bridged`;
      case 'substitute':
        return `a known good part for ${part(ref.part)}`;
    }
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
      const log = logs[index];
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
      independentPair(strong.map((one) => one.reading)) ||
      strong.some((one) => one.reading.test.kind === 'substitute');
    const proved = strong.every((one) => one.reading.testerProved || strong.length > 2);
    if (chance >= PROVED && independent && proved) {
      return {
        suspect: group.id,
        strength: 'proved',
        sentence: `${suspect.title}: proved by ${evidence.length} readings that agree.`,
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

  private propose(
    input: AssessmentInput,
    p: Float64Array,
    groups: readonly RepairGroup[],
    groupOf: Int32Array,
    lead: number,
    leadChance: number,
    verdict: Verdict,
    support: readonly { reading: TakenReading; ratio: number }[],
  ): Proposal[] {
    if (verdict.strength === 'proved') return [];
    const taken = new Set(input.readings.map((reading) => testId(reading.test)));
    const refused = new Set(input.refused);
    const open = this.tests
      .filter((test) => !taken.has(test.id) && !refused.has(test.id))
      .map((test) => ({ test, prediction: this.predictions.of(test.id, test.ref) }));
    const opened = new Set(input.opened);
    const minutes = new Map(this.circuit.places.map((place) => [place.id, place.minutesToOpen]));
    const context = { opened, minutesToOpen: (place: string) => minutes.get(place) ?? 0 };
    const ranked = rankTests(open, p, groupOf, context);
    let chosen = ranked.filter((one) => one.gainBits >= NOTHING_TO_LEARN);
    if (leadChance >= LIKELY) {
      const confirming = this.confirming(ranked, p, groups[lead]!, support);
      chosen = [...confirming, ...chosen.filter((one) => !confirming.includes(one))];
    }
    return chosen
      .slice(0, PROPOSALS)
      .map((worth) => this.proposal(worth, p, groups, groupOf, context.opened));
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
      if (strong.length > 0 && !independent && worth.test.ref.kind !== 'substitute') continue;
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
    p: Float64Array,
    groups: readonly RepairGroup[],
    groupOf: Int32Array,
    opened: ReadonlySet<string>,
  ): Proposal {
    const prediction = this.predictions.of(worth.test.id, worth.test.ref);
    const titles = (g: number) => this.title(groups[g]!);
    const outcomes = outcomeMeanings(this.predictions, prediction, p, groupOf, groups.length, titles);
    const place = this.circuit.places.find((one) => one.id === worth.place);
    return {
      id: worth.test.id,
      ref: worth.test.ref,
      place: worth.place,
      lead: worth.lead,
      minutes: worth.minutes,
      gainBits: worth.gainBits,
      expected: outcomes.expected,
      why: explainProposal(outcomes.meanings, worth, place, place ? opened.has(place.id) : true),
      outcomes: outcomes.meanings,
    };
  }

  /** The card of any test the technician chooses, proposed or not; null when it is not permitted. */
  card(id: string, input: AssessmentInput): Proposal | null {
    const test = this.tests.find((one) => one.id === id);
    if (!test) return null;
    const { groups, groupOf } = this.groups(input.refused);
    const state = new EvidenceState(this.predictions);
    for (const reading of input.readings) {
      state.take(this.predictions.of(testId(reading.test), reading.test), reading);
    }
    const p = normalise(state.logWeight);
    const opened = new Set(input.opened);
    const minutes = new Map(this.circuit.places.map((place) => [place.id, place.minutesToOpen]));
    const [worth] = rankTests([{ test, prediction: this.predictions.of(test.id, test.ref) }], p, groupOf, {
      opened,
      minutesToOpen: (place) => minutes.get(place) ?? 0,
    });
    return worth ? this.proposal(worth, p, groups, groupOf, opened) : null;
  }
}

/** Two readings that share neither spot nor set-up, so that no one mistake spoils both. */
function independentPair(readings: readonly TakenReading[]): boolean {
  return readings.some((one, index) =>
    readings
      .slice(index + 1)
      .some((other) => spotOf(one.test) !== spotOf(other.test) && setUpOf(one.test) !== setUpOf(other.test)),
  );
}
