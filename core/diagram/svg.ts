/** The drawn circuit for paper: black on white, no fonts needed. */
import { escapeXml } from '../format';
import { lettersAt } from './labels';
import { type Diagram, EARTH_SIGN, pathOf } from './laid';
import type { Stroke } from './symbols';

const MARGIN = 16;

function stroke(one: Stroke): string {
  if ('text' in one) {
    const anchor = one.middle ? ' text-anchor="middle"' : '';
    return `<text x="${one.x}" y="${one.y}" font-size="${one.size}"${anchor}>${escapeXml(one.text)}</text>`;
  }
  if (one.when === 'moved') return '';
  return `<path d="${one.path}" fill="${one.filled ? '#000' : 'none'}" stroke="#000" stroke-width="1.4"${one.dashed ? ' stroke-dasharray="3 2"' : ''}/>`;
}

/** Title, wires with their colours, symbols with their names; volts beside the points where they are given. */
export function diagramSvg(
  diagram: Diagram,
  title: string,
  volts: ReadonlyMap<string, string> = new Map(),
): string {
  const edges = diagram.edges.map((edge) => {
    const label = edge.label
      ? `<text x="${edge.label.x}" y="${edge.label.y + 9}" font-size="10">${escapeXml(edge.label.text)}</text>`
      : '';
    return `<path d="${pathOf(edge.points)}" fill="none" stroke="#000" stroke-width="1.4"/>${label}`;
  });
  const boxes = diagram.boxes.map(({ x, y, drawn }) => {
    if (drawn.kind === 'dot') return `<circle cx="${x + 4}" cy="${y + 4}" r="3.2"/>`;
    if (drawn.kind === 'earth') {
      return `<path transform="translate(${x} ${y})" d="${EARTH_SIGN}" fill="none" stroke="#000" stroke-width="1.4"/>`;
    }
    const { symbol, lines } = drawn;
    const at = lettersAt(symbol, lines.length);
    const letters = lines.map(
      (line, index) =>
        `<text x="${at.x}" y="${at.names[index]}" font-size="11"${index === 0 ? ' font-weight="bold"' : ''}>${escapeXml(line)}</text>`,
    );
    return `<g transform="translate(${x} ${y})">${symbol.strokes.map(stroke).join('')}${letters.join('')}</g>`;
  });
  const readings = [...volts].flatMap(([node, words]) => {
    const place = diagram.nodePlaces.get(node);
    return place
      ? [
          `<text x="${place.x + 4}" y="${place.y}" font-size="8" font-style="italic">${escapeXml(words)}</text>`,
        ]
      : [];
  });
  const width = diagram.width + 2 * MARGIN;
  const height = diagram.height + 2 * MARGIN + 14;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${-MARGIN} ${-MARGIN - 14} ${width.toFixed(1)} ${height.toFixed(1)}" font-family="sans-serif"><title>${escapeXml(title)}</title><text x="0" y="-8" font-size="12" font-weight="bold">${escapeXml(title)}</text>${edges.join('')}${boxes.join('')}${readings.join('')}</svg>\n`;
}
