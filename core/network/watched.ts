/**
 * The few pairs of nodes that are looked at in every state, whatever is asked of it: what the sensors feel, and the
 * ends of the junctions. Their volts are kept beside those of the nodes, so that a state on the way to rest costs by
 * their number and not by the size of the network.
 */
import type { Network } from '../circuit';

/** What an ampere drawn into one node and out of another takes. */
export interface Column {
  /** Volts from every node, per ampere. */
  readonly volts: Float64Array;
  /** Volts from every watched pair, per ampere. */
  readonly watched: Float64Array;
  /** Ampere that every branch carries less, per ampere; made when first asked for. */
  amps: Float64Array | null;
}

export class Watched {
  /** Pairs of the sensors, one each; those of the junctions come after them. */
  readonly sensorCount: number;
  readonly count: number;
  private readonly from: Int32Array;
  private readonly to: Int32Array;

  constructor({ sensors, branches, junctions }: Network) {
    this.sensorCount = sensors.length;
    const pairs = [
      ...sensors.map((sensor): [number, number] => {
        if (sensor.senses === 'latch') return [0, 0];
        const ends = sensor.senses === 'amps' ? branches[sensor.branch]! : sensor;
        return [ends.a, ends.b];
      }),
      ...junctions.map(({ anode, cathode }): [number, number] => [anode, cathode]),
    ];
    this.count = pairs.length;
    this.from = Int32Array.from(pairs, ([from]) => from);
    this.to = Int32Array.from(pairs, ([, to]) => to);
  }

  /** Volts of the pairs that `into` has room for, their first node against their second, from those of the nodes. */
  read(volts: Float64Array, into: Float64Array): Float64Array {
    for (let i = 0; i < into.length; i++) into[i] = volts[this.from[i]!]! - volts[this.to[i]!]!;
    return into;
  }

  column(volts: Float64Array): Column {
    return { volts, watched: this.read(volts, new Float64Array(this.count)), amps: null };
  }
}

/** Takes from the volts of watched pairs what currents of so many ampere through columns take. */
export function takeWatched(
  from: Float64Array,
  columns: readonly Column[],
  amps: Float64Array,
  count: number,
): void {
  for (let i = 0; i < count; i++) {
    const { watched } = columns[i]!;
    const flows = amps[i]!;
    for (let k = 0; k < from.length; k++) from[k] = from[k]! - flows * watched[k]!;
  }
}
