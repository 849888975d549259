/** The slots of a vehicle in which a part of a circuit may sit. */
import type { CircuitPart, Panel } from '../format';

type PartSlot = NonNullable<CircuitPart['slot']>;

export interface SlotChoice {
  readonly id: string;
  /** "Cab box, fuse 31". */
  readonly name: string;
  readonly slot: PartSlot;
}

/** The slot of a part as the id of its choice; empty where none is known. */
export function slotKey(slot: PartSlot | undefined): string {
  return slot ? `${slot.panel}/${slot.slot}` : '';
}

/** Slots for a fuse or for a relay; none for any other kind. */
export function slotChoices(panels: readonly Panel[], kind: CircuitPart['kind']): SlotChoice[] {
  if (kind !== 'fuse' && kind !== 'relay') return [];
  return panels.flatMap((panel) =>
    panel.slots
      .filter(({ type }) => type === kind)
      .map(({ id, type, number }) => {
        const slot = { panel: panel.id, slot: id };
        return { id: slotKey(slot), name: `${panel.name}, ${type} ${number}`, slot };
      }),
  );
}

/** A fuse or relay of the vehicle's circuits, as it may sit in a slot. */
export interface Occupant {
  readonly id: string;
  readonly name: string;
  readonly kind: CircuitPart['kind'];
  readonly slot?: PartSlot | undefined;
}

/** What may sit in a slot of a box: parts of its kind, those that sit nowhere yet first; `here` is the one that does. */
export function occupantsOf(
  parts: readonly Occupant[],
  panel: Pick<Panel, 'id'>,
  { id, type }: Pick<Panel['slots'][number], 'id' | 'type'>,
): { readonly here: Occupant | null; readonly choices: readonly Occupant[] } {
  const once = [...new Map(parts.map((part) => [part.id, part])).values()];
  const choices = once
    .filter(({ kind }) => kind === type)
    .sort((one, other) => Number(one.slot !== undefined) - Number(other.slot !== undefined));
  const key = slotKey({ panel: panel.id, slot: id });
  return { here: choices.find(({ slot }) => slotKey(slot) === key) ?? null, choices };
}
