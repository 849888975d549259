/** What has to be seen before a repair counts as proved. */
import type { CircuitModel } from '../../network';
import { activeCondition, functionRuns } from '../run';

export interface RequiredProof {
  readonly function: string;
  readonly condition: string;
  /** What a sound circuit shows there. */
  readonly expected: 'works' | 'dead';
  readonly because: string;
  /** Where a timed relay keeps it on for a while: it is seen off once more after so long, seconds. */
  readonly waitSeconds?: number;
}

/** How a function was seen before the repair. */
export interface SeenBefore {
  readonly function: string;
  readonly condition: string;
  readonly state: string;
}

/** How long timed relays on the runs of a function may keep it on, seconds; zero where none does. */
function staysOn(model: CircuitModel, parts: ReadonlySet<string>): number {
  const seconds = model.circuit.parts.flatMap((part) =>
    part.kind === 'relay' && parts.has(part.id) && part.timing && part.timing.mode !== 'delay-on'
      ? [part.timing.seconds]
      : [],
  );
  return Math.max(0, ...seconds);
}

/** Parts on any run of a function, its control runs included. */
export function partsOfFunction(model: CircuitModel, functionId: string): ReadonlySet<string> {
  const condition = activeCondition(model, functionId);
  if (!condition) return new Set();
  return new Set(
    functionRuns(model, functionId, condition).flatMap((run) => run.stations.map((one) => one.part)),
  );
}

/**
 * The failed function in the condition that failed, and every other that was seen to be wrong; every function that shares
 * a touched part, in a condition in which it should work; and each of these off with the key off, where it should then be
 * off.
 */
export function requiredProofs(
  model: CircuitModel,
  complaint: { function: string; condition: string },
  touched: readonly string[],
  seen: readonly SeenBefore[] = [],
): RequiredProof[] {
  const proofs: RequiredProof[] = [];
  const add = (proof: RequiredProof) => {
    if (!proofs.some((one) => one.function === proof.function && one.condition === proof.condition)) {
      proofs.push(proof);
    }
  };
  const expectedIn = (functionId: string, condition: string) =>
    model.expectedOn(model.function(functionId), condition) ? ('works' as const) : ('dead' as const);
  add({
    ...complaint,
    expected: expectedIn(complaint.function, complaint.condition),
    because: 'the complaint, in the condition that failed',
  });
  const concerned = [complaint.function];
  for (const { function: of, condition, state } of seen) {
    const known = model.circuit.functions.some(({ id }) => id === of);
    if (!known || !model.conditions.some(({ id }) => id === condition)) continue;
    const expected = expectedIn(of, condition);
    if (state === expected || state === 'not-tried') continue;
    if (!concerned.includes(of)) concerned.push(of);
    add({ function: of, condition, expected, because: 'was not as it should be before the repair' });
  }
  for (const one of model.circuit.functions) {
    if (one.id === complaint.function) continue;
    const parts = partsOfFunction(model, one.id);
    const shared = touched.find((part) => parts.has(part));
    const condition = activeCondition(model, one.id);
    if (!shared || !condition) continue;
    if (!concerned.includes(one.id)) concerned.push(one.id);
    add({
      function: one.id,
      condition,
      expected: 'works',
      because: `shares ${model.network.parts.get(shared)?.name ?? shared}`,
    });
  }
  const off = model.conditions.find(
    (condition) => condition.key === 'off' && Object.keys(condition.switches ?? {}).length === 0,
  );
  if (off) {
    for (const id of concerned) {
      if (expectedIn(id, off.id) === 'dead') {
        const waitSeconds = staysOn(model, partsOfFunction(model, id));
        add({
          function: id,
          condition: off.id,
          expected: 'dead',
          because: 'must be off with everything off',
          ...(waitSeconds > 0 ? { waitSeconds } : {}),
        });
      }
    }
  }
  return proofs;
}
