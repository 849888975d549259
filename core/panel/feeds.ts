/** What kind of feed a slot has, from where it was live in which state of key and engine. */
import { KEY_STATE_WORDS, KEY_STATES, type KeyState, latest, liveness, type SlotReading } from '../limits';

export type FeedClass =
  | 'constant'
  | 'accessory'
  | 'run'
  | 'ignition'
  | 'crank'
  | 'delayed'
  | 'module'
  | 'load-side'
  | 'dead'
  | 'unknown';

export interface FeedFinding {
  readonly feed: FeedClass;
  /** Still possible while readings are missing. */
  readonly possible: readonly FeedClass[];
  /** States that would decide between what is possible. */
  readonly missing: readonly KeyState[];
  readonly sentence: string;
}

/** Live in these states, dead in the others; a state that is not named says nothing about that feed. */
const PATTERNS: readonly (readonly [FeedClass, Readonly<Partial<Record<KeyState, boolean>>>])[] = [
  ['constant', { off: true, 'off-waited': true, accessory: true, run: true, crank: true, running: true }],
  ['delayed', { off: true, 'off-waited': false, accessory: true, run: true, running: true }],
  ['accessory', { off: false, 'off-waited': false, accessory: true, run: true, crank: false, running: true }],
  ['run', { off: false, 'off-waited': false, accessory: false, run: true, crank: false, running: true }],
  ['ignition', { off: false, 'off-waited': false, accessory: false, run: true, crank: true, running: true }],
  ['crank', { off: false, 'off-waited': false, accessory: false, run: false, crank: true, running: false }],
  ['module', { off: false, 'off-waited': false, accessory: false, run: false, crank: false, running: true }],
  [
    'load-side',
    {
      off: false,
      'off-waited': false,
      accessory: false,
      run: false,
      crank: false,
      running: false,
      'function-on': true,
    },
  ],
  [
    'dead',
    {
      off: false,
      'off-waited': false,
      accessory: false,
      run: false,
      crank: false,
      running: false,
      'function-on': false,
    },
  ],
];

/** Whether a feed of a class is live in a state; undefined where the class does not say. */
export function isFedIn(feed: string, state: KeyState): boolean | undefined {
  return PATTERNS.find(([name]) => name === feed)?.[1][state];
}

const WORDS: Readonly<Record<FeedClass, string>> = {
  constant: 'constant',
  accessory: 'accessory: drops while cranking',
  run: 'run only: drops while cranking',
  ignition: 'ignition: run and crank',
  crank: 'crank only',
  delayed: 'delayed: drops some time after key off. Say whether the vehicle or the device lingers',
  module: 'decided by a module: not to be tapped',
  'load-side': 'live only while its function is on: not a feed',
  dead: 'dead in every state',
  unknown: 'fits no pattern: read again, and look for a second feed',
};

/** The class of a feed from its readings in the states; the latest in each state counts. */
export function classifyFeed(readings: readonly SlotReading[], nominalVolts: number): FeedFinding {
  const live = new Map<KeyState, boolean>();
  /** Neither live nor dead: this decides nothing before volts under load are read. */
  const dim: KeyState[] = [];
  for (const state of KEY_STATES) {
    const reading = latest(readings, 'feed', { fuseOut: false, state });
    const stands = reading ? liveness(reading.value, nominalVolts) : null;
    if (stands === 'weak') dim.push(state);
    else if (stands !== null) live.set(state, stands === 'live');
  }
  if (dim.length > 0) {
    const where = dim.map((state) => KEY_STATE_WORDS[state].toLowerCase()).join(', ');
    const sentence = `Dim or low with ${where}: a feed through resistance, or no feed at all. Read volts under load there.`;
    return { feed: 'unknown', possible: [], missing: dim, sentence };
  }
  if (live.size === 0) {
    return { feed: 'unknown', possible: [], missing: [...KEY_STATES], sentence: 'Not read yet.' };
  }
  const possible = PATTERNS.filter(([, pattern]) =>
    [...live].every(([state, on]) => pattern[state] === undefined || pattern[state] === on),
  ).map(([feed]) => feed);
  const left = PATTERNS.filter(([feed]) => possible.includes(feed)).map(([, pattern]) => pattern);
  const differs = (state: KeyState) =>
    left.some((pattern) => pattern[state] === true) && left.some((pattern) => pattern[state] === false);
  const missing = KEY_STATES.filter((state) => !live.has(state) && differs(state));
  const [only] = possible;
  if (possible.length === 0) {
    return { feed: 'unknown', possible, missing: [], sentence: `${WORDS.unknown}.` };
  }
  if (possible.length === 1 && only) {
    return { feed: only, possible, missing: [], sentence: `${capital(WORDS[only])}.` };
  }
  const waits = missing.includes('off-waited')
    ? ' Wait for the modules to sleep before “off” is judged.'
    : '';
  return {
    feed: 'unknown',
    possible,
    missing,
    sentence: `Could be ${possible.join(', ')}. To be sure: ${missing.map((state) => KEY_STATE_WORDS[state].toLowerCase()).join(', ')}.${waits}`,
  };
}

function capital(words: string): string {
  return `${words[0]?.toUpperCase() ?? ''}${words.slice(1)}`;
}
