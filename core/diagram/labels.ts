/** Where the words of a drawing stand: names beside a symbol with a line for its current below, volts behind a point. */
import type { Diagram, LaidEdge, Point } from './laid';
import { GAP, LETTER, LINE } from './letters';
import type { PartSymbol } from './symbols';

/** Height of a line of volts, and how much of it stands above its base line. */
const VOLTS_LINE = 10;
const ASCENT = 9;
/** Of "-12.34 V". */
const VOLTS_WIDTH = 8 * 5.8;

/**
 * Base lines of the letters beside a symbol, and of the one behind them for current or what is wrong. All of them stand
 * about the middle of the symbol, so that nothing hangs below it where the volts of its lower terminals are written.
 */
export function lettersAt(
  symbol: Pick<PartSymbol, 'width' | 'height'>,
  lines: number,
): { readonly x: number; readonly names: readonly number[]; readonly live: number } {
  const first = symbol.height / 2 - ((lines + 1) * LINE) / 2 + 10;
  return {
    x: symbol.width + GAP,
    names: Array.from({ length: lines }, (_, index) => first + index * LINE),
    live: first + lines * LINE,
  };
}

/**
 * Where volts are written, by the edge at whose upper end they stand: each point of the circuit once, and of the legs of
 * one joint, which lie upon each other, the first.
 */
export function voltsPlaces(
  edges: readonly LaidEdge[],
): ReadonlyMap<string, Point & { readonly node: string }> {
  const places = new Map<string, Point & { readonly node: string }>();
  const written = new Set<string>();
  for (const { id, from, points } of edges) {
    const [first] = points;
    if (!first || written.has(from)) continue;
    const at = { node: from, x: first.x + 4, y: first.y + 10 };
    const upon = [...places.values()].some(
      (other) => Math.abs(other.x - at.x) < VOLTS_WIDTH && Math.abs(other.y - at.y) < VOLTS_LINE,
    );
    if (upon) continue;
    written.add(from);
    places.set(id, at);
  }
  return places;
}

/** A line of letters as it may be written at the most, for the proof that none covers another. */
export interface Letters {
  readonly of: string;
  readonly kind: 'name' | 'live' | 'volts' | 'wire';
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const WIDEST_AMPS = '12.34 A'.length;

export function lettersOf(diagram: Diagram): Letters[] {
  const letters: Letters[] = [];
  for (const { id, x, y, drawn } of diagram.boxes) {
    if (drawn.kind !== 'part') continue;
    const at = lettersAt(drawn.symbol, drawn.lines.length);
    const line = (kind: Letters['kind'], base: number, count: number) =>
      letters.push({
        of: id,
        kind,
        x: x + at.x,
        y: y + base - ASCENT,
        width: count * LETTER,
        height: LINE - 2,
      });
    for (const [index, base] of at.names.entries()) line('name', base, drawn.lines[index]!.length);
    line('live', at.live, WIDEST_AMPS);
  }
  for (const { id, label } of diagram.edges) {
    if (!label) continue;
    const { text, x, y } = label;
    letters.push({ of: id, kind: 'wire', x, y, width: text.length * LETTER, height: VOLTS_LINE });
  }
  for (const { node, x, y } of voltsPlaces(diagram.edges).values()) {
    letters.push({ of: node, kind: 'volts', x, y: y - ASCENT, width: VOLTS_WIDTH, height: VOLTS_LINE });
  }
  return letters;
}
