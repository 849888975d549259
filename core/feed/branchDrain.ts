/** Which branch draws while everything sleeps: fuse by fuse, by the millivolts across each, none taken out. */
import type { Panel, Slot } from '../format';
import { fuseDropAmps, hasColdOhms, SLEEP_DRAW_AMPS, type SlotReading } from '../limits';
import { slotRows } from '../panel';
import { isSafetySlot } from '../safety';
import { figure } from '../sizing';

/** Volts across a fuse in its place, asleep. */
export interface SlotDrop {
  readonly id: string;
  readonly panel: string;
  readonly slot: string;
  readonly volts: number;
  readonly ratingAmps: number;
  readonly family: Slot['family'];
}

interface BranchDraw {
  readonly slot: Slot;
  /** Ampere with the band; null where the millivolts tell none. */
  readonly amps: number | null;
  readonly fromAmps: number | null;
  readonly toAmps: number | null;
  /** Read, and how it stands; "not read" where it was not. */
  readonly words: string;
  readonly read: boolean;
}

export interface BranchDrain {
  /** The largest draw first, then what tells nothing, then what was not read. */
  readonly branches: readonly BranchDraw[];
  readonly totalAmps: number;
  readonly read: number;
  readonly of: number;
  /** The next slot to be read, row after row; null where all are. */
  readonly next: Slot | null;
  readonly sentence: string;
}

/** How it is done without waking a module: said before the first fuse. */
export const WITHOUT_WAKING: readonly string[] = [
  'Open bonnet and box first, latch every door and bonnet catch by hand as if closed, take the key out of reach.',
  'Wait until the modules sleep, 10 to 60 minutes; a phone app or a wireless key nearby wakes them.',
  'Millivolts on the fuse’s own two ends. No fuse is pulled: putting it back wakes what hangs on it.',
  'Once a branch is found, unplug what hangs on it one by one, still without pulling the fuse.',
];

const fuseSlots = (panel: Panel) =>
  slotRows(
    panel.slots.filter(
      (slot) =>
        slot.type === 'fuse' &&
        (slot.state === 'fitted' || slot.state === 'tapped' || slot.state === 'unknown'),
    ),
    ({ type }) => type,
  ).flat();

function drawOf(slot: Slot, drop: SlotDrop | undefined): BranchDraw {
  const none = { slot, amps: null, fromAmps: null, toAmps: null };
  if (isSafetySlot(slot)) return { ...none, words: 'safety: by the maker’s procedure only', read: true };
  if (!drop) return { ...none, words: 'not read', read: false };
  const found = fuseDropAmps(drop.volts, drop.ratingAmps, drop.family);
  if ('nothing' in found) return { ...none, words: found.nothing, read: true };
  return {
    slot,
    amps: found.amps,
    fromAmps: found.fromAmps,
    toAmps: found.toAmps,
    words: `about ${figure(found.amps, 'A')} (${figure(found.fromAmps, 'A')} to ${figure(found.toAmps, 'A')})`,
    read: true,
  };
}

/** What each fuse of a box carries asleep, and which branch to hunt. */
export function branchDrain(panel: Panel, drops: readonly SlotDrop[]): BranchDrain {
  const slots = fuseSlots(panel);
  const latestOf = (slot: Slot) => drops.findLast((one) => one.panel === panel.id && one.slot === slot.id);
  const branches = slots.map((slot) => drawOf(slot, latestOf(slot)));
  const sorted = [...branches].sort(
    (one, other) => (other.amps ?? (other.read ? 0 : -1)) - (one.amps ?? (one.read ? 0 : -1)),
  );
  const totalAmps = branches.reduce((sum, one) => sum + (one.amps ?? 0), 0);
  const read = branches.filter((one) => one.read).length;
  const [most] = sorted;
  const sentence =
    read === 0
      ? 'Nothing read yet.'
      : most?.amps
        ? `${figure(totalAmps, 'A')} through the ${read} of ${slots.length} fuses that were read${totalAmps > SLEEP_DRAW_AMPS ? `, more than the usual ${figure(SLEEP_DRAW_AMPS, 'A')} asleep` : ''}. Hunt ${most.slot.type} ${most.slot.number}${most.slot.meaning || most.slot.label ? ` (${most.slot.meaning ?? most.slot.label})` : ''} first: ${figure(most.amps, 'A')}.`
        : `${read} of ${slots.length} read, none shows a current that can be told. Smaller fuses tell smaller currents; use a clamp for the whole.`;
  return {
    branches: sorted,
    totalAmps,
    read,
    of: slots.length,
    next: branches.find((one) => !one.read)?.slot ?? null,
    sentence,
  };
}

/** Whether millivolts across a slot’s fuse tell a current at all. */
export function tellsCurrent(slot: Slot): boolean {
  return hasColdOhms(slot.family);
}

/** So long after key off a feed was dead for the first time, seconds; null where nobody timed it. */
export function droppedAfter(readings: readonly SlotReading[]): number | null {
  return readings.findLast((one) => one.afterSeconds !== undefined)?.afterSeconds ?? null;
}
