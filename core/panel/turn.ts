/** A panel as it is being held: turned by quarter turns; mirrored only on purpose, as seen from behind. */
import type { Panel, Slot } from '../format/panelSchema';

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

export function turnEdge(edge: Edge, turns: Turns): Edge {
  return EDGES[(EDGES.indexOf(edge) + turns) % 4]!;
}

/** The turn that brings the landmark to an edge. */
export function turnsForLandmark(panel: Panel, edge: Edge): Turns {
  return ((EDGES.indexOf(edge) - EDGES.indexOf(panel.landmark.edge) + 4) % 4) as Turns;
}

function turnSlot(panel: Panel, slot: Slot, turns: Turns): SeenSlot {
  const { x, y, width, height } = slot;
  switch (turns) {
    case 0:
      return { slot, x, y, width, height };
    case 1:
      return { slot, x: panel.height - y - height, y: x, width: height, height: width };
    case 2:
      return { slot, x: panel.width - x - width, y: panel.height - y - height, width, height };
    case 3:
      return { slot, x: y, y: panel.width - x - width, width: height, height: width };
  }
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
    slots: mirrored ? turned.map((seen) => ({ ...seen, x: width - seen.x - seen.width })) : turned,
  };
}
