/**
 * Trying a repair against testing on: what a wrong repair costs, and when the next test costs more than it saves.
 * Everything is counted in minutes; a part's price in minutes of work that cost as much.
 */

import type { PartKind } from '../../format';
import type { CircuitModel } from '../../network';

export interface RepairCost {
  /** Minutes to do it. */
  readonly minutes: number;
  /** Price of the part, in minutes of work. */
  readonly price: number;
  /** What else a repair at the wrong place does, in minutes: a fuse burnt on a short, a loom opened for nothing. */
  readonly harm: number;
}

const USUAL: RepairCost = { minutes: 30, price: 60, harm: 5 };
/** Usual costs by kind of part; a shop's own prices win where they are known. */
const COSTS: Readonly<Record<PartKind, RepairCost>> = {
  fuse: { minutes: 2, price: 1, harm: 4 },
  'fusible-link': { minutes: 20, price: 8, harm: 10 },
  breaker: { minutes: 10, price: 12, harm: 4 },
  polyfuse: { minutes: 30, price: 4, harm: 10 },
  relay: { minutes: 3, price: 10, harm: 2 },
  'latching-relay': { minutes: 15, price: 25, harm: 3 },
  solenoid: { minutes: 30, price: 40, harm: 5 },
  switch: { minutes: 20, price: 25, harm: 5 },
  'key-contact': { minutes: 60, price: 60, harm: 15 },
  wire: { minutes: 30, price: 3, harm: 20 },
  splice: { minutes: 25, price: 2, harm: 15 },
  connector: { minutes: 15, price: 8, harm: 8 },
  ground: { minutes: 10, price: 2, harm: 3 },
  lamp: { minutes: 5, price: 4, harm: 1 },
  battery: { minutes: 20, price: 120, harm: 5 },
  'charging-source': { minutes: 60, price: 200, harm: 10 },
  flasher: USUAL,
  'cut-off': USUAL,
  'module-output': USUAL,
  led: USUAL,
  motor: USUAL,
  pump: USUAL,
  horn: USUAL,
  heater: USUAL,
  module: USUAL,
  resistor: USUAL,
  socket: USUAL,
  diode: USUAL,
};
/** Coming back to a vehicle that was handed over wrongly mended. */
const COME_BACK_MINUTES = 30;

/** What repairing a group at its cheapest member would cost. */
export function repairCost(model: CircuitModel, parts: readonly string[]): RepairCost {
  const costs = parts.map((id) => COSTS[model.network.parts.get(id)?.kind ?? 'module']);
  const sum = (cost: RepairCost) => cost.minutes + cost.price;
  return costs.reduce((least, cost) => (sum(cost) < sum(least) ? cost : least), costs[0] ?? USUAL);
}

/** What is lost, in minutes, when that repair turns out to be the wrong one. */
export function wrongRepairMinutes({ minutes, price, harm }: RepairCost): number {
  return minutes + price + harm + COME_BACK_MINUTES;
}

/** What a test may cost, in minutes, for every bit that it teaches: a bit of doubt left is about two wrong repairs. */
function minutesPerBit(cost: RepairCost): number {
  return 2 * wrongRepairMinutes(cost);
}

/** So much a second look is always worth where one reading decides. */
const AGAIN_MINUTES = 1;
/** A test that takes less than this share of the doubt away is one of many that lead nowhere. */
const HARDLY_TELLS = 0.04;
/** And where something is likely already. */
const HARDLY_TELLS_MORE = 0.2;

/** The test that is worth most for what it costs; null where there is none. */
export function worthMost<T extends { readonly gainBits: number; readonly minutes: number }>(
  tests: readonly T[],
  cost: RepairCost,
): T | null {
  const net = (one: T) => one.gainBits * minutesPerBit(cost) - one.minutes;
  return tests.reduce<T | null>((most, one) => (most === null || net(one) > net(most) ? one : most), null);
}

type StopReason =
  | 'forbidden'
  | 'proved'
  | 'repair-is-cheaper'
  | 'works-now'
  | 'nothing-to-learn'
  | 'not-worth-it';

export interface Stop {
  readonly reason: StopReason;
  readonly sentence: string;
}

const LOOK_FOR_WHAT_OPENED_IT =
  'No test left tells enough of what opened the fuse: look along the wires and at the loads behind it before a new one is fitted.';

/**
 * Whether to stop: proved; nothing left that teaches anything; every test left costs more than what it teaches is
 * worth; or the cheapest confirming test costs more than what it is expected to save, (1 - p) times the cost of the
 * wrong repair. Null goes on.
 */
export function whetherToStop(input: {
  readonly proved: boolean;
  readonly title: string;
  readonly chance: number;
  /** From here on a group is likely, and trying its repair is thought of. */
  readonly likely: number;
  readonly cost: RepairCost;
  /** Minutes of the cheapest confirming test; null where none is left. */
  readonly confirmingMinutes: number | null;
  /** One reading of a probe decides, and was taken once. */
  readonly decidesAlone: boolean;
  readonly anythingToLearn: boolean;
  /** The test that is worth most for what it costs; null where none teaches anything. */
  readonly best: { readonly minutes: number; readonly gainBits: number } | null;
  /** Doubt that is left, bits. */
  readonly doubtBits: number;
  /** What opened the fuse that leads may still be there: no new one is tried while a test can tell. */
  readonly mayBlowAgain: boolean;
  /** The fault seems to come and go, and is away. */
  readonly isSoundNow: boolean;
}): Stop | null {
  const {
    proved,
    title,
    chance,
    likely,
    cost,
    confirmingMinutes,
    decidesAlone,
    anythingToLearn,
    best,
    doubtBits,
    mayBlowAgain,
    isSoundNow,
  } = input;
  if (proved) return { reason: 'proved', sentence: 'It is proved: nothing more need be tested.' };
  const tellsHardly =
    best !== null && best.gainBits < (chance < likely ? HARDLY_TELLS : HARDLY_TELLS_MORE) * doubtBits;
  if (isSoundNow && (!anythingToLearn || (tellsHardly && confirmingMinutes === null))) {
    return {
      reason: 'works-now',
      sentence:
        'It works now, so measuring finds nothing: warm it, shake it, load it until it fails again, say so, and go on from there.',
    };
  }
  if (!anythingToLearn && confirmingMinutes === null) {
    return {
      reason: 'nothing-to-learn',
      sentence: mayBlowAgain
        ? LOOK_FOR_WHAT_OPENED_IT
        : 'No test on this map would tell more: decide by looking, or by the cheapest repair.',
    };
  }
  if (
    best &&
    (confirmingMinutes === null || mayBlowAgain) &&
    (best.gainBits * minutesPerBit(cost) < best.minutes || (!mayBlowAgain && tellsHardly))
  ) {
    // A new fuse is no cheap try while what opened the old one may be there.
    if (mayBlowAgain) return { reason: 'nothing-to-learn', sentence: LOOK_FOR_WHAT_OPENED_IT };
    return {
      reason: 'not-worth-it',
      sentence: `${title} leads. The best test left takes ${best.minutes.toFixed(1)} min and would tell so little that looking, or trying the cheapest repair and proving the function, is cheaper.`,
    };
  }
  if (chance < likely || confirmingMinutes === null || mayBlowAgain) return null;
  // A probe slips once in a hundred readings, and nobody notices: what hangs on one is looked at once more.
  if (decidesAlone && confirmingMinutes <= AGAIN_MINUTES) return null;
  const atStake = (1 - chance) * wrongRepairMinutes(cost);
  if (confirmingMinutes < atStake) return null;
  const spoken = (minutes: number) => (minutes < 1 ? 'under a minute' : `${Math.round(minutes)} min`);
  return {
    reason: 'repair-is-cheaper',
    sentence: `${title}: the cheapest confirming test takes ${confirmingMinutes.toFixed(1)} min and would save ${spoken(atStake)} on average. Trying the repair and then proving the function is cheaper now.`,
  };
}
