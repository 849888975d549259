/** What was read at the slots of a box, and in which state of key and engine. */
import { KEY_STATES, type LampStateName } from '../format';

export { KEY_STATES };

export type KeyState = (typeof KEY_STATES)[number];

export const KEY_STATE_WORDS: Readonly<Record<KeyState, string>> = {
  off: 'Key off',
  'off-waited': 'Key off, after the wait',
  accessory: 'Key at accessory',
  run: 'Key at run',
  crank: 'Cranking',
  running: 'Engine running',
  'function-on': 'Key at run, what it serves switched on',
};

/**
 * A three-leg fuse has two load ends. Where nobody knows which end is fed they are told by place: the first is the upper
 * or left one of the box as drawn.
 */
export type SlotEnd = 'feed' | 'load' | 'load-2' | 'first' | 'second';

export interface SlotReading {
  readonly id: string;
  readonly panel: string;
  readonly slot: string;
  readonly end: SlotEnd;
  readonly value: { readonly lamp: LampStateName } | { readonly volts: number };
  readonly state: KeyState;
  /** The fuse was out while this was read. */
  readonly fuseOut: boolean;
  readonly testerProved: boolean;
  /** Dead for the first time so long after the key went off, seconds. */
  readonly afterSeconds?: number;
}

/** Share of the nominal volts from which a point counts as live, and below which as dead. */
const LIVE_SHARE = 0.8;
const DEAD_SHARE = 0.2;

export type Liveness = 'live' | 'weak' | 'dead';

/** Live, weak or dead; the limits follow the nominal voltage (filament lamp lit above 80 %, off below 20 %). */
export function liveness(value: SlotReading['value'], nominalVolts: number): Liveness {
  if ('lamp' in value) return value.lamp === 'lit' ? 'live' : value.lamp === 'dim' ? 'weak' : 'dead';
  const share = Math.abs(value.volts) / nominalVolts;
  return share >= LIVE_SHARE ? 'live' : share >= DEAD_SHARE ? 'weak' : 'dead';
}

/** The latest reading of an end in a state, with the fuse in or out; undefined where there is none. */
export function latest(
  readings: readonly SlotReading[],
  end: SlotEnd,
  where: { readonly fuseOut: boolean; readonly state?: KeyState },
): SlotReading | undefined {
  return readings.findLast(
    (one) =>
      one.end === end &&
      one.fuseOut === where.fuseOut &&
      (where.state === undefined || one.state === where.state),
  );
}
