/** Instruments and hands that change the circuit, as changes of its network. */
import type { Network } from '../circuit';
import { fuseLampOhms, LEAD_OHMS, ledTesterOhms, testLampOhms } from '../limits';
import type { Alteration, BranchChange } from '../network';

function heldOpen(network: Network, part: string): BranchChange[] {
  return (network.branchesOfPart.get(part) ?? []).map((branch) => ({ branch, held: 'open' }));
}

/** A part out of its place. */
export function withoutPart(network: Network, part: string): Alteration {
  return { changes: heldOpen(network, part), bridges: [] };
}

/** Every battery and charging source disconnected. */
export function withoutBattery(network: Network): Alteration {
  const sources = [...network.parts.values()].filter(
    (part) => part.kind === 'battery' || part.kind === 'charging-source',
  );
  return { changes: sources.flatMap((part) => heldOpen(network, part.id)), bridges: [] };
}

/** A filament test lamp between a node and the reference. */
export function testLampAt(network: Network, node: number): Alteration {
  const ohms = testLampOhms(network.circuit.nominalVolts);
  return { changes: [], bridges: [{ a: node, b: network.datum, ohms }] };
}

/** A tester of light-emitting diodes between a node and the reference. */
export function ledTesterAt(network: Network, node: number): Alteration {
  const ohms = ledTesterOhms(network.circuit.nominalVolts);
  return { changes: [], bridges: [{ a: node, b: network.datum, ohms }] };
}

/** Battery plus, or earth, put on a point by a lead. */
export function appliedAt(network: Network, what: 'plus' | 'earth', node: string): Alteration {
  const battery = network.circuit.parts.find((part) => part.kind === 'battery');
  if (battery?.kind !== 'battery') throw new Error('The circuit has no battery to feed from.');
  const from = network.nodeIndex.get(what === 'plus' ? battery.pins.plus : battery.pins.minus)!;
  return { changes: [], bridges: [{ a: from, b: network.nodeIndex.get(node)!, ohms: LEAD_OHMS }] };
}

/** A relay out, and a fused lead from its 30 to its 87. */
export function bridgeRelay(network: Network, relay: string): Alteration {
  const part = network.parts.get(relay);
  if (part?.kind !== 'relay' || part.pins['87'] === undefined) {
    throw new Error(`${relay} is no relay with a pin 87.`);
  }
  const a = network.nodeIndex.get(part.pins['30'])!;
  const b = network.nodeIndex.get(part.pins['87'])!;
  return { changes: heldOpen(network, relay), bridges: [{ a, b, ohms: LEAD_OHMS }] };
}

/** A lamp across the contacts of a fuse that was pulled; `a` and `b` are its ends. */
export function lampInPlaceOf(
  network: Network,
  fuse: string,
): { alteration: Alteration; a: number; b: number } {
  const changes = heldOpen(network, fuse);
  const first = changes[0];
  if (!first) throw new Error(`There is no fuse ${fuse} in this circuit.`);
  const { a, b } = network.branches[first.branch]!;
  const lamp = { a, b, ohms: fuseLampOhms(network.circuit.nominalVolts) };
  return { alteration: { changes, bridges: [lamp] }, a, b };
}
