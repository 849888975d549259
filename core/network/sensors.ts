/**
 * What moves by itself: coils that pull in and drop out, breakers that trip, latches. A circuit goes step by
 * step from one state of its sensors to the next until it rests, or until it comes back to a state it had.
 */
import type { Moment, Network } from '../circuit';
import type { Alteration } from './alteration';
import type { Elements } from './elements';
import { ANYWHERE, type Band, NOWHERE } from './way';

/** Volts, or the share of a tripping current, within which a rough look does not decide. */
const CLOSE_VOLTS = 0.05;
const CLOSE_AMPS_SHARE = 0.5;

/** How a sensor is moved. */
const BY_VOLTS = 0;
const BY_AMPS = 1;
const LATCH = 2;

export class Sensors {
  /** Something was felt so near its threshold that a rough look does not decide. */
  closeCall = false;
  /** What every sensor feels in the present state: volts of its own pair of nodes. To be filled before `sense`. */
  readonly felt: Float64Array;
  private readonly starts: Uint8Array;
  private readonly by: Uint8Array;
  private readonly branch: Int32Array;
  private readonly onAbove: Float64Array;
  private readonly offBelow: Float64Array;
  private readonly signed: Uint8Array;
  private readonly steps: Uint8Array[] = [];

  constructor(
    private readonly network: Network,
    private readonly condition: Moment,
    private readonly elements: Elements,
  ) {
    const { sensors } = network;
    this.felt = new Float64Array(sensors.length);
    this.starts = Uint8Array.from(sensors, ({ starts }) => starts);
    this.by = Uint8Array.from(sensors, ({ senses }) =>
      senses === 'latch' ? LATCH : senses === 'amps' ? BY_AMPS : BY_VOLTS,
    );
    this.branch = Int32Array.from(sensors, ({ branch }) => branch);
    this.onAbove = Float64Array.from(sensors, ({ onAbove }) => onAbove);
    this.offBelow = Float64Array.from(sensors, ({ offBelow }) => offBelow);
    this.signed = Uint8Array.from(sensors, ({ signed }) => (signed ? 1 : 0));
  }

  get count(): number {
    return this.starts.length;
  }

  /** Steps after which a circuit that has not come to rest counts as one that never does. */
  get stepLimit(): number {
    return 4 * this.starts.length + 8;
  }

  /** States at a step; every step has one array, reused by the next solve. */
  at(step: number): Uint8Array {
    const known = this.steps[step];
    if (known) return known;
    const made = new Uint8Array(this.starts.length);
    this.steps[step] = made;
    return made;
  }

  /** Begins at rest, or in a given state. */
  begin(start: Uint8Array | undefined): void {
    copyStates(start ?? this.starts, this.at(0));
  }

  /** Step before `before` that had the same states, -1 for none. */
  metAt(states: Uint8Array, before: number): number {
    let step = before - 1;
    while (step >= 0 && !equalStates(this.at(step), states)) step--;
    return step;
  }

  /** Parts whose sensors changed between two steps of a loop. */
  loopParts(from: number, to: number): readonly string[] {
    const found = new Set<string>();
    for (let step = from; step < to; step++) {
      const one = this.at(step);
      const other = this.at(step + 1);
      one.forEach((state, s) => {
        if (state !== other[s]) found.add(this.network.sensors[s]!.part);
      });
    }
    return [...found];
  }

  /** Moves every sensor by what it feels in the present state; the ends of one that is moved are asked by `across`. */
  sense({ sensing }: Alteration, states: Uint8Array, across: (from: number, to: number) => number): void {
    const { felt, by, branch, onAbove, offBelow, signed, elements } = this;
    this.closeCall = false;
    for (let i = 0; sensing && i < sensing.length; i++) {
      const moved = sensing[i]!;
      felt[moved.sensor] = across(moved.a, moved.b);
    }
    for (let s = 0; s < by.length; s++) {
      if (by[s] === LATCH) {
        this.latch(s, states);
        continue;
      }
      const on = onAbove[s]!;
      const off = offBelow[s]!;
      const e = branch[s]!;
      let now = felt[s]!;
      let close = CLOSE_VOLTS;
      if (by[s] === BY_AMPS) {
        now = elements.siemens(e) * (now - elements.emfVolts(e));
        close = CLOSE_AMPS_SHARE * on;
      } else if (e >= 0 && elements.siemens(e) === 0 && !isMoved(sensing, s)) {
        // An opened coil sees volts but carries nothing.
        now = 0;
      }
      if (signed[s] === 0 && now < 0) now = -now;
      const away = now - (states[s] === 1 ? off : on);
      if (away < close && -away < close) this.closeCall = true;
      if (now >= on) states[s] = 1;
      else if (now < off && !this.stillHeld(s)) states[s] = 0;
    }
  }

  /**
   * Volts between which each sensor may feel without going another way than it does from `states`, and not even nearly.
   * For the sound circuit in the present state, whose volts are in `felt`.
   */
  bands(states: Uint8Array): Band[] {
    const { elements, felt } = this;
    return this.network.sensors.map((sensor, s) => {
      const e = sensor.branch;
      const siemens = e < 0 ? 1 : elements.siemens(e);
      // A latch follows other sensors, and what is opened feels nothing.
      if (sensor.senses === 'latch' || siemens === 0) return ANYWHERE;
      const byAmps = sensor.senses === 'amps';
      const factor = byAmps ? siemens : 1;
      const zero = byAmps ? elements.emfVolts(e) : 0;
      const now = factor * (felt[s]! - zero);
      const size = sensor.signed ? now : Math.abs(now);
      const close = byAmps ? CLOSE_AMPS_SHARE * sensor.onAbove : CLOSE_VOLTS;
      const threshold = states[s] === 1 ? sensor.offBelow : sensor.onAbove;
      let low = size >= threshold ? threshold + close : Number.NEGATIVE_INFINITY;
      const high = size >= threshold ? Number.POSITIVE_INFINITY : threshold - close;
      if (!(size >= low && size <= high)) return NOWHERE;
      if (!sensor.signed && low <= 0) low = -high;
      const turned = !sensor.signed && now < 0 && low > 0;
      const [from, to] = turned ? [-high, -low] : [low, high];
      return { low: from / factor + zero, high: to / factor + zero };
    });
  }

  /** 1 for a branch whose opening or current a sensor feels. */
  get feltBranches(): Uint8Array {
    const found = new Uint8Array(this.elements.branchCount);
    for (const { branch } of this.network.sensors) if (branch >= 0) found[branch] = 1;
    return found;
  }

  private latch(s: number, states: Uint8Array): void {
    const sensor = this.network.sensors[s]!;
    const set = states[sensor.set] === 1;
    const reset = states[sensor.reset] === 1;
    if (set !== reset) states[s] = set ? 1 : 0;
  }

  private stillHeld(s: number): boolean {
    const { holdsSeconds } = this.network.sensors[s]!;
    return holdsSeconds > 0 && (this.condition.secondsIn ?? Number.POSITIVE_INFINITY) < holdsSeconds;
  }
}

function isMoved(sensing: Alteration['sensing'], s: number): boolean {
  for (let i = 0; sensing && i < sensing.length; i++) if (sensing[i]!.sensor === s) return true;
  return false;
}

/** They are few: a loop is quicker than what is made for many. */
export function copyStates(from: Uint8Array, into: Uint8Array): void {
  for (let s = 0; s < from.length; s++) into[s] = from[s]!;
}

export function equalStates(one: Uint8Array, other: Uint8Array): boolean {
  for (let s = 0; s < one.length; s++) if (one[s] !== other[s]) return false;
  return true;
}
