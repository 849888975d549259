/**
 * What moves by itself: coils that pull in and drop out, breakers that trip, latches. A circuit goes step by
 * step from one state of its sensors to the next until it rests, or until it comes back to a state it had.
 */
import type { Moment, Network } from '../circuit';
import type { Alteration } from './alteration';
import type { Elements } from './elements';

/** Volts, or the share of a tripping current, within which a rough look does not decide. */
const CLOSE_VOLTS = 0.05;
const CLOSE_AMPS_SHARE = 0.5;

/** What sensors feel of a state that was found. */
export interface Felt {
  /** Volts of one node against another. */
  across(from: number, to: number): number;
  /** Ampere through a branch from its first end to its second. */
  branchAmps(e: number): number;
}

export class Sensors {
  /** Something was felt so near its threshold that a rough look does not decide. */
  closeCall = false;
  private readonly starts: Uint8Array;
  private readonly steps: Uint8Array[] = [];

  constructor(
    private readonly network: Network,
    private readonly condition: Moment,
    private readonly elements: Elements,
  ) {
    this.starts = Uint8Array.from(network.sensors, (sensor) => sensor.starts);
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
    this.at(0).set(start ?? this.starts);
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

  /** Moves every sensor by what it feels in the present state. */
  sense(felt: Felt, alteration: Alteration, states: Uint8Array): void {
    const { sensors } = this.network;
    this.closeCall = false;
    for (let s = 0; s < sensors.length; s++) {
      const sensor = sensors[s]!;
      if (sensor.senses === 'latch') {
        const set = states[sensor.set] === 1;
        const reset = states[sensor.reset] === 1;
        if (set !== reset) states[s] = set ? 1 : 0;
        continue;
      }
      const now =
        sensor.senses === 'amps' ? felt.branchAmps(sensor.branch) : this.feltVolts(felt, alteration, s);
      const size = sensor.signed ? now : Math.abs(now);
      const close = sensor.senses === 'amps' ? CLOSE_AMPS_SHARE * sensor.onAbove : CLOSE_VOLTS;
      const threshold = states[s] === 1 ? sensor.offBelow : sensor.onAbove;
      if (Math.abs(size - threshold) < close) this.closeCall = true;
      if (size >= sensor.onAbove) states[s] = 1;
      else if (size < sensor.offBelow && !this.stillHeld(sensor.holdsSeconds)) states[s] = 0;
    }
  }

  private stillHeld(holdsSeconds: number): boolean {
    return holdsSeconds > 0 && (this.condition.secondsIn ?? Number.POSITIVE_INFINITY) < holdsSeconds;
  }

  private feltVolts(felt: Felt, { sensing }: Alteration, s: number): number {
    const sensor = this.network.sensors[s]!;
    for (let i = 0; sensing && i < sensing.length; i++) {
      const moved = sensing[i]!;
      if (moved.sensor === s) return felt.across(moved.a, moved.b);
    }
    // An opened coil sees volts but carries nothing.
    if (sensor.branch >= 0 && this.elements.siemens(sensor.branch) === 0) return 0;
    return felt.across(sensor.a, sensor.b);
  }
}

export function equalStates(one: Uint8Array, other: Uint8Array): boolean {
  for (let s = 0; s < one.length; s++) if (one[s] !== other[s]) return false;
  return true;
}
