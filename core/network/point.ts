/** What a solution is: volts, currents and the states that everything came to rest in. */

export interface OperatingPoint {
  /** Volts of every node against the circuit's reference. */
  readonly volts: Float64Array;
  /** 1 where no path joins the node to the reference. */
  readonly floating: Uint8Array;
  /** Ampere through every branch from `a` to `b`, then through every bridge. */
  readonly amps: Float64Array;
  /** 1 where a sensor is on: a relay has pulled in, a breaker has tripped. */
  readonly sensed: Uint8Array;
  /** Parts that find no resting state; empty when the state is steady. */
  readonly oscillating: readonly string[];
}

/** A point that can be filled again and again, so that nothing is allocated in a loop. */
export type ReusablePoint = { -readonly [K in keyof OperatingPoint]: OperatingPoint[K] };

/** What a look says of itself: valid until the next state is solved. */
export type Looked = Pick<OperatingPoint, 'sensed' | 'oscillating'>;
