/**
 * More current than a switched feed can give: its coil hangs on the switched feed, the load on a constant one through a fuse of
 * its own close to the battery.
 */
import { fuseFor, leastRating, wireSize } from '../sizing';
import { type FeedAsk, shareFor } from './ask';
import type { Candidate } from './candidate';
import { findFeeds } from './candidates';
import type { FeedScene } from './scene';

/** What the coil of a small relay draws, ampere. */
const COIL_AMPS = 0.15;

export interface RelayVariant {
  /** For the coil. */
  readonly coil: Candidate;
  readonly coilFuse: number | null;
  readonly loadFuse: number | null;
  readonly wireMm2: number | null;
  readonly steps: readonly string[];
}

/** Metres from battery to load where nobody has said them. */
const METRES = 3;

/** Something is live as it should be and cannot carry the current: that is what a relay is for. */
export function wantsRelay(candidates: readonly Candidate[]): boolean {
  return candidates.some(({ against, unread }) => {
    const refuses = against.filter((one) => one.refuses);
    return (
      unread.length === 0 &&
      refuses.length > 0 &&
      refuses.every(({ id }) => id === 'headroom' || id === 'added-fuse')
    );
  });
}

/** The variant where a feed for the coil is there; null where the coil has none either. */
export function relayVariant(scene: FeedScene, ask: FeedAsk, metres: number | null): RelayVariant | null {
  const [coil] = findFeeds(scene, { ...ask, amps: COIL_AMPS, startAmps: null, duty: 'for-good' });
  if (!coil || coil.verdict === 'refused') return null;
  const run = metres ?? METRES;
  const hot = ask.place === 'hot';
  const size = wireSize({
    amps: ask.amps,
    systemVolts: scene.nominalVolts,
    oneWayMetres: run,
    returnBy: 'wire',
    allowed: { percent: 3 },
    bundled: hot,
  });
  const byStart =
    ask.startAmps === null || size.sizeMm2 === null
      ? null
      : fuseFor({
          runningAmps: ask.amps,
          startAmps: ask.startAmps,
          startSeconds: null,
          wireMm2: size.sizeMm2,
          family: 'regular',
          hot,
          short: ask.duty === 'seconds',
        }).chosen;
  const loadFuse = byStart?.ratingAmps ?? leastRating(ask.amps, shareFor(ask));
  const coilFuse = coil.addedFuse;
  const wire = size.sizeMm2 === null ? 'a wire larger than any of the table' : `${size.sizeMm2} mm²`;
  return {
    coil,
    coilFuse,
    loadFuse,
    wireMm2: size.sizeMm2,
    steps: [
      `Coil 86 from ${coil.slot.type} ${coil.slot.number} of ${coil.panelName}, through ${coilFuse === null ? 'a fuse' : `${coilFuse} A`} of its own; 85 to earth. It draws about ${COIL_AMPS} A.`,
      `30 from the battery’s plus through ${loadFuse === null ? 'a fuse after the maker’s table' : `a ${loadFuse} A fuse`} no more than 180 mm from the post, ${wire} over ${run} m${metres === null ? ' (length not said: three metres taken)' : ''}.`,
      `87 to the load; its return as thick, to the battery or a proved earth.`,
      'Relay: contact rated for the load with its start, coil of the system’s volts, a quenched one beside electronics.',
    ],
  };
}

/** Only while the engine runs, and no feed does that by itself: a switch that feels the charging volts behind a switched feed. */
export interface EngineVariant {
  readonly feed: Candidate;
  readonly sentence: string;
}

/** On from, and off below, volts of a 12 V system: above what a resting battery shows, below what charging holds. */
const CHARGING_ON = 13.3;
const CHARGING_OFF = 12.8;

export function engineVariant(scene: FeedScene, ask: FeedAsk): EngineVariant | null {
  if (ask.wanted.running !== 'live' || ask.wanted.run !== 'dead') return null;
  const { accessory: _any, ...wanted } = ask.wanted;
  const [feed] = findFeeds(scene, { ...ask, wanted: { ...wanted, run: 'live' } });
  if (!feed || feed.verdict === 'refused') return null;
  const scale = scene.nominalVolts / 12;
  return {
    feed,
    sentence: `${feed.slot.type} ${feed.slot.number} of ${feed.panelName} is live with the key. A switch that feels the charging volts behind it (on above ${(CHARGING_ON * scale).toFixed(1)} V, off below ${(CHARGING_OFF * scale).toFixed(1)} V, some seconds late) makes it wait for the engine. On a managed alternator the volts fall below that while it runs: read them over a drive first.`,
  };
}
