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
