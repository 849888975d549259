/** Kinds of feed by where they are live: key positions, after the wait, cranking, engine running, what they serve switched on. */
import type { KeyState } from './slotReadings';

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

/** Live in these states, dead in the others; a state that is not named says nothing about that feed. */
export const FEED_PATTERNS: readonly (readonly [
  Exclude<FeedClass, 'unknown'>,
  Readonly<Partial<Record<KeyState, boolean>>>,
])[] = [
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
  return FEED_PATTERNS.find(([name]) => name === feed)?.[1][state];
}

export const FEED_WORDS: Readonly<Record<FeedClass, string>> = {
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
