/** The sentence that leads an eye to a slot, computed from where the slots are seen now. */
import type { Slot } from '../format';
import { formatNumber } from '../quantity';
import { slotRows } from './rows';
import type { SeenPanel, SeenSlot } from './turn';

/** Rows of slots as seen, top row first, each from left to right. */
export function seenRows(panel: SeenPanel): SeenSlot[][] {
  return slotRows(panel.slots, ({ slot }) => slot.type);
}

const ORDINALS = [
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
];

function ordinal(n: number): string {
  return ORDINALS[n - 1] ?? `${n}th`;
}

export interface SlotWay {
  /** Row counted from `rowsFrom`, 1 is the nearest; among the rows of the slot's own type. */
  readonly row: number;
  readonly rows: number;
  readonly rowsFrom: 'top' | 'bottom';
  /** Hole counted from `holesFrom`, empty ones included. */
  readonly hole: number;
  readonly holes: number;
  readonly holesFrom: 'left' | 'right';
  readonly emptyBefore: number;
  /** Holes before it of which nobody has said what they hold. */
  readonly unknownBefore: number;
}

/** Holes that are known to hold nothing that an eye counts. */
const EMPTY: ReadonlySet<Slot['state']> = new Set(['empty', 'not-ordered', 'missing']);

/** Where a slot lies, counted from the nearer ends. Throws when the panel has no such slot. */
export function wayToSlot(panel: SeenPanel, slotId: string): SlotWay {
  const wanted = panel.slots.find((one) => one.slot.id === slotId);
  if (!wanted) throw new Error(`${panel.panel.name} has no slot ${slotId}.`);
  const rows = seenRows(panel).filter((row) => row[0]!.slot.type === wanted.slot.type);
  const rowIndex = rows.findIndex((row) => row.some((one) => one.slot.id === slotId));
  const row = rows[rowIndex]!;
  const holeIndex = row.findIndex((one) => one.slot.id === slotId);
  const rowsFrom = rowIndex < rows.length / 2 ? 'top' : 'bottom';
  const landmarkSide =
    panel.landmarkEdge === 'right' || panel.landmarkEdge === 'left' ? panel.landmarkEdge : null;
  const holesFrom = landmarkSide ?? (holeIndex < row.length / 2 ? 'left' : 'right');
  const before = holesFrom === 'left' ? row.slice(0, holeIndex) : row.slice(holeIndex + 1);
  return {
    row: rowsFrom === 'top' ? rowIndex + 1 : rows.length - rowIndex,
    rows: rows.length,
    rowsFrom,
    hole: before.length + 1,
    holes: row.length,
    holesFrom,
    emptyBefore: before.filter(({ slot }) => EMPTY.has(slot.state)).length,
    unknownBefore: before.filter(({ slot }) => slot.state === 'unknown').length,
  };
}

/** ", counting the empty one"; a hole of which nobody has said what it holds counts all the same. */
function countingWords({ emptyBefore, unknownBefore }: SlotWay): string {
  const empty =
    emptyBefore === 0 ? [] : [emptyBefore === 1 ? 'the empty one' : `the ${emptyBefore} empty ones`];
  const unknown = unknownBefore === 0 ? [] : [`${unknownBefore} that may be empty or not`];
  const counted = [...empty, ...unknown].join(' and ');
  return counted === '' ? '' : `, counting ${counted}`;
}

/** "With the hinge to the left: second row from the top, fourth hole from the hinge, counting the empty one. …" */
export function slotSentence(panel: SeenPanel, slotId: string): string {
  const way = wayToSlot(panel, slotId);
  const wanted = panel.slots.find((one) => one.slot.id === slotId)!;
  const { slot } = wanted;
  const landmark = panel.panel.landmark.name;
  const noun = slot.type === 'relay' ? 'relay' : slot.type === 'stud' ? 'stud' : 'fuse';
  const parts: string[] = [];
  if (way.rows > 1) parts.push(`${ordinal(way.row)} ${noun} row from the ${way.rowsFrom}`);
  else parts.push(`the ${noun} row`);
  if (way.holes > 1) {
    const from = way.holesFrom === panel.landmarkEdge ? `from the ${landmark}` : `from the ${way.holesFrom}`;
    const counting = countingWords(way);
    parts.push(`${ordinal(way.hole)} hole ${from}${counting}`);
  }
  const looks = [
    slot.colour,
    slot.ratingAmps === undefined ? undefined : `${formatNumber(slot.ratingAmps)} A`,
  ]
    .filter((one) => one !== undefined)
    .join(' ');
  const label = slot.label ? `printed “${slot.label}”` : 'nothing printed';
  const direction = {
    top: 'at the top',
    bottom: 'at the bottom',
    left: 'to the left',
    right: 'to the right',
  };
  const neighbour = neighbourWords(panel, wanted);
  const view = panel.mirrored ? 'Mirrored, seen from behind. ' : '';
  return `${view}With the ${landmark} ${direction[panel.landmarkEdge]}: ${parts.join(', ')}${looks ? ` — ${looks}` : ''}, ${label}${neighbour}.`;
}

function neighbourWords(panel: SeenPanel, wanted: SeenSlot): string {
  const row = seenRows(panel).find((one) => one.includes(wanted))!;
  const index = row.indexOf(wanted);
  const beside = row[index - 1] ?? row[index + 1];
  if (!beside) return '';
  const side = beside === row[index - 1] ? 'right' : 'left';
  const { state, type, number } = beside.slot;
  const name =
    state === 'empty'
      ? `the empty hole ${number}`
      : state === 'unknown'
        ? `${type} hole ${number}`
        : `${type} ${number}`;
  return `, ${side} of ${name}`;
}
