/** Which hole of a slot is its supply side: it decides which way round a tap goes in. */
import type { Slot } from '../format';
import { KEY_STATE_WORDS, type KeyState, latest, liveness, type SlotReading } from '../limits';
import { fedEnd } from '../panel';

export interface SupplySide {
  readonly stands: 'proved' | 'by-map' | 'unread' | 'two-feeds' | 'dead';
  /** The end that is fed; null where it is not known. */
  readonly end: 'first' | 'second' | null;
  /** States in which both holes are still to be read with the fuse out. */
  readonly missing: readonly KeyState[];
  readonly sentence: string;
}

const spoken = (states: readonly KeyState[]) =>
  states.map((state) => KEY_STATE_WORDS[state].toLowerCase()).join(', ');

/**
 * The supply side is the hole that is live with the fuse out in every state in which the feed should be, while the other
 * stays dead in all that were read. Both live are two feeds: stop.
 */
export function supplySide(
  slot: Pick<Slot, 'pins' | 'width' | 'height'>,
  readings: readonly SlotReading[],
  wantedLive: readonly KeyState[],
  nominalVolts: number,
): SupplySide {
  const states = [...new Set(readings.filter((one) => one.fuseOut).map((one) => one.state))];
  const mapped = fedEnd(slot);
  const at = (end: 'first' | 'second', state: KeyState) => {
    const other = mapped === end ? 'feed' : 'load';
    const read =
      latest(readings, end, { fuseOut: true, state }) ??
      (mapped ? latest(readings, other, { fuseOut: true, state }) : undefined);
    return read ? liveness(read.value, nominalVolts) : null;
  };
  const both = states.filter((state) => at('first', state) !== null && at('second', state) !== null);
  const two = both.find((state) => at('first', state) !== 'dead' && at('second', state) !== 'dead');
  if (two) {
    return {
      stands: 'two-feeds',
      end: null,
      missing: [],
      sentence: `Both holes are live with the fuse out (${spoken([two])}): two feeds meet here. Stop, and find the second.`,
    };
  }
  const fed = (['first', 'second'] as const).filter((end) =>
    states.some((state) => at(end, state) === 'live'),
  );
  if (fed.length === 2) {
    return {
      stands: 'two-feeds',
      end: null,
      missing: [],
      sentence:
        'One hole is live in one state and the other in another: two feeds meet here. Stop, and find the second.',
    };
  }
  const end = fed[0] ?? null;
  const missing = wantedLive.filter((state) => !both.includes(state));
  if (end !== null && missing.length === 0) {
    return {
      stands: 'proved',
      end,
      missing: [],
      sentence: `Its ${end === 'first' ? 'upper or left' : 'lower or right'} hole is the supply side: live with the fuse out where it should be, the other dead.`,
    };
  }
  if (end === null && both.length > 0 && missing.length === 0 && wantedLive.length > 0) {
    return {
      stands: 'dead',
      end: null,
      missing: [],
      sentence: 'Both holes are dead with the fuse out: nothing feeds it.',
    };
  }
  const read = `Which way a tap goes in: take the fuse out and read both holes (${spoken(missing.length > 0 ? missing : ['run'])}).`;
  return mapped
    ? {
        stands: 'by-map',
        end: mapped,
        missing,
        sentence: `By the map its ${mapped === 'first' ? 'upper or left' : 'lower or right'} hole is the supply side. ${read}`,
      }
    : { stands: 'unread', end, missing, sentence: read };
}
