/** Operating points of a circuit beside those of ngspice, node by node. */
import { conducts, resolveControl } from '../core/circuit';
import type { Condition } from '../core/format';
import {
  type Alteration,
  type CircuitModel,
  combineAlterations,
  type OperatingPoint,
  spiceNetlist,
} from '../core/network';
import { runNgspice } from './ngspice';

/** Allowed difference at a node, volts: 1 mV or 0.1 %, whichever is larger. */
export const allowed = (volts: number) => Math.max(1e-3, Math.abs(volts) * 1e-3);

export interface Case {
  readonly condition: Condition;
  readonly alteration: Alteration;
  readonly words: string;
}

interface Comparison {
  readonly compared: number;
  readonly buzzing: number;
  /** Several steady states; compared with the contacts held alike. */
  readonly history: number;
  readonly largest: number;
  readonly wrong: readonly string[];
}

/** Every contact held as a point has it, so that both programs look at the same of several states. */
function contactsHeld(
  model: CircuitModel,
  { condition, alteration }: Case,
  point: OperatingPoint,
): Alteration {
  const { network } = model;
  const closed = (branch: number) => {
    const resolved = resolveControl(network, network.branches[branch]!.control, condition);
    return typeof resolved === 'string' ? null : conducts(resolved, point.sensed);
  };
  const changes = network.branches.flatMap((_, branch) => {
    const state = closed(branch);
    return state === null ? [] : [{ branch, held: state ? ('closed' as const) : ('open' as const) }];
  });
  const bridges = alteration.bridges.map(({ follows, ...bridge }) =>
    follows !== undefined && closed(follows) === false
      ? { ...bridge, ohms: Number.POSITIVE_INFINITY }
      : bridge,
  );
  return combineAlterations({ changes, bridges: [] }, { ...alteration, bridges });
}

/** What a sensor feels at a point, volts or ampere, as altered. */
function felt(model: CircuitModel, { alteration }: Case, point: OperatingPoint, s: number): number {
  const sensor = model.network.sensors[s]!;
  if (sensor.senses === 'amps') return Math.abs(point.amps[sensor.branch]!);
  const moved = alteration.sensing?.find((one) => one.sensor === s);
  const blind = alteration.changes.some((one) => one.branch === sensor.branch && one.held === 'open');
  if (blind && !moved) return 0;
  const volts = point.volts[moved?.a ?? sensor.a]! - point.volts[moved?.b ?? sensor.b]!;
  return sensor.signed ? volts : Math.abs(volts);
}

/**
 * Whether everything that moves contacts stands where what it feels would keep it. Between two thresholds, and
 * where a relay holds itself, more than one such state exists, and the programs may come to rest in different ones.
 */
function keepsItself(model: CircuitModel, one: Case, point: OperatingPoint): boolean {
  return model.network.sensors.every((sensor, s) => {
    if (sensor.senses === 'latch') return true;
    const feels = felt(model, one, point, s);
    return point.sensed[s] === 1 ? feels >= sensor.offBelow : feels < sensor.onAbove;
  });
}

/** Largest difference at the nodes that are joined to the reference; infinite where it is not allowed. */
function differenceOf(
  model: CircuitModel,
  { condition, alteration }: Case,
  point: OperatingPoint,
  nodes: readonly string[],
  answer: ReadonlyMap<string, number>,
): number {
  let largest = 0;
  const hanging = model.solver(condition.id).hanging(alteration, point);
  point.volts.forEach((volts, node) => {
    // A floating node has no voltage of its own, and one that hangs on leakage has that of ngspice's own leaks.
    if (point.floating[node] || hanging[node] || node === model.network.datum) return;
    const difference = Math.abs(volts - (answer.get(nodes[node]!) ?? Number.NaN));
    largest = difference <= allowed(volts) ? Math.max(largest, difference) : Number.POSITIVE_INFINITY;
  });
  return largest;
}

/** Solves every case here and in ngspice, and compares every node that is joined to the reference. */
export function compare(model: CircuitModel, cases: readonly Case[]): Comparison {
  const { network } = model;
  const points = cases.map(({ condition, alteration }) => model.solve(condition.id, alteration));
  const netlists = cases.map(({ condition, alteration }, index) =>
    spiceNetlist(network, condition, alteration, {
      start: model.start(condition.id, alteration),
      latches: points[index]!.sensed,
    }),
  );
  const answers = runNgspice(netlists.map((netlist) => netlist.text));
  const wrong: string[] = [];
  const again: number[] = [];
  let largest = 0;
  let compared = 0;
  let buzzing = 0;
  cases.forEach(({ condition, words }, index) => {
    const point = points[index]!;
    const answer = answers[index];
    const difference = answer
      ? differenceOf(model, cases[index]!, point, netlists[index]!.nodes, answer)
      : Number.POSITIVE_INFINITY;
    // A relay that buzzes has no operating point: ngspice must find none either, and says so by giving none.
    if (point.oscillating.length > 0) {
      if (answer === null) buzzing += 1;
      else wrong.push(`${words} (${condition.name}): buzzes here only`);
    } else if (Number.isFinite(difference)) {
      compared += 1;
      largest = Math.max(largest, difference);
    } else if (network.sensors.length > 0 && keepsItself(model, cases[index]!, point)) again.push(index);
    else wrong.push(`${words} (${condition.name}): differs`);
  });
  const held = again.map((index) =>
    spiceNetlist(network, cases[index]!.condition, contactsHeld(model, cases[index]!, points[index]!)),
  );
  const heldAnswers = held.length > 0 ? runNgspice(held.map((netlist) => netlist.text)) : [];
  again.forEach((index, at) => {
    const answer = heldAnswers[at];
    const difference = answer
      ? differenceOf(model, cases[index]!, points[index]!, held[at]!.nodes, answer)
      : Number.POSITIVE_INFINITY;
    if (Number.isFinite(difference)) largest = Math.max(largest, difference);
    else
      wrong.push(
        `${cases[index]!.words} (${cases[index]!.condition.name}): differs with the same contacts held`,
      );
  });
  return { compared, buzzing, history: again.length, largest, wrong };
}

export function report(name: string, { compared, buzzing, history, largest }: Comparison): void {
  process.stdout.write(
    `${name}: ${compared} operating points, ${buzzing} without a steady state on either side, ${history} of several states compared with contacts held, largest difference ${largest.toExponential(1)} V\n`,
  );
}
