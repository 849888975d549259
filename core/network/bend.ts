/**
 * Junctions that have left the straight lines which stand for them in a base. All else is linear and solved
 * already, so the network is reduced to their ports. Those that have bent far are followed by Newton's method
 * together; those that have hardly bent, by single steps of their own, which converge quickly and cost little.
 */
import type { Factorization } from './factorization';
import { JUNCTION_GMIN, junctionAmps, kneeVolts, nextJunctionVolts, straightBelow } from './junction';
import type { Ports } from './ports';
import { SmallSystem } from './smallSystem';
import type { Column } from './watched';
import type { Band } from './way';

const ROUND_LIMIT = 40;
/** Rounds after which single steps have had their chance, and all are followed together. */
const SINGLE_STEP_ROUNDS = 8;
/** Newton steps below this, volts, leave an error of the order of their square: below 1e-10 V. */
const LAST_NEWTON_STEP = 1e-6;
/** Single steps converge by a constant factor, so that the last must be small itself. */
const LAST_SINGLE_STEP = 5e-10;
/** Volts by which a junction may leave its straight line before it counts as bent. */
const BENT_FROM = 1e-8;
/** Share of its thermal volts from which it has bent far: followed with others, and in a rough look at all. */
const FAR_SHARE = 0.6;
const ROUGH_FAR_SHARE = 0.3;
/** Volts of error that a junction taken as straight may cause in an exact look. */
const STRAIGHT_VOLTS = 1e-10;
/** More than these are followed by way of the whole matrix: what it holds of them is sparse. By measurement. */
const MOST_TOGETHER = 12;
export const TOO_MANY = -1;
const CONDUCTING_SIEMENS = 1e-2;
/** Ohms that the altered network may show a junction that hardly conducts. */
const IDLE_OHMS = 1e6;
/** In a rough look: ampere beyond the straight line that count as none, and the last step, volts. */
const ROUGH_AMPS = 1e-9;
const ROUGH_STEP = 1e-3;

export class BentJunctions {
  /** Whether a rough look left nothing out, so that no exact one need come after it. */
  isExact = true;
  /** How many have bent; the first `far` of them far. */
  count = 0;
  private far = 0;
  /** Junction numbers. */
  readonly junction: Int32Array;
  readonly volts: Float64Array;
  /** Ampere beyond the straight line. */
  readonly excess: Float64Array;
  readonly columns: Column[] = [];
  /** 1 for the usual way round, -1 for one fitted the wrong way. */
  readonly sign: Int8Array;
  /** 1 where nothing leads around it, so that it carries nothing. */
  readonly cut: Uint8Array;
  private readonly junctions: number;
  /** Volts across every junction as the straight lines have it. */
  private readonly linear: Float64Array;
  private readonly present: Float64Array;
  /** Where the states before found those that bent, to start from; 0 for one that never did. */
  private readonly guess: Float64Array;
  private remembers = false;
  private readonly state: Uint8Array;
  private readonly straight: Float64Array;
  private readonly knee: Float64Array;
  private readonly slope: Float64Array;
  private readonly miss: Float64Array;
  private readonly step: Float64Array;
  private readonly ohms: Float64Array;
  /** What an ampere through a bent one takes from the ports. */
  private taken = new Float64Array(0);
  private linearDrawn = new Float64Array(0);
  private readonly system = new SmallSystem();

  constructor(
    private readonly branchCount: number,
    private readonly saturationAmps: Float64Array,
    private readonly thermalVolts: Float64Array,
    /** Watched pairs that come before those of the junctions. */
    private readonly firstWatched: number,
  ) {
    const junctions = saturationAmps.length;
    this.junctions = junctions;
    this.junction = new Int32Array(junctions);
    this.volts = new Float64Array(junctions);
    this.excess = new Float64Array(junctions);
    this.sign = new Int8Array(junctions).fill(1);
    this.cut = new Uint8Array(junctions);
    this.linear = new Float64Array(junctions);
    this.present = new Float64Array(junctions);
    this.guess = new Float64Array(junctions);
    this.state = new Uint8Array(junctions);
    this.straight = thermalVolts.map(straightBelow);
    this.knee = saturationAmps.map((amps, j) => kneeVolts(amps, thermalVolts[j]!));
    this.slope = new Float64Array(junctions);
    this.miss = new Float64Array(junctions);
    this.step = new Float64Array(junctions);
    this.ohms = new Float64Array(junctions * junctions);
  }

  /** Ampere through a junction at a voltage, as it is fitted. */
  amps(j: number, volts: number): number {
    const sign = this.sign[j]!;
    return sign * junctionAmps(sign * volts, this.saturationAmps[j]!, this.thermalVolts[j]!);
  }

  /** Slope of a junction at a voltage at which it carries so many ampere: no second exponential is needed. */
  siemens(j: number, volts: number, amps: number): number {
    const forward = this.sign[j]! * (amps - JUNCTION_GMIN * volts);
    return (forward + this.saturationAmps[j]!) / this.thermalVolts[j]! + JUNCTION_GMIN;
  }

  /** The next guess for a junction that stands at `last`, carrying so much, when straight lines say `wanted`. */
  next(j: number, last: number, wanted: number, amps: number, siemens: number): number {
    const sign = this.sign[j]!;
    const knee = this.knee[j]!;
    const is = this.saturationAmps[j]!;
    const vt = this.thermalVolts[j]!;
    return sign * nextJunctionVolts(sign * last, sign * wanted, sign * amps, siemens, knee, is, vt);
  }

  /**
   * Follows whatever has bent until nothing more bends; corrects what the ports draw. A rough look is good to a
   * few millivolts. Gives the smallest pivot met, 1 when nothing bent, 0 when it does not settle, and `TOO_MANY` when
   * the whole matrix is cheaper: then `volts` are where to start.
   */
  follow(base: Factorization, ports: Ports, rough: boolean): number {
    const { junctions, linear, state } = this;
    this.count = 0;
    this.far = 0;
    this.isExact = true;
    this.makeRoom(ports.count);
    const first = this.firstWatched;
    for (let j = 0; j < junctions; j++) {
      state[j] = this.cut[j]!;
      linear[j] = base.watchedVolts[first + j]!;
    }
    for (let p = 0; p < ports.count; p++) {
      const { watched } = ports.columns[p]!;
      const drawn = ports.drawn[p]!;
      this.linearDrawn[p] = drawn;
      for (let j = 0; j < junctions; j++) linear[j] = linear[j]! - drawn * watched[first + j]!;
    }
    let smallest = 1;
    while (this.find(base, ports, rough)) {
      if (this.far > MOST_TOGETHER) {
        this.isExact = !rough;
        return TOO_MANY;
      }
      this.reduce(base, ports);
      const pivot = this.iterate(base, rough);
      if (pivot === 0) return 0;
      if (pivot < smallest) smallest = pivot;
      this.correct(ports);
    }
    for (let i = 0; i < this.count; i++) this.guess[this.junction[i]!] = this.volts[i]!;
    if (this.count > 0) this.remembers = true;
    return smallest;
  }

  /** Where all junctions stand, to start the next state from. */
  remember(volts: Float64Array): void {
    this.guess.set(volts);
    this.remembers = true;
  }

  /** Another circuit comes: nothing of this one is to be started from. */
  forget(): void {
    if (this.remembers) this.guess.fill(0);
    this.remembers = false;
  }

  /** Volts between which a junction is a straight line to a rough look. */
  band(base: Factorization, j: number): Band {
    const at = base.junctionVolts[j]!;
    const siemens = base.siemens[this.branchCount + j]!;
    const idle = { low: at - ROUGH_AMPS / siemens, high: at + ROUGH_AMPS / siemens };
    if (base.heldIdle[j] === 1) return idle;
    const near = ROUGH_FAR_SHARE * this.thermalVolts[j]!;
    return { low: Math.min(idle.low, at - near), high: at + near };
  }

  /** Ohms that the base shows the i-th bent junction. */
  ownOhms(i: number): number {
    return this.columns[i]!.watched[this.firstWatched + this.junction[i]!]!;
  }

  /** Volts between two nodes that the bent junctions take away. */
  taking(from: number, to: number): number {
    let taken = 0;
    for (let i = 0; i < this.count; i++) {
      const column = this.columns[i]!.volts;
      taken += this.excess[i]! * (column[from]! - column[to]!);
    }
    return taken;
  }

  private makeRoom(k: number): void {
    const room = k * this.junctions;
    if (this.taken.length >= room && this.linearDrawn.length >= k) return;
    this.taken = new Float64Array(2 * room);
    this.linearDrawn = new Float64Array(2 * k);
  }

  /** Volts across every junction in the present state, in `present`. */
  private look(base: Factorization, ports: Ports): void {
    const { present, junctions, junction, excess, firstWatched: first } = this;
    present.set(this.linear);
    if (this.count === 0) return;
    const ohms = base.junctionOhms;
    for (let i = 0; i < this.count; i++) {
      const row = junction[i]! * junctions;
      const amps = excess[i]!;
      for (let j = 0; j < junctions; j++) present[j] = present[j]! - amps * ohms[row + j]!;
    }
    for (let p = 0; p < ports.count; p++) {
      const { watched } = ports.columns[p]!;
      const more = ports.drawn[p]! - this.linearDrawn[p]!;
      for (let j = 0; j < junctions; j++) present[j] = present[j]! - more * watched[first + j]!;
    }
  }

  /** Adds the junctions that have left their straight lines; false when there are no new ones. */
  private find(base: Factorization, ports: Ports, rough: boolean): boolean {
    const { state, present } = this;
    const before = this.count;
    if (before === this.junctions) return false;
    // All first: adding one reorders those that are there.
    this.look(base, ports);
    for (let j = 0; j < this.junctions; j++) {
      if (state[j] !== 0) continue;
      const across = present[j]!;
      const at = base.junctionVolts[j]!;
      const away = Math.abs(across - at);
      let far = true;
      if (this.sign[j] === 1) {
        if (away <= BENT_FROM) continue;
        if (across < this.straight[j]! && at < this.straight[j]!) continue;
        far = away > (rough ? ROUGH_FAR_SHARE : FAR_SHARE) * this.thermalVolts[j]!;
        const own = base.heldIdle[j] === 0;
        if (own && !far && this.isStraight(base, j, away)) continue;
        if (rough && ((own && !far) || this.excessAmps(base, j, across) < ROUGH_AMPS)) {
          this.isExact = false;
          continue;
        }
      }
      state[j] = 1;
      const start = far ? this.guess[j]! || at : across;
      this.append(base, j, start, far);
    }
    return this.count > before;
  }

  /** Whether a junction that has moved little may go on as a straight line in an exact look. */
  private isStraight(base: Factorization, j: number, away: number): boolean {
    // Second-order error of the straight line: as volts across itself at most, however many ohms it is shown ...
    const most = (away * away) / (2 * this.thermalVolts[j]!);
    if (most < STRAIGHT_VOLTS) return true;
    // ... and in amperes, times the ohms that the network shows it. One that hardly conducts may be shown far
    // more by the altered network.
    const siemens = base.siemens[this.branchCount + j]!;
    const ohms = base.junctionOhms[j * this.junctions + j]!;
    return (
      most * siemens * (siemens > CONDUCTING_SIEMENS ? ohms : Math.max(ohms, IDLE_OHMS)) < STRAIGHT_VOLTS
    );
  }

  /** Ampere by which a junction leaves its straight line. */
  private excessAmps(base: Factorization, j: number, across: number): number {
    const e = this.branchCount + j;
    return Math.abs(this.amps(j, across) - (base.siemens[e]! * across - base.injected[e]!));
  }

  private append(base: Factorization, j: number, start: number, far: boolean): void {
    const i = this.count++;
    this.junction[i] = j;
    this.volts[i] = start;
    this.excess[i] = 0;
    this.columns[i] = base.column(this.branchCount + j);
    if (far) this.bendFar(i);
  }

  /** Moves one among those followed together. */
  private bendFar(i: number): void {
    const to = this.far++;
    const { junction, volts, columns } = this;
    const [j, v, column] = [junction[i]!, volts[i]!, columns[i]!];
    junction[i] = junction[to]!;
    volts[i] = volts[to]!;
    columns[i] = columns[to]!;
    junction[to] = j;
    volts[to] = v;
    columns[to] = column;
  }

  /** Ohms between the bent ports as the other ports leave them. */
  private reduce(base: Factorization, ports: Ports): void {
    const { count: n, junctions, junction, ohms, taken, firstWatched: first } = this;
    const k = ports.count;
    const mutual = base.junctionOhms;
    for (let i = 0; i < n; i++) {
      const at = first + junction[i]!;
      for (let p = 0; p < k; p++) taken[i * k + p] = ports.delta[p]! * ports.columns[p]!.watched[at]!;
      if (k > 0) ports.system.solve(taken, i * k);
    }
    for (let i = 0; i < n; i++) {
      const row = junction[i]! * junctions;
      for (let l = 0; l < n; l++) ohms[i * n + l] = mutual[row + junction[l]!]!;
      for (let p = 0; p < k; p++) {
        const ohm = ports.columns[p]!.watched[first + junction[i]!]!;
        if (ohm === 0) continue;
        for (let l = 0; l < n; l++) ohms[i * n + l] = ohms[i * n + l]! - ohm * taken[l * k + p]!;
      }
    }
  }

  /** Iterates the bent junctions. Gives the smallest pivot of the last round, 0 when they do not settle. */
  private iterate(base: Factorization, rough: boolean): number {
    const { ohms, volts, excess, slope, miss, step, junction } = this;
    const n = this.count;
    for (let round = 0; round < ROUND_LIMIT; round++) {
      if (round === SINGLE_STEP_ROUNDS && this.far < n) {
        this.far = n;
      }
      this.bendAt(base);
      for (let i = 0; i < n; i++) {
        let missing = this.linear[junction[i]!]! - volts[i]!;
        const row = i * n;
        for (let l = 0; l < n; l++) missing -= ohms[row + l]! * excess[l]!;
        miss[i] = missing;
      }
      const pivot = this.stepTogether(n);
      if (pivot === 0) return 0;
      for (let i = this.far; i < n; i++) step[i] = miss[i]! / (1 + ohms[i * n + i]! * slope[i]!);
      let largest = 0;
      for (let i = 0; i < n; i++) {
        const j = junction[i]!;
        const last = volts[i]!;
        const wanted = last + step[i]!;
        let next = wanted;
        if (i < this.far) {
          const e = this.branchCount + j;
          const amps = excess[i]! + base.siemens[e]! * last - base.injected[e]!;
          next = this.next(j, last, wanted, amps, slope[i]! + base.siemens[e]!);
        } else if (Math.abs(wanted - base.junctionVolts[j]!) > this.thermalVolts[j]!) {
          // Bent further than it seemed; from now on followed with the others.
          this.far = n;
          largest = Number.MAX_VALUE;
          break;
        }
        // What is wanted counts, not what the limit allowed: a limited step may be none at all.
        const size = Math.abs(wanted - last);
        if (!(size <= largest)) largest = size;
        volts[i] = next;
      }
      if (!(largest < Number.POSITIVE_INFINITY)) return 0;
      const last = rough && !this.isExact ? ROUGH_STEP : this.far === n ? LAST_NEWTON_STEP : LAST_SINGLE_STEP;
      if (largest <= last) {
        this.bendAt(base);
        return pivot;
      }
    }
    return 0;
  }

  /** Newton's step of those that are followed together. */
  private stepTogether(n: number): number {
    const { far, system, ohms, slope, miss, step } = this;
    if (far === 0) return 1;
    system.resize(far);
    const { matrix } = system;
    for (let i = 0; i < far; i++) {
      for (let l = 0; l < far; l++) matrix[i * far + l] = ohms[i * n + l]! * slope[l]!;
      matrix[i * far + i] = matrix[i * far + i]! + 1;
      step[i] = miss[i]!;
    }
    const pivot = system.factor();
    if (pivot > 0) system.solve(step);
    return pivot;
  }

  /** Excess and its slope at the present volts. */
  private bendAt(base: Factorization): void {
    for (let i = 0; i < this.count; i++) {
      const j = this.junction[i]!;
      const e = this.branchCount + j;
      const at = this.volts[i]!;
      const amps = this.amps(j, at);
      this.excess[i] = amps - (base.siemens[e]! * at - base.injected[e]!);
      this.slope[i] = this.siemens(j, at, amps) - base.siemens[e]!;
    }
  }

  private correct(ports: Ports): void {
    const k = ports.count;
    for (let p = 0; p < k; p++) {
      let drawn = this.linearDrawn[p]!;
      for (let i = 0; i < this.count; i++) drawn -= this.taken[i * k + p]! * this.excess[i]!;
      ports.drawn[p] = drawn;
    }
  }
}
