/** By hand, ear and eye: a click, a look, a wiggle, a part tried in another place, a part measured in the hand. */
import { partsBehind } from '../../circuit';
import { isOpen, LOOSE_MODES, OPEN_MODES } from '../../faults';
import type { CircuitPart, PartKind } from '../../format';
import {
  CLICK_STATES,
  clickChances,
  LOOK_STATES,
  lookChances,
  WIGGLE_STATES,
  wiggleChances,
} from '../../limits';
import { type CircuitModel, type OperatingPoint, seenPoint } from '../../network';
import { safetyMarks } from '../../safety';
import { set } from '../settings';
import { atPart, type RefOf, type TestKind } from './kind';

const OFF = [set('key', 'Key: off'), set('switch', 'Its load switched off')] as const;

/** What a relay does at an operating point. */
export function doesAt(
  model: CircuitModel,
  part: string,
  { sensed, oscillating }: OperatingPoint,
): (typeof CLICK_STATES)[number] {
  if (oscillating.includes(part)) return 'chatters';
  const sensor = model.network.sensors.findIndex((one) => one.part === part);
  return sensed[sensor] === 1 ? 'clicks' : 'silent';
}

/** Functions that a relay or solenoid on their way switches. */
function switchedBy(model: CircuitModel, part: string): readonly string[] {
  return model.circuit.functions
    .filter(({ load }) => partsBehind(model.circuit, part).some(({ id }) => id === load.split(':')[0]))
    .map(({ id }) => id);
}

export const click: TestKind<RefOf<'click'>> = {
  fields: ['part', 'condition'],
  answer: 'click',
  results: CLICK_STATES,
  minutes: 0.4,
  setUp: (ref) => `click|${ref.condition}`,
  spot: (ref) => `part|${ref.part}`,
  apart: () => false,
  deed: (model, ref) => ({ runs: switchedBy(model, ref.part) }),
  leads: (_, { part }) => ({ sign: 'ear', at: part }),
  offers: ({ circuit, concerned, condition }) =>
    circuit.parts
      .filter((part) => concerned(part.id) && (part.kind === 'relay' || part.kind === 'solenoid'))
      .map((part) => ({
        ref: { kind: 'click', part: part.id, condition },
        accesses: atPart(part, click.minutes),
      })),
  chances: ({ model, point }, ref) => clickChances(doesAt(model, ref.part, point(ref.condition))),
  outcome: (_, _ref, value) => ('click' in value ? CLICK_STATES.indexOf(value.click) : null),
  shows: ({ model, alteration }, ref) => {
    return { click: doesAt(model, ref.part, seenPoint(model, ref.condition, alteration)) };
  },
  card: (names, ref) => ({
    title: `Does ${names.part(ref.part)} click`,
    instrument: 'Finger and ear',
    steps: [`Finger on ${names.part(ref.part)}.`, 'Switch its control off and on again. Does it click?'],
    cautions: [],
  }),
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `the click of ${names.part(ref.part)}`,
  inLog: (names, ref) => `Click of ${names.part(ref.part)}`,
  means: ({ names, earlier }, ref, value) => {
    if (!('click' in value)) return null;
    const part = names.part(ref.part);
    if (value.click === 'chatters') {
      return `${part} chatters: its coil is fed and drops out again. Volts too low at the coil, an earth of it with resistance, or something that switches it off as soon as it is on.`;
    }
    if (value.click === 'silent') {
      return `${part} is silent: coil, its feed, its earth or the command is missing, or the relay hangs.`;
    }
    const pins = names.partOf(ref.part)?.pins as Readonly<Record<string, string | undefined>> | undefined;
    const output = pins?.['87'];
    const dead = earlier.some(
      ({ test, value: was }) =>
        test.kind === 'volts' &&
        test.node === output &&
        test.condition === ref.condition &&
        'volts' in was &&
        Math.abs(was.volts) < 1,
    );
    return dead
      ? `${part} clicks, and nothing comes out at 87: its coil circuit works. That says nothing of its contact, which is now the suspect, with its feed at 30.`
      : `${part} clicks: its coil circuit works. That says nothing of its contact.`;
  },
};

export const look: TestKind<RefOf<'look'>> = {
  fields: ['part'],
  answer: 'look',
  results: LOOK_STATES,
  minutes: 0.8,
  setUp: () => 'look',
  spot: (ref) => `part|${ref.part}`,
  apart: () => true,
  touches: (ref) => [ref.part],
  deed: (_, ref) => ({ pulls: [ref.part] }),
  leads: (_, { part }) => ({ sign: 'eye', at: part }),
  offers: ({ circuit, concerned }) =>
    circuit.parts
      .filter((part) => concerned(part.id) && part.kind === 'fuse' && !part.fixed)
      .map((part) => ({ ref: { kind: 'look', part: part.id }, accesses: atPart(part, look.minutes) })),
  chances: ({ hypothesis }, ref) =>
    lookChances(hypothesis.faults.some((fault) => fault.part === ref.part && OPEN_MODES.has(fault.mode))),
  outcome: (_, _ref, value) => ('look' in value ? LOOK_STATES.indexOf(value.look) : null),
  shows: (circuit, ref) => ({ look: isOpen(circuit, ref.part) ? 'broken' : 'whole' }),
  card: (names, ref) => ({
    title: `Look at ${names.part(ref.part)}`,
    settings: OFF,
    instrument: 'Eyes and a light',
    steps: [`Pull ${names.part(ref.part)} and hold its element against the light.`, 'Is it whole?'],
    cautions: [],
  }),
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `how ${names.part(ref.part)} looks`,
  inLog: (names, ref) => `Look at ${names.part(ref.part)}`,
  means: ({ model, names }, ref, value) =>
    !('look' in value)
      ? null
      : value.look === 'broken'
        ? `${names.part(ref.part)} looks broken. Why did it blow?`
        : `${names.part(ref.part)} looks whole; one hairline break in ten is not seen, so this proves nothing.${safetyMarks(model.circuit).parts.has(ref.part) ? ' It serves a safety function: not electrically proved.' : ''}`,
};

/** Parts that a hand can move or tap while the function is watched. */
const WIGGLED: readonly CircuitPart['kind'][] = ['connector', 'ground', 'relay', 'switch', 'fuse', 'socket'];

export const wiggle: TestKind<RefOf<'wiggle'>> = {
  fields: ['part', 'function', 'condition'],
  answer: 'wiggle',
  results: ['it changes', 'no change'],
  unmapped: [0.05, 0.95],
  minutes: 0.8,
  setUp: (ref) => `wiggle|${ref.condition}`,
  spot: (ref) => `part|${ref.part}`,
  apart: () => true,
  touches: (ref) => [ref.part],
  ofLooseness: true,
  deed: (_, ref) => ({ moves: [ref.part], runs: [ref.function] }),
  leads: (_, { part }) => ({ sign: 'hand', at: part }),
  offers: ({ circuit, concerned, function: of, condition }) =>
    circuit.parts
      .filter((part) => concerned(part.id) && WIGGLED.includes(part.kind))
      .map((part) => ({
        ref: { kind: 'wiggle', part: part.id, function: of, condition },
        accesses: atPart(part, wiggle.minutes),
        disturbs: true,
      })),
  chances: ({ hypothesis }, ref) =>
    wiggleChances(
      hypothesis.faults.some((fault) => fault.part === ref.part && LOOSE_MODES.has(fault.mode)),
      hypothesis.intermittent,
    ),
  outcome: (_, _ref, value) => ('wiggle' in value ? WIGGLE_STATES.indexOf(value.wiggle) : null),
  shows: ({ faults }, ref) => {
    const loose = faults.some((fault) => fault.part === ref.part && fault.mode === 'contact-resistance');
    return { wiggle: loose ? 'changes' : 'no change' };
  },
  card: (names, ref) => ({
    title: `Wiggle ${names.part(ref.part)} and watch`,
    instrument: 'Hand and eyes',
    steps: [
      `Move ${names.part(ref.part)} and its wires gently, or tap it.`,
      `Does ${names.function(ref.function).toLowerCase()} come, go or change?`,
    ],
    cautions: ['This can cure what it looks for: write down first what was read.'],
  }),
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) => `${names.part(ref.part)} wiggled`,
  inLog: (names, ref) => `${names.part(ref.part)} wiggled`,
  means: ({ names }, ref, value) =>
    !('wiggle' in value)
      ? null
      : value.wiggle === 'changes'
        ? `It changes when ${names.part(ref.part)} is moved: something loose in it, or beside it.`
        : `Nothing changes when ${names.part(ref.part)} is moved. That clears little: what is loose does not always answer.`,
};

export const elsewhere: TestKind<RefOf<'elsewhere'>> = {
  fields: ['part', 'function', 'fitted'],
  answer: 'function',
  results: ['works', 'dead'],
  minutes: 6,
  setUp: (ref) => `elsewhere|${ref.fitted}`,
  spot: (ref) => `part|${ref.part}`,
  apart: () => true,
  touches: (ref) => [ref.part],
  deed: (_, ref) => ({ exchanges: [ref.part], behind: [ref.part] }),
  leads: (_, { part }) => ({ sign: 'hand', at: part }),
  offers: ({ circuit, concerned, function: of }) =>
    circuit.parts
      .filter((part) => concerned(part.id) && part.kind === 'relay')
      .map((part) => ({
        ref: { kind: 'elsewhere', part: part.id, function: of, fitted: 'own' as const },
        accesses: atPart(part, elsewhere.minutes),
        disturbs: true,
      })),
  chances: ({ hypothesis }, ref) => {
    const own = hypothesis.faults.some((fault) => fault.part === ref.part);
    if (ref.fitted === 'known-good') return [0.97, 0.03];
    return own ? [0.05, 0.95] : [0.97, 0.03];
  },
  outcome: (_, _ref, value) => {
    if (!('state' in value)) return null;
    return value.state === 'works' ? 0 : value.state === 'dead' || value.state === 'weak' ? 1 : null;
  },
  shows: ({ faults, blown }, ref) => {
    const own = blown.includes(ref.part) || faults.some((fault) => fault.part === ref.part);
    return { state: own && ref.fitted === 'own' ? 'dead' : 'works' };
  },
  card: (names, ref) => {
    const part = names.part(ref.part);
    return {
      title:
        ref.fitted === 'own'
          ? `${part} tried in another place`
          : `The known good part for ${part} in the other place`,
      settings: [set('other', 'Where the like of it works')],
      instrument: 'A place or vehicle where such a part works',
      steps: [
        ref.fitted === 'own'
          ? `Fit ${part} where an exact equal is known to work.`
          : 'Fit the known good part in that other place or vehicle.',
        'Does what it serves there work?',
      ],
      cautions: [
        'Same part number, or same footprint, pin layout, contact form and coil voltage. Put both back.',
      ],
    };
  },
  slotPart: (ref) => ref.part,
  inSentence: (names, ref) =>
    ref.fitted === 'own' ? `${names.part(ref.part)} tried elsewhere` : `the known good part tried elsewhere`,
  inLog: (names, ref) =>
    ref.fitted === 'own'
      ? `${names.part(ref.part)} in another place`
      : `Known good part for ${names.part(ref.part)} in another place`,
  means: ({ names }, ref, value) => {
    if (!('state' in value)) return null;
    const part = names.part(ref.part);
    if (ref.fitted === 'known-good') {
      return value.state === 'works'
        ? 'The known good part works in the other place: part and place can be relied on.'
        : 'The known good part does not work in the other place either: neither it nor that place is a measure for anything.';
    }
    return value.state === 'works'
      ? `${part} works in another place: the fault stays with this side, not with the part.`
      : `${part} does not work in another place either: the fault goes with the part, if that place is sound.`;
  },
};

type Pins = readonly (readonly [string, string])[];

/** Pins between which a part is measured once it is out of the circuit; none where it is not taken out for that. */
const MEASURED_OUT: { readonly [K in PartKind]: Pins } = {
  battery: [],
  'charging-source': [],
  fuse: [['in', 'out']],
  'fusible-link': [],
  breaker: [],
  polyfuse: [],
  wire: [],
  connector: [],
  splice: [],
  ground: [],
  switch: [],
  'key-contact': [],
  relay: [['86', '85']],
  'latching-relay': [],
  solenoid: [],
  flasher: [],
  'cut-off': [],
  'module-output': [],
  lamp: [['plus', 'minus']],
  led: [],
  motor: [],
  pump: [],
  horn: [],
  heater: [['plus', 'minus']],
  module: [],
  resistor: [],
  socket: [],
  diode: [],
};

/** Pins between which a part out of the circuit is measured, or none. */
export function continuityPins(part: CircuitPart): Pins {
  return part.fixed ? [] : MEASURED_OUT[part.kind];
}

export { OFF as OUT_OF_CIRCUIT };
