/** A drawing whose places are known: what the layout gave, in the drawing's own words. */
import type { DiagramPlan, Drawn, DrawnEdge } from './graph';

/** The part of the layout's answer that is used. */
export interface LayoutAnswer {
  readonly width?: number;
  readonly height?: number;
  readonly children?: readonly { readonly id: string; readonly x?: number; readonly y?: number }[];
  readonly edges?: readonly {
    readonly id: string;
    readonly sections?: readonly {
      readonly startPoint: Point;
      readonly bendPoints?: readonly Point[];
      readonly endPoint: Point;
    }[];
    readonly labels?: readonly { readonly text?: string; readonly x?: number; readonly y?: number }[];
  }[];
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface LaidBox {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly drawn: Drawn;
}

export interface LaidEdge extends DrawnEdge {
  readonly id: string;
  readonly points: readonly Point[];
  readonly label: (Point & { readonly text: string }) | null;
}

export interface Diagram {
  readonly width: number;
  readonly height: number;
  readonly boxes: readonly LaidBox[];
  readonly edges: readonly LaidEdge[];
  /** Where the volts of a point are written: at the upper end of the first edge that touches it. */
  readonly nodePlaces: ReadonlyMap<string, Point>;
}

export function laidDiagram(plan: DiagramPlan, answer: LayoutAnswer): Diagram {
  const boxes = (answer.children ?? []).map(
    (box): LaidBox => ({ id: box.id, x: box.x ?? 0, y: box.y ?? 0, drawn: plan.drawn.get(box.id)! }),
  );
  const edges = (answer.edges ?? []).map((edge): LaidEdge => {
    const points = (edge.sections ?? []).flatMap((section) => [
      section.startPoint,
      ...(section.bendPoints ?? []),
      section.endPoint,
    ]);
    const [label] = edge.labels ?? [];
    return {
      id: edge.id,
      ...plan.edges.get(edge.id)!,
      points,
      label: label?.text ? { text: label.text, x: label.x ?? 0, y: label.y ?? 0 } : null,
    };
  });
  const nodePlaces = new Map<string, Point>();
  for (const edge of edges) {
    const [first] = edge.points;
    const last = edge.points.at(-1);
    if (first && !nodePlaces.has(edge.from)) nodePlaces.set(edge.from, { x: first.x, y: first.y + 9 });
    if (last && edge.wire && !nodePlaces.has(edge.to)) nodePlaces.set(edge.to, { x: last.x, y: last.y - 5 });
  }
  return { width: answer.width ?? 0, height: answer.height ?? 0, boxes, edges, nodePlaces };
}

export function pathOf(points: readonly Point[]): string {
  return points
    .map((point, index) => `${index === 0 ? 'M' : 'L'} ${round(point.x)} ${round(point.y)}`)
    .join(' ');
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}

/** The sign of a point that is bolted to the body. */
export const EARTH_SIGN = 'M 12 0 V 9 M 2 9 H 22 M 6 14 H 18 M 10 19 H 14';
