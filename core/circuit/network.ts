/**
 * A circuit file as a network of branches: every part becomes one or more two-ended branches between node
 * numbers, some of them opened and closed by a switch, the key or a sensor. Faults and interventions are
 * later changes of such branches, so that nothing else needs to know what kind of part it was.
 */
import type { CircuitFile, CircuitPart, Condition, KeyPositionName } from '../format';

/** One thing that must hold for a branch to conduct. */
export type Term =
  | { readonly kind: 'switch'; readonly part: string; readonly closedIn: readonly string[] }
  | { readonly kind: 'key'; readonly closedIn: readonly KeyPositionName[] }
  | { readonly kind: 'engine'; readonly running: boolean }
  | { readonly kind: 'plugged'; readonly socket: string; readonly appliance: string }
  | { readonly kind: 'phase'; readonly is: 'on' | 'off' }
  /** In the half of a pulse in which the output is on. */
  | { readonly kind: 'pulse' }
  /** Long enough, or not yet long enough, in the condition. */
  | { readonly kind: 'elapsed'; readonly seconds: number; readonly reached: boolean }
  | { readonly kind: 'sensor'; readonly sensor: number; readonly on: boolean };

/** Conducts when every term of any one line holds; null conducts always. */
export type Control = readonly (readonly Term[])[] | null;

export type BranchRole =
  | 'source'
  | 'conductor'
  | 'fuse'
  | 'breaker'
  | 'contact'
  | 'coil'
  | 'load'
  /** Consumption of electronics, pull-up and pull-down, coil suppression. */
  | 'internal'
  | 'junction-series'
  | 'earth';

export interface Branch {
  readonly part: string;
  readonly role: BranchRole;
  /** Distinguishes several branches of one part: "30-87", "coil", "leg:a". */
  readonly label: string;
  readonly a: number;
  readonly b: number;
  /** Ohms while closed. */
  readonly ohms: number;
  /** Source voltage in series, positive towards `a`. */
  readonly emfVolts: number;
  readonly control: Control;
}

/**
 * What moves contacts: a relay's coil, the bimetal of a breaker, the electronics of a cut-off, an input of a
 * module, the latch between two coils. It is on or off, with hysteresis between two thresholds.
 */
export interface Sensor {
  readonly part: string;
  /** "coil", "set", "latch", "input:door". */
  readonly label: string;
  /** Volts between `a` and `b`; amperes of `branch`; or two other sensors that set and reset it. */
  readonly senses: 'volts' | 'amps' | 'latch';
  readonly a: number;
  readonly b: number;
  /** The coil whose opening blinds it, or the branch whose current counts; -1 for neither. */
  readonly branch: number;
  /** The sign counts: electronics feel it, a coil does not. */
  readonly signed: boolean;
  readonly onAbove: number;
  readonly offBelow: number;
  readonly starts: 0 | 1;
  readonly set: number;
  readonly reset: number;
  /** Seconds for which it stays on after release (delay-off). */
  readonly holdsSeconds: number;
}

export interface Junction {
  readonly part: string;
  readonly anode: number;
  readonly cathode: number;
  readonly saturationAmps: number;
  /** Emission coefficient times thermal voltage at 27 °C, volts. */
  readonly thermalVolts: number;
}

export interface LoadModel {
  readonly branch: number;
  readonly nominalAmps: number;
  readonly weakBelow: number;
  readonly deadBelow: number;
}

export interface Network {
  readonly circuit: CircuitFile;
  readonly nodeCount: number;
  /** Node ids of the file first, then inner nodes of parts as "part#name". */
  readonly nodeIds: readonly string[];
  readonly nodeIndex: ReadonlyMap<string, number>;
  /** The node that all voltages are measured against. */
  readonly datum: number;
  readonly branches: readonly Branch[];
  readonly sensors: readonly Sensor[];
  readonly junctions: readonly Junction[];
  /** By part id; appliances of a socket as "socket:appliance". */
  readonly loads: ReadonlyMap<string, LoadModel>;
  readonly branchesOfPart: ReadonlyMap<string, readonly number[]>;
  readonly parts: ReadonlyMap<string, CircuitPart>;
}

/** Collects the branches of one part after another; what `expandPart` writes to. */
export class NetworkBuilder {
  readonly nodeIds: string[] = [];
  readonly nodeIndex = new Map<string, number>();
  readonly branches: Branch[] = [];
  readonly sensors: Sensor[] = [];
  readonly junctions: Junction[] = [];
  readonly loads = new Map<string, LoadModel>();
  readonly branchesOfPart = new Map<string, number[]>();
  readonly nominalVolts: number;
  /** More than one source: a battery may then be charged, and resists that more than it resists giving. */
  readonly severalSources: boolean;

  constructor(readonly circuit: CircuitFile) {
    this.nominalVolts = circuit.nominalVolts;
    const sources = circuit.parts.filter(
      (part) => part.kind === 'battery' || part.kind === 'charging-source',
    );
    this.severalSources = sources.length > 1;
    for (const node of circuit.nodes) this.node(node.id);
  }

  node(id: string): number {
    const known = this.nodeIndex.get(id);
    if (known !== undefined) return known;
    const index = this.nodeIds.push(id) - 1;
    this.nodeIndex.set(id, index);
    return index;
  }

  /** Adds a branch between two nodes and gives its number. */
  branch(
    part: CircuitPart,
    role: BranchRole,
    label: string,
    [a, b]: readonly [string, string],
    ohms: number,
    { control = null, emfVolts = 0 }: { control?: Control; emfVolts?: number } = {},
  ): number {
    const index = this.branches.length;
    this.branches.push({
      part: part.id,
      role,
      label,
      a: this.node(a),
      b: this.node(b),
      ohms,
      emfVolts,
      control,
    });
    const list = this.branchesOfPart.get(part.id);
    if (list) list.push(index);
    else this.branchesOfPart.set(part.id, [index]);
    return index;
  }

  /** Adds a sensor and gives its number. */
  sensor(part: CircuitPart, label: string, wanted: Partial<Omit<Sensor, 'part' | 'label'>>): number {
    this.sensors.push({
      senses: 'volts',
      a: 0,
      b: 0,
      branch: -1,
      signed: false,
      onAbove: Number.POSITIVE_INFINITY,
      offBelow: Number.NEGATIVE_INFINITY,
      starts: 0,
      set: -1,
      reset: -1,
      holdsSeconds: 0,
      ...wanted,
      part: part.id,
      label,
    });
    return this.sensors.length - 1;
  }

  junction(
    part: CircuitPart,
    anode: string,
    cathode: string,
    saturationAmps: number,
    thermalVolts: number,
  ): void {
    this.junctions.push({
      part: part.id,
      anode: this.node(anode),
      cathode: this.node(cathode),
      saturationAmps,
      thermalVolts,
    });
  }
}

/** A condition, and which half of the pulses of pulsed outputs is looked at; the on half when not said. */
export interface Moment extends Condition {
  readonly pulse?: 'on' | 'off';
}

/** Whether a term holds in a condition, sensors aside. */
function holds(network: Network, term: Exclude<Term, { kind: 'sensor' }>, condition: Moment): boolean {
  switch (term.kind) {
    case 'key':
      return term.closedIn.includes(condition.key);
    case 'switch': {
      const part = network.parts.get(term.part);
      const rest = part?.kind === 'switch' ? part.rest : '';
      return term.closedIn.includes(condition.switches?.[term.part] ?? rest);
    }
    case 'engine':
      return (condition.engineRunning ?? false) === term.running;
    case 'plugged':
      return condition.pluggedIn?.[term.socket] === term.appliance;
    case 'phase':
      return (condition.phase ?? 'on') === term.is;
    case 'pulse':
      return condition.pulse !== 'off';
    case 'elapsed':
      return (condition.secondsIn ?? Number.POSITIVE_INFINITY) >= term.seconds === term.reached;
  }
}

/** What is left of a control in one condition: always, never, or lines of sensor states. */
export type Resolved =
  | 'closed'
  | 'open'
  | readonly (readonly { readonly sensor: number; readonly on: boolean }[])[];

/** Decides everything that the condition decides; only sensors are left open. */
export function resolveControl(network: Network, control: Control, condition: Moment): Resolved {
  if (control === null) return 'closed';
  const lines: { sensor: number; on: boolean }[][] = [];
  for (const line of control) {
    const sensed: { sensor: number; on: boolean }[] = [];
    let possible = true;
    for (const term of line) {
      if (term.kind === 'sensor') sensed.push({ sensor: term.sensor, on: term.on });
      else if (!holds(network, term, condition)) possible = false;
    }
    if (!possible) continue;
    if (sensed.length === 0) return 'closed';
    lines.push(sensed);
  }
  return lines.length === 0 ? 'open' : lines;
}

/** Whether a resolved control conducts when the sensors stand as given. */
export function conducts(resolved: Resolved, states: ArrayLike<number>): boolean {
  if (typeof resolved === 'string') return resolved === 'closed';
  for (const line of resolved) {
    let all = true;
    for (const { sensor, on } of line) if ((states[sensor] === 1) !== on) all = false;
    if (all) return true;
  }
  return false;
}
