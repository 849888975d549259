/**
 * What an edit did to a circuit, thing by thing, so that it can be taken back exactly: undone, the file is the same byte for
 * byte as it was.
 */
import { same } from '../circuit';
import type { CircuitFile, CircuitPatch } from '../format';

const LISTS = ['places', 'nodes', 'conditions', 'functions', 'parts'] as const;
type List = (typeof LISTS)[number];
type Thing = { readonly id: string };

interface ListPatch {
  /** With the place where it stood. */
  removed: { at: number; thing: Thing }[];
  added: string[];
  changed: { before: Thing; after: Thing }[];
}

/** As it stands in files; an empty one changed nothing. */
export type Patch = CircuitPatch;
type AnyPatch = Partial<Record<List, ListPatch>>;

/** What lies between two circuits of which the later came from the earlier: nothing in it has changed its place. */
export function patchBetween(before: CircuitFile, after: CircuitFile): Patch {
  const patch: AnyPatch = {};
  for (const list of LISTS) {
    const [old, now] = [before[list] as readonly Thing[], after[list] as readonly Thing[]];
    if (old === now) continue;
    const later = new Map(now.map((thing) => [thing.id, thing]));
    const earlier = new Set(old.map(({ id }) => id));
    patch[list] = {
      removed: old.flatMap((thing, at) => (later.has(thing.id) ? [] : [{ at, thing }])),
      added: now.flatMap(({ id }) => (earlier.has(id) ? [] : [id])),
      changed: old.flatMap((thing) => {
        const next = later.get(thing.id);
        return next && next !== thing ? [{ before: thing, after: next }] : [];
      }),
    };
  }
  return patch as Patch;
}

/** The circuit as it was before. Throws where it is no longer what the patch left: something else was changed since. */
export function undoPatch(circuit: CircuitFile, patch: Patch): CircuitFile {
  const back: Partial<Record<List, Thing[]>> = {};
  for (const list of LISTS) {
    const one = (patch as AnyPatch)[list];
    if (!one) continue;
    const here = new Set((circuit[list] as readonly Thing[]).map(({ id }) => id));
    const gone = [...one.added, ...one.changed.map(({ after }) => after.id)].find((id) => !here.has(id));
    if (gone !== undefined) throw new Error(`${gone} is no longer there: something else was changed since.`);
    const twice = one.removed.find(({ thing }) => here.has(thing.id));
    if (twice) throw new Error(`${twice.thing.id} is there again already.`);
    const changed = new Map(one.changed.map(({ before, after }) => [after.id, { before, after }]));
    const things = (circuit[list] as readonly Thing[]).flatMap((thing) => {
      if (one.added.includes(thing.id)) return [];
      const was = changed.get(thing.id);
      if (was && !same(was.after, thing)) {
        throw new Error(`${thing.id} was changed again since: undo that first.`);
      }
      return [was?.before ?? thing];
    });
    for (const { at, thing } of one.removed) things.splice(at, 0, thing);
    back[list] = things;
  }
  return { ...circuit, ...back } as CircuitFile;
}

/** Ids of parts that come, go or change. */
export function touchedParts(patch: Patch): readonly string[] {
  const { removed = [], added = [], changed = [] } = patch.parts ?? {};
  return [...removed.map(({ thing }) => thing.id), ...added, ...changed.map(({ after }) => after.id)];
}
