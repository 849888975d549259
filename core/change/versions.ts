/** A plan carried out: what it makes of each circuit file and of the boxes, and how each is undone exactly. */
import { mergeCircuits } from '../circuit';
import type { CircuitFile, CircuitPatch, PanelSetFile, PlanEdit, Slot } from '../format';
import type { Played } from './apply';
import { patchBetween, undoPatch } from './patch';

export interface FileChange {
  /** Id of the circuit file. */
  readonly circuit: string;
  readonly after: CircuitFile;
  readonly patch: CircuitPatch;
}

export interface SlotChange {
  readonly panel: string;
  readonly slot: string;
  readonly before: Slot;
  readonly after: Slot;
}

type Thing = { readonly id: string };
const LISTS = ['places', 'nodes', 'conditions', 'functions', 'parts'] as const;

/** Points of a part. */
const pinsOf = (part: CircuitFile['parts'][number]) => Object.values(part.pins as Record<string, string>);

/**
 * The change of the joined circuit as changes of its files. What goes or differs does so in every file that has it; what comes
 * goes into one file: that which has most of its points. A file whose parts now lead to points of another takes the others in.
 */
export function fileChanges(
  files: readonly CircuitFile[],
  played: Pick<Played, 'before' | 'after'>,
): FileChange[] {
  const total = patchBetween(played.before, played.after);
  const added = new Set(total.parts?.added ?? []);
  const parts = played.after.parts.filter(({ id }) => added.has(id));
  const fresh = new Set(total.nodes?.added ?? []);
  const touched = new Set((total.parts?.changed ?? []).map(({ after }) => after.id));
  const comes = LISTS.some((list) => (total[list]?.added.length ?? 0) > 0);
  const home = comes
    ? homeOf(files, new Set(parts.flatMap(pinsOf).filter((node) => !fresh.has(node))), touched)
    : undefined;
  return files.map((file): FileChange => {
    const own = madeIn(file, total, played.after, file === home);
    const after =
      leadsNowhere(own).length > 0 ? madeIn(wholeOf(file, files), total, played.after, file === home) : own;
    const loose = new Set(leadsNowhere(after));
    const whole =
      loose.size === 0
        ? after
        : { ...after, nodes: [...after.nodes, ...played.after.nodes.filter(({ id }) => loose.has(id))] };
    const patch = patchBetween(file, whole);
    const differs = LISTS.some((list) => {
      const change = patch[list];
      return change && change.added.length + change.removed.length + change.changed.length > 0;
    });
    return differs ? { circuit: file.id, after: whole, patch } : { circuit: file.id, after: file, patch: {} };
  });
}

/** Points that parts of a file lead to and that it has not. */
function leadsNowhere({ nodes, parts }: CircuitFile): string[] {
  const known = new Set(nodes.map(({ id }) => id));
  return parts.flatMap(pinsOf).filter((node) => !known.has(node));
}

/** All files as one, under the name of one of them. */
function wholeOf(file: CircuitFile, files: readonly CircuitFile[]): CircuitFile {
  const { notes: _all, ...joined } = mergeCircuits([...files]).circuit;
  return {
    ...joined,
    id: file.id,
    name: file.name,
    ...(file.notes === undefined ? {} : { notes: file.notes }),
  };
}

/** A file with what differs in it; with what comes too, where that goes into it. */
function madeIn(file: CircuitFile, total: CircuitPatch, played: CircuitFile, isHome: boolean): CircuitFile {
  let after = file;
  for (const list of LISTS) {
    const change = total[list] as
      | {
          readonly removed: readonly { thing: Thing }[];
          readonly added: readonly string[];
          readonly changed: readonly { after: Thing }[];
        }
      | undefined;
    if (!change) continue;
    const gone = new Set(change.removed.map(({ thing }) => thing.id));
    const now = new Map(change.changed.map(({ after: one }) => [one.id, one]));
    const kept = (after[list] as readonly Thing[])
      .filter(({ id }) => !gone.has(id))
      .map((thing) => (now.has(thing.id) ? fieldsOf(thing, now.get(thing.id)!) : thing));
    const here = new Set(kept.map(({ id }) => id));
    const more = isHome
      ? (played[list] as readonly Thing[]).filter(({ id }) => change.added.includes(id) && !here.has(id))
      : [];
    after = { ...after, [list]: [...kept, ...more] } as CircuitFile;
  }
  return after;
}

/** What a part is after the change; what the file alone says of it stays (a mark that a box gave it is not written into it). */
function fieldsOf(thing: Thing, after: Thing): Thing {
  return 'pins' in thing && 'pins' in after ? ({ ...thing, ...onlyChanged(thing, after) } as Thing) : after;
}

function onlyChanged(thing: object, after: object): object {
  const { safetyCritical: _mark, ...fields } = after as { readonly safetyCritical?: boolean };
  return 'safetyCritical' in thing ? after : fields;
}

function homeOf(
  files: readonly CircuitFile[],
  nodes: ReadonlySet<string>,
  touched: ReadonlySet<string>,
): CircuitFile | undefined {
  let best: CircuitFile | undefined;
  let most = -1;
  for (const file of files) {
    const changed = file.parts.filter(({ id }) => touched.has(id)).length;
    const count = file.nodes.filter(({ id }) => nodes.has(id)).length + changed;
    if (count > most) [best, most] = [file, count];
  }
  return best;
}

/** The file as it was before a change of it; throws where it was changed since. */
export function fileBefore(file: CircuitFile, patch: CircuitPatch): CircuitFile {
  return undoPatch(file, patch);
}

const LONGEST_MEANING = 200;

/** What edits make of the slots that they touch: tapped, or out and not to be refitted. */
export function slotChanges(
  panelSet: PanelSetFile | null,
  before: CircuitFile,
  edits: readonly PlanEdit[],
  name: string,
): SlotChange[] {
  if (!panelSet) return [];
  const changes = new Map<string, SlotChange>();
  const touch = (fuse: string, change: (slot: Slot) => Slot) => {
    const at = before.parts.find(({ id }) => id === fuse)?.slot;
    const slot = panelSet.panels.find(({ id }) => id === at?.panel)?.slots.find(({ id }) => id === at?.slot);
    if (!at || !slot) return;
    const key = `${at.panel}/${at.slot}`;
    const known = changes.get(key);
    changes.set(key, { panel: at.panel, slot: at.slot, before: slot, after: change(known?.after ?? slot) });
  };
  const meaning = (slot: Slot, words: string) =>
    [slot.meaning, words].filter(Boolean).join('; ').slice(0, LONGEST_MEANING);
  for (const edit of edits) {
    if (edit.kind === 'tap')
      touch(edit.fuse, (slot) => ({
        ...slot,
        state: 'tapped',
        meaning: meaning(slot, `tapped: ${edit.name}`),
      }));
    if (edit.kind === 'take-out')
      touch(edit.part, (slot) => ({
        ...slot,
        state: 'abandoned',
        stateEvidence: `Changed on purpose: ${name}`.slice(0, LONGEST_MEANING),
      }));
  }
  return [...changes.values()];
}

export function withSlots(
  panelSet: PanelSetFile,
  changes: readonly SlotChange[],
  to: 'before' | 'after',
): PanelSetFile {
  return {
    ...panelSet,
    panels: panelSet.panels.map((panel) => {
      const own = changes.filter((one) => one.panel === panel.id);
      if (own.length === 0) return panel;
      return {
        ...panel,
        slots: panel.slots.map((slot) => own.find((one) => one.slot === slot.id)?.[to] ?? slot),
      };
    }),
  };
}
