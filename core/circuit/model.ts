/** A circuit ready to be questioned: its network, one solver per condition, and its sound state in each. */
import type { CircuitFile, CircuitFunction, Condition } from '../format/circuitSchema';
import { type Alteration, ConditionSolver, type OperatingPoint, UNALTERED } from '../network/solve';
import { buildNetwork, type Network } from './network';

export type FunctionOutcome = 'works' | 'weak' | 'dead';

export class CircuitModel {
  readonly network: Network;
  readonly conditions: readonly Condition[];
  private readonly solvers = new Map<string, ConditionSolver>();
  private readonly soundPoints = new Map<string, OperatingPoint>();

  constructor(readonly circuit: CircuitFile) {
    this.network = buildNetwork(circuit);
    this.conditions = circuit.conditions;
  }

  /** The factored solver of a condition. Throws when the circuit has no such condition. */
  solver(conditionId: string): ConditionSolver {
    const known = this.solvers.get(conditionId);
    if (known) return known;
    const condition = this.conditions.find((one) => one.id === conditionId);
    if (!condition) throw new Error(`The circuit has no condition ${conditionId}.`);
    const solver = new ConditionSolver(this.network, condition);
    this.solvers.set(conditionId, solver);
    return solver;
  }

  sound(conditionId: string): OperatingPoint {
    const known = this.soundPoints.get(conditionId);
    if (known) return known;
    const point = this.solver(conditionId).solve(UNALTERED);
    this.soundPoints.set(conditionId, point);
    return point;
  }

  solve(conditionId: string, alteration: Alteration): OperatingPoint {
    return this.solver(conditionId).solve(alteration);
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
  get emfVolts(): number {
    return Math.max(...this.network.branches.map((branch) => branch.emfVolts));
  }
}
