/** A plan played on a circuit: what stands after each edit, and the way back. */
import type { CircuitFile, PlanEdit, PlanFile } from '../format';
import { applyEdit, editWords, isImpossible, undoWords } from './edits';
import { type Patch, patchBetween, undoPatch } from './patch';

export interface Applied {
  readonly edit: PlanEdit;
  readonly patch: Patch;
  /** The circuit behind it. */
  readonly after: CircuitFile;
  readonly words: string;
  readonly undo: string;
}

export interface Played {
  readonly before: CircuitFile;
  readonly after: CircuitFile;
  /** In the order of the plan, as far as it could be played. */
  readonly applied: readonly Applied[];
  /** The first edit that cannot be made, and why; null where all were. */
  readonly stuck: { readonly edit: PlanEdit; readonly problem: string } | null;
}

/** Every edit in its order; it ends at the first that cannot be made. The circuit that is given stays as it is. */
export function playPlan(before: CircuitFile, edits: readonly PlanEdit[]): Played {
  const applied: Applied[] = [];
  let after = before;
  for (const edit of edits) {
    const next = applyEdit(after, edit);
    if (isImpossible(next)) return { before, after, applied, stuck: { edit, problem: next.problem } };
    applied.push({
      edit,
      patch: patchBetween(after, next),
      after: next,
      words: editWords(after, edit),
      undo: undoWords(after, edit),
    });
    after = next;
  }
  return { before, after, applied, stuck: null };
}

/** Everything taken back, the last edit first: the circuit as it was, byte for byte. */
export function undoAll({ after, applied }: Pick<Played, 'after' | 'applied'>): CircuitFile {
  return applied.reduceRight((circuit, { patch }) => undoPatch(circuit, patch), after);
}

/** How all of it is undone by hand, in the order in which that is done. */
export function undoSteps({ applied }: Pick<Played, 'applied'>): readonly string[] {
  return applied.map(({ undo }) => undo).reverse();
}

/** The edits of the way that is chosen; where none is, those of all ways, which then stand beside each other. */
export function chosenEdits({ edits, chosen }: Pick<PlanFile, 'edits' | 'chosen'>): readonly PlanEdit[] {
  return chosen === undefined
    ? edits
    : edits.filter(({ variant }) => variant === undefined || variant === chosen);
}

/** Steps that another way of doing it has and the chosen one has not, each with why it is not shown. */
export function hiddenEdits(
  plan: Pick<PlanFile, 'edits' | 'chosen' | 'variants'>,
): readonly { readonly edit: PlanEdit; readonly why: string }[] {
  const name = (id: string | undefined) => plan.variants?.find((one) => one.id === id)?.name ?? id ?? '';
  const shown = new Set(chosenEdits(plan));
  return plan.edits.flatMap((edit) =>
    shown.has(edit)
      ? []
      : [{ edit, why: `Belongs to “${name(edit.variant)}”; “${name(plan.chosen)}” is chosen.` }],
  );
}
