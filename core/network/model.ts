/** A circuit ready to be questioned: its network, one solver per condition, and its sound state in each. */

import { buildNetwork, type Network, startFactor } from '../circuit';
import type { CircuitFile, CircuitFunction, Condition } from '../format';
import { type Alteration, UNALTERED } from './alteration';
import type { OperatingPoint } from './point';
import { ConditionSolver } from './solve';

/** Settings that are kept factored. */
const ADOPTED = 64;

export type FunctionOutcome = 'works' | 'weak' | 'dead';

export class CircuitModel {
  readonly network: Network;
  readonly conditions: readonly Condition[];
  private readonly solvers = new Map<string, ConditionSolver>();
  private readonly asleep = new Map<string, ConditionSolver>();
  private readonly adopted = new Map<string, Condition>();
  private readonly soundPoints = new Map<string, OperatingPoint>();

  constructor(readonly circuit: CircuitFile) {
    this.network = buildNetwork(circuit);
    this.emfVolts = this.network.branches.reduce((most, branch) => Math.max(most, branch.emfVolts), 0);
    this.conditions = circuit.conditions;
  }

  /** The factored solver of a condition. Throws when the circuit has no such condition. */
  solver(conditionId: string): ConditionSolver {
    const known = this.solvers.get(conditionId);
    if (known) return known;
    const solver = new ConditionSolver(this.network, this.condition(conditionId));
    this.solvers.set(conditionId, solver);
    return solver;
  }

  /**
   * The solver of a condition for what an ohmmeter meets: sources without volts, filaments cold, motors at rest. Coils
   * feel nothing here, so that contacts stand as they are held.
   */
  asleepSolver(conditionId: string): ConditionSolver {
    const known = this.asleep.get(conditionId);
    if (known) return known;
    const solver = new ConditionSolver(asleepNetwork(this.network), this.condition(conditionId));
    this.asleep.set(conditionId, solver);
    return solver;
  }

  /** The operating point of the circuit as drawn. */
  sound(conditionId: string): OperatingPoint {
    const known = this.soundPoints.get(conditionId);
    if (known) return known;
    const point = this.solve(conditionId, UNALTERED);
    this.soundPoints.set(conditionId, point);
    return point;
  }

  /**
   * The operating point with faults and interventions. Relays start at rest, or as the condition before has
   * left them when the condition names one (or `after` does) with the same alteration.
   */
  solve(conditionId: string, alteration: Alteration, after?: string): OperatingPoint {
    return this.solver(conditionId).solve(alteration, this.start(conditionId, alteration, after));
  }

  /**
   * The same for whoever asks for a few volts or amperes of it: the solver, which answers until it solves the next state
   * of this condition.
   */
  look(conditionId: string, alteration: Alteration): ConditionSolver {
    const solver = this.solver(conditionId);
    solver.look(alteration, this.start(conditionId, alteration));
    return solver;
  }

  /** The half of the pulses in which pulsed outputs are off; null where no output is pulsed. */
  solveBetweenPulses(conditionId: string, alteration: Alteration): OperatingPoint | null {
    if (this.duty === null) return null;
    const key = `${conditionId}#off`;
    let solver = this.solvers.get(key);
    if (!solver) {
      solver = new ConditionSolver(this.network, { ...this.condition(conditionId), pulse: 'off' });
      this.solvers.set(key, solver);
    }
    return solver.solve(alteration, this.start(conditionId, alteration));
  }

  /** Share of the time that pulsed outputs are on, their mean where they differ; null where none is pulsed. */
  get duty(): number | null {
    const duties = this.circuit.parts.flatMap((part) =>
      part.kind === 'module-output' && part.duty !== undefined ? [part.duty] : [],
    );
    return duties.length === 0 ? null : duties.reduce((sum, one) => sum + one, 0) / duties.length;
  }

  /** State of the sensors that a condition starts from; undefined for all at rest. */
  start(conditionId: string, alteration: Alteration, after?: string): Uint8Array | undefined {
    const before = after ?? this.condition(conditionId).after;
    if (before === undefined) return undefined;
    return alteration === UNALTERED ? this.sound(before).sensed : this.solve(before, alteration).sensed;
  }

  /**
   * Takes in a condition that the file does not have, so that any setting can be looked at; gives the id to ask with.
   * The latest sixty-four are kept.
   */
  adopt(condition: Omit<Condition, 'id' | 'name'>): string {
    const id = `#${JSON.stringify(condition)}`;
    if (!this.adopted.has(id)) {
      for (const old of [...this.adopted.keys()].slice(0, Math.max(0, this.adopted.size - ADOPTED + 1))) {
        for (const map of [this.adopted, this.solvers, this.asleep, this.soundPoints]) map.delete(old);
      }
      this.adopted.set(id, { ...condition, id, name: 'As set' });
    }
    return id;
  }

  condition(id: string): Condition {
    const found = this.adopted.get(id) ?? this.conditions.find((one) => one.id === id);
    if (!found) throw new Error(`The circuit has no condition ${id}.`);
    return found;
  }

  /** Current through a function's load as a fraction of its nominal current. */
  loadFraction(one: CircuitFunction, point: OperatingPoint): number {
    const load = this.network.loads.get(one.load);
    return load ? Math.abs(point.amps[load.branch]!) / load.nominalAmps : 0;
  }

  /** What a person sees of a function at an operating point. */
  outcome(one: CircuitFunction, point: OperatingPoint): FunctionOutcome {
    const load = this.network.loads.get(one.load);
    const fraction = this.loadFraction(one, point);
    if (!load || fraction < load.deadBelow) return 'dead';
    return fraction < load.weakBelow ? 'weak' : 'works';
  }

  /** Whether the function is meant to be on: what the sound circuit does. */
  expectedOn(one: CircuitFunction, conditionId: string): boolean {
    return this.outcome(one, this.sound(conditionId)) !== 'dead';
  }

  function(id: string): CircuitFunction {
    const found = this.circuit.functions.find((one) => one.id === id);
    if (!found) throw new Error(`The circuit has no function ${id}.`);
    return found;
  }

  /** Supply voltage of the sound circuit: the highest voltage that any source brings to the datum's net. */
  readonly emfVolts: number;
}

/** The network with all that is warm or fed cold and dead; branches keep their numbers. */
function asleepNetwork(network: Network): Network {
  const branches = network.branches.map((branch) => {
    if (branch.role === 'source') return { ...branch, emfVolts: 0 };
    if (branch.role !== 'load') return branch;
    return { ...branch, ohms: branch.ohms / startFactor(network.parts.get(branch.part)!) };
  });
  return { ...network, branches };
}
