/**
 * What a person sees of a relay that chatters: its contact opens and closes many times a second, a meter shows the mean
 * of both states, a lamp half of its light.
 */
import { type Alteration, type BranchChange, combineAlterations } from './alteration';
import type { CircuitModel } from './model';
import type { OperatingPoint } from './point';

/** An operating point as instruments show it. */
export interface SeenPoint extends OperatingPoint {
  /** Volts with the contacts in less volts with them out, by node; missing where it rests. */
  readonly swing?: Float64Array;
}

/** Changes that hold the contacts of the chattering relays as if their coils were in, or out. */
function held(model: CircuitModel, chattering: readonly string[], pulledIn: boolean): BranchChange[] {
  const { branches, sensors } = model.network;
  return branches.flatMap(({ control }, branch): BranchChange[] => {
    const own = (control ?? [])
      .flat()
      .find((term) => term.kind === 'sensor' && chattering.includes(sensors[term.sensor]!.part));
    if (own?.kind !== 'sensor') return [];
    return [{ branch, held: own.on === pulledIn ? 'closed' : 'open' }];
  });
}

/** Volts between two points as a meter shows them; nothing where one of them hangs free. Quick where no relay chatters. */
export function seenVolts(
  model: CircuitModel,
  conditionId: string,
  alteration: Alteration,
  a: number,
  b: number,
): number {
  const solver = model.solver(conditionId);
  const { oscillating } = solver.look(alteration, model.start(conditionId, alteration));
  if (oscillating.length === 0) return solver.floats(a) || solver.floats(b) ? 0 : solver.across(a, b);
  const { volts, floating } = seenPoint(model, conditionId, alteration);
  return floating[a] === 1 || floating[b] === 1 ? 0 : volts[a]! - volts[b]!;
}

/** Ampere through a branch, the mean of both states where relays chatter. Quick where none does. */
export function seenAmps(
  model: CircuitModel,
  conditionId: string,
  alteration: Alteration,
  branch: number,
): number {
  const solver = model.solver(conditionId);
  const { oscillating } = solver.look(alteration, model.start(conditionId, alteration));
  return oscillating.length === 0
    ? solver.branchAmps(branch)
    : seenPoint(model, conditionId, alteration).amps[branch]!;
}

/** The operating point of a condition; where relays chatter, the mean of their contacts in and out. */
export function seenPoint(model: CircuitModel, conditionId: string, alteration: Alteration): SeenPoint {
  const point = model.solve(conditionId, alteration);
  const { network } = model;
  const coils = network.sensors.filter(
    ({ part, senses, branch }) =>
      point.oscillating.includes(part) && senses === 'volts' && network.branches[branch]?.role === 'coil',
  );
  const chattering = coils.map(({ part }) => part);
  return chattering.length === 0 ? point : between(model, conditionId, alteration, point, chattering);
}

/** The operating point with these relays going to and fro, whether the model finds them to rest or not. */
export function chatteringPoint(
  model: CircuitModel,
  conditionId: string,
  alteration: Alteration,
  parts: readonly string[],
): SeenPoint {
  return between(model, conditionId, alteration, model.solve(conditionId, alteration), parts);
}

/** The mean of the contacts of these relays in and out. */
function between(
  model: CircuitModel,
  conditionId: string,
  alteration: Alteration,
  point: OperatingPoint,
  chattering: readonly string[],
): SeenPoint {
  const { network } = model;
  const [out, pulled] = [false, true].map((pulledIn) => {
    const changes = held(model, chattering, pulledIn);
    return model.solve(conditionId, combineAlterations(alteration, { changes, bridges: [] }));
  });
  const voltsOf = (one: OperatingPoint, node: number) => (one.floating[node] === 1 ? 0 : one.volts[node]!);
  return {
    ...point,
    volts: point.volts.map((_, node) => (voltsOf(out!, node) + voltsOf(pulled!, node)) / 2),
    floating: point.floating.map((_, node) => out!.floating[node]! & pulled!.floating[node]!),
    amps: point.amps.map((_, index) => (out!.amps[index]! + pulled!.amps[index]!) / 2),
    // What chatters is heard and felt to move.
    sensed: point.sensed.map((one, s) => (chattering.includes(network.sensors[s]!.part) ? 1 : one)),
    swing: point.volts.map((_, node) => voltsOf(pulled!, node) - voltsOf(out!, node)),
  };
}
