/**
 * Circuits as they usually are, for a vehicle that nobody has mapped: a few taps give a circuit that can be traced.
 * What is not known stays unknown. Each is written in the notation, so that it can be read and gone on with.
 */
import type { CircuitFile } from '../format';
import { BODY } from './pieces';
import { readNotation } from './read';
import { quoted } from './tokens';
import { slug } from './words';

export type LoadWord = 'lamp' | 'motor' | 'heater' | 'module' | 'led' | 'pump';

export interface PatternInput {
  /** What fails, as the customer names it. */
  readonly load: string;
  readonly kind: LoadWord;
  readonly nominalVolts: number;
  /** What has to be made before it may run, in the control path. */
  readonly interlocks?: readonly Interlock[];
  /** How the current comes back to the battery: by body metal where it is not said. */
  readonly returns?: ReturnPath;
}

/** By the metal of the body, or by wires of its own to a busbar or post: boats, packs above 32 V, plastic bodies. */
const RETURN_PATHS = ['body', 'insulated'] as const;
export type ReturnPath = (typeof RETURN_PATHS)[number];

const BOAT = /\b(boat|launch|skiff|dinghy|yacht|barge|tender|trawler|hull)\b/i;
/** From these nominal volts on a pack seldom has its minus on the body. */
const PACK_VOLTS = 36;

/** How the current usually comes back on a vehicle, by what it is called and its volts. */
export function usualReturn(vehicle: string, nominalVolts: number | null): ReturnPath {
  return BOAT.test(vehicle) || (nominalVolts ?? 0) >= PACK_VOLTS ? 'insulated' : 'body';
}

/** The reference where the return is not the body. */
const BUSBAR = 'minus busbar';

/** A name that speaks of earth, as it is where the return is not the body. */
function ofReturn(name: string): string {
  return name
    .replace(/\bearth point\b/i, 'post on the minus busbar')
    .replace(/^Earth (of|at)\b/, 'Return post $1')
    .replace(/\bearth$/, 'return post')
    .replace(/\bof the earths\b/, 'of the returns')
    .replace(/\bEarth\b/, 'Return')
    .replace(/\bearth\b/, 'return');
}

/** A text of a pattern with such names; what stands outside of quotes is the notation's own. */
function insulated(text: string): string {
  return text
    .replaceAll('one>earth', 'one>back')
    .replaceAll('.earthed', '.back')
    .replaceAll(/"([^"]*)"/g, (_, name: string) => `"${ofReturn(name)}"`);
}

export interface Pattern {
  readonly id: string;
  readonly name: string;
  /** What it looks like at the vehicle, one short sentence. */
  readonly says: string;
  /** Something else may have to be made before it runs: asked for. */
  readonly asksInterlocks?: boolean;
  /** Lines of the notation, without the head. */
  readonly lines: (input: PatternInput) => readonly string[];
}

/** The kinds of load that are offered, with the word a person uses. */
export const LOAD_WORDS: readonly (readonly [kind: LoadWord, word: string])[] = [
  ['lamp', 'Lamp'],
  ['motor', 'Motor or fan'],
  ['heater', 'Heater'],
  ['module', 'Electronics'],
  ['led', 'LED light'],
  ['pump', 'Pump'],
];

/** Interlocks that are asked for, with the words a person uses. */
export const INTERLOCKS = [
  ['neutral', 'Gear in neutral'],
  ['pedal', 'Clutch or brake pedal'],
  ['door', 'Door or cover shut'],
  ['seat', 'Seat taken'],
  ['pressure', 'Pressure reached'],
] as const;

export type Interlock = (typeof INTERLOCKS)[number][0];

/** The interlocks in the control path, each a switch like any. */
const locks = ({ interlocks = [] }: PatternInput) =>
  INTERLOCKS.filter(([id]) => interlocks.includes(id))
    .map(([, name], index) => `, switch I${index + 1} ${quoted(`${name}: its switch`)} open|made in>out:made`)
    .join('');
/** Interlocks made, as they stand when it should run. */
const locked = ({ interlocks = [] }: PatternInput) =>
  interlocks.map((_, index) => `, I${index + 1} made`).join('');

const load = ({ kind, load: name }: PatternInput, id = 'L1', extra = '') =>
  `${kind} #${id} ${quoted(`${name}${extra}`)}`;
const watched = ({ load: name }: PatternInput) => `function failed ${quoted(name)}: L1`;

export const PATTERNS: readonly Pattern[] = [
  {
    id: 'fuse-switch-load',
    name: 'Fuse, switch, load',
    says: 'A switch carries the whole current.',
    lines: (input) => [
      `battery, fuse F1 "Its fuse", wire W1 "Wire to the switch", switch S1 "Its switch", wire W2 "Wire to the load", plug C1 "Plug at the load", ${load(input)}, wire W3 "Earth wire", earth G1 "Its earth point"`,
      watched(input),
      'when off "Everything off": key off',
      'when on "Its switch on": key run, S1 on',
    ],
  },
  {
    id: 'fuse-relay-load',
    name: 'Fuse, relay, load',
    says: 'A switch moves a relay; the relay carries the current.',
    asksInterlocks: true,
    lines: (input) => [
      `battery, fuse F1 "Load fuse", relay R1 "Its relay" contact, wire W1 "Wire to the load", plug C1 "Plug at the load", ${load(input)}, wire W2 "Earth wire", earth G1 "Its earth point"`,
      `battery, key K1 "Key contact" run, fuse F2 "Control fuse", wire W3 "Wire to the switch", switch S1 "Its switch"${locks(input)}, wire W4 "Wire to the relay", relay R1 coil, wire W5 "Coil earth wire", earth G2 "Coil earth"`,
      watched(input),
      'when off "Key off, switch off": key off',
      `when rest "Key on, switch off": key run${locked(input)}`,
      `when on "Key on, its switch on": key run, S1 on${locked(input)}`,
    ],
  },
  {
    id: 'three-pin-relay',
    name: 'Three-pin relay',
    says: 'Coil and contact share one pin; the switch earths the coil.',
    asksInterlocks: true,
    lines: (input) => [
      `battery, fuse F1 "Its fuse", relay R1 "Its relay" contact, wire W1 "Wire to the load", plug C1 "Plug at the load", ${load(input)}, wire W2 "Earth wire", earth G1 "Its earth point"`,
      `from F1, relay R1 coil, wire W3 "Command wire", switch S1 "Its switch"${locks(input)}, earth G2 "Earth of the switch"`,
      watched(input),
      `when off "Switch off": key off${locked(input)}`,
      `when on "Its switch on": key off, S1 on${locked(input)}`,
    ],
  },
  {
    id: 'relay-two-fuses',
    name: 'One relay feeding two fuses',
    says: 'What else that relay feeds tells half of it.',
    lines: (input) => [
      `battery, fuse F1 "Main fuse of the relay", relay R1 "Its relay" contact, fuse F2 "Its fuse", wire W1 "Wire to the load", ${load(input)}, wire W2 "Earth wire", earth G1 "Its earth point"`,
      'from R1.87, fuse F3 "Sister fuse", wire W3 "Wire to the other load", module #L2 "What the sister fuse feeds", earth G2 "Earth of the other load"',
      'battery, key K1 "Key contact" run, fuse F4 "Control fuse", relay R1 coil, earth G3 "Coil earth"',
      watched(input),
      'function sister "What the sister fuse feeds": L2',
      'when off "Key off": key off',
      'when on "Key on": key run',
    ],
  },
  {
    id: 'key-fed-socket',
    name: 'Key-fed socket',
    says: 'An outlet that is live with the key; something is plugged in.',
    lines: (input) => [
      `battery, key K1 "Key contact" accessory|run, fuse F1 "Socket fuse", wire W1 "Wire to the socket", plug C1 "Plug behind the socket", socket X1 "Socket" appliances=${JSON.stringify([{ id: 'appliance', name: input.load }])}, wire W2 "Earth wire", earth G1 "Its earth point"`,
      `function failed ${quoted(input.load)}: X1:appliance`,
      'when off "Key off, plugged in": key off, X1 takes appliance',
      'when on "Key on, plugged in": key run, X1 takes appliance',
    ],
  },
  {
    id: 'shared-earth',
    name: 'Two loads on one earth',
    says: 'Strange when both are on, better when one is.',
    lines: (input) => [
      `battery, fuse F1 "Its fuse", switch S1 "Its switch", wire W1 "Wire to the load", ${load(input)}, splice SP1 "Joint of the earths" one>earth, wire W2 "Common earth wire", earth G1 "Common earth point"`,
      'battery, fuse F2 "Fuse of the other load", switch S2 "Switch of the other load", wire W3 "Wire to the other load", lamp #L2 "The other load", to SP1.other',
      watched(input),
      'function other "The other load": L2',
      'when off "Everything off": key off',
      'when on "Its switch on": key run, S1 on',
      'when other-on "The other switch on": key run, S2 on',
      'when both-on "Both switches on": key run, S1 on, S2 on',
    ],
  },
  {
    id: 'hazard-turn',
    name: 'Hazard and turn',
    says: 'A flasher unit, a lever and a hazard switch feed two sides.',
    lines: (input) => [
      'battery, fuse F1 "Hazard fuse", splice SP1 "Feed joint" battery>unit, flasher U1 "Flasher unit", splice SP2 "Behind the unit" unit>lever, switch S1 "Turn lever" off|left|right in>left:left in>right:right in>left, splice SP3 "Left side" lever>front, wire W1 "Wire to the left front", ' +
        `${load(input)}, earth G1 "Earth at the left front"`,
      'from SP3.rear, wire W2 "Wire to the left rear", lamp #L2 "Left rear lamp", earth G2 "Earth at the left rear"',
      'from S1.right, splice SP4 "Right side" lever>front, wire W3 "Wire to the right front", lamp #L3 "Right front lamp", earth G3 "Earth at the right front"',
      'from SP4.rear, wire W4 "Wire to the right rear", lamp #L4 "Right rear lamp", earth G4 "Earth at the right rear"',
      'from SP2.hazard, switch S2 "Hazard switch" off|on in>left:on in>right:on in>left, to SP3.hazard',
      'from S2.right, to SP4.hazard',
      'from SP1.earthed, flasher U1 49>31, earth G5 "Earth of the unit"',
      watched(input),
      'function rear "Left rear lamp": L2',
      'function right-front "Right front lamp": L3',
      'when off "Lever in the middle": key run',
      'when left "Lever left": key run, S1 left',
      'when right "Lever right": key run, S1 right',
      'when hazard "Hazard switch on": key off, S2 on',
    ],
  },
  {
    id: 'trailer-plug',
    name: 'Trailer plug',
    says: 'A lamp on the trailer, through the plug and a common earth.',
    lines: (input) => [
      `battery, fuse F1 "Its fuse", switch S1 "Its switch", wire W1 "Wire to the socket of the vehicle", plug C1 "Its pin of the trailer plug", wire W2 "Wire on the trailer", ${load(input)}, splice SP1 "Earth joint on the trailer" one>earth, wire W3 "Earth wire on the trailer", plug C3 "Earth pin of the trailer plug", wire W4 "Earth wire of the socket", earth G1 "Earth of the socket"`,
      'battery, fuse F2 "Fuse of the tail lamp", switch S2 "Light switch", plug C2 "Tail pin of the trailer plug", wire W5 "Tail wire on the trailer", lamp #L2 "Tail lamp of the trailer", to SP1.tail',
      watched(input),
      'function tail "Tail lamp of the trailer": L2',
      'when off "Everything off": key off',
      'when on "Its switch on": key run, S1 on',
      'when tail-on "Lights on": key run, S2 on',
      'when both-on "Both on": key run, S1 on, S2 on',
    ],
  },
  {
    id: 'two-speed-motor',
    name: 'Two-speed motor',
    says: 'Slow goes through a resistor, fast goes past it.',
    lines: (input) => [
      `battery, key K1 "Key contact" run, fuse F1 "Its fuse", switch S1 "Speed switch" off|slow|fast in>slow:slow in>fast:fast in>slow, wire W1 "Slow wire", resistor RS1 "Series resistor" 1 ohm, splice SP1 "At the motor" slow>motor, ${load({ ...input, kind: 'motor' })}, wire W2 "Earth wire", earth G1 "Its earth point"`,
      'from S1.fast, wire W3 "Fast wire", to SP1.fast',
      watched(input),
      'when off "Key on, switch off": key run',
      'when slow "Key on, slow": key run, S1 slow',
      'when fast "Key on, fast": key run, S1 fast',
    ],
  },
  {
    id: 'solenoid-button',
    name: 'Solenoid and push button',
    says: 'A momentary switch moves a solenoid that carries much current.',
    asksInterlocks: true,
    lines: (input) => [
      `battery, link FL1 "Main link" 100 A, solenoid Z1 "Solenoid" contact, wire W1 "Cable to the load", ${load(input)}, earth G1 "Its earth point"`,
      `battery, fuse F1 "Control fuse", wire W2 "Wire to the button", switch S1 "Push button" momentary${locks(input)}, wire W3 "Wire to the solenoid", solenoid Z1 coil, earth G2 "Earth of the solenoid"`,
      watched(input),
      'when off "Button released": key off',
      `when on "Button held": key run, S1 on${locked(input)}`,
    ],
  },
  {
    id: 'module-output',
    name: 'Module output',
    says: 'A control unit switches it; there is no relay to pull.',
    asksInterlocks: true,
    lines: (input) => [
      `battery, fuse F1 "Fuse of the module", output MO1 "Module output" high rule=[{"key":["run"],"inputs":{"request":"high"}}] fixed, wire W1 "Wire to the load", plug C1 "Plug at the load", ${load(input)}, wire W2 "Earth wire", earth G1 "Its earth point"`,
      'from F1, output MO1 plus>minus, earth G2 "Earth of the module"',
      `from F1, switch S1 "Its switch"${locks(input)}, wire W3 "Request wire", to MO1.request`,
      watched(input),
      `when off "Key on, switch off": key run${locked(input)}`,
      `when on "Key on, its switch on": key run, S1 on${locked(input)}`,
    ],
  },
];

export interface PatternCircuit {
  readonly circuit: CircuitFile;
  readonly text: string;
  /** The function that fails. */
  readonly function: string;
  /** The condition in which it should work. */
  readonly condition: string;
  /** The condition in which it should be off, fed as far as its own switch: there whatever sticks shows. */
  readonly restCondition: string;
}

/** Conditions in which the load of a pattern should be on. */
const SHOULD_WORK = ['on', 'left', 'fast'];
/** Conditions in which it should be off, the one that tells more first. */
const SHOULD_REST = ['rest', 'off'];

/** The circuit of a pattern, ready to be traced. Throws when the pattern itself is wrong. */
export function circuitOfPattern(pattern: Pattern, input: PatternInput): PatternCircuit {
  const id = `${pattern.id}-${slug(input.load, 40)}`;
  const text = [
    `circuit ${id} ${quoted(input.load)} ${input.nominalVolts} V`,
    ...(input.returns === 'insulated' ? pattern.lines(input).map(insulated) : pattern.lines(input)),
    'note "Made from a pattern: what is not known here is unknown, and counts with a wide tolerance."',
  ].join('\n');
  const { circuit: read, problems } = readNotation(text);
  const circuit =
    read && input.returns === 'insulated'
      ? { ...read, nodes: read.nodes.map((node) => (node.id === BODY ? { ...node, name: BUSBAR } : node)) }
      : read;
  if (!circuit) throw new Error(`${pattern.id}: ${problems.map((one) => one.message).join(' ')}`);
  const [condition, restCondition] = [SHOULD_WORK, SHOULD_REST].map(
    (ids) => ids.find((id) => circuit.conditions.some((one) => one.id === id))!,
  ) as [string, string];
  return { circuit, text, function: 'failed', condition, restCondition };
}
