/** What can be wrong with each kind of part, and what that does to its branches. */
import { type Network, startFactor } from '../circuit';
import type { CircuitPart, PartKind } from '../format';
import type { Alteration, BranchChange, Bridge } from '../network';

export const FAULT_MODES = [
  'open',
  'high-resistance',
  'not-fitted',
  'short-to-earth',
  'short-to-feed',
  'shorted',
  'seized',
  'reversed',
  'coil-open',
  'coil-shorted',
  'contact-open',
  'contact-stuck',
  'contact-resistance',
  'not-commanded',
  'wrong-part',
  'wrong-rating',
  'weak',
  'flat',
  'over-voltage',
] as const;
export type FaultMode = (typeof FAULT_MODES)[number];

export interface Fault {
  readonly part: string;
  readonly mode: FaultMode;
  /** Ohms put in series, or ohms of a short. */
  readonly ohms?: number;
  /** Rating of the wrong fuse, ampere. */
  readonly amps?: number;
  /** Which branch of the part, where it has several. */
  readonly branch?: string;
  /** Node that a short to a feed reaches; the battery's plus when not said. */
  readonly to?: string;
  /** What a low battery has left of its own, volts. */
  readonly volts?: number;
}

/** Ohms of a chafed wire on bare metal: low enough to open any fuse of a 12 V circuit. */
const SHORT_OHMS = 0.02;
/** A weak battery: this share of its emf, and this many times its inner resistance. */
const WEAK_EMF = 0.8;
const WEAK_INNER_FACTOR = 15;
/** A flat one. */
const FLAT_EMF = 0.25;
const FLAT_INNER_FACTOR = 100;
/** A battery whose level was chosen has so many times its inner resistance: what is discharged resists more. */
const LOW_INNER_FACTOR = 4;
/** A coil with shorted turns keeps this share of its ohms, and pulls nothing. */
const SHORTED_COIL_SHARE = 0.02;
/** An unregulated charging source gives this many times its set volts. */
const OVER_VOLTAGE = 1.2;
/** Ohms in series of a bad joint whose size nobody chose. */
const SOME_OHMS = 1;

/** Faults that draw more current than the part is made for, and may open the fuse before it. */
export const OVERCURRENT_MODES: ReadonlySet<FaultMode> = new Set([
  'short-to-earth',
  'short-to-feed',
  'shorted',
  'seized',
  'coil-shorted',
  'wrong-rating',
  'over-voltage',
]);
/** Those of them that are a way round everything: while no fuse ends it, something burns. */
export const SHORT_MODES: ReadonlySet<FaultMode> = new Set([
  'short-to-earth',
  'short-to-feed',
  'shorted',
  'coil-shorted',
]);
/** Faults that leave no way through the part, out of the circuit too. */
export const OPEN_MODES: ReadonlySet<FaultMode> = new Set(['open', 'not-fitted', 'coil-open']);
/** Faults whose size is a resistance in series, chosen by the part's current. */
export const RESISTANCE_MODES: ReadonlySet<FaultMode> = new Set(['high-resistance', 'contact-resistance']);

/** Faults of something loose, worn or corroded, which may come and go and may answer to being moved. */
export const LOOSE_MODES: ReadonlySet<FaultMode> = new Set([
  'open',
  'high-resistance',
  'contact-open',
  'contact-resistance',
  'coil-open',
  'short-to-earth',
]);

const JOINT: readonly FaultMode[] = ['open', 'high-resistance'];
const CONTACT: readonly FaultMode[] = ['contact-open', 'contact-stuck', 'contact-resistance'];
const COIL: readonly FaultMode[] = ['coil-open', 'coil-shorted'];
const LOAD: readonly FaultMode[] = ['open', 'high-resistance', 'shorted'];

/** Every fault that each kind can have, magnitudes aside. */
const MODES: { readonly [K in PartKind]: readonly FaultMode[] } = {
  battery: ['weak', 'flat'],
  'charging-source': ['open', 'weak', 'over-voltage'],
  fuse: ['open', 'high-resistance', 'not-fitted', 'wrong-rating'],
  'fusible-link': JOINT,
  breaker: JOINT,
  polyfuse: JOINT,
  wire: ['open', 'high-resistance', 'short-to-earth', 'short-to-feed'],
  connector: JOINT,
  splice: JOINT,
  ground: JOINT,
  switch: [...CONTACT, 'not-commanded'],
  'key-contact': [...CONTACT, 'not-commanded'],
  relay: [...COIL, ...CONTACT, 'wrong-part', 'not-fitted'],
  'latching-relay': [...COIL, ...CONTACT],
  solenoid: [...COIL, ...CONTACT],
  flasher: CONTACT,
  'cut-off': CONTACT,
  'module-output': CONTACT,
  lamp: LOAD,
  led: [...LOAD, 'reversed'],
  motor: [...LOAD, 'seized'],
  pump: [...LOAD, 'seized'],
  horn: LOAD,
  heater: LOAD,
  module: LOAD,
  resistor: ['open', 'shorted'],
  socket: LOAD,
  diode: ['open', 'shorted', 'reversed'],
};

/** Every fault a part can have, magnitudes aside. */
export function faultModes(part: CircuitPart): readonly FaultMode[] {
  return MODES[part.kind];
}

/** Loads, whose own wear shows as too little current. */
const DRAWS: readonly CircuitPart['kind'][] = ['lamp', 'led', 'heater', 'module', 'horn', 'motor', 'pump'];

/** Plain name of a fault, to follow the part's name. */
export function faultWords(part: CircuitPart | undefined, fault: Fault): string {
  switch (fault.mode) {
    case 'open':
      if (part?.kind === 'fuse') return 'blown';
      if (part?.kind === 'fusible-link') return 'melted';
      if (part?.kind === 'breaker') return 'tripped or open';
      return 'open';
    case 'not-fitted':
      return 'not fitted';
    case 'high-resistance':
      if (part && DRAWS.includes(part.kind)) return 'worn, draws less than it should';
      return `high resistance (about ${formatOhms(fault.ohms ?? SOME_OHMS)})`;
    case 'short-to-earth':
      return 'shorted to earth';
    case 'short-to-feed':
      return 'shorted to another feed';
    case 'shorted':
      return 'shorted inside';
    case 'seized':
      return 'seized';
    case 'reversed':
      return 'fitted the wrong way round';
    case 'coil-open':
      return `${fault.branch && fault.branch !== 'coil' ? `${fault.branch} ` : ''}coil open`;
    case 'coil-shorted':
      return `${fault.branch && fault.branch !== 'coil' ? `${fault.branch} ` : ''}coil shorted`;
    case 'contact-open':
      return part?.kind === 'relay' ? 'contact does not close' : 'does not close';
    case 'contact-stuck':
      return 'stuck closed';
    case 'contact-resistance':
      return `worn contact (about ${formatOhms(fault.ohms ?? SOME_OHMS)})`;
    case 'not-commanded':
      return 'not where it was believed to be';
    case 'wrong-part':
      return 'one with 30 and 86 exchanged is fitted';
    case 'wrong-rating':
      return fault.amps ? `a ${fault.amps} A one is fitted` : 'one of another rating is fitted';
    case 'weak':
      if (part?.kind === 'charging-source') return 'charges too little';
      return fault.ohms === undefined ? 'weak' : `weak (about ${formatOhms(fault.ohms)} inside)`;
    case 'flat':
      return fault.volts === undefined ? 'flat' : `low (about ${fault.volts} V)`;
    case 'over-voltage':
      return 'charges too much';
  }
}

function formatOhms(ohms: number): string {
  return ohms < 1 ? `${Math.round(ohms * 1000)} mΩ` : `${ohms.toPrecision(2).replace(/\.0$/, '')} Ω`;
}

/** The branches that a fault acts on. Throws when the part does not exist or cannot have the fault. */
export function faultBranches(network: Network, fault: Fault): readonly number[] {
  const part = network.parts.get(fault.part);
  if (!part) throw new Error(`There is no part ${fault.part} in this circuit.`);
  if (!faultModes(part).includes(fault.mode)) {
    throw new Error(`A ${part.kind} cannot be ${fault.mode}; it can be ${faultModes(part).join(', ')}.`);
  }
  const branches = network.branchesOfPart.get(fault.part) ?? [];
  const wanted = branches.filter((index) => {
    const { role, label } = network.branches[index]!;
    if (fault.branch && label !== fault.branch) return false;
    if (fault.mode.startsWith('coil')) return role === 'coil';
    if (fault.mode.startsWith('contact') || fault.mode === 'not-commanded') return role === 'contact';
    if (fault.mode === 'wrong-part') return role === 'coil' || role === 'contact';
    if (part.kind === 'socket') return role === 'conductor';
    return true;
  });
  if (wanted.length === 0) throw new Error(`${fault.part} has no branch ${fault.branch}.`);
  return wanted;
}

/** Whether a switch or key contact is closed with everything at rest and the key off. */
function closedAtRest(network: Network, branch: number): boolean {
  const { control } = network.branches[branch]!;
  return (control ?? []).some((line) =>
    line.every((term) => {
      if (term.kind === 'key') return term.closedIn.includes('off');
      if (term.kind !== 'switch') return false;
      const part = network.parts.get(term.part);
      return part?.kind === 'switch' && term.closedIn.includes(part.rest);
    }),
  );
}

/** Node of the battery's plus: what a stray feed is when nobody says which. */
function strayFeed(network: Network): number {
  const battery = network.circuit.parts.find((part) => part.kind === 'battery');
  if (battery?.kind !== 'battery') throw new Error('The circuit has no battery to short to.');
  return network.nodeIndex.get(battery.pins.plus)!;
}

/** A relay whose plastic fits but whose pins 30 and 86 are exchanged. */
function exchangedPins(network: Network, part: CircuitPart): Alteration {
  if (part.kind !== 'relay') throw new Error(`${part.name} has no pins 30 and 86 to exchange.`);
  const node = (pin: '30' | '85' | '86') => network.nodeIndex.get(part.pins[pin])!;
  const changes: BranchChange[] = [];
  const bridges: Bridge[] = [];
  for (const index of network.branchesOfPart.get(part.id) ?? []) {
    const branch = network.branches[index]!;
    if (branch.role === 'coil') {
      changes.push({ branch: index, held: 'open' });
      bridges.push({ a: node('30'), b: node('85'), ohms: branch.ohms });
    }
    if (branch.role === 'contact') {
      changes.push({ branch: index, held: 'open' });
      bridges.push({ a: node('86'), b: branch.b, ohms: branch.ohms, follows: index });
    }
  }
  const sensor = network.sensors.findIndex((one) => one.part === part.id);
  return { changes, bridges, sensing: [{ sensor, a: node('30'), b: node('85') }] };
}

/** Branches for which a reversed load or diode turns its junction round. */
function junctionsOf(network: Network, part: string): number[] {
  return [...network.junctions.keys()].filter((j) => network.junctions[j]!.part === part);
}

/** What a fault of the supply leaves of a source's volts and inner resistance. */
function sourceLeft(
  { mode, ohms, volts }: Fault,
  source: { readonly ohms: number; readonly emfVolts: number },
  isBattery: boolean,
): { ohms: number; emfVolts: number } {
  if (mode === 'weak') {
    if (ohms !== undefined) return { ohms: source.ohms + ohms, emfVolts: source.emfVolts };
    const factor = isBattery ? WEAK_INNER_FACTOR : 1;
    return { ohms: source.ohms * factor, emfVolts: source.emfVolts * WEAK_EMF };
  }
  return volts === undefined
    ? { ohms: source.ohms * FLAT_INNER_FACTOR, emfVolts: source.emfVolts * FLAT_EMF }
    : { ohms: source.ohms * LOW_INNER_FACTOR, emfVolts: volts };
}

/** A fault as a change of the network. Throws when the part does not exist or cannot have the fault. */
export function faultAlteration(network: Network, fault: Fault): Alteration {
  const part = network.parts.get(fault.part);
  const indices = faultBranches(network, fault);
  const changes: BranchChange[] = [];
  const bridges: Bridge[] = [];
  const sensing: { sensor: number; a: number; b: number }[] = [];
  const ratings: { branch: number; amps: number }[] = [];
  const reversed = fault.mode === 'reversed' ? junctionsOf(network, fault.part) : [];
  if (fault.mode === 'wrong-part') return exchangedPins(network, part!);
  if (fault.mode === 'shorted' && part && 'pins' in part) {
    const [a, b] = Object.values(part.pins).map((id) => network.nodeIndex.get(id)!);
    bridges.push({ a: a!, b: b!, ohms: fault.ohms ?? SHORT_OHMS });
    return { changes, bridges };
  }
  for (const index of indices) {
    const branch = network.branches[index]!;
    switch (fault.mode) {
      case 'open':
      case 'not-fitted':
      case 'coil-open':
      case 'contact-open':
        changes.push({ branch: index, held: 'open' });
        break;
      case 'high-resistance':
      case 'contact-resistance':
        changes.push({ branch: index, ohms: branch.ohms + (fault.ohms ?? SOME_OHMS) });
        break;
      case 'contact-stuck':
        changes.push({ branch: index, held: 'closed' });
        break;
      case 'not-commanded':
        changes.push({ branch: index, held: closedAtRest(network, index) ? 'closed' : 'open' });
        break;
      case 'short-to-earth':
        // The far end of a wire: where chafing bares the conductor.
        bridges.push({ a: branch.b, b: network.datum, ohms: fault.ohms ?? SHORT_OHMS });
        break;
      case 'short-to-feed': {
        const to = fault.to === undefined ? strayFeed(network) : network.nodeIndex.get(fault.to);
        if (to === undefined) throw new Error(`There is no point ${fault.to} in this circuit.`);
        bridges.push({ a: branch.b, b: to, ohms: fault.ohms ?? SHORT_OHMS });
        break;
      }
      case 'seized':
        changes.push({ branch: index, ohms: branch.ohms / startFactor(part!) });
        break;
      case 'coil-shorted': {
        changes.push({ branch: index, ohms: fault.ohms ?? branch.ohms * SHORTED_COIL_SHARE });
        const sensor = network.sensors.findIndex((one) => one.branch === index);
        sensing.push({ sensor, a: network.datum, b: network.datum });
        break;
      }
      case 'wrong-rating':
        ratings.push({ branch: index, amps: fault.amps ?? 0 });
        break;
      case 'weak':
      case 'flat':
        changes.push({ branch: index, ...sourceLeft(fault, branch, part?.kind === 'battery') });
        break;
      case 'over-voltage':
        changes.push({ branch: index, emfVolts: branch.emfVolts * OVER_VOLTAGE });
        break;
    }
  }
  return { changes, bridges, reversed, sensing, ratings };
}

/** Reads `PART:MODE[:VALUE]` of the command line: in ohms, ampere for a wrong rating, volts for a flat battery. */
export function parseFault(text: string): Fault | { error: string } {
  const [part, mode, value, ...rest] = text.split(':');
  if (!part || !mode || rest.length > 0)
    return { error: `Write a fault as PART:MODE or PART:MODE:VALUE, not "${text}".` };
  const known = FAULT_MODES.find((one) => one === mode);
  if (!known) return { error: `"${mode}" is not a fault. Use one of ${FAULT_MODES.join(', ')}.` };
  if (value === undefined) return { part, mode: known };
  const number = Number(value);
  if (!(number > 0) || !Number.isFinite(number))
    return { error: `"${value}" is not a value in ohms (or ampere, or volts) above 0.` };
  if (known === 'wrong-rating') return { part, mode: known, amps: number };
  return known === 'flat' ? { part, mode: known, volts: number } : { part, mode: known, ohms: number };
}
