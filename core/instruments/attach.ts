/** Instruments that load the circuit, as changes of its network. */
import type { Network } from '../circuit/network';
import type { Alteration, BranchChange } from '../network/alteration';
import { fuseLampOhms, LEAD_OHMS, testLampOhms } from './instruments';

function heldOpen(network: Network, part: string): BranchChange[] {
  return (network.branchesOfPart.get(part) ?? []).map((branch) => ({ branch, held: 'open' }));
}

/** A filament test lamp between a node and the reference. */
export function testLampAt(network: Network, node: number): Alteration {
  const ohms = testLampOhms(network.circuit.nominalVolts);
  return { changes: [], bridges: [{ a: node, b: network.datum, ohms }] };
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

/** A lamp across the contacts of a fuse that was pulled, with one connector opened or none; `a` and `b` are its ends. */
export function lampInPlaceOf(
  network: Network,
  fuse: string,
  unplugged: string | undefined,
): { alteration: Alteration; a: number; b: number } {
  const changes = heldOpen(network, fuse);
  const first = changes[0];
  if (!first) throw new Error(`There is no fuse ${fuse} in this circuit.`);
  const { a, b } = network.branches[first.branch]!;
  const opened = unplugged ? heldOpen(network, unplugged) : [];
  const lamp = { a, b, ohms: fuseLampOhms(network.circuit.nominalVolts) };
  return { alteration: { changes: [...changes, ...opened], bridges: [lamp] }, a, b };
}
