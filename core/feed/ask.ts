/** What is asked of a feed: how much, in which states it has to be live and in which dead, where, with which taps at hand. */
import type { Slot } from '../format';
import { HOT_RUNNING_SHARE, KEY_STATE_WORDS, KEY_STATES, type KeyState, RUNNING_SHARE } from '../limits';

/** Share of a rating that may be used for what is asked. */
export function shareFor({ place, duty }: Pick<FeedAsk, 'place' | 'duty'>): number {
  if (duty === 'seconds') return 1;
  return place === 'hot' ? HOT_RUNNING_SHARE : RUNNING_SHARE;
}

export type Wish = 'live' | 'dead';

export interface FeedAsk {
  /** For good, ampere. */
  readonly amps: number;
  /** In the first moment, ampere; null where nobody knows. */
  readonly startAmps: number | null;
  /** What it is for, in words. */
  readonly purpose: string;
  /** States that are not named do not matter. */
  readonly wanted: Readonly<Partial<Record<KeyState, Wish>>>;
  readonly place: 'cool' | 'hot';
  /** On for good, or for seconds with minutes between: that may use all of a rating, it gets nothing warm. */
  readonly duty: 'for-good' | 'seconds';
  /** Families of taps at hand; none: not said. */
  readonly taps: readonly Slot['family'][];
}

/** States that a device can be asked to be live or dead in; what a slot serves switched on is no matter of the device. */
export const ASKED_STATES = KEY_STATES.filter((state) => state !== 'function-on');

export interface WhenWanted {
  readonly id: string;
  readonly name: string;
  readonly wanted: FeedAsk['wanted'];
}

/** The usual wishes, one tap each. */
export const WHEN: readonly WhenWanted[] = [
  {
    id: 'key',
    name: 'with the key',
    wanted: { off: 'dead', 'off-waited': 'dead', run: 'live', running: 'live' },
  },
  {
    id: 'accessory',
    name: 'from accessory on',
    wanted: { off: 'dead', 'off-waited': 'dead', accessory: 'live', run: 'live', running: 'live' },
  },
  {
    id: 'engine',
    name: 'engine running only',
    wanted: { off: 'dead', 'off-waited': 'dead', accessory: 'dead', run: 'dead', running: 'live' },
  },
  {
    id: 'ignition',
    name: 'key, cranking too',
    wanted: { off: 'dead', 'off-waited': 'dead', run: 'live', crank: 'live', running: 'live' },
  },
  {
    id: 'always',
    name: 'always',
    wanted: { off: 'live', 'off-waited': 'live', accessory: 'live', run: 'live', running: 'live' },
  },
];

/** What is wished, in words: "live with key at run, engine running; dead with key off". */
export function wantedWords(wanted: FeedAsk['wanted']): string {
  const of = (wish: Wish) =>
    ASKED_STATES.filter((state) => wanted[state] === wish).map((state) =>
      KEY_STATE_WORDS[state].toLowerCase(),
    );
  return [
    of('live').length > 0 ? `live: ${of('live').join(', ')}` : '',
    of('dead').length > 0 ? `dead: ${of('dead').join(', ')}` : '',
  ]
    .filter((words) => words !== '')
    .join('; ');
}
