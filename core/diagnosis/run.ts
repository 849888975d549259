/** The run of a function: the parts between battery and earth in order, with the points between them. */

import type { Branch } from '../circuit';
import { type CircuitModel, junctionAmps } from '../network';

interface RunStation {
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

/** Something that carries current from one node to another: a branch, or the junction behind one. */
interface Way {
  readonly part: string;
  readonly a: number;
  readonly b: number;
  /** From a to b. */
  readonly amps: number;
}

/** Every way that may carry current in a condition, sources left out. */
function waysOf(model: CircuitModel, conditionId: string): Way[] {
  const { branches, junctions } = model.network;
  const point = model.sound(conditionId);
  return [
    ...branches.flatMap(({ part, role, a, b }, index) =>
      role === 'source' ? [] : [{ part, a, b, amps: point.amps[index]! }],
    ),
    ...junctions.map(({ part, anode, cathode, saturationAmps, thermalVolts }) => {
      const volts = point.volts[anode]! - point.volts[cathode]!;
      return { part, a: anode, b: cathode, amps: junctionAmps(volts, saturationAmps, thermalVolts) };
    }),
  ];
}

/** Follows the current from a node towards the source's plus, or on towards its minus. */
function follow(ways: readonly Way[], from: number, upstream: boolean): { nodes: number[]; taken: Way[] } {
  const nodes = [from];
  const taken: Way[] = [];
  const visited = new Set([from]);
  let here = from;
  for (let step = 0; step < ways.length; step++) {
    let best: { way: Way; to: number; amps: number } | null = null;
    for (const way of ways) {
      if (way.a !== here && way.b !== here) continue;
      const amps = way.amps * (way.a === here ? 1 : -1);
      const along = upstream ? -amps : amps;
      const to = way.a === here ? way.b : way.a;
      if (along > 1e-9 && !visited.has(to) && (!best || along > best.amps)) {
        best = { way, to, amps: along };
      }
    }
    if (!best) break;
    taken.push(best.way);
    nodes.push(best.to);
    visited.add(best.to);
    here = best.to;
  }
  return { nodes, taken };
}

function runThrough(model: CircuitModel, conditionId: string, branch: Branch, id: string, name: string): Run {
  const { network } = model;
  const point = model.sound(conditionId);
  const ways = waysOf(model, conditionId);
  const forward = point.volts[branch.a]! >= point.volts[branch.b]!;
  const plus = forward ? branch.a : branch.b;
  const minus = forward ? branch.b : branch.a;
  const up = follow(ways, plus, true);
  const down = follow(ways, minus, false);
  const nodes = [...up.nodes.reverse(), ...down.nodes];
  const taken = [...up.taken.reverse(), branch, ...down.taken];
  const stops = [network.nodeIds[nodes[0]!]!];
  const stations: RunStation[] = [];
  taken.forEach((one, index) => {
    const part = network.parts.get(one.part)!;
    const last = stations[stations.length - 1];
    // Two branches of one part in a row (the legs of a splice, a lamp of diodes and its resistor) are one station.
    if (last?.part === one.part) stops.pop();
    else stations.push({ part: one.part, name: part.name, kind: part.kind });
    stops.push(network.nodeIds[nodes[index + 1]!]!);
  });
  return { id, name, stops, stations };
}

/** What has to carry current for a part to switch: its coils, its own supply, what is asked of it. */
function controlsOf(
  { network }: CircuitModel,
  id: string,
): { branch: Branch; index: number; name: string }[] {
  const name = network.parts.get(id)!.name;
  return (network.branchesOfPart.get(id) ?? []).flatMap((index) => {
    const branch = network.branches[index]!;
    const { role, label } = branch;
    if (role === 'coil') return [{ branch, index, name: `Control of ${name}` }];
    if (role !== 'internal') return [];
    if (label === 'supply' || label === 'electronics')
      return [{ branch, index, name: `Feed and earth of ${name}` }];
    const [, input] = label.split('pull:');
    return input === undefined ? [] : [{ branch, index, name: `${input} of ${name}` }];
  });
}

/** Less is no current that controls anything, ampere. */
const CONTROLS_AMPS = 1e-5;

/**
 * The run of a function in a condition in which it is meant to be on, and the control runs of everything on it that
 * switches, each followed by the control runs that it needs in turn.
 */
export function functionRuns(model: CircuitModel, functionId: string, conditionId: string): Run[] {
  const { network } = model;
  const one = model.function(functionId);
  const load = network.loads.get(one.load);
  if (!load || !model.expectedOn(one, conditionId)) return [];
  const { amps } = model.sound(conditionId);
  const runs = [runThrough(model, conditionId, network.branches[load.branch]!, functionId, one.name)];
  const done = new Set<string>();
  for (let index = 0; index < runs.length; index++) {
    for (const { part } of runs[index]!.stations) {
      if (done.has(part)) continue;
      done.add(part);
      const used = controlsOf(model, part).filter(
        (control) => Math.abs(amps[control.index]!) > CONTROLS_AMPS,
      );
      used.forEach(({ branch, name }, number) => {
        runs.push(runThrough(model, conditionId, branch, number === 0 ? part : `${part}-${number}`, name));
      });
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

/** The setting that a complaint is likeliest of: where the function should work, or where it should be off. */
export function conditionComplained(
  model: CircuitModel,
  functionId: string,
  unbidden: boolean,
): string | null {
  const one = model.function(functionId);
  return model.conditions.find(({ id }) => model.expectedOn(one, id) !== unbidden)?.id ?? null;
}

/** A condition in which the function is meant to be on; the first of the file, or none. */
export function activeCondition(model: CircuitModel, functionId: string): string | null {
  const one = model.function(functionId);
  return model.conditions.find((condition) => model.expectedOn(one, condition.id))?.id ?? null;
}

/** What a sound circuit does, by `function|condition`. */
export function expectedStates(model: CircuitModel): Record<string, 'works' | 'weak' | 'dead'> {
  return Object.fromEntries(
    model.circuit.functions.flatMap((one) =>
      model.conditions.map((condition) => [
        `${one.id}|${condition.id}`,
        model.outcome(one, model.sound(condition.id)),
      ]),
    ),
  );
}
