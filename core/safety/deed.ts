/** What a hand does to a circuit during a test or a piece of work, as far as safety asks. */

export interface Deed {
  /** Points touched with the tip of a meter or a tester. */
  readonly probes: readonly string[];
  /** Points loaded with a filament lamp. */
  readonly lamps: readonly string[];
  /** Points loaded with a tester of light-emitting diodes. */
  readonly leds: readonly string[];
  /** Points joined with plus or earth by a lead. */
  readonly leads: readonly { readonly node: string; readonly with: 'plus' | 'earth' }[];
  /** Relays whose contact is bridged by a lead. */
  readonly bridges: readonly string[];
  /** Parts that stand in another's place, or are replaced by a known good one. */
  readonly exchanges: readonly string[];
  /** Parts taken out of their slot. */
  readonly pulls: readonly string[];
  /** Plugs and loads taken apart. */
  readonly unplugs: readonly string[];
  /** Parts moved or tapped by hand. */
  readonly moves: readonly string[];
  /** Fuses and relays behind which everything gets an ohmmeter or a lamp. */
  readonly behind: readonly string[];
  /** A lamp in place of a fuse, whose leads carry its current. */
  readonly lampInPlace: boolean;
  readonly ohms: boolean;
  /** Functions that run, or may start, while hands are near. */
  readonly runs: readonly string[];
  /** Functions that are on while it is done, whoever switched them. */
  readonly on: readonly string[];
  readonly cranks: boolean;
  readonly engineRuns: boolean;
  /** At the posts of a battery. */
  readonly atBattery: boolean;
}

/** Nothing but eyes and ears. */
export const NO_DEED: Deed = {
  probes: [],
  lamps: [],
  leds: [],
  leads: [],
  bridges: [],
  exchanges: [],
  pulls: [],
  unplugs: [],
  moves: [],
  behind: [],
  lampInPlace: false,
  ohms: false,
  runs: [],
  on: [],
  cranks: false,
  engineRuns: false,
  atBattery: false,
};
