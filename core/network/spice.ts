/**
 * A circuit in one condition, with faults and interventions, as a SPICE netlist that ngspice runs as it is.
 * Written from the circuit's branches, but solved by another program: the judge of our own solver.
 *
 * Relays become voltage-controlled switches with hysteresis, starting from rest; the thresholds are the
 * middle of pull-in and drop-out, and half the gap between them. Every node leaks a little to the reference,
 * so that floating islands have a defined place.
 */
import { isClosed, type Network, THERMAL_VOLTS } from '../circuit/network';
import type { Condition } from '../format/circuitSchema';
import type { Alteration } from './solve';

export interface SpiceNetlist {
  readonly text: string;
  /** SPICE node by index of the network's nodes; the reference is 0. */
  readonly nodes: readonly string[];
}

/** Ohms of the leak that ngspice puts from every node to the reference. */
export const LEAK_OHMS = 1e12;
/** An open switch of ngspice still conducts this little. */
const OPEN_OHMS = 1e12;
/** Ohms in place of 0, which SPICE does not take. */
const value = (ohms: number) => ohms.toExponential(12);

/** The netlist, with `.op` and a print of every node. Titles and comments name the parts. */
export function spiceNetlist(network: Network, condition: Condition, alteration: Alteration): SpiceNetlist {
  const nodes = network.nodeIds.map((_, index) => (index === network.datum ? '0' : `n${index}`));
  const lines: string[] = [
    `* ${network.circuit.name}: ${condition.name}. Relays start at rest.`,
    ...network.nodeIds.map((id, index) => `* node ${nodes[index]} = ${id}`),
    `.options reltol=1e-6 vntol=1e-9 abstol=1e-13 gmin=1e-12 rshunt=${LEAK_OHMS.toExponential(1)} itl1=500`,
    '.temp 27',
  ];
  const atRest = new Uint8Array(network.relays.length);
  const held = new Map<number, 'open' | 'closed'>();
  const ohmsOf = new Map<number, number>();
  const emfOf = new Map<number, number>();
  for (const change of alteration.changes) {
    if (change.held) held.set(change.branch, change.held);
    if (change.ohms !== undefined) ohmsOf.set(change.branch, change.ohms);
    if (change.emfVolts !== undefined) emfOf.set(change.branch, change.emfVolts);
  }
  network.branches.forEach((branch, index) => {
    const a = nodes[branch.a]!;
    const b = nodes[branch.b]!;
    const ohms = ohmsOf.get(index) ?? branch.ohms;
    const state = held.get(index);
    lines.push(`* ${branch.part} ${branch.label}`);
    if (state === 'open' || !Number.isFinite(ohms)) return;
    if (branch.control.kind === 'relay' && state === undefined) {
      const relay = network.relays[branch.control.relay]!;
      const coil = network.branches[relay.coilBranch]!;
      if (held.get(relay.coilBranch) === 'open') {
        // An opened coil sees volts but moves nothing.
        if (!branch.control.closedWhenEnergised) lines.push(`R${index} ${a} ${b} ${value(ohms)}`);
        return;
      }
      // The sign of the coil's voltage does not matter to the relay.
      lines.push(
        `Bcoil${index} c${index} 0 V=abs(V(${nodes[coil.a]},${nodes[coil.b]}))`,
        `S${index} ${a} ${b} c${index} 0 m${index} ${branch.control.closedWhenEnergised ? 'OFF' : 'ON'}`,
      );
      const middle = (relay.pullInVolts + relay.dropOutVolts) / 2;
      const half = (relay.pullInVolts - relay.dropOutVolts) / 2;
      const [on, off] = branch.control.closedWhenEnergised
        ? [value(ohms), OPEN_OHMS]
        : [OPEN_OHMS, value(ohms)];
      lines.push(`.model m${index} SW(vt=${middle} vh=${half} ron=${on} roff=${off})`);
      return;
    }
    if (state !== 'closed' && !isClosed(network, branch, condition, atRest)) return;
    const emf = emfOf.get(index) ?? branch.emfVolts;
    if (emf === 0) lines.push(`R${index} ${a} ${b} ${value(ohms)}`);
    else lines.push(`V${index} s${index} ${b} DC ${emf}`, `R${index} ${a} s${index} ${value(ohms)}`);
  });
  network.junctions.forEach((junction, index) => {
    const emission = junction.thermalVolts / THERMAL_VOLTS;
    lines.push(
      `* ${junction.part} junction`,
      `D${index} ${nodes[junction.anode]} ${nodes[junction.cathode]} d${index}`,
      `.model d${index} D(is=${junction.saturationAmps} n=${emission})`,
    );
  });
  alteration.bridges.forEach((bridge, index) => {
    const a = nodes[bridge.a]!;
    const b = nodes[bridge.b]!;
    lines.push(`* bridge ${index}`);
    if (!Number.isFinite(bridge.ohms)) return;
    if (bridge.emfVolts)
      lines.push(
        `Vx${index} sx${index} ${b} DC ${bridge.emfVolts}`,
        `Rx${index} ${a} sx${index} ${value(bridge.ohms)}`,
      );
    else lines.push(`Rx${index} ${a} ${b} ${value(bridge.ohms)}`);
  });
  lines.push('.op', '.end');
  return { text: `${lines.join('\n')}\n`, nodes };
}
