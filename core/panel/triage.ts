/** What lamp or volts at both ends of a fuse say of it, and what they do not. */

import type { Slot } from '../format';
import {
  isFedIn,
  KEY_STATE_WORDS,
  KEY_STATES,
  type KeyState,
  latest,
  liveness,
  type SlotEnd,
  type SlotReading,
} from '../limits';
import { type EndWords, withKnownEnds } from './ends';
import { slotRows } from './rows';

export type SlotVerdict =
  | 'untested'
  /** One end read, the other not. */
  | 'half'
  | 'passes'
  | 'open'
  | 'awaits-key'
  | 'not-fed'
  | 'fed-backwards'
  | 'second-feed'
  | 'weak';

export interface TriageResult {
  readonly verdict: SlotVerdict;
  /** True until tester, second feed and load are dealt with: a pass by lamp is never more. */
  readonly provisional: boolean;
  readonly sentence: string;
  /** What to do to be surer; null when nothing is due. */
  readonly next: string | null;
}

export const VERDICT_WORDS: Readonly<Record<SlotVerdict, string>> = {
  untested: 'not tested',
  half: 'one end only',
  passes: 'provisional pass',
  open: 'suspected open',
  'awaits-key': 'awaits the right key position',
  'not-fed': 'not fed',
  'fed-backwards': 'fed from the load side',
  'second-feed': 'fed from elsewhere',
  weak: 'weak',
};

/** States in which a dark pair may only mean that the key stands wrong. */
const KEY_MAY_MATTER: readonly KeyState[] = ['off', 'off-waited', 'accessory', 'crank'];

/** Where nobody says how the box is held. */
const AS_DRAWN: EndWords = { first: 'upper', second: 'lower' };

/** The verdict on one slot from all its readings. The latest of each end counts, both in one state. */
export function triageSlot(
  slot: Pick<Slot, 'type' | 'number' | 'feed' | 'pins' | 'width' | 'height'>,
  taken: readonly SlotReading[],
  nominalVolts: number,
  held: EndWords = AS_DRAWN,
): TriageResult {
  if (taken.length === 0)
    return { verdict: 'untested', provisional: false, sentence: 'Not tested yet.', next: null };
  const { readings, fed } = withKnownEnds(slot, taken, nominalVolts);
  const out = (['load', 'load-2'] as const).flatMap((end) => latest(readings, end, { fuseOut: true }) ?? []);
  const last = readings.findLast((one) => !one.fuseOut);
  const state = last?.state;
  const inPlace = (end: SlotEnd) => (state ? latest(readings, end, { fuseOut: false, state }) : undefined);
  const [feed, load, second] = [inPlace('feed'), inPlace('load'), inPlace('load-2')];
  // What was read anew stands instead of what was read before.
  const standing = [...out, feed, load, second].filter((one) => one !== undefined);
  const unproved = standing.some((one) => !one.testerProved);
  const minus = standing.some(
    ({ value }) => 'volts' in value && liveness(value, nominalVolts) !== 'dead' && value.volts < 0,
  );
  const result = (verdict: SlotVerdict, sentence: string, next: string | null): TriageResult => ({
    verdict,
    provisional: true,
    sentence: [
      sentence,
      minus ? 'The minus sign says that the leads are exchanged.' : '',
      fed?.by === 'holes'
        ? `The ${held[fed.end]} end is the fed one: the other hole was dead with the fuse out.`
        : '',
      unproved ? 'Provisional: the tester was not proved first.' : '',
    ]
      .filter((one) => one !== '')
      .join(' '),
    next: unproved && next === null ? 'Prove the tester on a point known to be live.' : next,
  });
  if (out.some((one) => liveness(one.value, nominalVolts) !== 'dead')) {
    return result(
      'second-feed',
      'Its load side stays live with the fuse out: fed from elsewhere. Two live ends cannot pass this fuse.',
      'Measure the fuse in the hand. Look for the other feed where its circuit meets another: a splice or plug that both share, a tap, a lead put in by hand; pull the neighbours one by one until this hole goes dead.',
    );
  }
  if (!state) return result('half', 'Read with the fuse out only.', 'Put it back and read both ends.');
  if (!feed || !load) return result('half', 'One end read.', `Read its ${feed ? 'load' : 'feed'} side too.`);
  const at = (one: SlotReading) => liveness(one.value, nominalVolts);
  const [onFeed, onLoad] = [at(feed), at(load)];
  if (onFeed === 'dead' && onLoad === 'dead') return dark(slot.feed, state, result);
  if (onFeed === 'weak' || onLoad === 'weak') {
    return result(
      'weak',
      'Dim or low: a feed through resistance.',
      'Read volts under load, here and upstream.',
    );
  }
  if (onFeed === 'live' && onLoad === 'dead') {
    return fed?.by === 'live'
      ? result(
          'open',
          `Only the ${held[fed.end]} end is live, so that must be its fed side, unless something feeds it backwards: suspected open.`,
          'Pull it, read both holes, and measure it.',
        )
      : result('open', 'Feed side live, load side dark: suspected open.', 'Pull it and measure it.');
  }
  if (onFeed === 'dead') {
    return result(
      'fed-backwards',
      'Load side live, feed side dark: something feeds it backwards.',
      'Pull it and read both holes.',
    );
  }
  if (second && at(second) === 'dead') {
    return result(
      'open',
      'Its second element is dark: suspected open.',
      'Pull it and measure both elements.',
    );
  }
  for (const end of second ? [load, second] : [load]) {
    const lost = lostOver(feed, end);
    if (lost !== null && Math.abs(lost) > MOST_OVER_FUSE) return apart(lost, result);
  }
  return result(
    'passes',
    out.length > 0
      ? 'Both ends live, and the load side dead with the fuse out: no second feed behind it.'
      : 'Both ends live. A second feed behind it would look the same: if its load is dead, pull it and read both holes.',
    null,
  );
}

type Say = (verdict: SlotVerdict, sentence: string, next: string | null) => TriageResult;

/** Both ends dark: whether the key stands wrong for this feed, or it is not fed. */
function dark(feed: Slot['feed'], state: KeyState, say: Say): TriageResult {
  const here = KEY_STATE_WORDS[state].toLowerCase();
  if (feed === 'lights') {
    return say(
      'awaits-key',
      `Both ends dark with ${here}: this feed comes with the lights.`,
      'Read again with the lights on.',
    );
  }
  const liveHere = feed === undefined ? undefined : isFedIn(feed, state);
  if (liveHere === false) {
    const other = KEY_STATES.find((one) => isFedIn(feed!, one));
    return say(
      'awaits-key',
      `Both ends dark with ${here}, as this feed should be there.`,
      other ? `Read again: ${KEY_STATE_WORDS[other].toLowerCase()}.` : 'Nothing feeds it in any state.',
    );
  }
  if (liveHere === undefined && KEY_MAY_MATTER.includes(state)) {
    return say(
      'awaits-key',
      `Both ends dark with ${here}: perhaps only the key stands wrong.`,
      'Read again with the key at run.',
    );
  }
  return say(
    'not-fed',
    'Both ends dark: not fed. Main fuse, relay and everything upstream come before this fuse.',
    'Look upstream.',
  );
}

/** More is lost over no sound fuse and its clips, volts; contact limits do not scale with the system. */
const MOST_OVER_FUSE = 0.2;

/** Volts lost from the feed side to a load side; null unless both were read in volts. */
function lostOver(feed: SlotReading, load: SlotReading): number | null {
  if (!('volts' in feed.value && 'volts' in load.value)) return null;
  return Math.abs(feed.value.volts) - Math.abs(load.value.volts);
}

/** Both ends live, but not alike. */
function apart(lost: number, say: Say): TriageResult {
  const volts = `${Math.abs(lost).toFixed(2)} V`;
  return lost > 0
    ? say(
        'weak',
        `${volts} lost over the fuse and its clips: resistance under load, or an open fuse with something else feeding its load side.`,
        'Look at clips and contacts; pull it, measure it, and read both holes.',
      )
    : say(
        'fed-backwards',
        `The load side is ${volts} above the feed side: something else feeds it.`,
        'Pull it and read both holes.',
      );
}

export interface TriageCounts {
  readonly verdicts: Readonly<Record<SlotVerdict, number>>;
  /** "8 provisional passes, 1 suspected open, 2 await the right key position, 1 fed from elsewhere". */
  readonly sentence: string;
}

const PLURALS: Readonly<Partial<Record<SlotVerdict, string>>> = {
  passes: 'provisional passes',
  'awaits-key': 'await the right key position',
};

const SPOKEN: readonly SlotVerdict[] = [
  'passes',
  'open',
  'awaits-key',
  'not-fed',
  'fed-backwards',
  'second-feed',
  'weak',
  'half',
];

export function countVerdicts(results: readonly TriageResult[]): TriageCounts {
  const verdicts = Object.fromEntries(Object.keys(VERDICT_WORDS).map((verdict) => [verdict, 0])) as Record<
    SlotVerdict,
    number
  >;
  for (const { verdict } of results) verdicts[verdict] += 1;
  const sentence = SPOKEN.filter((verdict) => verdicts[verdict] > 0)
    .map((verdict) => {
      const count = verdicts[verdict];
      return `${count} ${count > 1 ? (PLURALS[verdict] ?? VERDICT_WORDS[verdict]) : VERDICT_WORDS[verdict]}`;
    })
    .join(', ');
  return { verdicts, sentence: sentence === '' ? 'Nothing tested yet' : sentence };
}

/** Holes without a fuse in use; the spare store is stock and never tested. */
const NOT_TESTED: readonly Slot['state'][] = ['empty', 'not-ordered', 'missing', 'spare', 'abandoned'];

/** Fuse slots in the order in which a thumb goes through them: row after row. */
export function triageOrder(slots: readonly Slot[]): Slot[] {
  const tested = slots.filter((slot) => slot.type === 'fuse' && !NOT_TESTED.includes(slot.state));
  return slotRows(tested, ({ type }) => type).flat();
}
