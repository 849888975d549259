/**
 * How well each hypothesis explains the readings. The supply, every resistance and the size of the fault itself
 * are unknown but the same for all readings of a job: under a hypothesis all volts read so far have one joint
 * normal distribution (J Σ Jᵀ plus the meter's own error), and each reading is judged given the others. A reading
 * may be simply wrong; then it says nothing and joins nothing.
 *
 * Readings belong to episodes. A fault that comes and goes is present or absent, as one hidden state, in each.
 * Within an episode the order of readings does not matter: they are taken in the order of their names.
 */
import type { Preconditions, Reading } from '../format/readingsSchema';
import { voltmeterError } from '../instruments/instruments';
import { kindOf, testId } from './kinds';
import {
  EMF_SPREAD,
  FLOATING,
  FLOATS,
  JOINED,
  type Predictions,
  type Sensitivity,
  type TestPrediction,
  UNKNOWN,
  WRONG_READING,
} from './predictions';

export interface TakenReading extends Reading {
  readonly id: string;
}

/** Nothing was made sure of: a reported complaint, for instance. */
export const UNSURE: Preconditions = { tester: false, reference: false, setUp: true };

/** What each missing precondition adds to the chance that a reading is simply wrong. */
const UNPROVED = { tester: 0.05, reference: 0.05, setUp: 0.1 } as const;
/** Range over which a wrong or floating volts reading may lie, as multiples of the supply. */
const WRONG_SPAN = 1.3;
/** Chance that a fault that comes and goes is there in an episode. */
const PRESENT = 0.5;
/** Hypotheses so much less likely than the best (log) are judged without their tolerances; nobody could tell. */
const LIVE = 16;
/** A floating point, or one the map knows nothing of, shows about the same when it is asked again. */
const REPEATS = 0.8;
/** Share of readings near nothing where the map knows nothing. */
const UNKNOWN_NOTHING = 0.3;

/** Chance that a reading is wrong, from what was made sure of before it. */
export function wrongChance(sure: Preconditions | undefined): number {
  if (!sure) return WRONG_READING;
  return (
    WRONG_READING +
    (sure.tester ? 0 : UNPROVED.tester) +
    (sure.reference ? 0 : UNPROVED.reference) +
    (sure.setUp ? 0 : UNPROVED.setUp)
  );
}

/** A stretch in which what comes and goes stays as it is. */
export interface Episode {
  readonly number: number;
  /** Parts whose state was left open again when it began; null for all. */
  readonly freed: ReadonlySet<string> | null;
}

/** One reading as the state keeps it. */
interface Entry {
  readonly reading: TakenReading;
  readonly prediction: TestPrediction;
  readonly episode: number;
  /** What predicts it: the circuit of now, or as it was before parts were mended. */
  readonly from: Predictions;
  /** Canonical place: episode, then name, then value. */
  readonly key: string;
  readonly wrong: number;
  /** Result of a test of states; -1 where it is volts, or comes and goes. */
  readonly outcome: number;
  /** Log-likelihood by hypothesis, given the entries before it. */
  readonly log: Float64Array;
  /** Whether a hypothesis takes a volts reading for right, and so learns from it. */
  readonly joins: Uint8Array;
  /** For faults that come and go: log-likelihood while there and while away, given the entries before. */
  readonly present: Float64Array;
  readonly absent: Float64Array;
}

/** By condition, the chance that a contact near its threshold stands the other way than predicted. */
type Stand = Map<string, number>;

/** Rows of the Cholesky factor of the joint covariance of the volts that a hypothesis has taken in. */
interface Chain {
  readonly moves: Sensitivity[];
  readonly rows: Float64Array[];
  readonly whitened: number[];
}

export class EvidenceState {
  readonly logWeight: Float64Array;
  /** Parts whose state was left open again when an episode began; null for all. */
  private readonly freed: (ReadonlySet<string> | null)[] = [];
  /** In canonical order. */
  private readonly entries: Entry[] = [];
  private readonly byId = new Map<string, Entry>();
  private readonly scratch: Float64Array;
  private readonly soundRow: number;

  constructor(private readonly predictions: Predictions) {
    const { hypotheses, model, sound } = predictions;
    this.logWeight = Float64Array.from(hypotheses, (one) => Math.log(one.prior));
    this.scratch = new Float64Array(model.network.branches.length + 1);
    this.soundRow = sound;
  }

  /** Log-likelihood of a reading under each hypothesis, given the rest; null where it says nothing. */
  logOf(id: string): Float64Array | null {
    return this.byId.get(id)?.log ?? null;
  }

  /**
   * Takes a reading in; `predictions` are those of the circuit as it was then. Gives false when its value says
   * nothing about the circuit.
   */
  take(reading: TakenReading, { number, freed }: Episode, predictions = this.predictions): boolean {
    this.freed[number] = freed;
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
    const entry: Entry = {
      reading,
      prediction,
      episode,
      from: predictions,
      key: `${String(episode).padStart(6, '0')} ${id} ${JSON.stringify(reading.value)}`,
      wrong: wrongChance(reading.sure),
      outcome,
      log: new Float64Array(count),
      joins: new Uint8Array(count),
      present: new Float64Array(count),
      absent: new Float64Array(count),
    };
    let at = this.entries.length;
    while (at > 0 && this.entries[at - 1]!.key > entry.key) at--;
    this.entries.splice(at, 0, entry);
    this.byId.set(reading.id, entry);
    this.judge(at);
    this.weigh();
    return true;
  }

  /** Judges the entries from one place on, under every hypothesis. */
  private judge(from: number): void {
    const { hypotheses } = this.predictions;
    const firstVolts = this.entries.findIndex((one, index) => index >= from && one.outcome < 0);
    // States do not lean on volts: where none follow, nothing but the new entry changes.
    const until = firstVolts < 0 ? this.sameTestUntil(from) : this.entries.length;
    const live = this.liveFloor();
    const sways = this.entries.some((one) => one.prediction.swayed ?? one.prediction.volts?.anySway);
    for (let h = 0; h < hypotheses.length; h++) {
      if (hypotheses[h]!.lasting !== null) continue;
      const stand: Stand = new Map();
      // Where a contact may stand either way, what was read before says how it does.
      const start = sways && this.entries.some((one) => this.swayOf(one, h) > 0) ? 0 : from;
      const end = start < from ? this.entries.length : until;
      const chain = this.chainUntil(h, start, end, live);
      for (let index = start; index < end; index++) {
        const entry = this.entries[index]!;
        entry.log[h] =
          entry.outcome >= 0
            ? this.stateLog(index, h, stand)
            : this.voltsOrReport(index, h, chain, live, stand, true);
      }
    }
    for (let h = 0; h < hypotheses.length; h++) {
      if (hypotheses[h]!.lasting !== null) this.judgeLoose(h, live);
    }
  }

  /**
   * Judges all entries under a fault that comes and goes: each stretch as if it were there and as if it were away,
   * learning the tolerances from whichever fits better.
   */
  private judgeLoose(h: number, floor: number): void {
    const lasting = this.predictions.hypotheses[h]!.lasting!;
    const { entries, soundRow } = this;
    const stretches = this.stretchesOf(h);
    const plain = stretches.length < 2 || this.logWeight[h]! < floor;
    let chain: Chain = { moves: [], rows: [], whitened: [] };
    for (const [from, until] of stretches) {
      const there = { ...copyOf(chain), sum: 0 };
      const away = { ...copyOf(chain), sum: 0 };
      for (let index = from; index < until; index++) {
        const entry = entries[index]!;
        const alone = plain || entry.outcome >= 0 || !('volts' in entry.reading.value);
        entry.present[h] = alone
          ? entry.log[lasting]!
          : this.voltsOrReport(index, lasting, there, floor, new Map(), false);
        entry.absent[h] = alone
          ? entry.log[soundRow]!
          : this.voltsOrReport(index, soundRow, away, floor, new Map(), false);
        there.sum += entry.present[h]!;
        away.sum += entry.absent[h]!;
      }
      chain = there.sum >= away.sum ? there : away;
    }
  }

  /** Entries in stretches in which a fault that comes and goes could not change: from, until. */
  private stretchesOf(h: number): (readonly [number, number])[] {
    const stretches: [number, number][] = [];
    this.entries.forEach(({ episode }, index) => {
      const before = this.entries[index - 1]?.episode ?? episode;
      const last = stretches[stretches.length - 1];
      if (!last || (episode !== before && this.freesBetween(h, before, episode))) {
        stretches.push([index, index + 1]);
      } else last[1] = index + 1;
    });
    return stretches;
  }

  private swayOf({ reading: { test }, from }: Entry, h: number): number {
    return 'condition' in test ? from.swayChance(h, test.condition) : 0;
  }

  /** Likelihood of a result whichever way a contact stands, and what the result says of that. */
  private mix(stand: Stand, entry: Entry, h: number, main: number, other: number): number {
    const { test } = entry.reading;
    const condition = 'condition' in test ? test.condition : '';
    const chance = stand.get(condition) ?? this.swayOf(entry, h);
    if (chance === 0) return main;
    const total = (1 - chance) * main + chance * other;
    stand.set(condition, (chance * other) / total);
    return total;
  }

  /** The end of the entries that a new entry of states changes: repeats of its own test in its episode. */
  private sameTestUntil(from: number): number {
    const id = testId(this.entries[from]!.reading.test);
    let until = from + 1;
    while (until < this.entries.length && testId(this.entries[until]!.reading.test) === id) until++;
    return until;
  }

  private liveFloor(): number {
    let best = Number.NEGATIVE_INFINITY;
    for (const value of this.logWeight) if (value > best) best = value;
    return best - LIVE;
  }

  /** What a hypothesis has learned of the tolerances from the volts before a place. */
  private chainUntil(h: number, from: number, until: number, floor: number): Chain {
    const chain: Chain = { moves: [], rows: [], whitened: [] };
    const needed = this.entries.slice(from, until).some((one) => one.outcome < 0);
    if (!needed || this.logWeight[h]! < floor) return chain;
    for (let index = 0; index < from; index++) {
      const entry = this.entries[index]!;
      if (entry.outcome >= 0 || entry.joins[h] === 0) continue;
      const moves = this.moves(entry, h);
      if (moves) this.conditioned(chain, moves, entry, h, true);
    }
    return chain;
  }

  private moves({ reading: { test }, from }: Entry, h: number): Sensitivity | null {
    if (test.kind !== 'volts') return null;
    return from.sensitivity(testId(test), test, h);
  }

  /** Mean and variance of a reading given the chain; with `join` it becomes a link of it. */
  private conditioned(chain: Chain, moves: Sensitivity, entry: Entry, h: number, join: boolean) {
    const { mean } = entry.prediction.volts!;
    const read = 'volts' in entry.reading.value ? entry.reading.value.volts : 0;
    const { scratch } = this;
    let own = 0;
    for (let i = 0; i < moves.index.length; i++) {
      scratch[moves.index[i]!] = moves.volts[i]!;
      own += moves.volts[i]! ** 2;
    }
    const row = new Float64Array(chain.rows.length + 1);
    let shift = 0;
    let explained = 0;
    for (let r = 0; r < chain.rows.length; r++) {
      const other = chain.moves[r]!;
      let covariance = 0;
      for (let i = 0; i < other.index.length; i++) covariance += other.volts[i]! * scratch[other.index[i]!]!;
      const below = chain.rows[r]!;
      for (let c = 0; c < r; c++) covariance -= row[c]! * below[c]!;
      row[r] = covariance / below[r]!;
      shift += row[r]! * chain.whitened[r]!;
      explained += row[r]! ** 2;
    }
    for (const index of moves.index) scratch[index] = 0;
    const variance = Math.max(1e-9, own - explained) + voltmeterError(mean[h]!) ** 2;
    const deviation = Math.sqrt(variance);
    const expected = mean[h]! + shift;
    if (join) {
      row[chain.rows.length] = deviation;
      chain.rows.push(row);
      chain.moves.push(moves);
      chain.whitened.push((read - expected) / deviation);
    }
    return { expected, deviation };
  }

  private voltsOrReport(
    index: number,
    h: number,
    chain: Chain,
    floor: number,
    stand: Stand,
    note: boolean,
  ): number {
    const entry = this.entries[index]!;
    const { value } = entry.reading;
    const predictions = entry.from;
    if (!('volts' in value)) {
      // It comes and goes: hardly a fault that stays, unless something loose.
      const loose = predictions.hypotheses[h]!.faults.some(
        ({ mode }) => mode === 'high-resistance' || mode.startsWith('contact'),
      );
      return Math.log(loose || predictions.hypotheses[h]!.alteration === null ? 0.25 : 0.06);
    }
    const { volts } = value;
    const { mean, spread, floating, otherMean } = entry.prediction.volts!;
    const emf = predictions.model.emfVolts;
    const flat = 1 / (WRONG_SPAN * emf);
    const wrongDensity = 0.6 * density(volts, 0, 0.05) + 0.4 * flat;
    const { wrong } = entry;
    if (floating[h] !== JOINED) {
      const before = this.sameReading(index);
      const fresh =
        floating[h] === FLOATS
          ? FLOATING.nothing * density(volts, mean[h]!, FLOATING.nothingSpread) +
            FLOATING.little * density(volts, mean[h]!, FLOATING.littleSpread) +
            FLOATING.anything * flat
          : UNKNOWN_NOTHING * density(volts, 0, 0.15) + (1 - UNKNOWN_NOTHING) * flat;
      const right = before === null ? fresh : REPEATS * density(volts, before, 0.15) + (1 - REPEATS) * fresh;
      return Math.log(floating[h] === UNKNOWN ? right : (1 - wrong) * right + wrong * wrongDensity);
    }
    // A row asked on behalf of another hypothesis is followed whatever its own chance.
    const moves = note && this.logWeight[h]! < floor ? null : this.moves(entry, h);
    const known = moves ? this.conditioned(chain, moves, entry, h, false) : null;
    const plain = Math.hypot(spread[h]!, mean[h]! * EMF_SPREAD);
    const deviation = known?.deviation ?? plain;
    const main = density(volts, known?.expected ?? mean[h]!, deviation);
    const likely = (right: number) => (1 - wrong) * right + wrong * wrongDensity;
    const other = likely(density(volts, otherMean[h]!, Math.max(deviation, plain)));
    const total = this.mix(stand, entry, h, likely(main), other);
    // Only a reading that is believed, and that stands as predicted, teaches anything about the tolerances.
    const believed = ((1 - wrong) * main) / total > 0.5;
    if (note) entry.joins[h] = believed ? 1 : 0;
    if (moves && believed) this.conditioned(chain, moves, entry, h, true);
    return Math.log(total);
  }

  /** What the same point showed before in the same set-up of this episode; null at the first time. */
  private sameReading(index: number): number | null {
    const { reading, episode } = this.entries[index]!;
    const id = testId(reading.test);
    const earlier = this.entries[index - 1];
    if (!earlier || earlier.episode !== episode || testId(earlier.reading.test) !== id) return null;
    return 'volts' in earlier.reading.value ? earlier.reading.value.volts : null;
  }

  /**
   * A result given the same test's earlier results in this episode: repeating it finds out whether the reading was
   * wrong, and nothing more about the circuit.
   */
  private stateLog(index: number, h: number, stand: Stand): number {
    const entry = this.entries[index]!;
    const { clean, swayed } = entry.prediction;
    const main = this.stateLikelihood(index, h, clean);
    const other = swayed ? this.stateLikelihood(index, h, swayed) : main;
    return Math.log(Math.max(this.mix(stand, entry, h, main, other), 1e-12));
  }

  private stateLikelihood(index: number, h: number, clean: Float32Array): number {
    const { prediction, outcome, reading, episode, wrong } = this.entries[index]!;
    const { outcomes } = prediction;
    const id = testId(reading.test);
    const weights = clean.slice(h * outcomes, (h + 1) * outcomes);
    let before = 0;
    for (let k = 0; k < outcomes; k++) before += weights[k]!;
    for (let at = index - 1; at >= 0; at--) {
      const earlier = this.entries[at]!;
      if (earlier.episode !== episode || testId(earlier.reading.test) !== id) break;
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

  /** Sums up what all entries say: fault forms that stay by adding, those that come and go episode by episode. */
  private weigh(): void {
    const { hypotheses } = this.predictions;
    for (let h = 0; h < hypotheses.length; h++) {
      if (hypotheses[h]!.lasting !== null) continue;
      let sum = Math.log(hypotheses[h]!.prior);
      for (const entry of this.entries) sum += entry.log[h]!;
      this.logWeight[h] = sum;
    }
    for (let h = 0; h < hypotheses.length; h++) {
      const { lasting, prior } = hypotheses[h]!;
      if (lasting === null) continue;
      let sum = Math.log(prior);
      let present = 0;
      let absent = 0;
      let episode = this.entries[0]?.episode ?? 0;
      for (const entry of this.entries) {
        if (entry.episode !== episode) {
          if (this.freesBetween(h, episode, entry.episode)) {
            sum += either(present, absent);
            present = 0;
            absent = 0;
          }
          episode = entry.episode;
        }
        const before = either(present, absent);
        if (entry.outcome < 0 && !('volts' in entry.reading.value)) {
          // That it comes and goes is just what such a fault does.
          present += Math.log(0.9);
          absent += Math.log(0.9);
        } else {
          const { wiggled } = this.wiggle(entry, h);
          present += wiggled ?? entry.present[h]!;
          absent += wiggled ?? entry.absent[h]!;
        }
        entry.log[h] = either(present, absent) - before;
      }
      this.logWeight[h] = sum + either(present, absent);
    }
  }

  /** Moving a part asks whether it is loose, not whether it fails just now. */
  private wiggle({ reading, prediction, outcome, wrong }: Entry, h: number): { wiggled: number | null } {
    if (reading.test.kind !== 'wiggle' || outcome < 0) return { wiggled: null };
    const { outcomes, clean } = prediction;
    return { wiggled: Math.log((1 - wrong) * clean[h * outcomes + outcome]! + wrong / outcomes) };
  }

  /** Whether a fault that comes and goes may have changed from one episode to another. */
  private freesBetween(h: number, from: number, to: number): boolean {
    const { parts } = this.predictions.hypotheses[h]!;
    for (let episode = from + 1; episode <= to; episode++) {
      const freed = this.freed[episode];
      if (freed === undefined) continue;
      if (freed === null || parts.some((part) => freed.has(part))) return true;
    }
    return false;
  }

  /** Chance that a fault that comes and goes is there now, given what was read since it last was free to change. */
  presentNow(h: number): number {
    const { lasting } = this.predictions.hypotheses[h]!;
    const last = this.entries[this.entries.length - 1]?.episode;
    if (lasting === null || last === undefined) return PRESENT;
    let present = Math.log(PRESENT);
    let absent = Math.log(1 - PRESENT);
    for (const entry of this.entries) {
      if (entry.episode !== last && this.freesBetween(h, entry.episode, last)) continue;
      if (entry.outcome < 0 && !('volts' in entry.reading.value)) continue;
      if (entry.reading.test.kind === 'wiggle') continue;
      present += entry.present[h]!;
      absent += entry.absent[h]!;
    }
    return 1 / (1 + Math.exp(absent - present));
  }
}

function copyOf({ moves, rows, whitened }: Chain): Chain {
  return { moves: [...moves], rows: [...rows], whitened: [...whitened] };
}

function either(present: number, absent: number): number {
  const top = Math.max(present, absent);
  return top + Math.log(PRESENT * Math.exp(present - top) + (1 - PRESENT) * Math.exp(absent - top));
}

function density(x: number, mean: number, spread: number): number {
  const z = (x - mean) / spread;
  return Math.exp(-0.5 * z * z) / (spread * Math.sqrt(2 * Math.PI));
}

/** Probabilities from log weights; sums to one. */
export function normalise(logWeight: Float64Array): Float64Array {
  let top = Number.NEGATIVE_INFINITY;
  for (const value of logWeight) top = Math.max(top, value);
  const p = new Float64Array(logWeight.length);
  let sum = 0;
  for (let h = 0; h < p.length; h++) {
    p[h] = Math.exp(logWeight[h]! - top);
    sum += p[h]!;
  }
  for (let h = 0; h < p.length; h++) p[h] = p[h]! / sum;
  return p;
}
