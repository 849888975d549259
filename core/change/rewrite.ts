/** What was written in a circuit’s text, as one edit of a plan. */
import { same } from '../circuit';
import type { CircuitFile, CircuitPatch, PlanEdit } from '../format';

const LISTS = ['places', 'nodes', 'conditions', 'functions', 'parts'] as const;
type Thing = { readonly id: string; readonly name: string };

/** Most names that a sentence tells. */
const MOST_NAMES = 12;

function listed(verb: string, things: readonly Thing[]): string[] {
  if (things.length === 0) return [];
  const more = things.length > MOST_NAMES ? ` and ${things.length - MOST_NAMES} more` : '';
  return [
    `${verb} ${things
      .slice(0, MOST_NAMES)
      .map(({ name }) => name)
      .join(', ')}${more}`,
  ];
}

/** Null where the two say the same. Things keep the place that they have; what is new comes last. */
export function rewriteEdit(from: CircuitFile, to: CircuitFile, id: string): PlanEdit | null {
  const patch: Record<string, unknown> = {};
  const words: string[] = [];
  const undo: string[] = [];
  for (const list of LISTS) {
    const [was, is] = [from[list] as readonly Thing[], to[list] as readonly Thing[]];
    const before = new Map(was.map((thing) => [thing.id, thing]));
    const after = new Map(is.map((thing) => [thing.id, thing]));
    const comes = is.filter((thing) => !before.has(thing.id));
    const goes = was.filter((thing) => !after.has(thing.id));
    const differs = was.filter((thing) => after.has(thing.id) && !same(thing, after.get(thing.id)));
    if (comes.length + goes.length + differs.length === 0) continue;
    // The way back from what is written: undone on what stands, it makes what is written.
    patch[list] = {
      removed: comes.map((thing, index) => ({ at: was.length - goes.length + index, thing })),
      added: goes.map((thing) => thing.id),
      changed: differs.map((thing) => ({ before: after.get(thing.id)!, after: thing })),
    };
    if (list === 'parts') {
      words.push(...listed('add', comes), ...listed('take out', goes), ...listed('change', differs));
      undo.push(
        ...listed('take out', comes),
        ...listed('put back', goes),
        ...listed('make as it was', differs),
      );
    }
  }
  if (Object.keys(patch).length === 0) return null;
  const sentence = (lines: readonly string[], none: string) =>
    `By the text: ${lines.length > 0 ? lines.join('; ') : none}.`.slice(0, 2000);
  return {
    kind: 'restore',
    id,
    words: sentence(words, 'points, settings or names only'),
    was: sentence(undo, 'as they were'),
    patch: patch as CircuitPatch,
  };
}
