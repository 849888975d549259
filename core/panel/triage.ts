/** What lamp or volts at both ends of a fuse say of it, and what they do not. */
import type { Slot } from '../format/panelSchema';
import { FEED_STATE_WORDS, type FeedState, latest, liveness, type SlotReading } from './slotReadings';

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
const KEY_MAY_MATTER: readonly FeedState[] = ['off', 'off-waited', 'accessory', 'crank'];

/** The verdict on one slot from all its readings. The latest of each end counts, both in one state. */
export function triageSlot(
  slot: Pick<Slot, 'type' | 'number' | 'feed'>,
  readings: readonly SlotReading[],
  nominalVolts: number,
): TriageResult {
  const unproved = readings.some((one) => !one.testerProved);
  const result = (verdict: SlotVerdict, sentence: string, next: string | null): TriageResult => ({
    verdict,
    provisional: verdict !== 'untested',
    sentence: unproved ? `${sentence} Provisional: the tester was not proved first.` : sentence,
    next: unproved && next === null ? 'Prove the tester on a point known to be live.' : next,
  });
  if (readings.length === 0) return result('untested', 'Not tested yet.', null);
  const outLoad =
    latest(readings, 'load', { fuseOut: true }) ?? latest(readings, 'load-2', { fuseOut: true });
  if (outLoad && liveness(outLoad.value, nominalVolts) !== 'dead') {
    return result(
      'second-feed',
      'Its load side stays live with the fuse out: a second feed. Two live ends cannot pass this fuse.',
      'Measure the fuse in the hand, and find the second feed.',
    );
  }
  const last = readings.findLast((one) => !one.fuseOut);
  if (!last) return result('half', 'Read with the fuse out only.', 'Put it back and read both ends.');
  const { state } = last;
  const feed = latest(readings, 'feed', { fuseOut: false, state });
  const load = latest(readings, 'load', { fuseOut: false, state });
  const second = latest(readings, 'load-2', { fuseOut: false, state });
  if (!feed || !load) return result('half', 'One end read.', `Read its ${feed ? 'load' : 'feed'} side too.`);
  const at = (one: SlotReading) => liveness(one.value, nominalVolts);
  const [onFeed, onLoad] = [at(feed), at(load)];
  if (onFeed === 'dead' && onLoad === 'dead') {
    return KEY_MAY_MATTER.includes(state) && slot.feed !== 'constant'
      ? result(
          'awaits-key',
          `Both ends dark with ${FEED_STATE_WORDS[state].toLowerCase()}: perhaps only the key stands wrong.`,
          'Read again with the key at run.',
        )
      : result(
          'not-fed',
          'Both ends dark: not fed. Main fuse, relay and everything upstream come before this fuse.',
          'Look upstream.',
        );
  }
  if (onFeed === 'weak' || onLoad === 'weak') {
    return result(
      'weak',
      'Dim or low: a feed through resistance.',
      'Read volts under load, here and upstream.',
    );
  }
  if (onFeed === 'live' && onLoad === 'dead') {
    return result('open', 'Feed side live, load side dark: suspected open.', 'Pull it and measure it.');
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
  return result(
    'passes',
    'Both ends live. A second feed behind it would look the same: if its load is dead, pull it and read both holes.',
    null,
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
  return slots
    .filter((slot) => slot.type === 'fuse' && !NOT_TESTED.includes(slot.state))
    .sort((one, other) => {
      const apart = one.y + one.height / 2 - (other.y + other.height / 2);
      return Math.abs(apart) > Math.min(one.height, other.height) / 2 ? apart : one.x - other.x;
    });
}
