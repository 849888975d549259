/** What speaks against a feed: each a reason in a sentence; what refuses is never offered, the rest is said. */
import { BLADE_VOLTS, KEY_STATE_WORDS, type KeyState, type Liveness, terminalAmps } from '../limits';
import { isSafetySlot, SAFETY_SLOT } from '../safety';
import { figure } from '../sizing';
import type { FeedAsk } from './ask';
import type { Candidate, Reason } from './candidate';

/** What is known of a candidate before anything is decided of it. */
type Facts = Omit<Candidate, 'against' | 'verdict' | 'sentence'>;

export interface Against {
  readonly id: string;
  readonly speaks: (facts: Facts, ask: FeedAsk, nominalVolts: number) => Omit<Reason, 'id'> | null;
}

const refuse = (words: string) => ({ words, refuses: true });
const mind = (words: string) => ({ words, refuses: false });
const stateWords = (state: KeyState) => KEY_STATE_WORDS[state].toLowerCase();
const lower = (words: string) => `${words[0]?.toLowerCase() ?? ''}${words.slice(1)}`;
const familyWords = (family: string) => family.replace(/-/g, ' ');

/** Printed names of lamps that others are warned by. */
const STOP_LAMPS = /\b(STP|STOP|BRK)\b|\b(stop|brake)[ -]?(lamp|light)s?\b/i;
const ROAD_LAMPS =
  /\b(HLP|HAZ|TURN|TAIL)\b|dipped|main beam|head ?(lamp|light)|hazard|indicator|(side|tail|rear) ?(lamp|light)/i;

/** Families that look alike and do not seat in one another. */
const ALIKE: readonly (readonly [string, string])[] = [['mini', 'low-profile-mini']];

function wrongStates({ states }: Facts, { wanted }: FeedAsk): { state: KeyState; stands: Liveness }[] {
  return states.flatMap(({ state, stands }) => {
    const wish = wanted[state];
    return wish === undefined || stands === null || stands === wish ? [] : [{ state, stands }];
  });
}

/** Live with the key off and dead after the wait. */
function isDelayed(finding: Facts['finding'], states: Facts['states']): boolean {
  const at = (state: KeyState) => states.find((one) => one.state === state)?.stands;
  return finding.feed === 'delayed' || (at('off') === 'live' && at('off-waited') === 'dead');
}

export const AGAINST: readonly Against[] = [
  {
    id: 'safety',
    speaks: ({ slot, safetyBehind }) =>
      isSafetySlot(slot)
        ? refuse(`${slot.label || 'By what was answered'}: ${lower(SAFETY_SLOT)}`)
        : safetyBehind === null
          ? null
          : refuse(`By the map it also feeds ${safetyBehind}, a safety function: nothing is tapped there.`),
  },
  {
    id: 'road-lamps',
    speaks: ({ slot }) => {
      const printed = `${slot.label} ${slot.meaning ?? ''}`;
      if (STOP_LAMPS.test(printed)) {
        return refuse('Stop lamps hang on it: a fault of what is added would take them with it.');
      }
      return ROAD_LAMPS.test(printed)
        ? mind('Lamps that the road asks for hang on it: a fault of what is added takes them with it.')
        : null;
    },
  },
  {
    id: 'mapped',
    speaks: ({ slot, states }, { wanted }) => {
      if (slot.feed === 'lights') return mind('By the map it comes with the lights.');
      const unlike = states.filter(
        ({ state, stands, mapped }) =>
          stands === null && mapped !== null && wanted[state] !== undefined && mapped !== wanted[state],
      );
      return unlike.length === 0
        ? null
        : mind(
            `By the map ${slot.feed}, so ${unlike[0]!.mapped} with ${stateWords(unlike[0]!.state)}: nobody has read it here.`,
          );
    },
  },
  {
    id: 'conflict',
    speaks: ({ conflicts }) =>
      conflicts.length === 0
        ? null
        : mind(
            `The circuit says otherwise with ${conflicts.map(stateWords).join(', ')}: the reading counts. Find out why before it is used.`,
          ),
  },
  {
    id: 'module',
    speaks: ({ module, pulsed, finding }) =>
      module !== null
        ? refuse(
            `By the map a module decides it (${module}${pulsed ? ', pulsed' : ''}): an output of a module is not tapped.`,
          )
        : finding.feed === 'module'
          ? refuse(
              'Live only while the engine runs: a module or a relay that it commands decides it. Not to be tapped.',
            )
          : null,
  },
  {
    id: 'load-side',
    speaks: ({ finding, slot }) =>
      finding.feed === 'load-side' || (finding.feed === 'unknown' && slot.feed === 'load-side')
        ? refuse('Live only while what it serves is on: a load side, no feed.')
        : null,
  },
  {
    id: 'dead',
    speaks: ({ finding }) => (finding.feed === 'dead' ? refuse('Dead in every state that was read.') : null),
  },
  {
    id: 'weak',
    speaks: ({ states }) => {
      const dim = states.find(({ stands }) => stands === 'weak');
      return dim
        ? refuse(
            `Dim or low with ${stateWords(dim.state)}: a feed through resistance, or a pulsed one. Read volts under load first.`,
          )
        : null;
    },
  },
  {
    id: 'two-feeds',
    speaks: ({ side, conflict }) =>
      side.stands === 'two-feeds'
        ? refuse(side.sentence)
        : conflict === 'fed-backwards'
          ? refuse(
              'Its load side stays live with the fuse out, or is live where its feed is dead: two feeds on one slot. Stop, and find the second.',
            )
          : null,
  },
  {
    id: 'delayed',
    speaks: ({ finding, states, droppedAfter }, { wanted }) => {
      if (!isDelayed(finding, states) || wanted.off !== 'dead') return null;
      const how =
        droppedAfter === null
          ? 'some time'
          : droppedAfter < 120
            ? `${droppedAfter} s`
            : `${Math.round(droppedAfter / 60)} min`;
      return refuse(
        `Delayed: it stays live for ${how} after the key goes off. A constant feed it is not, and off when the key is off it is not either.`,
      );
    },
  },
  {
    id: 'states',
    speaks: (facts, ask) => {
      const wrong = wrongStates(facts, ask).filter(
        // Said with its time by the reason above.
        ({ state }) => !(state === 'off' && isDelayed(facts.finding, facts.states)),
      );
      if (wrong.length === 0) return null;
      const all = (wanted: Liveness) =>
        wrong.filter(({ stands }) => stands === wanted).map(({ state }) => state);
      const [live, dead] = [all('live'), all('dead').filter((state) => state !== 'crank')];
      const says = [
        live.length > 0 ? `Live with ${live.map(stateWords).join(' and ')}, where it has to be dead.` : '',
        dead.length > 0 ? `Dead with ${dead.map(stateWords).join(' and ')}, where it has to be live.` : '',
        all('dead').includes('crank') ? 'Drops out while cranking, where it has to stay.' : '',
      ];
      return refuse(says.filter((words) => words !== '').join(' '));
    },
  },
  {
    id: 'empty',
    speaks: ({ slot }) => {
      if (slot.state === 'spare') return refuse('A holder of spare fuses: stock, and no feed.');
      if (slot.state === 'empty' && !slot.stateEvidence) {
        return refuse(
          'Empty, and nobody has said why: never ordered, missing or taken out. Find out before it is used.',
        );
      }
      if (slot.state === 'abandoned')
        return refuse('Abandoned: what still hangs on it is not known. Trace it first.');
      if (slot.state === 'missing')
        return mind('A fuse belongs here and is missing: find out why before it is fed.');
      if (slot.state === 'not-ordered')
        return mind(
          'Never ordered: it may be reserved, unprotected or not wired through. A live empty slot is not thereby a free one.',
        );
      if (slot.state === 'tapped') return mind('Tapped already: what hangs on the tap counts too.');
      return null;
    },
  },
  {
    id: 'volts',
    speaks: (_, __, nominalVolts) =>
      nominalVolts > BLADE_VOLTS
        ? refuse(`A ${nominalVolts} V system: blade fuses and taps are made for ${BLADE_VOLTS} V.`)
        : null,
  },
  {
    id: 'tap',
    speaks: ({ slot }, { taps }) => {
      if (slot.family === 'stud' || taps.length === 0 || taps.includes(slot.family)) return null;
      const alike = ALIKE.find(
        (pair) => pair.includes(slot.family) && taps.some((tap) => pair.includes(tap)),
      );
      return refuse(
        `No tap for ${familyWords(slot.family)} at hand.${alike ? ` One for ${familyWords(alike.find((one) => one !== slot.family)!)} looks alike and does not seat.` : ''}`,
      );
    },
  },
  {
    id: 'added-fuse',
    speaks: ({ slot, addedFuse }, { amps }) =>
      addedFuse === null && terminalAmps(slot.family) !== null
        ? refuse(`No ${familyWords(slot.family)} fuse carries ${figure(amps, 'A')} for good.`)
        : null,
  },
  {
    id: 'start',
    speaks: ({ headroom }, { startAmps }) => {
      if (startAmps === null) return null;
      const over = headroom.parts.find(
        ({ ratingAmps, presentAmps, share }) =>
          ratingAmps !== null && (presentAmps ?? 0) + share * startAmps > ratingAmps,
      );
      return over
        ? mind(
            `While it starts ${over.name} carries ${figure((over.presentAmps ?? 0) + over.share * startAmps, 'A')} of ${figure(over.ratingAmps!, 'A')}: whether that holds depends on how long it starts.`,
          )
        : null;
    },
  },
  {
    id: 'headroom',
    speaks: ({ roomWords, headroom }) => (headroom.verdict === 'none' ? refuse(roomWords) : null),
  },
];
