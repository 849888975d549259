/** The network of a circuit file, all parts together. */
import type { CircuitFile } from '../format';
import { expandPart } from './expand';
import { type Network, NetworkBuilder } from './network';

/**
 * The branches of a checked circuit file. Expects a file that `checkCircuit` found clean: pins name nodes
 * that exist, contacts name pins that exist.
 */
export function buildNetwork(circuit: CircuitFile): Network {
  const built = new NetworkBuilder(circuit);
  for (const part of circuit.parts) expandPart(built, part);
  const datum = built.nodeIndex.get(circuit.reference);
  if (datum === undefined) throw new Error(`The reference ${circuit.reference} is not among the nodes.`);
  return {
    circuit,
    nodeCount: built.nodeIds.length,
    nodeIds: built.nodeIds,
    nodeIndex: built.nodeIndex,
    datum,
    branches: built.branches,
    sensors: built.sensors,
    junctions: built.junctions,
    loads: built.loads,
    branchesOfPart: built.branchesOfPart,
    parts: new Map(circuit.parts.map((part) => [part.id, part])),
  };
}
