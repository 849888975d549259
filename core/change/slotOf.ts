/** The slot that a fuse or relay of a circuit sits in. */
import type { CircuitFile, Panel, Slot } from '../format';

/** Null where the map has none for it, or the boxes have not that slot. */
export function slotOf(circuit: CircuitFile, panels: readonly Panel[], fuse: string): Slot | null {
  const at = circuit.parts.find(({ id }) => id === fuse)?.slot;
  return panels.find(({ id }) => id === at?.panel)?.slots.find(({ id }) => id === at?.slot) ?? null;
}
