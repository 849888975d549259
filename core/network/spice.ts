/**
 * A circuit in one condition, with faults and interventions, as a SPICE netlist that ngspice runs as it is.
 * Written from the circuit's branches, but solved by another program: the judge of our own solver.
 *
 * What sensors move becomes voltage-controlled switches with hysteresis, in the state that the point starts
 * from; the thresholds are the middle of pull-in and drop-out, and half the gap between them. Every node leaks
 * a little to the reference, so that floating islands have a defined place. A latch depends on history, which
 * an operating point has not: its contacts are written as it lies.
 */

import { type Branch, type Moment, type Network, type Resolved, resolveControl } from '../circuit';
import { THERMAL_VOLTS } from '../limits';
import type { Alteration } from './alteration';

export interface SpiceNetlist {
  readonly text: string;
  /** SPICE node by index of the network's nodes; the reference is 0. */
  readonly nodes: readonly string[];
}

export interface SpiceOptions {
  /** State of the sensors that the point starts from; at rest when not given. */
  readonly start?: ArrayLike<number>;
  /** State of the sensors in which latches lie; as they start when not given. */
  readonly latches?: ArrayLike<number>;
}

/** Ohms of the leak that ngspice puts from every node to the reference. */
const LEAK_OHMS = 1e12;
/** Ohms of an open switch in the netlist. */
const OPEN_OHMS = '1e15';

function value(number: number): string {
  return number.toExponential(15).replace(/\.?0+e/, 'e');
}

class NetlistWriter {
  readonly lines: string[];
  readonly nodes: readonly string[];
  private readonly held = new Map<number, 'open' | 'closed'>();
  private readonly ohms = new Map<number, number>();
  private readonly emf = new Map<number, number>();
  private readonly sensesWritten = new Set<number>();
  private readonly levelsWritten = new Set<number>();

  constructor(
    readonly network: Network,
    readonly condition: Moment,
    readonly alteration: Alteration,
    readonly options: SpiceOptions,
  ) {
    this.nodes = network.nodeIds.map((_, index) => (index === network.datum ? '0' : `n${index}`));
    this.lines = [
      `* ${network.circuit.name}: ${condition.name}. Relays start ${options.start ? 'as given' : 'at rest'}.`,
      ...network.nodeIds.map((id, index) => `* node ${this.nodes[index]} = ${id}`),
      `.options reltol=1e-6 vntol=1e-7 abstol=1e-13 gmin=1e-12 rshunt=${LEAK_OHMS.toExponential(1)} itl1=500`,
      '.temp 27',
    ];
    for (const change of alteration.changes) {
      if (change.held) this.held.set(change.branch, change.held);
      if (change.ohms !== undefined) this.ohms.set(change.branch, change.ohms);
      if (change.emfVolts !== undefined) this.emf.set(change.branch, change.emfVolts);
    }
  }

  /** What decides whether a branch conducts, alterations included. */
  private control(index: number): Resolved {
    const held = this.held.get(index);
    if (held) return held;
    return resolveControl(this.network, this.network.branches[index]!.control, this.condition);
  }

  private branchOhms(index: number): number {
    return this.ohms.get(index) ?? this.network.branches[index]!.ohms;
  }

  private branchEmf(index: number): number {
    return this.emf.get(index) ?? this.network.branches[index]!.emfVolts;
  }

  private startsOn(sensor: number): boolean {
    const { start } = this.options;
    return (start ? start[sensor] : this.network.sensors[sensor]!.starts) === 1;
  }

  /** Node that carries what a sensor feels, in volts or ampere. */
  private sense(s: number): string {
    const sensor = this.network.sensors[s]!;
    const node = `c${s}`;
    if (this.sensesWritten.has(s)) return node;
    this.sensesWritten.add(s);
    const moved = this.alteration.sensing?.find((one) => one.sensor === s);
    const a = this.nodes[moved?.a ?? sensor.a]!;
    const b = this.nodes[moved?.b ?? sensor.b]!;
    const blind =
      !moved &&
      sensor.senses === 'volts' &&
      sensor.branch >= 0 &&
      (this.control(sensor.branch) === 'open' || !Number.isFinite(this.branchOhms(sensor.branch)));
    const felt = sensor.senses === 'amps' ? `i(vm${sensor.branch})` : `V(${a},${b})`;
    const feels = blind || a === b ? '0' : sensor.signed ? felt : `abs(${felt})`;
    this.lines.push(`* ${sensor.part} ${sensor.label}`, `Bsense${s} ${node} 0 V=${feels}`);
    return node;
  }

  private thresholds(s: number): string {
    const { onAbove, offBelow } = this.network.sensors[s]!;
    return `vt=${value((onAbove + offBelow) / 2)} vh=${value((onAbove - offBelow) / 2)}`;
  }

  /** Node that stands at 1 V while a sensor is on, and at 0 V while it is off. */
  private level(s: number): string {
    const node = `q${s}`;
    if (this.levelsWritten.has(s)) return node;
    this.levelsWritten.add(s);
    const sense = this.sense(s);
    this.lines.push(
      `Vlevel${s} h${s} 0 DC 1`,
      `Slevel${s} h${s} ${node} ${sense} 0 l${s} ${this.startsOn(s) ? 'ON' : 'OFF'}`,
      `Rlevel${s} ${node} 0 1e6`,
      `.model l${s} SW(${this.thresholds(s)} ron=1e-3 roff=1e15)`,
    );
    return node;
  }

  /** A latch has no operating point of its own: it lies where history left it. */
  private withoutLatches(resolved: Resolved): Resolved {
    if (typeof resolved === 'string') return resolved;
    const lines = [];
    for (const line of resolved) {
      const latch = line.filter(({ sensor }) => this.network.sensors[sensor]!.senses === 'latch');
      const lies = ({ sensor }: { sensor: number }) =>
        (this.options.latches?.[sensor] ?? this.network.sensors[sensor]!.starts) === 1;
      if (latch.some((term) => lies(term) !== term.on)) continue;
      const rest = line.filter((term) => !latch.includes(term));
      if (rest.length === 0) return 'closed';
      lines.push(rest);
    }
    return lines.length === 0 ? 'open' : lines;
  }

  /** One two-ended element that conducts as its control says. */
  conductor(
    name: string,
    ends: readonly [number, number],
    ohms: number,
    emf: number,
    control: Resolved,
  ): void {
    const resolved = this.withoutLatches(control);
    if (resolved === 'open' || !Number.isFinite(ohms)) return;
    const a = this.nodes[ends[0]]!;
    let b = this.nodes[ends[1]]!;
    const index = /^\d+$/.test(name) ? Number(name) : -1;
    if (this.network.sensors.some((sensor) => sensor.senses === 'amps' && sensor.branch === index)) {
      this.lines.push(`Vm${name} m${name} ${b} DC 0`);
      b = `m${name}`;
    }
    if (emf !== 0) {
      this.lines.push(`V${name} s${name} ${b} DC ${value(emf)}`);
      b = `s${name}`;
    }
    if (resolved === 'closed') {
      this.lines.push(`R${name} ${a} ${b} ${value(ohms)}`);
      return;
    }
    const [line] = resolved;
    if (resolved.length === 1 && line!.length === 1) {
      const { sensor, on } = line![0]!;
      const sense = this.sense(sensor);
      const [whenOn, whenOff] = on ? [value(ohms), OPEN_OHMS] : [OPEN_OHMS, value(ohms)];
      this.lines.push(
        `S${name} ${a} ${b} ${sense} 0 m${name} ${this.startsOn(sensor) ? 'ON' : 'OFF'}`,
        `.model m${name} SW(${this.thresholds(sensor)} ron=${whenOn} roff=${whenOff})`,
      );
      return;
    }
    // Any line of which every term holds: the greatest of the least.
    const least = (terms: readonly string[]) => terms.reduce((x, y) => `min(${x},${y})`);
    const greatest = (terms: readonly string[]) => terms.reduce((x, y) => `max(${x},${y})`);
    const expression = greatest(
      resolved.map((terms) =>
        least(
          terms.map(({ sensor, on }) => (on ? `V(${this.level(sensor)})` : `(1-V(${this.level(sensor)}))`)),
        ),
      ),
    );
    this.lines.push(
      `Bctl${name} k${name} 0 V=${expression}`,
      `S${name} ${a} ${b} k${name} 0 m${name} OFF`,
      `.model m${name} SW(vt=0.5 vh=0.1 ron=${value(ohms)} roff=${OPEN_OHMS})`,
    );
  }

  /** A battery that may be charged: one element whose resistance depends on the direction of its current. */
  private chargeable(giving: number, taking: number): void {
    const { a, b } = this.network.branches[giving]!;
    const across = `V(${this.nodes[a]},${this.nodes[b]})`;
    const amps = (index: number) =>
      `(${across}-(${value(this.branchEmf(index))}))/${value(this.branchOhms(index))}`;
    const open = (index: number) =>
      this.control(index) === 'open' || !Number.isFinite(this.branchOhms(index));
    const part = (index: number) => (open(index) ? '0' : amps(index));
    const threshold = value(this.network.branches[giving]!.emfVolts);
    this.lines.push(
      `B${giving} ${this.nodes[a]} ${this.nodes[b]} I=${across} > ${threshold} ? ${part(taking)} : ${part(giving)}`,
    );
  }

  branch(index: number, branch: Branch): void {
    const { sensors, branches } = this.network;
    const charged = (branch.control ?? [])
      .flat()
      .some((term) => term.kind === 'sensor' && sensors[term.sensor]!.label === 'charged');
    if (charged) {
      const next = branches[index + 1];
      if (branch.label !== 'charging' && next?.label === 'charging') {
        this.lines.push(`* ${branch.part} ${branch.label}`);
        this.chargeable(index, index + 1);
      }
      return;
    }
    this.lines.push(`* ${branch.part} ${branch.label}`);
    this.conductor(
      String(index),
      [branch.a, branch.b],
      this.branchOhms(index),
      this.branchEmf(index),
      this.control(index),
    );
  }

  junctions(): void {
    this.network.junctions.forEach((junction, index) => {
      const emission = junction.thermalVolts / THERMAL_VOLTS;
      const turned = this.alteration.reversed?.includes(index) ?? false;
      const anode = this.nodes[turned ? junction.cathode : junction.anode]!;
      const cathode = this.nodes[turned ? junction.anode : junction.cathode]!;
      this.lines.push(
        `* ${junction.part} junction`,
        `D${index} ${anode} ${cathode} d${index}`,
        `.model d${index} D(is=${value(junction.saturationAmps)} n=${value(emission)})`,
      );
    });
  }

  bridges(): void {
    this.alteration.bridges.forEach((bridge, index) => {
      this.lines.push(`* bridge ${index}`);
      const control =
        bridge.follows === undefined
          ? 'closed'
          : resolveControl(this.network, this.network.branches[bridge.follows]!.control, this.condition);
      this.conductor(`x${index}`, [bridge.a, bridge.b], bridge.ohms, bridge.emfVolts ?? 0, control);
    });
  }
}

/** The netlist of a condition with faults and interventions, ending in `.op`. */
export function spiceNetlist(
  network: Network,
  condition: Moment,
  alteration: Alteration,
  options: SpiceOptions = {},
): SpiceNetlist {
  const writer = new NetlistWriter(network, condition, alteration, options);
  network.branches.forEach((branch, index) => {
    writer.branch(index, branch);
  });
  writer.junctions();
  writer.bridges();
  writer.lines.push('.op', '.end');
  return { text: `${writer.lines.join('\n')}\n`, nodes: writer.nodes };
}
