/** What kind of feed a slot has, from where it was live in which state of key and engine. */
import {
  FEED_PATTERNS,
  FEED_WORDS,
  type FeedClass,
  KEY_STATE_WORDS,
  KEY_STATES,
  type KeyState,
  type Liveness,
  latest,
  liveness,
  type SlotReading,
} from '../limits';

export interface FeedFinding {
  readonly feed: FeedClass;
  /** Still possible while readings are missing. */
  readonly possible: readonly FeedClass[];
  /** States that would decide between what is possible. */
  readonly missing: readonly KeyState[];
  /** States that its class speaks of and nobody has read: it is only the one left over, and not seen there. */
  readonly unread: readonly KeyState[];
  readonly sentence: string;
}

/** What is known of a feed, state by state; a state that is not there was not read. */
export type Known = ReadonlyMap<KeyState, Liveness>;

const spoken = (states: readonly KeyState[]) =>
  states.map((state) => KEY_STATE_WORDS[state].toLowerCase()).join(', ');

/** The class of a feed from its readings in the states; the latest in each state counts. */
export function classifyFeed(readings: readonly SlotReading[], nominalVolts: number): FeedFinding {
  return classOf(knownFrom(readings, nominalVolts));
}

/** The latest reading of the feed side in each state, the fuse in its place. */
export function knownFrom(readings: readonly SlotReading[], nominalVolts: number): Known {
  return new Map(
    KEY_STATES.flatMap((state) => {
      const reading = latest(readings, 'feed', { fuseOut: false, state });
      return reading ? [[state, liveness(reading.value, nominalVolts)] as const] : [];
    }),
  );
}

/** The class that fits what is known, or what it may still be. */
export function classOf(known: Known): FeedFinding {
  /** Neither live nor dead: this decides nothing before volts under load are read. */
  const dim = [...known].flatMap(([state, stands]) => (stands === 'weak' ? [state] : []));
  if (dim.length > 0) {
    const sentence = `Dim or low with ${spoken(dim)}: a feed through resistance, or no feed at all. Read volts under load there.`;
    return { feed: 'unknown', possible: [], missing: dim, unread: [], sentence };
  }
  if (known.size === 0) {
    return { feed: 'unknown', possible: [], missing: [...KEY_STATES], unread: [], sentence: 'Not read yet.' };
  }
  const left = FEED_PATTERNS.filter(([, pattern]) =>
    [...known].every(
      ([state, stands]) => pattern[state] === undefined || pattern[state] === (stands === 'live'),
    ),
  );
  const possible = left.map(([feed]) => feed);
  const [only] = left;
  if (!only) {
    return {
      feed: 'unknown',
      possible,
      missing: [],
      unread: [],
      sentence: `${capital(FEED_WORDS.unknown)}.`,
    };
  }
  if (left.length === 1) {
    const unread = KEY_STATES.filter((state) => only[1][state] !== undefined && !known.has(state));
    const rest = unread.length === 0 ? '' : ` Nothing else fits; not read: ${spoken(unread)}.`;
    return {
      feed: only[0],
      possible,
      missing: [],
      unread,
      sentence: `${capital(FEED_WORDS[only[0]])}.${rest}`,
    };
  }
  const differs = (state: KeyState) =>
    left.some(([, pattern]) => pattern[state] === true) &&
    left.some(([, pattern]) => pattern[state] === false);
  const missing = KEY_STATES.filter((state) => !known.has(state) && differs(state));
  const waits = missing.includes('off-waited')
    ? ' Wait for the modules to sleep before “off” is judged.'
    : '';
  return {
    feed: 'unknown',
    possible,
    missing,
    unread: missing,
    sentence: `Could be ${possible.join(', ')}. To be sure: ${spoken(missing)}.${waits}`,
  };
}

function capital(words: string): string {
  return `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}`;
}
