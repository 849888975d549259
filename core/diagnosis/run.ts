/** The run of a function: the parts between battery and earth in order, with the points between them. */

import type { Branch } from '../circuit';
import type { CircuitModel } from '../network';

export interface RunStation {
  readonly part: string;
  readonly name: string;
  readonly kind: string;
}

/** `stops[i]` lies before `stations[i]`; there is one stop more than stations. */
export interface Run {
  readonly id: string;
  readonly name: string;
  readonly stops: readonly string[];
  readonly stations: readonly RunStation[];
}

/** Follows the current from a node towards the source's plus, or on towards its minus. */
function follow(
  model: CircuitModel,
  conditionId: string,
  from: number,
  upstream: boolean,
): { nodes: number[]; branches: Branch[] } {
  const { network } = model;
  const point = model.sound(conditionId);
  const nodes = [from];
  const branches: Branch[] = [];
  const visited = new Set([from]);
  let here = from;
  for (let step = 0; step < network.branches.length; step++) {
    let best: { branch: Branch; to: number; amps: number } | null = null;
    for (let index = 0; index < network.branches.length; index++) {
      const branch = network.branches[index]!;
      if (branch.role === 'source' || (branch.a !== here && branch.b !== here)) continue;
      const amps = point.amps[index]! * (branch.a === here ? 1 : -1);
      const along = upstream ? -amps : amps;
      const to = branch.a === here ? branch.b : branch.a;
      if (along > 1e-9 && !visited.has(to) && (!best || along > best.amps)) {
        best = { branch, to, amps: along };
      }
    }
    if (!best) break;
    branches.push(best.branch);
    nodes.push(best.to);
    visited.add(best.to);
    here = best.to;
  }
  return { nodes, branches };
}

function runThrough(model: CircuitModel, conditionId: string, branch: Branch, id: string, name: string): Run {
  const { network } = model;
  const point = model.sound(conditionId);
  const forward = point.volts[branch.a]! >= point.volts[branch.b]!;
  const plus = forward ? branch.a : branch.b;
  const minus = forward ? branch.b : branch.a;
  const up = follow(model, conditionId, plus, true);
  const down = follow(model, conditionId, minus, false);
  const nodes = [...up.nodes.reverse(), ...down.nodes];
  const branches = [...up.branches.reverse(), branch, ...down.branches];
  const stops = [network.nodeIds[nodes[0]!]!];
  const stations: RunStation[] = [];
  branches.forEach((one, index) => {
    const part = network.parts.get(one.part)!;
    const last = stations[stations.length - 1];
    // Two branches of one part in a row (the legs of a splice) are one station.
    if (last?.part === one.part) stops.pop();
    else stations.push({ part: one.part, name: part.name, kind: part.kind });
    stops.push(network.nodeIds[nodes[index + 1]!]!);
  });
  return { id, name, stops, stations };
}

/**
 * The run of a function in a condition in which it is meant to be on, and the control run of every relay
 * whose contact lies on it, each followed by the control runs that it needs in turn.
 */
export function functionRuns(model: CircuitModel, functionId: string, conditionId: string): Run[] {
  const { network } = model;
  const one = model.function(functionId);
  const load = network.loads.get(one.load);
  if (!load || !model.expectedOn(one, conditionId)) return [];
  const runs = [runThrough(model, conditionId, network.branches[load.branch]!, functionId, one.name)];
  const done = new Set<string>();
  for (let index = 0; index < runs.length; index++) {
    for (const station of runs[index]!.stations) {
      const relay = network.sensors.find(
        (entry) =>
          entry.part === station.part &&
          entry.senses === 'volts' &&
          network.branches[entry.branch]?.role === 'coil',
      );
      if (!relay || done.has(relay.part)) continue;
      done.add(relay.part);
      const coil = network.branches[relay.branch]!;
      runs.push(
        runThrough(model, conditionId, coil, relay.part, `Control of ${network.parts.get(relay.part)?.name}`),
      );
    }
  }
  return runs;
}

/** Runs of what is complained of; what should be off in the condition has its runs where it is on. */
export function runsOfComplaint(
  model: CircuitModel,
  { function: id, condition }: { readonly function: string; readonly condition: string },
): Run[] {
  const on = model.expectedOn(model.function(id), condition);
  return functionRuns(model, id, (on ? condition : activeCondition(model, id)) ?? condition);
}

/** A condition in which the function is meant to be on; the first of the file, or none. */
export function activeCondition(model: CircuitModel, functionId: string): string | null {
  const one = model.function(functionId);
  return model.conditions.find((condition) => model.expectedOn(one, condition.id))?.id ?? null;
}
