/** The two ends of a fuse slot: by where they lie as the box is held, and by which of them is fed. */
import type { Panel, Slot } from '../format';
import { latest, liveness, type SlotReading } from '../limits';
import { type Turns, turnPanel } from './turn';

/** An end by where it lies on the box as drawn: the first is the upper or the left one. */
export type DrawnEnd = 'first' | 'second';

type HeldWord = 'upper' | 'lower' | 'left' | 'right';
export type EndWords = Readonly<Record<DrawnEnd, HeldWord>>;

const OTHER: Readonly<Record<DrawnEnd, DrawnEnd>> = { first: 'second', second: 'first' };

/** Roles by which the map may say where the supply of a fuse comes in. */
const FED_ROLES: readonly string[] = ['feed', 'in', 'supply'];

/** The end that the map says is fed; null where it does not say. */
export function fedEnd({ pins, width, height }: Pick<Slot, 'pins' | 'width' | 'height'>): DrawnEnd | null {
  const fed = pins?.find(({ role }) => FED_ROLES.includes(role));
  if (!fed) return null;
  return (height >= width ? fed.y < height / 2 : fed.x < width / 2) ? 'first' : 'second';
}

/** The end that was the only live one with the fuse out; null where the holes were not both read, or are alike. */
export function fedEndByHoles(readings: readonly SlotReading[], nominalVolts: number): DrawnEnd | null {
  const live = (end: DrawnEnd) => {
    const read = latest(readings, end, { fuseOut: true });
    return read ? liveness(read.value, nominalVolts) !== 'dead' : null;
  };
  const [first, second] = [live('first'), live('second')];
  if (first === null || second === null || first === second) return null;
  return first ? 'first' : 'second';
}

/** How the two ends of a slot lie while the box is held so: quarter turns clockwise, then perhaps mirrored. */
export function endsAsHeld(panel: Panel, slotId: string, turns: Turns, mirrored = false): EndWords {
  const drawn = panel.slots.find((one) => one.id === slotId)!;
  const seen = turnPanel(panel, turns, mirrored).slots.find((one) => one.slot.id === slotId)!;
  const upright = seen.height >= seen.width;
  // Upright as drawn, a quarter turn clockwise brings the upper end to the right.
  const wasUpright = drawn.height >= drawn.width;
  const swapped = wasUpright ? turns === 1 || turns === 2 : turns === 2 || turns === 3;
  const exchanged = upright ? swapped : swapped !== mirrored;
  const words: EndWords = upright ? { first: 'upper', second: 'lower' } : { first: 'left', second: 'right' };
  return exchanged ? { first: words.second, second: words.first } : words;
}

export interface KnownEnds {
  readonly readings: readonly SlotReading[];
  /** The end that is taken for the fed one, and how that is known; null where the readings name the sides. */
  readonly fed: { readonly end: DrawnEnd; readonly by: 'map' | 'holes' | 'live' | 'none' } | null;
}

/**
 * Readings with feed and load side in place of first and second end. Where neither the map nor the two holes tell which
 * end is fed, the only live one must be it, or something feeds the slot backwards.
 */
export function withKnownEnds(
  slot: Pick<Slot, 'pins' | 'width' | 'height'>,
  readings: readonly SlotReading[],
  nominalVolts: number,
): KnownEnds {
  if (!readings.some(({ end }) => end === 'first' || end === 'second')) return { readings, fed: null };
  const fed = whichIsFed(slot, readings, nominalVolts);
  const named = readings.map(
    (one): SlotReading =>
      one.end === fed.end
        ? { ...one, end: 'feed' }
        : one.end === OTHER[fed.end]
          ? { ...one, end: 'load' }
          : one,
  );
  return { readings: named, fed };
}

function whichIsFed(
  slot: Pick<Slot, 'pins' | 'width' | 'height'>,
  readings: readonly SlotReading[],
  nominalVolts: number,
): NonNullable<KnownEnds['fed']> {
  const byMap = fedEnd(slot);
  if (byMap) return { end: byMap, by: 'map' };
  const byHoles = fedEndByHoles(readings, nominalVolts);
  if (byHoles) return { end: byHoles, by: 'holes' };
  const state = readings.findLast((one) => !one.fuseOut)?.state;
  const live = (['first', 'second'] as const).filter((end) => {
    const read = state ? latest(readings, end, { fuseOut: false, state }) : undefined;
    return read && liveness(read.value, nominalVolts) !== 'dead';
  });
  return live.length === 1 ? { end: live[0]!, by: 'live' } : { end: 'first', by: 'none' };
}
