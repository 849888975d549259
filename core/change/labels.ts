/** Labels that a change leaves on the vehicle: in slots, on wires and receptacles, on what must not be refitted. */
import type { Panel } from '../format';
import { figure } from '../sizing';
import type { Played } from './apply';
import type { PlanFacts } from './findings';
import { slotOf } from './slotOf';

export interface PlanLabel {
  /** Cover of a box, flag on a wire, receptacle, or what is set aside. */
  readonly sort: 'cover' | 'flag' | 'receptacle' | 'quarantine';
  readonly title: string;
  readonly lines: readonly string[];
}

/** In the order of the plan; each with its function, and how it is undone. */
export function planLabels(
  { before, applied }: Pick<Played, 'before' | 'applied'>,
  facts: PlanFacts,
  panels: readonly Panel[],
  name: string,
): PlanLabel[] {
  const labels: PlanLabel[] = [];
  const numbered = (part: string) => {
    const slot = slotOf(before, panels, part);
    return slot
      ? `${slot.type} ${slot.number}`.toUpperCase()
      : (before.parts.find(({ id }) => id === part)?.name ?? part);
  };
  for (const { edit, words, undo } of applied) {
    if (edit.kind === 'tap') {
      const fuse = before.parts.find(({ id }) => id === edit.fuse);
      labels.push({
        sort: 'cover',
        title: numbered(edit.fuse),
        lines: [
          `Was: ${fuse?.name ?? edit.fuse}. Now also: ${edit.name}, ${figure(edit.addedAmps, 'A')}.`,
          `Undo: ${undo}`,
        ],
      });
    }
    if (edit.kind === 'take-out') {
      const part = before.parts.find(({ id }) => id === edit.part);
      const slotted = part?.kind === 'fuse' || part?.kind === 'relay';
      labels.push({
        sort: slotted ? 'cover' : part?.kind === 'wire' ? 'flag' : 'quarantine',
        title: slotted ? `${numbered(edit.part)}: DO NOT REFIT` : (part?.name ?? edit.part),
        lines: [slotted ? `Was: ${part?.name ?? ''}. Now: ${name}.` : words, `Undo: ${undo}`],
      });
    }
    if (edit.kind === 'cut')
      labels.push({
        sort: 'flag',
        title: before.parts.find(({ id }) => id === edit.wire)?.name ?? edit.wire,
        lines: [words, `Undo: ${undo}`],
      });
    if (edit.kind === 'move')
      labels.push({
        sort: 'flag',
        title: before.parts.find(({ id }) => id === edit.part)?.name ?? edit.part,
        lines: [words, `Undo: ${undo}`],
      });
    if (edit.kind === 'label') labels.push({ sort: 'flag', title: edit.on, lines: [edit.words] });
  }
  const { charging } = facts;
  if (charging) {
    labels.push({
      sort: 'receptacle',
      title: `${figure(charging.chargerVolts, 'V')} ${charging.battery.toUpperCase()} ONLY`,
      lines: [charging.receptacle, charging.variant],
    });
  }
  return labels;
}
