/**
 * A plan as work, step by step in the order in which it is done. A step belongs to a stage, and a stage begins when all steps of
 * those before it are done or overridden: nothing is cut before both ends were read, nothing is laid before its fuse is there.
 */
import type { CircuitFile } from '../../format';
import { isMoving } from '../../safety';
import type { Examined } from '../findings';
import { deadReading, isolation, powerBack, reading, taps } from './around';
import { stepsOf } from './ofEdit';
import { proofs } from './proofs';
import { type Made, STAGES, step, type WorkStep } from './step';

export { STAGE_WORDS, STAGES, type Stage, type WorkStep } from './step';

/** The work of a plan in its order. */
export function workOrder(plan: Examined): readonly WorkStep[] {
  const { played } = plan;
  const at = new Map<string, CircuitFile>();
  let circuit = played.before;
  for (const { edit, after } of played.applied) {
    at.set(edit.id, circuit);
    circuit = after;
  }
  const made: Made = { plan, at };
  const edits = played.applied.map(({ edit }) => edit);
  const isolated = isolation(edits, made);
  const worksOnMoving = plan.scene.before.functions.some(({ id }) => isMoving(plan.scene.before, id));
  const all = [
    ...reading(edits, made),
    ...isolated,
    ...edits.flatMap((edit) => stepsOf(edit, made)),
    ...deadReading(edits, made),
    ...(worksOnMoving
      ? [step('power.clear', 'power', 'Hands, ropes and tools clear of what moves before power comes back.')]
      : []),
    ...powerBack(isolated),
    ...taps(edits, made),
    ...proofs(plan),
  ];
  return STAGES.flatMap((stage) => all.filter((one) => one.stage === stage));
}

/** The order of edits follows that of stages: one is made when the last step that bears its name is done. */
export function editsMadeBy(steps: readonly WorkStep[], done: (id: string) => boolean): ReadonlySet<string> {
  return new Set(steps.flatMap(({ id, edit }) => (edit !== null && done(id) ? [edit] : [])));
}
