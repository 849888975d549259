/** Everything that can be read of a circuit at once: volts everywhere, current in every part, what is on, what overloads. */

import { openingTimeWords, openOverloaded, overloads } from '../faults';
import type { Alteration, CircuitModel, FunctionOutcome } from '../network';
import { type LiveSetting, questionOf } from './setting';

export interface LiveState {
  readonly nodes: readonly { readonly node: string; readonly volts: number; readonly floating: boolean }[];
  readonly branches: readonly { readonly part: string; readonly branch: string; readonly amps: number }[];
  readonly sensors: readonly { readonly part: string; readonly sensor: string; readonly on: boolean }[];
  readonly functions: readonly { readonly function: string; readonly state: FunctionOutcome }[];
  /** Fuses, links and fused leads that carry more than they hold. */
  readonly overloaded: readonly {
    readonly part: string;
    readonly amps: number;
    /** Null where nobody has read it. */
    readonly ratingAmps: number | null;
    readonly opens: string;
  }[];
  /** Fuses that opened, in this order. */
  readonly blown: readonly string[];
  /** Parts that never come to rest. */
  readonly oscillating: readonly string[];
}

/** Volts in volts against the circuit's reference, current in ampere from a branch's first to its second end. */
export function stateOf(
  model: CircuitModel,
  condition: string,
  alteration: Alteration,
  options: { readonly after?: string; readonly fusesOpen: boolean },
): LiveState {
  const { network, circuit } = model;
  const result = options.fusesOpen
    ? openOverloaded(model, condition, alteration, options.after)
    : { opened: [], alteration };
  const point = model.solve(condition, result.alteration, options.after);
  const hanging = model.solver(condition).hanging(result.alteration, point);
  return {
    nodes: circuit.nodes.map((node) => {
      const index = network.nodeIndex.get(node.id)!;
      const floating = point.floating[index] === 1 || hanging[index] === 1;
      return { node: node.id, volts: point.volts[index]!, floating };
    }),
    branches: network.branches.map(({ part, label }, index) => ({
      part,
      branch: label,
      amps: point.amps[index]!,
    })),
    sensors: network.sensors.map(({ part, label }, index) => ({
      part,
      sensor: label,
      on: point.sensed[index] === 1,
    })),
    functions: circuit.functions.map((one) => ({ function: one.id, state: model.outcome(one, point) })),
    overloaded: overloads(network, point, result.alteration).map(({ part, amps, ratingAmps, opens }) => ({
      part,
      amps,
      ratingAmps,
      opens: openingTimeWords(opens),
    })),
    blown: result.opened.map((one) => one.part),
    oscillating: [...point.oscillating],
  };
}

/** The state in a setting. Throws when the setting names what the circuit does not have. */
export function liveState(model: CircuitModel, setting: LiveSetting): LiveState {
  const { condition, alteration } = questionOf(model, setting);
  return stateOf(model, condition, alteration, { fusesOpen: setting.fusesOpen });
}
