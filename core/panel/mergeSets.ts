/**
 * Two people who drew boxes of one vehicle from the same version, joined by slot (a three-way merge: what only one of
 * them changed is taken, what both changed alike is taken once). Only the same field of the same thing, changed by both
 * to different values, is a conflict; then the later one's value stands in the result and both are named.
 */
import { fieldWords, type Panel, type PanelSetFile, type Slot } from '../format';

interface FieldConflict {
  /** `box/slot/field`, for whoever looks the place up. */
  readonly path: string;
  /** "Cab box, fuse 31: rating". */
  readonly what: string;
  readonly theirs: string;
  readonly mine: string;
}

export interface MergedSet {
  readonly set: PanelSetFile;
  readonly conflicts: readonly FieldConflict[];
}

/** `base` is what both began from; null where there was nothing. */
export function mergePanelSets(
  base: PanelSetFile | null,
  theirs: PanelSetFile,
  mine: PanelSetFile,
): MergedSet {
  const conflicts: FieldConflict[] = [];
  const { panels: _ours, ...head } = mine;
  const fields = mergeFields(
    base ? without(base, 'panels') : null,
    without(theirs, 'panels'),
    head,
    { path: 'set', name: mine.name },
    conflicts,
  );
  const panels = mergeList(base?.panels ?? [], theirs.panels, mine.panels, {
    path: '',
    name: (panel) => panel.name,
    conflicts,
    join: (was, one, other) => {
      const place = { path: other.id, name: other.name };
      const joined = mergeFields(
        was ? without(was, 'slots') : null,
        without(one, 'slots'),
        without(other, 'slots'),
        place,
        conflicts,
      );
      const slots = mergeList(was?.slots ?? [], one.slots, other.slots, {
        path: `${other.id}/`,
        name: (slot) => `${other.name}, ${slot.type} ${slot.number}`,
        conflicts,
        join: (slotWas, slotOne, slotOther) =>
          mergeFields(
            slotWas,
            slotOne,
            slotOther,
            {
              path: `${other.id}/${slotOther.id}`,
              name: `${other.name}, ${slotOther.type} ${slotOther.number}`,
            },
            conflicts,
          ) as Slot,
      });
      return { ...joined, slots } as unknown as Panel;
    },
  });
  return { set: { ...fields, panels } as unknown as PanelSetFile, conflicts };
}

function without<T extends object, K extends keyof T>(value: T, key: K): Omit<T, K> {
  const { [key]: _left, ...rest } = value;
  return rest;
}

/** Things by their ids: in the order of the later one, then what the other has added. */
function mergeList<T extends { readonly id: string }>(
  base: readonly T[],
  theirs: readonly T[],
  mine: readonly T[],
  how: {
    readonly path: string;
    readonly name: (thing: T) => string;
    readonly conflicts: FieldConflict[];
    readonly join: (was: T | null, one: T, other: T) => T;
  },
): T[] {
  const was = new Map(base.map((one) => [one.id, one]));
  const there = new Map(theirs.map((one) => [one.id, one]));
  const here = new Set(mine.map((one) => one.id));
  const kept: T[] = [];
  for (const one of mine) {
    const other = there.get(one.id);
    const before = was.get(one.id);
    if (other) kept.push(how.join(before ?? null, other, one));
    else if (!before || !same(before, one)) {
      kept.push(one);
      if (before) {
        how.conflicts.push({
          path: how.path + one.id,
          what: how.name(one),
          theirs: 'taken out',
          mine: 'changed',
        });
      }
    }
  }
  for (const one of theirs) {
    if (here.has(one.id)) continue;
    const before = was.get(one.id);
    if (before && same(before, one)) continue;
    kept.push(one);
    if (before) {
      how.conflicts.push({
        path: how.path + one.id,
        what: how.name(one),
        theirs: 'changed',
        mine: 'taken out',
      });
    }
  }
  return kept;
}

function mergeFields(
  was: object | null,
  theirs: object,
  mine: object,
  place: { readonly path: string; readonly name: string },
  conflicts: FieldConflict[],
): object {
  const [before, one, other] = [fieldsOf(was ?? {}), fieldsOf(theirs), fieldsOf(mine)];
  const joined: Record<string, unknown> = {};
  for (const field of new Set([...Object.keys(other), ...Object.keys(one)])) {
    const mineChanged = !same(before[field], other[field]);
    const theirsChanged = !same(before[field], one[field]);
    const value = mineChanged ? other[field] : one[field];
    if (value !== undefined) joined[field] = value;
    if (mineChanged && theirsChanged && !same(one[field], other[field])) {
      conflicts.push({
        path: `${place.path}/${field}`,
        what: `${place.name}: ${fieldWords(field)}`,
        theirs: valueWords(one[field]),
        mine: valueWords(other[field]),
      });
    }
  }
  return joined;
}

function fieldsOf(thing: object): Readonly<Record<string, unknown>> {
  return thing as Readonly<Record<string, unknown>>;
}

function valueWords(value: unknown): string {
  if (value === undefined || value === '') return 'nothing';
  if (typeof value === 'string') return `“${value.slice(0, 120)}”`;
  if (typeof value === 'object') return JSON.stringify(value).slice(0, 120);
  return String(value);
}

function same(one: unknown, other: unknown): boolean {
  if (one === other) return true;
  if (Array.isArray(one)) {
    return (
      Array.isArray(other) &&
      one.length === other.length &&
      one.every((value, index) => same(value, other[index]))
    );
  }
  if (one === null || other === null || typeof one !== 'object' || typeof other !== 'object') return false;
  const [left, right] = [fieldsOf(one), fieldsOf(other)];
  const keys = new Set([...Object.keys(left), ...Object.keys(right)]);
  return !Array.isArray(other) && [...keys].every((key) => same(left[key], right[key]));
}
