/** A box as a drawing for paper: as it is held, numbers and ratings in place, labels beside it. */

import { escapeXml, type Slot } from '../format';
import { formatNumber } from '../quantity';
import { seenRows } from './sentence';
import type { SeenPanel } from './turn';

function line(slot: Slot): string {
  const rating = slot.ratingAmps === undefined ? '' : ` ${formatNumber(slot.ratingAmps)} A`;
  const state = slot.state === 'fitted' ? '' : ` (${slot.state.replace('-', ' ')})`;
  return `${slot.type} ${slot.number}${rating}: ${slot.meaning ?? slot.label ?? ''}${state}`;
}

const MARGIN = 14;
const LINE_MM = 4.6;

/** The panel as SVG, one drawing unit a millimetre, with a list of all slots below; black on white, no fonts needed. */
export function panelSvg(seen: SeenPanel): string {
  const { panel, width, height } = seen;
  const list = seenRows(seen).flatMap((row) => row.map(({ slot }) => slot));
  const full = height + 2 * MARGIN + 10 + list.length * LINE_MM;
  const shapes = seen.slots.map(({ slot, x, y, width: w, height: h }) => {
    const dashed = slot.state === 'fitted' || slot.state === 'tapped' ? '' : ' stroke-dasharray="1.6 1.2"';
    const size = Math.min(6, w * 0.6);
    const number = slot.type === 'relay' ? `R${slot.number}` : slot.number;
    const rating =
      slot.ratingAmps === undefined
        ? ''
        : `<text x="${x + w / 2}" y="${y + h / 2 + size}" font-size="${(size * 0.7).toFixed(1)}" text-anchor="middle">${formatNumber(slot.ratingAmps)}A</text>`;
    return `<rect x="${x}" y="${y}" width="${w}" height="${h}" rx="1" fill="#fff" stroke="#000" stroke-width="0.6"${dashed}/><text x="${x + w / 2}" y="${y + h / 2}" font-size="${size.toFixed(1)}" font-weight="bold" text-anchor="middle">${escapeXml(number)}</text>${rating}`;
  });
  const rows = list.map(
    (slot, index) =>
      `<text x="0" y="${height + MARGIN + 8 + index * LINE_MM}" font-size="3.6">${escapeXml(line(slot))}</text>`,
  );
  const mirrored = seen.mirrored ? ', MIRRORED: seen from behind' : '';
  const title = `${panel.name}: ${panel.landmark.name} at the ${seen.landmarkEdge}${mirrored}`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${-MARGIN} ${-MARGIN} ${Math.max(width, 120) + 2 * MARGIN} ${full.toFixed(1)}" font-family="sans-serif"><title>${escapeXml(title)}</title><text x="0" y="-6" font-size="5" font-weight="bold">${escapeXml(title)}</text><rect x="-2" y="-2" width="${width + 4}" height="${height + 4}" rx="3" fill="none" stroke="#000"/>${shapes.join('')}${rows.join('')}</svg>\n`;
}
