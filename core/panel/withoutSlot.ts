/** What a fuse or relay carries: the functions that are lost without it, and those that are still partly fed. */

import { withoutPart } from '../hands';
import { type CircuitModel, combineAlterations } from '../network';

export interface FunctionWithout {
  readonly function: string;
  readonly name: string;
  /** Dead or weak everywhere, in some of the positions in which it should work, or only weaker. */
  readonly what: 'lost' | 'partly' | 'weaker';
  /** Names of the conditions in which it does less than it should. */
  readonly conditions: readonly string[];
}

/** Pulls what stands in a slot in thought, in every condition of the circuit. Functions that lose nothing are left out. */
export function withoutSlot(model: CircuitModel, panel: string, slot: string): FunctionWithout[] {
  const parts = model.circuit.parts.filter((part) => part.slot?.panel === panel && part.slot.slot === slot);
  if (parts.length === 0) return [];
  const pulled = combineAlterations(...parts.map((part) => withoutPart(model.network, part.id)));
  return model.circuit.functions.flatMap((one): FunctionWithout[] => {
    const expected = model.conditions.filter((condition) => model.expectedOn(one, condition.id));
    const less = expected.flatMap((condition) => {
      const should = model.outcome(one, model.sound(condition.id));
      const is = model.outcome(one, model.solve(condition.id, pulled));
      return is === should || is === 'works' ? [] : [{ name: condition.name, dead: is === 'dead' }];
    });
    if (less.length === 0) return [];
    const dead = less.filter((entry) => entry.dead).length;
    const what = dead === expected.length ? 'lost' : dead > 0 ? 'partly' : 'weaker';
    return [{ function: one.id, name: one.name, what, conditions: less.map((entry) => entry.name) }];
  });
}

export interface Coverage {
  readonly function: string;
  readonly name: string;
  /** Fuses and relays on its way that have a slot on the map. */
  readonly mapped: readonly string[];
  /** Those that have none: not finished while one is left. */
  readonly unresolved: readonly string[];
}

/** How much of a function's way has been given a slot. */
export function coverage(
  model: CircuitModel,
  functionId: string,
  partsOfFunction: ReadonlySet<string>,
): Coverage {
  const one = model.function(functionId);
  const parts = model.circuit.parts.filter(
    (part) => partsOfFunction.has(part.id) && (part.kind === 'fuse' || part.kind === 'relay'),
  );
  return {
    function: one.id,
    name: one.name,
    mapped: parts.filter((part) => part.slot).map((part) => part.name),
    unresolved: parts.filter((part) => !part.slot).map((part) => part.name),
  };
}
