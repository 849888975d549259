/**
 * A circuit file as a network of branches: every part becomes one or more two-ended branches between node
 * numbers, some of them opened and closed by a switch, the key or a relay coil. Faults and interventions
 * are later changes of such branches, so that nothing else needs to know what kind of part it was.
 */
import type { CircuitFile, CircuitPart, Condition, KeyPositionName } from '../format/circuitSchema';
import {
  BATTERY_INNER_OHMS,
  CONNECTOR_OHMS,
  DEAD_BELOW,
  DIODE,
  EMF_PER_NOMINAL,
  FUSIBLE_LINK_OHMS,
  fuseColdOhms,
  GROUND_OHMS,
  RELAY_COIL_OHMS_12V,
  RELAY_CONTACT_OHMS,
  RELAY_DROP_OUT_PER_NOMINAL,
  RELAY_PULL_IN_PER_NOMINAL,
  SPLICE_LEG_OHMS,
  SWITCH_OHMS,
  UNKNOWN_LOAD_WATTS,
  UNKNOWN_WIRE_METRES,
  UNKNOWN_WIRE_MM2,
  WEAK_BELOW,
  wireOhms,
} from './defaults';

/** What decides whether a branch conducts. */
export type Control =
  | { readonly kind: 'always' }
  | { readonly kind: 'switch'; readonly part: string; readonly closedIn: readonly string[] }
  | { readonly kind: 'key'; readonly closedIn: readonly KeyPositionName[] }
  | { readonly kind: 'relay'; readonly relay: number; readonly closedWhenEnergised: boolean };

export type BranchRole =
  | 'source'
  | 'conductor'
  | 'fuse'
  | 'contact'
  | 'coil'
  | 'load'
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

export interface RelayCoil {
  readonly part: string;
  readonly coilBranch: number;
  readonly pullInVolts: number;
  readonly dropOutVolts: number;
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
  readonly relays: readonly RelayCoil[];
  readonly junctions: readonly Junction[];
  readonly loads: ReadonlyMap<string, LoadModel>;
  readonly branchesOfPart: ReadonlyMap<string, readonly number[]>;
  readonly parts: ReadonlyMap<string, CircuitPart>;
}

const ALWAYS: Control = { kind: 'always' };
/** kT/q at 27 °C, the temperature that circuit simulators assume. */
export const THERMAL_VOLTS = 0.0258649;

/** Ohms of a load at its nominal voltage, from ohms, watts or amps, whichever the file gives. */
export function loadOhms(
  part: { ohms?: number; watts?: number; amps?: number },
  nominalVolts: number,
): number {
  if (part.ohms !== undefined) return part.ohms;
  if (part.watts !== undefined) return (nominalVolts * nominalVolts) / part.watts;
  if (part.amps !== undefined) return nominalVolts / part.amps;
  return (nominalVolts * nominalVolts) / UNKNOWN_LOAD_WATTS;
}

class NetworkBuilder {
  readonly nodeIds: string[] = [];
  readonly nodeIndex = new Map<string, number>();
  readonly branches: Branch[] = [];
  readonly relays: RelayCoil[] = [];
  readonly junctions: Junction[] = [];
  readonly loads = new Map<string, LoadModel>();
  readonly branchesOfPart = new Map<string, number[]>();

  constructor(readonly circuit: CircuitFile) {
    for (const node of circuit.nodes) this.node(node.id);
    for (const part of circuit.parts) this.add(part);
  }

  node(id: string): number {
    const known = this.nodeIndex.get(id);
    if (known !== undefined) return known;
    const index = this.nodeIds.push(id) - 1;
    this.nodeIndex.set(id, index);
    return index;
  }

  branch(
    part: CircuitPart,
    role: BranchRole,
    label: string,
    a: string,
    b: string,
    ohms: number,
    control: Control = ALWAYS,
    emfVolts = 0,
  ): number {
    const index = this.branches.push({
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
    if (list) list.push(index - 1);
    else this.branchesOfPart.set(part.id, [index - 1]);
    return index - 1;
  }

  add(part: CircuitPart): void {
    const nominal = this.circuit.nominalVolts;
    switch (part.kind) {
      case 'battery':
        this.branch(
          part,
          'source',
          'cell',
          part.pins.plus,
          part.pins.minus,
          part.innerOhms ?? BATTERY_INNER_OHMS,
          ALWAYS,
          part.emfVolts ?? nominal * EMF_PER_NOMINAL,
        );
        break;
      case 'fuse':
        this.branch(
          part,
          'fuse',
          'element',
          part.pins.in,
          part.pins.out,
          part.ohms ?? fuseColdOhms(part.ratingAmps),
        );
        break;
      case 'fusible-link':
        this.branch(part, 'fuse', 'link', part.pins.in, part.pins.out, part.ohms ?? FUSIBLE_LINK_OHMS);
        break;
      case 'wire':
        this.branch(
          part,
          'conductor',
          'wire',
          part.pins.a,
          part.pins.b,
          part.ohms ?? wireOhms(part.lengthMetres ?? UNKNOWN_WIRE_METRES, part.sizeMm2 ?? UNKNOWN_WIRE_MM2),
        );
        break;
      case 'connector':
        this.branch(part, 'conductor', 'pin', part.pins.a, part.pins.b, part.ohms ?? CONNECTOR_OHMS);
        break;
      case 'splice':
        for (const [pin, node] of Object.entries(part.pins)) {
          this.branch(
            part,
            'conductor',
            `leg:${pin}`,
            node,
            `${part.id}#joint`,
            part.ohms ?? SPLICE_LEG_OHMS,
          );
        }
        break;
      case 'ground':
        this.branch(part, 'earth', 'joint', part.pins.lug, part.pins.body, part.ohms ?? GROUND_OHMS);
        break;
      case 'switch':
        for (const contact of part.contacts) {
          this.branch(
            part,
            'contact',
            `${contact.from}-${contact.to}`,
            part.pins[contact.from]!,
            part.pins[contact.to]!,
            part.ohms ?? SWITCH_OHMS,
            { kind: 'switch', part: part.id, closedIn: contact.closedIn },
          );
        }
        break;
      case 'key-contact':
        this.branch(part, 'contact', 'contact', part.pins.in, part.pins.out, part.ohms ?? SWITCH_OHMS, {
          kind: 'key',
          closedIn: part.closedIn,
        });
        break;
      case 'relay': {
        const coilBranch = this.branch(
          part,
          'coil',
          'coil',
          part.pins['86'],
          part.pins['85'],
          part.coilOhms ?? RELAY_COIL_OHMS_12V * (nominal / 12) ** 2,
        );
        const relay =
          this.relays.push({
            part: part.id,
            coilBranch,
            pullInVolts: part.pullInVolts ?? nominal * RELAY_PULL_IN_PER_NOMINAL,
            dropOutVolts: part.dropOutVolts ?? nominal * RELAY_DROP_OUT_PER_NOMINAL,
          }) - 1;
        const ohms = part.contactOhms ?? RELAY_CONTACT_OHMS;
        for (const [pin, closedWhenEnergised] of [
          ['87', true],
          ['87a', false],
        ] as const) {
          const node = part.pins[pin];
          if (node !== undefined) {
            this.branch(part, 'contact', `30-${pin}`, part.pins['30'], node, ohms, {
              kind: 'relay',
              relay,
              closedWhenEnergised,
            });
          }
        }
        break;
      }
      case 'lamp':
      case 'motor':
      case 'heater':
      case 'module': {
        const ohms = loadOhms(part, nominal);
        const branch = this.branch(part, 'load', 'load', part.pins.plus, part.pins.minus, ohms);
        this.loads.set(part.id, {
          branch,
          nominalAmps: nominal / ohms,
          weakBelow: part.weakBelow ?? WEAK_BELOW,
          deadBelow: part.deadBelow ?? DEAD_BELOW,
        });
        break;
      }
      case 'diode': {
        const inner = `${part.id}#junction`;
        this.branch(
          part,
          'junction-series',
          'series',
          part.pins.anode,
          inner,
          part.seriesOhms ?? DIODE.seriesOhms,
        );
        this.junctions.push({
          part: part.id,
          anode: this.node(inner),
          cathode: this.node(part.pins.cathode),
          saturationAmps: part.saturationAmps ?? DIODE.saturationAmps,
          thermalVolts: (part.emission ?? DIODE.emission) * THERMAL_VOLTS,
        });
        break;
      }
    }
  }
}

/**
 * The branches of a checked circuit file. Expects a file that `checkCircuit` found clean: pins name nodes
 * that exist, contacts name pins that exist.
 */
export function buildNetwork(circuit: CircuitFile): Network {
  const built = new NetworkBuilder(circuit);
  const datum = built.nodeIndex.get(circuit.reference);
  if (datum === undefined) throw new Error(`The reference ${circuit.reference} is not among the nodes.`);
  return {
    circuit,
    nodeCount: built.nodeIds.length,
    nodeIds: built.nodeIds,
    nodeIndex: built.nodeIndex,
    datum,
    branches: built.branches,
    relays: built.relays,
    junctions: built.junctions,
    loads: built.loads,
    branchesOfPart: built.branchesOfPart,
    parts: new Map(circuit.parts.map((part) => [part.id, part])),
  };
}

/** Whether a branch conducts in a condition, relays given by their energised state. */
export function isClosed(
  network: Network,
  branch: Branch,
  condition: Condition,
  energised: ArrayLike<number>,
): boolean {
  const control = branch.control;
  switch (control.kind) {
    case 'always':
      return true;
    case 'key':
      return control.closedIn.includes(condition.key);
    case 'switch': {
      const part = network.parts.get(control.part);
      const rest = part?.kind === 'switch' ? part.rest : '';
      return control.closedIn.includes(condition.switches?.[control.part] ?? rest);
    }
    case 'relay':
      return (energised[control.relay] === 1) === control.closedWhenEnergised;
  }
}
