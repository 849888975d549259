/**
 * How a person works: instruments that are there, and habits that are safe and cost or save minutes in that hand. Beside
 * each question on which the trade disagrees stands our side, with its reason.
 */
import { type CircuitPart, type Hand, type InstrumentName, type TestRef, USUAL_HAND } from '../format';

/** The instrument that a kind of test cannot do without; null where eyes, ears and hands are enough. */
export const NEEDS: Readonly<Record<TestRef['kind'], readonly InstrumentName[]>> = {
  volts: ['meter'],
  lamp: ['lamp'],
  led: ['led'],
  function: [],
  continuity: ['meter'],
  ohms: ['meter'],
  'ohms-behind': ['meter'],
  'lamp-in-fuse': ['lamp'],
  'lamp-current': ['lamp', 'clamp'],
  substitute: [],
  elsewhere: [],
  click: [],
  sound: [],
  look: [],
  wiggle: [],
  clamp: ['clamp'],
  'fuse-drop': ['meter'],
  bridge: ['lead'],
  apply: ['lead'],
  battery: ['meter'],
};

export const INSTRUMENT_WORDS: Readonly<Record<InstrumentName, string>> = {
  meter: 'Meter',
  lamp: 'Filament test lamp',
  led: 'LED tester',
  clamp: 'Clamp meter',
  lead: 'Fused lead',
};

/** The instrument that is missing for a test, in words; null where all are there. */
export function missingInstrument({ without }: Hand, { kind }: TestRef): string | null {
  const missing = NEEDS[kind].find((one) => without.includes(one));
  return missing ? `${INSTRUMENT_WORDS[missing]} not at hand, by your own settings.` : null;
}

/** Minutes by which a habit makes a test shorter or longer in that hand. */
const MINUTES = {
  /** Who pulls first has the fuse out before thinking; two ends under the fingers take that hand longer. */
  pulled: -0.5,
  probedInPlace: 0.8,
  /** Reaching for the other instrument. */
  otherTester: 0.6,
  /** What is exchanged last has to wait for everything else. */
  exchangedLast: 6,
  /** Earthed pole off before, on after, clock and codes set anew. */
  batteryOff: 4,
} as const;

/** Minutes more or less that a test takes a person, by what that person is used to. `parts` are those of the circuit. */
export function habitMinutes(
  { fuses, tester, exchange, isolation }: Hand,
  ref: TestRef,
  parts: readonly CircuitPart[],
): number {
  const { kind } = ref;
  const isFuse = (id: string) => parts.some((part) => part.id === id && part.kind === 'fuse');
  const atFuse = (node: string) =>
    parts.some((part) => part.kind === 'fuse' && (part.pins.in === node || part.pins.out === node));
  let minutes = 0;
  if (fuses === 'pull') {
    if ((kind === 'look' || kind === 'continuity') && isFuse(ref.part)) minutes += MINUTES.pulled;
    if ((kind === 'volts' || kind === 'lamp') && atFuse(ref.node)) minutes += MINUTES.probedInPlace;
  }
  if (tester === 'lamp' && kind === 'volts') minutes += MINUTES.otherTester;
  if (tester === 'meter' && kind === 'lamp') minutes += MINUTES.otherTester;
  if (exchange === 'last' && (kind === 'substitute' || kind === 'elsewhere'))
    minutes += MINUTES.exchangedLast;
  if (isolation === 'always' && INTO_THE_BOX.includes(kind)) minutes += MINUTES.batteryOff;
  return minutes;
}

/** Tests for which hands go in without any need of a live circuit while they do. */
const INTO_THE_BOX: readonly TestRef['kind'][] = [
  'continuity',
  'look',
  'substitute',
  'elsewhere',
  'ohms-behind',
];

/** Whether somebody works otherwise than by our own side. */
export function hasHabits({ fuses, tester, exchange, isolation }: Hand): boolean {
  return fuses !== 'probe' || tester !== 'either' || exchange !== 'early' || isolation !== 'by-task';
}

/** The same instruments in a hand that works by our own side of every question. */
export function withoutHabits(hand: Hand): Hand {
  return { ...USUAL_HAND, without: hand.without, lampVolts: hand.lampVolts };
}

/** A question on which people of the trade disagree, and the side that is taken here. */
export interface Disagreement {
  readonly question: string;
  readonly side: string;
  /** What a person may set instead; none where anything else would not be safe, or proves nothing. */
  readonly setting: 'fuses' | 'tester' | 'exchange' | 'isolation' | null;
  /** Kinds of tests on whose cards it is said. */
  readonly at: readonly TestRef['kind'][];
}

export const DISAGREEMENTS: readonly Disagreement[] = [
  {
    question: 'Pull a fuse first, or probe it in place',
    side: 'Both ends fed and loaded first: pulling disturbs what is to be found, and the slot. It is pulled where its ends do not settle it.',
    setting: 'fuses',
    at: ['look', 'continuity'],
  },
  {
    question: 'Lamp or meter',
    side: 'A meter for electronics, drops and figures; a lamp where its load tells the truth of a weak feed and harms nothing.',
    setting: 'tester',
    at: ['lamp'],
  },
  {
    question: 'Powered probe',
    side: 'Only into what is identified, dead and unfed; never into a module.',
    setting: null,
    at: ['apply'],
  },
  {
    question: 'Is a relay good if it clicks',
    side: 'A click passes the circuit of the coil, never the contact.',
    setting: null,
    at: ['click'],
  },
  {
    question: 'Exchange early or late',
    side: 'Identical and permitted pairs early, and both functions proved after.',
    setting: 'exchange',
    at: ['substitute', 'elsewhere'],
  },
  {
    question: 'A rating that is nearly right',
    side: 'Never higher as a repair; lower for a short test.',
    setting: null,
    at: [],
  },
  {
    question: 'A stronger relay',
    side: 'Only with the same coil, pins, suppression and heat: tracks and wires stay what they were.',
    setting: null,
    at: [],
  },
  {
    question: 'Battery off always, or by the task',
    side: 'By the task, the earthed pole first: codes, clock and alarm have their price.',
    setting: 'isolation',
    at: ['ohms'],
  },
  {
    question: 'Find by count or by number',
    side: 'Printed identity and landmark; the count confirms, holes included.',
    setting: null,
    at: [],
  },
  {
    question: 'Lid, manual, memory or measurement',
    side: 'Paper of the exact build begins, a measurement decides, and every source stays on record.',
    setting: null,
    at: [],
  },
  {
    question: 'Replace a cheap part on suspicion',
    side: 'Test first where it takes minutes: the price counts, and so do delay and a second fault.',
    setting: null,
    at: [],
  },
  {
    question: 'Metal pliers or puller',
    side: 'An insulated puller.',
    setting: null,
    at: [],
  },
];

/** Our side of a question that a kind of test raises; null where it raises none. */
export function sideTaken({ kind }: TestRef): string | null {
  return DISAGREEMENTS.find(({ at }) => at.includes(kind))?.side ?? null;
}
