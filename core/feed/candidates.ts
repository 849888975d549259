/**
 * Every slot of a vehicle as a feed for what is asked: what is known of it and from where, what it can still give, what speaks
 * against it, what is still to be read. Works from a surveyed box alone, and says what it cannot know then.
 */

import { partsBehind } from '../circuit';
import { FUSE_FAMILIES, type Panel, type Slot } from '../format';
import { FEED_WORDS, isFedIn, KEY_STATES, type KeyState, type Liveness } from '../limits';
import { slotSentence, triageSlot, turnPanel, withKnownEnds } from '../panel';
import { safetyMarks } from '../safety';
import { fuseFor, type Headroom, headroomWords } from '../sizing';
import { AGAINST } from './against';
import { ASKED_STATES, type FeedAsk } from './ask';
import { droppedAfter } from './branchDrain';
import type { Candidate, Reason } from './candidate';
import { classOf, knownFrom } from './classify';
import { headroomAt } from './room';
import {
  type Drawn,
  drawnIn,
  type FeedScene,
  feedKey,
  type InCircuits,
  NO_READINGS,
  NOWHERE,
  type StateOfFeed,
  simulatedAt,
} from './scene';
import { type SupplySide, supplySide } from './supplySide';
import { holesLive } from './survey';

/** Fuse holes and studs; what is in a slot decides later. */
const isPlace = (slot: Slot) => slot.type === 'fuse';

/** Every fuse slot judged, those that fit first, then those still to be read, the refused last. */
export function findFeeds(scene: FeedScene, ask: FeedAsk): Candidate[] {
  const drawn = drawnIn(scene);
  const found = scene.panels.flatMap((panel) =>
    panel.slots.filter(isPlace).map((slot) => judge(scene, drawn, ask, panel, slot)),
  );
  const rank = { fits: 0, 'to-read': 1, refused: 2 } as const;
  const owed = (one: Candidate) =>
    one.unread.length +
    one.open.length +
    one.conflicts.length +
    // What the map says otherwise is read last.
    UNLIKELY *
      one.states.filter(({ state, stands, mapped }) => unlike(stands ?? mapped, ask.wanted[state])).length +
    (one.slot.feed === 'lights' ? UNLIKELY : 0);
  return found.sort(
    (one, other) =>
      rank[one.verdict] - rank[other.verdict] ||
      owed(one) - owed(other) ||
      (other.headroom.roomAmps ?? -1) - (one.headroom.roomAmps ?? -1) ||
      one.minutesToOpen - other.minutesToOpen,
  );
}

const UNLIKELY = 10;
const unlike = (stands: Liveness | null, wish: string | undefined) =>
  stands !== null && wish !== undefined && stands !== wish;

function mappedAs(slot: Slot, state: KeyState): Liveness | null {
  const fed = slot.feed === undefined ? undefined : isFedIn(slot.feed, state);
  return fed === undefined ? null : fed ? 'live' : 'dead';
}

function judge(scene: FeedScene, drawn: Drawn, ask: FeedAsk, panel: Panel, slot: Slot): Candidate {
  const { nominalVolts } = scene;
  const readings = drawn.readings.get(feedKey(panel.id, slot.id)) ?? NO_READINGS;
  const inCircuits = drawn.at.get(feedKey(panel.id, slot.id)) ?? NOWHERE;
  const read = knownFrom(withKnownEnds(slot, readings, nominalVolts).readings, nominalVolts);
  const holes = holesLive(readings, nominalVolts);
  const simulated = inCircuits.map(({ model, node }) => simulatedAt(model, node));
  const seenIn = (state: KeyState) => read.get(state) ?? holes.get(state) ?? null;
  // Two circuits that have it must agree; where they do not, the one in which it is live knows its feed.
  const saysIn = (state: KeyState) => {
    const says = simulated.flatMap(({ states: all }) => all.get(state) ?? []);
    return says.find((one) => one === 'live') ?? says[0] ?? null;
  };
  const differsIn = (state: KeyState) => {
    const [seen, says] = [seenIn(state), saysIn(state)];
    return seen !== null && says !== null && seen !== says;
  };
  // A circuit that a reading has contradicted says nothing of the states that nobody has read.
  const trusted = !KEY_STATES.some(differsIn);
  const states = KEY_STATES.map(
    (state): StateOfFeed => ({
      state,
      read: seenIn(state),
      simulated: saysIn(state),
      stands: seenIn(state) ?? (trusted ? saysIn(state) : null),
      mapped: mappedAs(slot, state),
      differs: differsIn(state),
    }),
  );
  const finding = classOf(
    new Map(states.flatMap(({ state, stands }) => (stands === null ? [] : [[state, stands] as const]))),
  );
  const wantedLive = ASKED_STATES.filter((state) => ask.wanted[state] === 'live');
  const side = supplySide(slot, readings, wantedLive, nominalVolts);
  const verdict = triageSlot(slot, readings, nominalVolts).verdict;
  const room = headroomAt(scene, drawn, ask, panel, slot, inCircuits, states);
  const facts = {
    panel: panel.id,
    slot,
    panelName: panel.name,
    minutesToOpen: panel.minutesToOpen,
    where: slotSentence(turnPanel(panel, 0), slot.id),
    states,
    finding,
    from: fromWhere(states),
    conflicts: states.flatMap(({ state, differs }) => (differs ? [state] : [])),
    conflict: verdict === 'fed-backwards' || verdict === 'second-feed' ? ('fed-backwards' as const) : null,
    module: simulated.find(({ module }) => module !== null)?.module ?? null,
    pulsed: simulated.some(({ pulsed }) => pulsed),
    safetyBehind: safetyBehind(inCircuits),
    droppedAfter: droppedAfter(readings),
    side,
    addedFuse: addedFuse(slot, ask),
    headroom: room,
    roomWords: headroomWords(room, ask.amps),
    unread: states.flatMap(({ state, stands }) =>
      ask.wanted[state] !== undefined && stands === null ? [state] : [],
    ),
    open: openAt(slot, side, room, ask),
  };
  const against = AGAINST.flatMap(({ id, speaks }) => {
    const reason = speaks(facts, ask, nominalVolts);
    return reason ? [{ id, ...reason }] : [];
  });
  const refused = against.filter(({ refuses }) => refuses);
  const stands =
    refused.length > 0
      ? 'refused'
      : // A circuit that was contradicted is no ground to be sure of anything.
        facts.unread.length + facts.open.length + facts.conflicts.length > 0
        ? 'to-read'
        : 'fits';
  return {
    ...facts,
    against,
    verdict: stands,
    sentence: sentenceOf(facts, stands, refused),
  };
}

function fromWhere(states: readonly StateOfFeed[]): Candidate['from'] {
  const read = states.some((one) => one.read !== null);
  const drawn = states.some((one) => one.simulated !== null);
  return read && drawn ? 'both' : read ? 'readings' : drawn ? 'circuit' : 'nothing';
}

/** The first safety function behind the slot’s own fuse, by its name. */
function safetyBehind(inCircuits: readonly InCircuits[]): string | null {
  for (const { model, partId } of inCircuits) {
    const marks = safetyMarks(model.circuit);
    const own = [model.network.parts.get(partId)!, ...partsBehind(model.circuit, partId)];
    const safe = own.find((part) => marks.parts.has(part.id));
    if (safe)
      return model.circuit.functions.find(({ load }) => load.split(':')[0] === safe.id)?.name ?? safe.name;
  }
  return null;
}

/** What is still to be known besides the states: the direction, the room, the tap. */
function openAt(slot: Slot, side: SupplySide, room: Headroom, ask: FeedAsk): string[] {
  return [
    ...(slot.family === 'stud' || side.stands === 'proved' || side.stands === 'two-feeds'
      ? []
      : [side.sentence]),
    ...(room.verdict === 'incomplete' ? [headroomWords(room, ask.amps)] : []),
    ...(ask.taps.length === 0 && slot.family !== 'stud' ? ['Which taps are at hand has not been said.'] : []),
  ];
}

/** The fuse of the tap for what is added, of the family of its slot. */
function addedFuse({ family }: Slot, { amps, startAmps, place, duty }: FeedAsk): number | null {
  const known = FUSE_FAMILIES.find((one) => one === family);
  if (!known) return null;
  const asked = {
    runningAmps: amps,
    startAmps,
    startSeconds: null,
    wireMm2: null,
    hot: place === 'hot',
    short: duty === 'seconds',
  };
  return fuseFor({ ...asked, family: known }).chosen?.ratingAmps ?? null;
}

function sentenceOf(
  facts: Pick<Candidate, 'finding' | 'from' | 'unread' | 'open' | 'roomWords'>,
  verdict: Candidate['verdict'],
  refused: readonly Reason[],
): string {
  if (verdict === 'refused') return refused.map(({ words }) => words).join(' ');
  const from = {
    readings: 'read here',
    circuit: 'by the circuit',
    both: 'read here and by the circuit',
    nothing: 'not read yet',
  }[facts.from];
  const what =
    facts.finding.feed === 'unknown'
      ? facts.finding.sentence
      : `${FEED_WORDS[facts.finding.feed]} (${from}).`;
  const words = `${what.slice(0, 1).toUpperCase()}${what.slice(1)}`;
  return verdict === 'fits' ? `${words} ${facts.roomWords}` : words;
}
