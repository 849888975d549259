/**
 * Every slot of a vehicle as a feed for what is asked: what is known of it and from where, what it can still give, what speaks
 * against it, what is still to be read. Works from a surveyed box alone, and says what it cannot know then.
 */

import { partsBehind } from '../circuit';
import type { CircuitFile, Panel, Slot } from '../format';
import {
  FEED_WORDS,
  HOT_RUNNING_SHARE,
  isFedIn,
  KEY_STATES,
  type KeyState,
  type Liveness,
  RUNNING_SHARE,
  type SlotReading,
  terminalAmps,
} from '../limits';
import type { CircuitModel } from '../network';
import { slotSentence, triageSlot, turnPanel, withKnownEnds } from '../panel';
import { safetyMarks } from '../safety';
import { type Carrier, type Headroom, headroom, headroomWords, leastRating } from '../sizing';
import { AGAINST, type Reason } from './against';
import { ASKED_STATES, type FeedAsk } from './ask';
import { droppedAfter } from './branchDrain';
import { classOf, type FeedFinding, knownFrom } from './classify';
import { type Present, presentIn } from './present';
import { carrying, feedPoint, ratingOf, type Simulated, simulate } from './simulated';
import { type SupplySide, supplySide } from './supplySide';
import { holesLive } from './survey';

/** What a person says of a slot’s supply, besides what the map has. */
export interface SaidOfSupply {
  /** Parts before the slot with their ratings. */
  readonly parts: readonly { readonly name: string; readonly ratingAmps: number | null }[];
  /** Everything on it at once, ampere; null where nobody has said it. */
  readonly onAmps: number | null;
  /** Read with a clamp or over a fuse, everything on; instead of what is worked out. */
  readonly measured: { readonly amps: number; readonly how: 'clamp' | 'fuse drop' } | null;
}

export interface FeedScene {
  /** Boxes as they stand, states and safety answers in. */
  readonly panels: readonly Panel[];
  readonly readings: readonly SlotReading[];
  /** Circuits that share nothing but the supply, each as its own model. */
  readonly models: readonly CircuitModel[];
  readonly nominalVolts: number;
  /** By `panel/slot`. */
  readonly said: Readonly<Record<string, SaidOfSupply>>;
}

export interface StateOfFeed {
  readonly state: KeyState;
  readonly read: Liveness | null;
  readonly simulated: Liveness | null;
  /** What counts: the reading, else the circuit; null where neither says. */
  readonly stands: Liveness | null;
  /** What the feed that stands on the map would be there: it counts for the order only, and is no reading. */
  readonly mapped: Liveness | null;
  readonly differs: boolean;
}

export interface Candidate {
  readonly panel: string;
  readonly slot: Slot;
  readonly panelName: string;
  readonly minutesToOpen: number;
  /** Where it is in the box, upright. */
  readonly where: string;
  readonly states: readonly StateOfFeed[];
  readonly finding: FeedFinding;
  /** From where its class is known. */
  readonly from: 'readings' | 'circuit' | 'both' | 'nothing';
  /** States in which reading and circuit differ: the reading counts. */
  readonly conflicts: readonly KeyState[];
  /** Verdict of the box test that names two feeds. */
  readonly conflict: 'fed-backwards' | null;
  readonly module: string | null;
  readonly pulsed: boolean;
  /** A safety function that the map has behind it, by name. */
  readonly safetyBehind: string | null;
  readonly droppedAfter: number | null;
  readonly side: SupplySide;
  readonly headroom: Headroom;
  readonly roomWords: string;
  /** States that were asked for and are not known yet. */
  readonly unread: readonly KeyState[];
  /** What is still open besides readings, in words. */
  readonly open: readonly string[];
  readonly against: readonly Reason[];
  readonly verdict: 'fits' | 'to-read' | 'refused';
  readonly sentence: string;
  /** The fuse for what is added, ampere; null where its family has none. */
  readonly addedFuse: number | null;
}

export const feedKey = (panel: string, slot: string) => `${panel}/${slot}`;

/** Where in the circuits a slot is. */
interface InCircuits {
  readonly model: CircuitModel;
  readonly node: string;
  readonly partId: string;
}

const NOWHERE: readonly InCircuits[] = [];
const NO_READINGS: readonly SlotReading[] = [];

/** Where the circuits have the slots of a scene, found once for all of them. */
interface Drawn {
  readonly at: ReadonlyMap<string, readonly InCircuits[]>;
  /** Slots that any circuit has a part in. */
  readonly slots: ReadonlySet<string>;
  /** Fuses in use that no circuit has, by box. */
  readonly undeclared: ReadonlyMap<string, number>;
  readonly readings: ReadonlyMap<string, readonly SlotReading[]>;
}

function drawnIn({ models, panels, readings: all }: FeedScene): Drawn {
  const readings = new Map<string, SlotReading[]>();
  for (const one of all) {
    const key = feedKey(one.panel, one.slot);
    const own = readings.get(key);
    if (own) own.push(one);
    else readings.set(key, [one]);
  }
  const at = new Map<string, InCircuits[]>();
  const slots = new Set<string>();
  for (const model of models) {
    for (const { slot } of model.circuit.parts) {
      if (!slot) continue;
      const key = feedKey(slot.panel, slot.slot);
      slots.add(key);
      const point = feedPoint(model.circuit, slot.panel, slot.slot);
      if (point) at.set(key, [...(at.get(key) ?? []), { model, node: point.node, partId: point.part.id }]);
    }
  }
  const undeclared = new Map(
    panels.map((panel) => [
      panel.id,
      panel.slots.filter((slot) => isUsed(slot) && !slots.has(feedKey(panel.id, slot.id))).length,
    ]),
  );
  return { at, slots, undeclared, readings };
}

/** The same question about a scene asked with other wishes finds the circuits’ part of it again. */
const known = new WeakMap<
  CircuitModel,
  { simulated: Map<string, Simulated>; present: Map<string, Present> }
>();

function memory(model: CircuitModel) {
  const found = known.get(model) ?? { simulated: new Map(), present: new Map() };
  known.set(model, found);
  return found;
}

function simulatedAt(model: CircuitModel, node: string): Simulated {
  const { simulated } = memory(model);
  const found = simulated.get(node) ?? simulate(model, node);
  simulated.set(node, found);
  return found;
}

function presentOver(model: CircuitModel, states: readonly KeyState[]): Present {
  const { present } = memory(model);
  const key = states.join();
  const found = present.get(key) ?? presentIn(model, states);
  present.set(key, found);
  return found;
}

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
    refused.length > 0 ? 'refused' : facts.unread.length + facts.open.length > 0 ? 'to-read' : 'fits';
  return {
    ...facts,
    against,
    verdict: stands,
    sentence: sentenceOf(facts, stands, refused),
    addedFuse: leastRating(ask.amps, ask.place === 'hot' ? HOT_RUNNING_SHARE : RUNNING_SHARE),
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

const isUsed = ({ type, state }: Slot) => type === 'fuse' && (state === 'fitted' || state === 'tapped');

function headroomAt(
  scene: FeedScene,
  drawn: Drawn,
  ask: FeedAsk,
  panel: Panel,
  slot: Slot,
  inCircuits: readonly InCircuits[],
  states: readonly StateOfFeed[],
): Headroom {
  const said = scene.said[feedKey(panel.id, slot.id)];
  const hot = ask.place === 'hot';
  const factor = hot ? HOT_RUNNING_SHARE : RUNNING_SHARE;
  // The device may run in every state that is not asked to be dead.
  const on = ASKED_STATES.filter((state) => ask.wanted[state] !== 'dead');
  const live = on.find((state) => states.find((one) => one.state === state)?.simulated === 'live');
  const measured = said?.measured ?? null;
  const carriers: Carrier[] = [];
  const seen = new Set<string>();
  if (live !== undefined) {
    for (const { model, node } of inCircuits) {
      for (const { branch, part, share } of carrying(model, node, live, ask.amps)) {
        const ratingAmps = ratingOf(part, hot);
        const label = model.network.branches[branch]!.label;
        if (ratingAmps === undefined || seen.has(`${part.id} ${label}`)) continue;
        seen.add(`${part.id} ${label}`);
        const drawn = inAll(scene, part.id, label, on);
        const presentAmps = measured?.amps ?? drawn + (said?.onAmps ?? 0);
        carriers.push({ name: named(part.name, measured), ratingAmps, presentAmps, share });
      }
    }
  }
  for (const part of said?.parts ?? []) {
    carriers.push({
      ...part,
      name: named(part.name, measured),
      presentAmps: measured?.amps ?? said?.onAmps ?? null,
      share: 1,
    });
  }
  const terminal = terminalAmps(slot.family);
  if (terminal !== null && slot.family !== 'none') {
    const flows = inCircuits[0]
      ? inAll(scene, inCircuits[0].partId, null, on)
      : (said?.onAmps ?? ownAmps(slot));
    carriers.push({
      name: `the terminal of ${slot.type} ${slot.number}`,
      ratingAmps: terminal,
      presentAmps: flows,
      share: 1,
    });
  }
  const declared = measured !== null || (said?.onAmps !== undefined && said.onAmps !== null);
  // What draws in the same box hangs on the same supply, as far as anybody knows.
  const own = isUsed(slot) && !drawn.slots.has(feedKey(panel.id, slot.id)) ? 1 : 0;
  const others = declared ? 0 : drawn.undeclared.get(panel.id)! - own;
  const upstream = live !== undefined || (said?.parts.length ?? 0) > 0;
  const room = headroom(carriers, ask.amps, factor, others > 0);
  const missing = [
    ...room.missing.filter((words) => words !== 'whether anything else hangs on it'),
    ...(others > 0
      ? [`what ${others === 1 ? 'the other fuse' : `the ${others} other fuses`} of the box draw`]
      : []),
    ...(upstream ? [] : ['which fuse, wire and contact feed it']),
  ];
  return {
    ...room,
    missing,
    verdict: room.verdict === 'none' ? 'none' : missing.length > 0 ? 'incomplete' : room.verdict,
  };
}

/** A part with what was read in place of what is worked out. */
function named(name: string, measured: SaidOfSupply['measured']): string {
  return measured === null ? name : `${name} (${measured.how === 'clamp' ? 'clamp' : 'over a fuse'})`;
}

/** Nothing flows behind an empty hole; what an unmapped fuse draws nobody knows, only that it is less than its rating. */
function ownAmps(slot: Slot): number | null {
  return slot.state === 'empty' || slot.state === 'not-ordered' || slot.state === 'missing' ? 0 : null;
}

/**
 * The largest current in a part over all circuits that have it: each at its own worst, added up. Circuits that share
 * nothing but the supply add up; loads that two of them have in common are in one model.
 */
function inAll(
  { models }: FeedScene,
  partId: string,
  label: string | null,
  states: readonly KeyState[],
): number {
  let sum = 0;
  for (const model of models) {
    const branches = model.network.branchesOfPart.get(partId) ?? [];
    const own = branches.filter(
      (branch) => label === null || model.network.branches[branch]!.label === label,
    );
    if (own.length === 0) continue;
    const { amps } = presentOver(model, states);
    sum += Math.max(...own.map((branch) => amps[branch]!));
  }
  return sum;
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

/** Circuits of a vehicle in groups that share nothing but their supply: what two of them switch or use is in one group. */
export function groupsOf(circuits: readonly CircuitFile[]): readonly (readonly CircuitFile[])[] {
  const own = (circuit: CircuitFile) =>
    new Set(circuit.parts.flatMap(({ id, kind }) => (SUPPLY.includes(kind) ? [] : [id])));
  const groups: { files: CircuitFile[]; parts: Set<string> }[] = [];
  for (const circuit of circuits) {
    const parts = own(circuit);
    const meets = groups.filter((group) => [...parts].some((id) => group.parts.has(id)));
    const joined = { files: [circuit], parts };
    for (const group of meets) {
      joined.files.unshift(...group.files);
      for (const id of group.parts) joined.parts.add(id);
      groups.splice(groups.indexOf(group), 1);
    }
    groups.push(joined);
  }
  return groups.map(({ files }) => files);
}

/** What circuits may have in common and still be apart: what carries current and is not switched by hand. */
const SUPPLY: readonly CircuitFile['parts'][number]['kind'][] = [
  'battery',
  'charging-source',
  'fuse',
  'fusible-link',
  'breaker',
  'wire',
  'connector',
  'splice',
  'ground',
  'key-contact',
];
