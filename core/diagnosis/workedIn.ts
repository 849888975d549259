/**
 * The readings of a job worked in one by one, carried on from one question to the next. Readings from before a repair
 * are judged on the circuit that had the mended fault as well.
 */
import type { TestRef } from '../format';
import { type CircuitModel, combineAlterations } from '../network';
import type { Complaint, PartStanding, ReadingEffect } from './assessment';
import { EpisodeCounter } from './evidence/episodes';
import { EvidenceState } from './evidence/evidence';
import { asFitted, type Fitted, fittedKey } from './evidence/fitted';
import { Left } from './evidence/left';
import { normalise } from './evidence/likelihood';
import { Predictions } from './evidence/predictions';
import type { TakenReading } from './evidence/readings';
import type { RepairGroup } from './evidence/repairGroup';
import type { Hypothesis } from './hypotheses/hypothesis';
import { byProbe, kindOf, testId } from './kinds';
import { CARRIES_AMPS } from './kinds/kind';
import { FLOWS, MOST_OF_ONE } from './thresholds';
import { type Contradiction, findContradiction } from './verdict/contradiction';
import { explainReading, type ReadingNews, readingSentence, SAYS_NOTHING } from './verdict/explainReading';
import type { Standings } from './verdict/standings';

/** What one reading did when it was taken in. */
interface WorkedEffect {
  readonly id: string;
  /** Null where its value says nothing about the circuit. */
  readonly news: ReadingNews | null;
  readonly episode: number;
  readonly clears: readonly string[];
  readonly unexpected: boolean;
}

/** What the readings worked in so far have come to. */
export interface Progress {
  readonly state: EvidenceState;
  readonly counter: EpisodeCounter;
  readonly taken: { readonly reading: TakenReading; readonly text: string; readonly episode: number }[];
  readonly effects: WorkedEffect[];
  readonly clearedBy: Map<string, string>;
  /** How far below the best each hypothesis lies, log-likelihood without priors, whichever one probe slipped. */
  readonly cumulative: Float64Array;
  /** No hypothesis explains all readings so far together. */
  contradicted: boolean;
  mended: Predictions | null;
  mendedKey: string;
  /** Parts that are mended since, as of the last reading. */
  mendedParts: readonly string[];
  /** Episode in which the complaint was last looked at. */
  askedIn: number;
}

export class WorkedIn {
  private readonly model: CircuitModel;
  private readonly hypotheses: readonly Hypothesis[];
  private progress: Progress | null = null;
  private readonly fitted = new Map<string, Predictions>();

  constructor(
    private readonly predictions: Predictions,
    private readonly standings: Standings,
    private readonly complaint: Complaint,
  ) {
    this.model = predictions.model;
    this.hypotheses = predictions.hypotheses;
  }

  /** The readings worked in, carried on from the last question where they begin alike. */
  upTo(readings: readonly TakenReading[]): Progress {
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

  /** What the readings leave, on the circuit as it is fitted. */
  left(state: EvidenceState, predictions = this.predictions, episode?: number): Left {
    return new Left(predictions, normalise(state.logWeight), (h) => state.presentNow(h, episode));
  }

  /** Whether current was seen to flow through a part: in a condition that was read, by what is left, or while tried. */
  wasLoaded({ taken }: Progress, left: Left): (part: string) => boolean {
    const conditions = new Set<string>();
    const ran: Float64Array[] = [];
    for (const { reading } of taken) {
      const { test, value } = reading;
      const tried = kindOf(test).tried?.(this.model, test);
      if (!('condition' in test)) continue;
      if (tried && 'state' in value && (value.state === 'works' || value.state === 'weak')) {
        ran.push(this.model.solve(test.condition, tried).amps);
      } else if (!kindOf(test).apart(test)) conditions.add(test.condition);
    }
    const { branchesOfPart } = this.model.network;
    return (part) =>
      [...conditions].some((condition) => left.flowsThrough(condition, part) >= FLOWS) ||
      ran.some((amps) =>
        (branchesOfPart.get(part) ?? []).some((index) => Math.abs(amps[index]!) > CARRIES_AMPS),
      );
  }

  /**
   * What the readings did, in the light of all of them: what is no longer cleared is not said to be, and a feed that was
   * read while nobody knew whether current flowed is told by what is known of that now.
   */
  effects(
    { effects, state }: Progress,
    parts: readonly PartStanding[],
    groups: readonly RepairGroup[],
  ): ReadingEffect[] {
    const lefts = new Map<number, Left>();
    const leftIn = (predictions: Predictions, episode: number) => {
      const known = lefts.get(episode);
      if (known && predictions === this.predictions) return known;
      const made = this.left(state, predictions, episode);
      if (predictions === this.predictions) lefts.set(episode, made);
      return made;
    };
    return effects.map(({ id, news, episode, clears, unexpected }) => {
      const still = clears.filter((part) => parts.some((one) => one.part === part && one.clearedBy === id));
      const words = news ? explainReading(news, leftIn(news.predictions, episode), groups) : SAYS_NOTHING;
      return { id, sentence: readingSentence(words, still, this.model), clears: still, unexpected };
    });
  }

  /** Which of the readings disagrees with the others; null where all of them are explained together. */
  contradiction({ taken, state }: Progress): Contradiction | null {
    const said = taken.map(({ reading }) => state.saidBy(reading.id));
    return findContradiction(this.hypotheses, said, state.evidence());
  }

  private begin(): Progress {
    return {
      state: new EvidenceState(this.predictions),
      counter: new EpisodeCounter(this.model, this.complaint),
      taken: [],
      effects: [],
      clearedBy: new Map(),
      cumulative: new Float64Array(this.hypotheses.length),
      contradicted: false,
      mended: null,
      mendedKey: '',
      mendedParts: [],
      askedIn: -1,
    };
  }

  private takeIn(progress: Progress, readings: readonly TakenReading[], index: number, text: string): void {
    const { state, counter, clearedBy, cumulative } = progress;
    const reading = readings[index]!;
    const predictions = this.predictionsFor(progress, readings, reading);
    const prediction = predictions.of(testId(reading.test), reading.test);
    const earlier = progress.taken.map((one) => one.reading);
    const renewed = progress.mendedParts.filter((part) => !reading.before?.includes(part));
    if (renewed.length > 0) state.renew(renewed);
    progress.mendedParts = reading.before ?? [];
    const episode = counter.next(reading);
    const before = normalise(state.logWeight);
    const expected = state.soundVolts(reading.test, prediction, predictions);
    const says = state.take(reading, episode, predictions);
    progress.taken.push({ reading, text, episode: episode.number });
    if (this.isComplaint(reading.test) && reading.sure?.tester !== false) progress.askedIn = episode.number;
    if (!says) {
      progress.effects.push({
        id: reading.id,
        news: null,
        episode: episode.number,
        clears: [],
        unexpected: false,
      });
      return;
    }
    const after = normalise(state.logWeight);
    this.belowBest(progress);
    const left = this.left(state, predictions);
    const loaded = this.wasLoaded(progress, left);
    const clears = this.standings
      .clearedParts(cumulative, after, loaded)
      .filter((part) => !clearedBy.has(part));
    for (const part of clears) clearedBy.set(part, reading.id);
    const contradicted = this.contradiction(progress) !== null;
    // The first reading that leaves no explanation is the odd one; later ones are judged against the rest.
    const unexpected = contradicted && !progress.contradicted;
    progress.contradicted = contradicted;
    const news = { predictions, reading, earlier, expected, before, after, unexpected };
    progress.effects.push({ id: reading.id, news, episode: episode.number, clears, unexpected });
  }

  /**
   * One probe in a hundred slips, and what it cleared was never cleared: every hypothesis is judged with the reading of
   * an instrument left out that speaks most against it.
   */
  private belowBest({ state, taken, cumulative }: Progress): void {
    const count = cumulative.length;
    const total = state.evidence();
    // A look clears nothing: it says what is seen, not what carries current.
    for (const { reading } of taken) {
      const look = reading.test.kind === 'look' ? state.logOf(reading.id) : null;
      if (look) for (let h = 0; h < count; h++) total[h] = total[h]! - look[h]!;
    }
    let best = Number.NEGATIVE_INFINITY;
    for (const sum of total) best = Math.max(best, sum);
    for (let h = 0; h < count; h++) cumulative[h] = total[h]! - best;
    // The others are out of reach, whichever reading is left out.
    const inReach = [...total.keys()].filter((h) => cumulative[h]! >= -2 * MOST_OF_ONE);
    for (const { reading } of taken) {
      const log = byProbe(reading.test) ? state.logOf(reading.id) : null;
      if (!log) continue;
      let without = Number.NEGATIVE_INFINITY;
      for (const h of inReach) without = Math.max(without, total[h]! - log[h]!);
      for (const h of inReach) cumulative[h] = Math.max(cumulative[h]!, total[h]! - log[h]! - without);
    }
  }

  /** Readings from before a repair were taken on a circuit that had the mended fault as well. */
  private predictionsFor(
    progress: Progress,
    readings: readonly TakenReading[],
    { before: parts, fitted }: TakenReading,
  ): Predictions {
    const asFittedThen = this.under(fitted);
    if (!parts || parts.length === 0) return asFittedThen;
    const before = parts.join(' ');
    const key = `${before} ${fittedKey(fitted)}`;
    if (progress.mendedKey !== key) {
      progress.mendedKey = key;
      progress.mended = this.withFault(asFittedThen.hypotheses, this.mendedFault(readings, before, parts));
    }
    return progress.mended ?? asFittedThen;
  }

  /** What is predicted of the circuit with its parts where they stand. */
  under(fitted: Fitted | undefined): Predictions {
    const key = fittedKey(fitted);
    if (!fitted || key === '') return this.predictions;
    const known = this.fitted.get(key);
    if (known) return known;
    const made = new Predictions(this.model, asFitted(this.model, this.hypotheses, fitted));
    this.fitted.set(key, made);
    return made;
  }

  /** The predictions with a fault that has been mended since. */
  private withFault(others: readonly Hypothesis[], mended: Hypothesis | null): Predictions | null {
    const alteration = mended?.alteration;
    if (!mended || !alteration) return null;
    const hypotheses = others.map(
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

  private isComplaint(test: TestRef): boolean {
    return (
      test.kind === 'function' &&
      test.function === this.complaint.function &&
      test.condition === this.complaint.condition
    );
  }
}
