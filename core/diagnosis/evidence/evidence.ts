/**
 * How well each hypothesis explains the readings. The supply, every resistance and the size of the fault itself
 * are unknown but the same for all readings of a job: under a hypothesis all volts read so far have one joint
 * normal distribution (J Σ Jᵀ plus the meter's own error), and each reading is judged given the others. A reading
 * may be simply wrong; then it says nothing and joins nothing.
 *
 * Readings belong to episodes. A fault that comes and goes is present or absent, as one hidden state, in each.
 * Within an episode the order of readings does not matter: they are taken in the order of their names, of a long job in
 * blocks, so that what earlier blocks have come to is settled and a reading costs no more than the first ones did.
 */

import type { TestRef } from '../../format';
import { voltmeterError } from '../../limits';
import { kindOf, testId } from '../kinds';
import type { Chain } from './chain';
import { type BothWays, ComesAndGoes, Settled } from './comesAndGoes';
import { floatedBefore, lastInCondition, lastOutcome, sameReading, shownBefore } from './earlier';
import { again, hanging } from './hanging';
import { isVolts, type JudgedReading, voltsOf } from './judgedReading';
import { Learned, movesOf } from './learned';
import { density } from './likelihood';
import type { Predictions } from './predictions';
import { type Episode, type TakenReading, wrongChance } from './readings';
import { unknownCount } from './sensitivity';
import type { TestPrediction } from './testPrediction';
import { FLOATS, JOINED, UNKNOWN, VoltsPrediction } from './voltsPrediction';

/** Range over which a wrong or floating volts reading may lie, as multiples of the supply. */
const WRONG_SPAN = 1.3;
/** A part that was just renewed is at fault again so much more rarely. */
const RENEWED = 0.2;
/** Hypotheses so much less likely than the best (log) are judged without their tolerances; nobody could tell. */
const FOLLOWED_WITHIN = 16;
/** What nobody drew shows about the same when it is asked again. */
const REPEATS = 0.8;
/** Share of readings near nothing where the map knows nothing. */
const UNKNOWN_NOTHING = 0.3;

/** Entries of a block: a job seldom has more. */
const BLOCK = 24;

/** What a hypothesis makes of one entry. */
interface Judged {
  readonly log: number;
  readonly stand: number;
  readonly joins: boolean;
}

export class EvidenceState {
  readonly logWeight: Float64Array;
  /** Log of the chances before any reading. */
  private readonly prior: Float64Array;
  /** In canonical order. */
  private readonly entries: JudgedReading[] = [];
  private readonly goes: ComesAndGoes;
  private readonly byId = new Map<string, JudgedReading>();
  /** What each hypothesis has learned from all entries; made when first asked for. */
  private chains: Chain[] = [];
  private readonly learned: Learned;
  private readonly soundRow: number;
  private readonly onMap: readonly number[];
  /** Where the block that is filled now begins; nothing before it is judged again but when parts are renewed. */
  private begun = 0;
  /** What the entries before the block have come to, by hypothesis that stays. */
  private readonly settled: Float64Array;
  /** The same for faults that come and go: judged as the lasting fault was, and followed on their own. */
  private plainly = new Settled(0);
  private followed = new Settled(0);
  private readonly wasFollowed = new Set<number>();

  constructor(
    private readonly predictions: Predictions,
    private readonly blockLength = BLOCK,
  ) {
    const { hypotheses, model, sound } = predictions;
    this.prior = Float64Array.from(hypotheses, (one) => Math.log(one.prior));
    this.logWeight = this.prior.slice();
    this.learned = new Learned(this.entries, unknownCount(model));
    this.soundRow = sound;
    this.onMap = [...hypotheses.keys()].filter((h) => hypotheses[h]!.alteration !== null);
    this.settled = new Float64Array(hypotheses.length);
    this.goes = new ComesAndGoes(hypotheses, this.entries);
  }

  /** Parts were renewed or mended since: they may be at fault again, but hardly. */
  renew(parts: readonly string[]): void {
    this.predictions.hypotheses.forEach((one, h) => {
      if (one.parts.some((part) => parts.includes(part))) this.prior[h] = this.prior[h]! + Math.log(RENEWED);
    });
    this.beginBlock(0);
    this.judge(0);
    this.judgeLoose(0);
  }

  /** A block begins: what was judged before it is settled. */
  private beginBlock(at: number): void {
    const { begun, entries, settled } = this;
    if (at < begun) settled.fill(0);
    for (let index = begun; index < at; index++) {
      const { log } = entries[index]!;
      for (let h = 0; h < settled.length; h++) settled[h] = settled[h]! + log[h]!;
    }
    this.learned.beginBlock(at);
    this.begun = at;
    this.plainly = new Settled(at);
    this.followed = new Settled(at);
  }

  /** What the readings say of each hypothesis, its chance before them left out. */
  evidence(): Float64Array {
    return this.logWeight.map((weight, h) => weight - this.prior[h]!);
  }

  /** Log-likelihood of a reading under each hypothesis, given the rest; null where it says nothing. */
  logOf(id: string): Float64Array | null {
    return this.saidBy(id)?.log ?? null;
  }

  /** The same with the best of it; null where it says nothing. */
  saidBy(id: string): JudgedReading | null {
    return this.byId.get(id) ?? null;
  }

  /**
   * Takes a reading in; `predictions` are those of the circuit as it was then. Gives false when its value says
   * nothing about the circuit.
   */
  take(reading: TakenReading, { number, freed }: Episode, predictions = this.predictions): boolean {
    this.goes.begin(number, freed);
    const episode = number;
    const id = testId(reading.test);
    const prediction = predictions.of(id, reading.test);
    const volts = prediction.volts && 'volts' in reading.value;
    const comesAndGoes = 'state' in reading.value && reading.value.state === 'comes-and-goes';
    const outcome =
      volts || comesAndGoes
        ? -1
        : kindOf(reading.test).outcome(predictions.model, reading.test, reading.value);
    if (outcome === null) return false;
    const count = this.logWeight.length;
    const held = this.entries.length;
    const block = Math.floor(held / this.blockLength);
    const entry: JudgedReading = {
      id,
      reading,
      prediction,
      episode,
      from: predictions,
      key: `${String(episode).padStart(6, '0')} ${String(block).padStart(4, '0')} ${id} ${JSON.stringify(reading.value)}`,
      wrong: wrongChance(reading.sure),
      outcome,
      log: new Float64Array(count),
      peak: 0,
      joins: new Uint8Array(count),
      stand: new Float64Array(count),
      present: new Float64Array(count),
      absent: new Float64Array(count),
    };
    let at = held;
    while (at > 0 && this.entries[at - 1]!.key > entry.key) at--;
    if (at < this.begun) this.beginBlock(0);
    else if (held > 0 && held % this.blockLength === 0) this.beginBlock(held);
    this.entries.splice(at, 0, entry);
    this.byId.set(reading.id, entry);
    this.chains = [];
    this.judge(at);
    this.judgeLoose(at);
    return true;
  }

  /**
   * Judges the entries from one place on, under every hypothesis. Everything leans on earlier entries alone, so
   * that the result is the same in whatever order they were taken in.
   */
  private judge(from: number): void {
    const { hypotheses } = this.predictions;
    const { entries } = this;
    const before = this.settledWeight();
    for (let index = this.begun; index < from; index++) {
      for (let h = 0; h < before.length; h++) before[h] = before[h]! + entries[index]!.log[h]!;
    }
    const chains: (Chain | undefined)[] = [];
    for (let index = from; index < entries.length; index++) {
      const entry = entries[index]!;
      let best = Number.NEGATIVE_INFINITY;
      for (let h = 0; h < before.length; h++) {
        if (hypotheses[h]!.lasting === null && before[h]! > best) best = before[h]!;
      }
      const sameCondition = lastInCondition(entries, index);
      const asVolts = isVolts(entry);
      for (let h = 0; h < before.length; h++) {
        if (hypotheses[h]!.lasting !== null) continue;
        const stand = sameCondition ? sameCondition.stand[h]! : this.swayOf(entry, h);
        let judged: Judged;
        if (!asVolts) judged = this.stateLog(index, h, stand);
        else {
          const followed = before[h]! >= best - FOLLOWED_WITHIN;
          if (followed) chains[h] ??= this.learned.until(h, index);
          judged = this.voltsLog(index, h, followed ? chains[h]! : null, stand);
        }
        entry.log[h] = judged.log;
        entry.stand[h] = judged.stand;
        entry.joins[h] = judged.joins ? 1 : 0;
        before[h] = before[h]! + judged.log;
      }
    }
  }

  /** Log weights of the hypotheses that stay, by what came before the block. */
  private settledWeight(): Float64Array {
    return this.prior.map((prior, h) => prior + this.settled[h]!);
  }

  private swayOf({ reading: { test }, from }: JudgedReading, h: number): number {
    return 'condition' in test ? from.swayChance(h, test.condition) : 0;
  }

  /** A volts reading under a hypothesis; the chain is null where its tolerances are not followed. */
  private voltsLog(index: number, h: number, chain: Chain | null, stand: number): Judged {
    const entry = this.entries[index]!;
    const volts = voltsOf(entry);
    const { mean, spread, supply, floating, otherMean } = entry.prediction.volts!;
    const flat = 1 / (WRONG_SPAN * entry.from.model.emfVolts);
    const wrongDensity = 0.6 * density(volts, 0, 0.05) + 0.4 * flat;
    const { wrong } = entry;
    if (floating[h] === UNKNOWN) {
      const fresh = UNKNOWN_NOTHING * density(volts, 0, 0.15) + (1 - UNKNOWN_NOTHING) * flat;
      const before = sameReading(this.entries, index);
      const right = before === null ? fresh : REPEATS * density(volts, before, 0.15) + (1 - REPEATS) * fresh;
      return { log: Math.log(right), stand, joins: false };
    }
    if (floating[h] === FLOATS) {
      const { test } = entry.reading;
      const shown = chain && test.kind === 'volts' ? entry.from.shownHanging(entry.id, test, h) : mean[h]!;
      const fresh = hanging(volts, shown, entry.from.model.emfVolts, flat);
      const before = floatedBefore(this.entries, index, h);
      const right = before === null ? fresh : again(before, volts, fresh);
      return { log: Math.log((1 - wrong) * right + wrong * wrongDensity), stand, joins: false };
    }
    const moves = chain ? movesOf(entry, h) : null;
    const known = chain && moves ? chain.expect(moves, mean[h]!) : null;
    const plain = Math.hypot(spread[h]!, mean[h]! * supply[h]!);
    const deviation = known?.deviation ?? plain;
    const likely = (right: number) => (1 - wrong) * right + wrong * wrongDensity;
    const right = density(volts, known?.expected ?? mean[h]!, deviation);
    const main = likely(right);
    const other = stand > 0 ? likely(density(volts, otherMean[h]!, Math.max(deviation, plain))) : main;
    const { total, stand: now } = mix(stand, main, other);
    // Only a reading that is believed, and that stands as predicted, teaches anything about the tolerances.
    const joins = moves !== null && ((1 - stand) * (1 - wrong) * right) / total > 0.5;
    if (chain && moves && joins) chain.join(moves, mean[h]!, volts);
    return { log: Math.log(total), stand: now, joins };
  }

  /**
   * Chances of a volts test for the next reading, by hypothesis: what the readings so far have taught of supply and
   * resistances moves what each expects and narrows it. The chances of before where nothing was learned. `rows` are
   * the hypotheses that matter, `predictions` those of the circuit as it is fitted now.
   */
  given(
    ref: TestRef,
    prediction: TestPrediction,
    rows: Int32Array,
    predictions = this.predictions,
  ): Float32Array {
    if (ref.kind !== 'volts' || !(prediction instanceof VoltsPrediction)) return prediction.chances;
    const id = testId(ref);
    const { mean, floating, otherChance } = prediction.volts;
    return prediction.given(rows, (row) => {
      const h = predictions.hypotheses[row]!.lasting ?? row;
      if (floating[h] === FLOATS) {
        const before = shownBefore(this.entries, ref, this.entries.length, h);
        return before === null ? null : { expected: before, deviation: voltmeterError(before) };
      }
      if (floating[h] !== JOINED || otherChance[h]! > 0) return null;
      const moves = predictions.sensitivity(id, ref, h);
      if (!moves) return null;
      this.chains[h] ??= this.learned.until(h, this.entries.length);
      return this.chains[h].isEmpty ? null : this.chains[h].expect(moves, mean[h]!);
    });
  }

  /** Volts that a sound circuit would show next, after what was read; null where they float. */
  soundVolts(ref: TestRef, prediction: TestPrediction, predictions = this.predictions) {
    const { volts } = prediction;
    const h = this.soundRow;
    if (!volts || ref.kind !== 'volts' || volts.floating[h] !== JOINED) return null;
    const mean = volts.mean[h]!;
    const moves = predictions.sensitivity(testId(ref), ref, h);
    const known = moves ? this.learned.until(h, this.entries.length).expect(moves, mean) : null;
    const plain = Math.hypot(volts.spread[h]!, mean * volts.supply[h]!);
    return { volts: known?.expected ?? mean, deviation: known?.deviation ?? plain };
  }

  /**
   * A result given the same test's earlier results in this episode: repeating it finds out whether the reading was
   * wrong, and nothing more about the circuit.
   */
  private stateLog(index: number, h: number, stand: number): Judged {
    const entry = this.entries[index]!;
    if (entry.outcome < 0) {
      // It comes and goes: hardly a fault that stays, unless something loose.
      const { faults, alteration } = entry.from.hypotheses[h]!;
      const loose = faults.some(({ mode }) => mode === 'high-resistance' || mode.startsWith('contact'));
      return { log: Math.log(loose || alteration === null ? 0.25 : 0.06), stand, joins: false };
    }
    const { clean, swayed, outcomes } = entry.prediction;
    const unmapped = entry.from.hypotheses[h]!.alteration === null;
    const before = unmapped ? lastOutcome(this.entries, index) : null;
    if (before !== null) {
      // What nobody drew, and stays, shows the same thing again; that it comes and goes besides is rarer still.
      const same = before === entry.outcome;
      return { log: Math.log(same ? REPEATS : (1 - REPEATS) / outcomes), stand, joins: false };
    }
    const main = this.stateLikelihood(index, h, clean);
    const other = swayed && stand > 0 ? this.stateLikelihood(index, h, swayed) : main;
    const { total, stand: now } = mix(stand, main, other);
    return { log: Math.log(Math.max(total, 1e-12)), stand: now, joins: false };
  }

  private stateLikelihood(index: number, h: number, clean: Float32Array): number {
    const { id, prediction, outcome, episode, wrong } = this.entries[index]!;
    const { outcomes } = prediction;
    const weights = clean.slice(h * outcomes, (h + 1) * outcomes);
    let before = 0;
    for (let k = 0; k < outcomes; k++) before += weights[k]!;
    for (let at = index - 1; at >= 0; at--) {
      const earlier = this.entries[at]!;
      if (earlier.episode !== episode || earlier.id !== id) break;
      if (earlier.outcome < 0) continue;
      before = 0;
      for (let k = 0; k < outcomes; k++) {
        weights[k] =
          weights[k]! * ((earlier.outcome === k ? 1 - earlier.wrong : 0) + earlier.wrong / outcomes);
        before += weights[k]!;
      }
    }
    let now = 0;
    for (let k = 0; k < outcomes; k++) {
      now += weights[k]! * ((outcome === k ? 1 - wrong : 0) + wrong / outcomes);
    }
    return now / Math.max(before, 1e-12);
  }

  /** Judges the entries from one place on under the faults that come and go, and sums everything up. */
  private judgeLoose(from: number): void {
    const { hypotheses } = this.predictions;
    const { entries, logWeight } = this;
    logWeight.set(this.settledWeight());
    for (let index = this.begun; index < entries.length; index++) {
      const { log } = entries[index]!;
      for (let h = 0; h < logWeight.length; h++) logWeight[h] = logWeight[h]! + log[h]!;
    }
    const loose = [...hypotheses.keys()].filter((h) => hypotheses[h]!.lasting !== null);
    const plain = {
      present: ({ log }: JudgedReading, h: number) => log[hypotheses[h]!.lasting!]!,
      absent: ({ log }: JudgedReading) => log[this.soundRow]!,
    };
    for (const h of loose) logWeight[h] = this.goes.weigh(h, this.prior[h]!, plain, this.plainly);
    let rewritten = from;
    let best = Number.NEGATIVE_INFINITY;
    for (const value of logWeight) if (value > best) best = value;
    for (const h of loose) {
      const stretches = logWeight[h]! >= best - FOLLOWED_WITHIN ? this.goes.stretches(h) : [];
      const was = this.wasFollowed.has(h);
      // In one stretch alone the lasting fault and the sound circuit have been judged so already.
      if (stretches.length >= 2) {
        this.followLoose(h, stretches);
        this.wasFollowed.add(h);
        rewritten = 0;
        logWeight[h] = this.goes.weigh(h, this.prior[h]!, AS_WRITTEN, this.followed);
        continue;
      }
      for (let index = was ? 0 : from; index < entries.length; index++) {
        const entry = entries[index]!;
        entry.present[h] = plain.present(entry, h);
        entry.absent[h] = plain.absent(entry);
      }
      if (!was) continue;
      this.wasFollowed.delete(h);
      this.plainly.forget(h);
      this.followed.forget(h);
      this.goes.weigh(h, this.prior[h]!, plain, this.plainly);
      rewritten = 0;
    }
    for (let index = rewritten; index < entries.length; index++) {
      const entry = entries[index]!;
      entry.peak = Number.NEGATIVE_INFINITY;
      for (const h of this.onMap) if (entry.log[h]! > entry.peak) entry.peak = entry.log[h]!;
    }
  }

  /**
   * Each stretch as if the fault were there and as if it were away, the tolerances learned from whichever fits better.
   */
  private followLoose(h: number, stretches: readonly (readonly [number, number])[]): void {
    const lasting = this.predictions.hypotheses[h]!.lasting!;
    let chain = this.learned.nothing();
    for (const [from, until] of stretches) {
      const there = chain.copy();
      const away = chain.copy();
      let thereSum = 0;
      let awaySum = 0;
      for (let index = from; index < until; index++) {
        const entry = this.entries[index]!;
        if (isVolts(entry)) {
          entry.present[h] = this.voltsLog(index, lasting, there, 0).log;
          entry.absent[h] = this.voltsLog(index, this.soundRow, away, 0).log;
        } else {
          entry.present[h] = entry.log[lasting]!;
          entry.absent[h] = entry.log[this.soundRow]!;
        }
        thereSum += entry.present[h]!;
        awaySum += entry.absent[h]!;
      }
      chain = thereSum >= awaySum ? there : away;
    }
  }

  /** Chance that a fault that comes and goes is there now, or was in an episode. */
  presentNow(h: number, episode?: number): number {
    return this.goes.present(h, episode);
  }
}

/** What was written down of an entry. */
const AS_WRITTEN: BothWays = {
  present: (entry, h) => entry.present[h]!,
  absent: (entry, h) => entry.absent[h]!,
};

/** Likelihood of a result whichever way a contact stands, and what the result says of that. */
function mix(chance: number, main: number, other: number): { total: number; stand: number } {
  if (chance === 0) return { total: main, stand: 0 };
  const total = (1 - chance) * main + chance * other;
  return { total, stand: (chance * other) / total };
}
