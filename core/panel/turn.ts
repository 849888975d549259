/** A panel as it is being held: turned by quarter turns; mirrored only on purpose, as seen from behind. */
import type { Panel, Slot } from '../format';

/** Quarter turns clockwise: 0, 1, 2 or 3. */
export type Turns = 0 | 1 | 2 | 3;
export type Edge = 'top' | 'right' | 'bottom' | 'left';

const EDGES: readonly Edge[] = ['top', 'right', 'bottom', 'left'];

export interface SeenSlot {
  readonly slot: Slot;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Sockets of a relay where they are seen, by their role. */
  readonly pins: readonly { readonly role: string; readonly x: number; readonly y: number }[];
}

export interface SeenPanel {
  readonly panel: Panel;
  readonly turns: Turns;
  /** Seen from behind: left and right exchanged. */
  readonly mirrored: boolean;
  readonly width: number;
  readonly height: number;
  /** Edge at which the landmark is seen now. */
  readonly landmarkEdge: Edge;
  readonly slots: readonly SeenSlot[];
}

function turnEdge(edge: Edge, turns: Turns): Edge {
  return EDGES[(EDGES.indexOf(edge) + turns) % 4]!;
}

/** The turn that brings the landmark to an edge. */
export function turnsForLandmark(panel: Panel, edge: Edge): Turns {
  return ((EDGES.indexOf(edge) - EDGES.indexOf(panel.landmark.edge) + 4) % 4) as Turns;
}

/** A rectangle on the panel after so many quarter turns; a point is one without size. */
function turnRect(panel: Panel, rect: { x: number; y: number; width: number; height: number }, turns: Turns) {
  const { x, y, width, height } = rect;
  switch (turns) {
    case 0:
      return { x, y, width, height };
    case 1:
      return { x: panel.height - y - height, y: x, width: height, height: width };
    case 2:
      return { x: panel.width - x - width, y: panel.height - y - height, width, height };
    case 3:
      return { x: y, y: panel.width - x - width, width: height, height: width };
  }
}

function turnSlot(panel: Panel, slot: Slot, turns: Turns): SeenSlot {
  const pins = (slot.pins ?? []).map(({ role, x, y }) => {
    const at = turnRect(panel, { x: slot.x + x, y: slot.y + y, width: 0, height: 0 }, turns);
    return { role, x: at.x, y: at.y };
  });
  return { slot, ...turnRect(panel, slot, turns), pins };
}

const MIRRORED: Readonly<Record<Edge, Edge>> = { top: 'top', bottom: 'bottom', left: 'right', right: 'left' };

/**
 * Places of all slots after so many quarter turns clockwise, and then, only where it is asked for, mirrored left to
 * right; millimetres, y downwards.
 */
export function turnPanel(panel: Panel, turns: Turns, mirrored = false): SeenPanel {
  const upright = turns % 2 === 0;
  const width = upright ? panel.width : panel.height;
  const turned = panel.slots.map((slot) => turnSlot(panel, slot, turns));
  const edge = turnEdge(panel.landmark.edge, turns);
  return {
    panel,
    turns,
    mirrored,
    width,
    height: upright ? panel.height : panel.width,
    landmarkEdge: mirrored ? MIRRORED[edge] : edge,
    slots: mirrored
      ? turned.map((seen) => ({
          ...seen,
          x: width - seen.x - seen.width,
          pins: seen.pins.map((pin) => ({ ...pin, x: width - pin.x })),
        }))
      : turned,
  };
}
