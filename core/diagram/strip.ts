/** A run as a small picture: its parts lying in a row, from the source on the left to earth on the right. */
import type { CircuitFile } from '../format';
import { type Stroke, symbolOf } from './symbols';

interface StripPart {
  readonly part: string;
  /** SVG transform of the strokes. */
  readonly transform: string;
  readonly paths: readonly Exclude<Stroke, { text: string }>[];
  /** Letters of the symbol, standing upright. */
  readonly letters: readonly { readonly text: string; readonly x: number; readonly y: number }[];
}

export interface Strip {
  readonly width: number;
  /** The line of the run is at zero. */
  readonly top: number;
  readonly bottom: number;
  readonly parts: readonly StripPart[];
}

/** Kinds that are seen as the line itself. */
const LINE_ONLY: readonly string[] = ['wire', 'splice'];
const SPACE = 8;

/** `stops[i]` is the point before `parts[i]`, as in a run; points of the drawing. */
export function runStrip(
  circuit: CircuitFile,
  run: { readonly stops: readonly string[]; readonly parts: readonly string[] },
): Strip {
  const drawn: StripPart[] = [];
  let x = 0;
  let top = -12;
  let bottom = 12;
  for (const [index, id] of run.parts.entries()) {
    const part = circuit.parts.find((one) => one.id === id);
    if (!part || LINE_ONLY.includes(part.kind)) continue;
    const { width, height, terminals, strokes } = symbolOf(part);
    const pins = part.pins as Readonly<Record<string, string>>;
    const enter =
      terminals.find((one) => pins[one.pin] === run.stops[index]) ??
      terminals.find((one) => pins[one.pin] === run.stops[index + 1]) ??
      terminals[0];
    const level = enter?.x ?? width / 2;
    // Lying on its left side with its upper end ahead, or on its right side where it is entered from below.
    const upper = enter?.side !== 'SOUTH';
    const at = (px: number, py: number) =>
      upper ? { x: x + py, y: level - px } : { x: x + height - py, y: px - level };
    const [one, other] = [at(0, 0), at(width, height)];
    top = Math.min(top, one.y, other.y);
    bottom = Math.max(bottom, one.y, other.y);
    drawn.push({
      part: id,
      transform: upper
        ? `translate(${x} ${level}) rotate(-90)`
        : `translate(${x + height} ${-level}) rotate(90)`,
      paths: strokes.flatMap((stroke) => ('text' in stroke ? [] : [stroke])),
      letters: strokes.flatMap((stroke) =>
        'text' in stroke ? [{ text: stroke.text, ...at(stroke.x, stroke.y - stroke.size * 0.35) }] : [],
      ),
    });
    x += height + SPACE;
  }
  return { width: Math.max(0, x - SPACE), top, bottom, parts: drawn };
}
