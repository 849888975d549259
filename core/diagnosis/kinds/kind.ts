/**
 * What one kind of test is: where it can be done, what each fault would make it show, how its card reads and
 * what its result means. Every kind is one object of this shape; nothing outside knows kinds by name.
 */

import type { FaultyCircuit } from '../../faults';
import type { CircuitFile, CircuitPart, Reading, ReadingValue, TestRef } from '../../format';
import type { Alteration, CircuitModel, OperatingPoint } from '../../network';
import type { Deed } from '../../safety';
import type { Hypothesis } from '../hypotheses/hypothesis';
import type { Setting } from '../settings';

export type RefOf<K extends TestRef['kind']> = Extract<TestRef, { kind: K }>;

/** Answers that are a number of a unit. */
export type NumberAnswer = 'volts' | 'millivolts' | 'ohms' | 'amps';

/** Answers that are one of a few words. */
export type WordAnswer = 'lamp' | 'function' | 'click' | 'sound' | 'look' | 'wiggle';

export type AnswerKind = NumberAnswer | WordAnswer;

/** Places from which a test can be done, with the minutes it then takes. */
export interface Access {
  readonly place: string | null;
  readonly lead: string;
  readonly minutes: number;
}

export interface Offer<R extends TestRef = TestRef> {
  readonly ref: R;
  readonly accesses: readonly Access[];
  /** Pulls, reseats or swaps something, and so may cure what it looks for. */
  readonly disturbs?: boolean;
}

/** Where tests are offered for: a circuit, and what its owner complains of. */
export interface Scene {
  readonly model: CircuitModel;
  readonly circuit: CircuitFile;
  readonly function: string;
  readonly condition: string;
  /** Whether a node or part lies on the way of what failed. */
  readonly concerned: (id: string) => boolean;
}

/** One hypothesis, ready to be asked what it would make an instrument show. */
export interface Supposed {
  readonly model: CircuitModel;
  readonly hypothesis: Hypothesis;
  readonly altered: Alteration;
  readonly point: (condition: string) => OperatingPoint;
  /** With something more done to the circuit than the faults did. */
  readonly solve: (condition: string, extra: Alteration) => OperatingPoint;
  /** Volts between two points as a meter shows them, with something more done to the circuit. */
  readonly volts: (condition: string, extra: Alteration, a: number, b: number) => number;
  /** The same with other faults, those of a renewed part left out for instance. */
  readonly solveWith: (condition: string, faults: Hypothesis['faults']) => OperatingPoint;
}

/** What a reading is held against when it is put into words. */
export interface Meaning {
  readonly model: CircuitModel;
  readonly names: Names;
  /**
   * Volts that a sound circuit would show after what was read before, and their deviation; null where the spot floats
   * or the test has no volts.
   */
  readonly expected: { readonly volts: number; readonly deviation: number } | null;
  /** Everything read before, for what only two readings together can say. */
  readonly earlier: readonly Reading[];
  readonly left: Remaining;
}

/** What the readings leave, the newest with them. */
export interface Remaining {
  /** Hypotheses worth a word, the likeliest first. */
  readonly likely: readonly Hypothesis[];
  /** Chance of the likeliest of them, 0 to 1. */
  readonly lead: number;
  /** Chance that current flows through a point in a condition, 0 to 1. */
  flows(condition: string, node: string): number;
}

/** An instrument, a lead, or what a person uses instead of one. */
export type Sign =
  | 'volts'
  | 'millivolts'
  | 'ohms'
  | 'clamp'
  | 'lamp'
  | 'led'
  | 'fused-lead'
  | 'eye'
  | 'ear'
  | 'hand';

/** Where a test is done: points by their ids, a part by its own. What a test has not is left out. */
interface Leads {
  readonly sign: Sign;
  /** The point that the plus lead, the tip, or plus through a fused lead goes to. */
  readonly plus?: string | undefined;
  readonly minus?: string | undefined;
  readonly at?: string | undefined;
}

interface CardBody {
  readonly title: string;
  /** Null takes key and switch positions of the condition. */
  readonly settings?: readonly Setting[];
  readonly instrument: string;
  readonly steps: readonly string[];
  readonly cautions: readonly string[];
}

export interface TestKind<R extends TestRef> {
  /** Fields of the reference that tell one test of this kind from another, in the order of the id. */
  readonly fields: readonly (keyof R & string)[];
  readonly answer: AnswerKind;
  /** Results as a technician says them; judged by value instead where there are none. */
  readonly results: readonly string[];
  /** Minutes at an open place. */
  readonly minutes: number;
  /** What two readings would share if a common mistake spoiled both. */
  readonly setUp: (ref: R) => string;
  /** The point or part that a reading is taken at. */
  readonly spot: (ref: R) => string;
  /** Something is pulled or taken apart for it, so that no current flows as it does otherwise. */
  readonly apart: (ref: R) => boolean;
  /** It restores or moves the fault, and so is worth two readings. */
  readonly intervenes?: boolean;
  /** What a hand does to the circuit for it, as far as safety asks. */
  readonly deed: (model: CircuitModel, ref: R) => Partial<Deed>;
  /** What the hand holds, where its leads end, and the part that it is done at. */
  readonly leads: (circuit: CircuitFile, ref: R) => Leads;
  /** Fuses that it renews or goes around: what blew the old one would blow the next, or the lead's. */
  readonly feedsBehind?: (circuit: CircuitFile, ref: R) => readonly string[];
  /** Parts that it moves: pulled, unplugged, swapped, wiggled. What comes and goes may then change. */
  readonly touches?: (ref: R) => readonly string[];
  /** It asks what a part is like, not what the circuit does just now. */
  readonly ofLooseness?: boolean;
  /** What is done to the circuit so that the function is tried: where it runs, its current flows as it then does. */
  readonly tried?: (model: CircuitModel, ref: R) => Alteration;
  readonly offers: (scene: Scene) => readonly Offer<R>[];
  /** Slow to work out and seldom worth its minutes: only when somebody chooses it. */
  readonly onRequest?: boolean;
  /** Chance of each result where the map cannot say; all alike where this is not given. */
  readonly unmapped?: readonly number[];
  /** Chance of each result under a hypothesis, wrong readings aside. */
  readonly chances: (supposed: Supposed, ref: R) => readonly number[];
  /** Which result a recorded value is; null where it says nothing about the circuit. */
  readonly outcome: (model: CircuitModel, ref: R, value: ReadingValue) => number | null;
  /** What the instrument would show on a circuit that really has faults. */
  readonly shows: (circuit: FaultyCircuit, ref: R) => ReadingValue;
  readonly card: (names: Names, ref: R, lead: string) => CardBody;
  /** The slot it is done at. */
  readonly slotPart?: (ref: R) => string;
  /** "the volts at relay 4 pin 87". */
  readonly inSentence: (names: Names, ref: R) => string;
  /** "Volts at relay 4 pin 87". */
  readonly inLog: (names: Names, ref: R) => string;
  /** What it means and what it does not; null where the value is of another kind. */
  readonly means: (meaning: Meaning, ref: R, value: ReadingValue) => string | null;
}

/** Names of what is on the body, and so on earth. */
const EARTHED = /\b(earth|earths|ground|body|chassis)\b/i;

/** Names of a circuit's points, parts and functions; an unknown id stands for itself. */
export class Names {
  constructor(readonly circuit: Pick<CircuitFile, 'nodes' | 'parts' | 'functions' | 'reference'>) {}

  node(id: string): string {
    return this.circuit.nodes.find((one) => one.id === id)?.name ?? id;
  }

  part(id: string): string {
    return this.partOf(id)?.name ?? id;
  }

  partOf(id: string): CircuitPart | undefined {
    return this.circuit.parts.find((one) => one.id === id);
  }

  /** What a return leads to: earth, or what the map calls its reference where nothing on it is earthed. */
  get ground(): string {
    const { nodes, parts, reference } = this.circuit;
    const name = nodes.find(({ id }) => id === reference)?.name ?? 'earth';
    const earthed = [...nodes, ...parts].some((one) => EARTHED.test(one.name));
    return earthed || parts.every(({ kind }) => kind !== 'ground') ? 'earth' : `the ${name}`;
  }

  /** The part whose two ends these points are, if it is one. */
  between(one: string, other: string): CircuitPart | undefined {
    return this.circuit.parts.find((part) => {
      const ends = Object.values(part.pins);
      return ends.includes(one) && ends.includes(other);
    });
  }

  function(id: string): string {
    return this.circuit.functions.find((one) => one.id === id)?.name ?? id;
  }
}

export function nodeIndex(model: CircuitModel, id: string): number {
  const index = model.network.nodeIndex.get(id);
  if (index === undefined) throw new Error(`The circuit has no point ${id}.`);
  return index;
}

/** Amperes from which a point counts as one that carries current. */
export const CARRIES_AMPS = 0.05;

/** Whether current flows through a point, by the currents of all branches. */
export function carries({ network }: CircuitModel, amps: Float64Array, id: string): boolean {
  const node = network.nodeIndex.get(id);
  return node !== undefined && branchesAt(network)[node]!.some((e) => Math.abs(amps[e] ?? 0) > CARRIES_AMPS);
}

const ENDS = new WeakMap<CircuitModel['network'], readonly (readonly number[])[]>();

/** Branches that end at each node. */
function branchesAt(network: CircuitModel['network']): readonly (readonly number[])[] {
  const known = ENDS.get(network);
  if (known) return known;
  const made: number[][] = network.nodeIds.map(() => []);
  network.branches.forEach(({ a, b }, e) => {
    made[a]!.push(e);
    made[b]!.push(e);
  });
  ENDS.set(network, made);
  return made;
}

/** Pins of a part by their names; none where it is not there. */
export function pinsOf(parts: readonly CircuitPart[], id: string): Readonly<Record<string, string>> {
  return parts.find((part) => part.id === id)?.pins ?? {};
}

/** The part by which a function is seen; of an appliance, the socket that it hangs in. */
export function loadPart(functions: CircuitFile['functions'], id: string): string | undefined {
  return functions.find((one) => one.id === id)?.load.split(':')[0];
}

/** The likeliest of several states. */
export function likeliest<T>(states: readonly T[], chances: readonly number[]): T {
  return states[chances.indexOf(Math.max(...chances))]!;
}

/** Where the parts of a run are handled, each at its own place. */
export function atPart(part: CircuitPart, minutes: number): readonly Access[] {
  return [{ place: part.place ?? null, lead: part.name, minutes }];
}

/** Where a point is reached with a probe. */
export function atNode(circuit: CircuitFile, node: string, minutes: number): readonly Access[] {
  return (circuit.nodes.find((one) => one.id === node)?.access ?? []).map((access) => ({
    place: access.place,
    lead: access.lead,
    minutes: (access.minutes ?? 0) + minutes,
  }));
}
