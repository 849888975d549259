/** Which edits may change places: those that touch nothing in common. */
import type { PlanEdit } from '../format';
import type { Applied } from './apply';

/** Ids that an edit makes, takes, changes or names. */
function touches({ edit, patch }: Pick<Applied, 'edit' | 'patch'>): ReadonlySet<string> {
  const ids = new Set<string>();
  for (const change of Object.values(patch)) {
    if (!change) continue;
    for (const { thing } of change.removed) ids.add(thing.id);
    for (const id of change.added) ids.add(id);
    for (const { before } of change.changed) ids.add(before.id);
  }
  const pins = [
    ...(patch.parts?.removed ?? []).map(({ thing }) => thing),
    ...(patch.parts?.changed ?? []).flatMap(({ before, after }) => [before, after]),
  ];
  for (const part of pins)
    for (const node of Object.values(part.pins as Record<string, string>)) ids.add(node);
  for (const id of namedIn(edit)) ids.add(id);
  return ids;
}

function namedIn(edit: PlanEdit): string[] {
  switch (edit.kind) {
    case 'add':
      return edit.parts.flatMap((part) => Object.values(part.pins as Record<string, string>));
    case 'tap':
      return [edit.fuse, edit.lead];
    case 'cut':
      return [edit.wire];
    case 'join':
      return [edit.one, edit.other];
    case 'move':
      return [edit.part, edit.to];
    case 'take-out':
      return [edit.part];
    default:
      return [];
  }
}

/** Whether an edit must come behind an earlier one: they touch the same, and neither is only a label. */
function mustFollow(earlier: Applied, later: Applied): boolean {
  const known = touches(earlier);
  return [...touches(later)].some((id) => known.has(id));
}

/** Whether the edit at one place may stand at another; with the sentence of the edit in its way where it may not. */
export function mayMove(applied: readonly Applied[], from: number, to: number): string | null {
  const one = applied[from];
  if (!one || to < 0 || to >= applied.length) return 'There is no such place.';
  const passed = to < from ? applied.slice(to, from) : applied.slice(from + 1, to + 1);
  const bars = passed.find((other) => (to < from ? mustFollow(other, one) : mustFollow(one, other)));
  return bars ? `They touch the same: ${bars.words}` : null;
}
