/** The picture of a card laid out: where everything stands, in units of which the picture is 360 wide. */
import type { CircuitPart, Panel } from '../format';
import { type SceneSlot, slotScene, type Turns } from '../panel';
import type { CardPicture, LeadEnd } from './picture';

export const PICTURE = { width: 360, height: 134 } as const;

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

interface Label {
  readonly lines: readonly string[];
  readonly anchor: 'start' | 'middle' | 'end';
  /** Of the first line's foot. */
  readonly x: number;
  readonly y: number;
  /** What it covers. */
  readonly box: Box;
}

export interface PictureShape {
  /** The square of what is held. */
  readonly instrument: Box;
  readonly range: Label;
  /** From where to where the run is drawn; null where none is. */
  readonly run: { readonly from: number; readonly to: number; readonly y: number } | null;
  readonly stations: readonly (Box & { readonly label: Label; readonly here: boolean })[];
  /** The row of the box in place of the run, where the test is done at a slot of it. */
  readonly slots: readonly SceneSlot[];
  /** The cavities of a plug in place of the run, where the test is done at one of them. */
  readonly cavities: readonly (Box & { readonly name: string; readonly here: boolean })[];
  /** What the row is of; null where a run is drawn. */
  readonly caption: Label | null;
  readonly points: readonly {
    readonly x: number;
    readonly y: number;
    readonly end: LeadEnd;
    /** From the instrument to the point. */
    readonly path: string;
    readonly label: Label;
  }[];
  /** From the instrument to the part that a hand, an eye or a clamp is at; null where leads go to points. */
  readonly pointer: string | null;
}

const RUN_Y = 66;
const STATION_HALF = 19;
const POINT = 8;
const EDGE_Y = PICTURE.height - 10;
/** Names of points stand in two rows, so that those of neighbours have room. */
const STOP_LABEL_Y = [98, 111] as const;
const LETTER = 6.7;
const LINE = 13;
const MARGIN = 40;

/** Words in at most so many lines; what does not fit ends in a point of omission. */
function wrapped(text: string, width: number, most: number): string[] {
  const letters = Math.max(4, Math.floor(width / LETTER));
  const lines: string[] = [];
  let rest = text.trim();
  while (rest !== '' && lines.length < most) {
    const last = lines.length === most - 1;
    if (rest.length <= letters) {
      lines.push(rest);
      rest = '';
    } else if (last) {
      lines.push(`${rest.slice(0, letters - 1).trimEnd()}…`);
      rest = '';
    } else {
      const space = rest.lastIndexOf(' ', letters);
      const at = space > letters / 3 ? space : letters;
      lines.push(rest.slice(0, at).trimEnd());
      rest = rest.slice(at).trimStart();
    }
  }
  return lines;
}

function label(
  text: string,
  {
    x,
    y,
    anchor,
    width,
    most,
  }: { x: number; y: number; anchor: Label['anchor']; width: number; most: number },
): Label {
  const lines = wrapped(text, width, most);
  const wide = Math.max(0, ...lines.map((line) => line.length * LETTER));
  const left = anchor === 'start' ? x : anchor === 'end' ? x - wide : x - wide / 2;
  return {
    lines,
    anchor,
    x,
    y,
    box: { x: left, y: y - LINE + 3, width: wide, height: lines.length * LINE },
  };
}

const INSTRUMENT: Box = { x: PICTURE.width / 2 - 19, y: 2, width: 38, height: 36 };

function rangeLabel(range: string): Label {
  return label(range, {
    x: INSTRUMENT.x + INSTRUMENT.width + 8,
    y: 16,
    anchor: 'start',
    width: PICTURE.width / 2 - 34,
    most: 2,
  });
}

/** A lead from the instrument to a point, or round to the edge of the picture. */
function leadPath({ x, y }: { x: number; y: number }, left: boolean, toEdge: boolean): string {
  const start = INSTRUMENT.x + INSTRUMENT.width / 2 + (left ? -12 : 12);
  const foot = INSTRUMENT.y + INSTRUMENT.height;
  return toEdge
    ? `M${start} ${foot} C${start} ${foot + 12} ${x} ${foot - 4} ${x} ${foot + 24} V${y}`
    : `M${start} ${foot} C${start} ${foot + 12} ${x} ${foot} ${x} ${y - POINT}`;
}

/** Where the row of a box stands in the picture. */
const ROW_FRAME: Box = { x: 22, y: 46, width: 300, height: 66 };

/**
 * The same at a slot of a box, as it is held: its row in place of the run. Null where a lead goes to a point of the circuit
 * that is not at the slot.
 */
export function slotShape(
  picture: CardPicture,
  at: {
    readonly panel: Panel;
    readonly slot: string;
    readonly turns: Turns;
    readonly parts: readonly CircuitPart[];
  },
): PictureShape | null {
  const scene = slotScene(at.panel, at.slot, at.turns, ROW_FRAME);
  const here = scene?.slots.find((one) => one.here);
  if (!scene || !here) return null;
  const own = at.parts.filter(({ slot }) => slot?.panel === at.panel.id && slot.slot === at.slot);
  const pinOf = (node: string) =>
    own.flatMap(({ pins }) => Object.entries(pins)).find(([, each]) => each === node)?.[0];
  const edges = picture.leads.filter(({ node }) => pinOf(node) === undefined);
  if (edges.some(({ stop }) => stop !== null) || own.length === 0) return null;
  const spots = picture.leads.map((end) => {
    const pin = pinOf(end.node);
    return pin === undefined ? null : scene.spots(pin);
  });
  const unsure = spots.some((spot) => spot !== null && !spot.sure);
  // Two leads of which nobody knows the ends would lie on one another.
  if (spots.filter((spot) => spot !== null && !spot.sure).length > 1) return null;
  const { slot } = here;
  const points = picture.leads.map((end, index) => {
    const spot = spots[index];
    const left = spot === null || spot === undefined ? edges.length > 1 && end === edges[0] : index === 0;
    const place = spot ?? { x: left ? 16 : PICTURE.width - 16, y: EDGE_Y };
    return {
      x: place.x,
      y: place.y,
      end,
      path: leadPath(place, left, !spot),
      label: spot
        ? label('', { x: place.x, y: place.y, anchor: 'middle', width: 10, most: 1 })
        : pointLabel({ ...end, stop: null }, index, place.x, left),
    };
  });
  return {
    instrument: INSTRUMENT,
    range: rangeLabel(picture.range),
    run: null,
    stations: [],
    slots: scene.slots,
    cavities: [],
    caption: label(`${slot.type} ${slot.number}${unsure ? ', either end' : ''}`, {
      x: 8,
      y: EDGE_Y + 4,
      anchor: 'start',
      width: 150,
      most: 1,
    }),
    points,
    pointer:
      picture.leads.length > 0
        ? null
        : `M${INSTRUMENT.x + INSTRUMENT.width / 2} ${INSTRUMENT.y + INSTRUMENT.height} V42 H${here.x + here.width / 2} V${here.y - 2}`,
  };
}

/** Cavities in one row of the picture, and the most rows it has room for. */
const IN_A_ROW = 10;
const MOST_ROWS = 2;
const FACES = { mating: ', mating face', wire: ', wire side' } as const;

/**
 * The same at a cavity of a plug with several: all of them by their numbers, for how they lie is not known. Null where no
 * single lead goes into such a plug.
 */
export function plugShape(picture: CardPicture, parts: readonly CircuitPart[]): PictureShape | null {
  const [inside, ...others] = picture.leads.filter(({ stop }) => stop !== null);
  if (!inside || others.length > 0) return null;
  const plugs = parts.flatMap((part) =>
    part.kind === 'connector' && part.plug !== undefined && part.cavity !== undefined ? [part] : [],
  );
  const here = plugs.find(({ pins }) => Object.values(pins).includes(inside.node));
  if (!here) return null;
  const cavities = plugs
    .filter(({ plug }) => plug === here.plug)
    .sort((one, other) => one.cavity!.localeCompare(other.cavity!, 'en', { numeric: true }));
  if (cavities.length < 2 || cavities.length > IN_A_ROW * MOST_ROWS) return null;
  const rows = Math.ceil(cavities.length / IN_A_ROW);
  const inRow = Math.ceil(cavities.length / rows);
  const size = Math.min(30, ROW_FRAME.width / inRow - 4, ROW_FRAME.height / rows - 4);
  const left = ROW_FRAME.x + (ROW_FRAME.width - inRow * (size + 4)) / 2;
  const top = ROW_FRAME.y + (ROW_FRAME.height - rows * (size + 4)) / 2;
  const boxes = cavities.map((one, index) => ({
    x: left + (index % inRow) * (size + 4),
    y: top + Math.floor(index / inRow) * (size + 4),
    width: size,
    height: size,
    name: one.cavity!,
    here: one === here,
  }));
  const spot = boxes.find((one) => one.here)!;
  const edges = picture.leads.filter(({ stop }) => stop === null);
  const points = picture.leads.map((end, index) => {
    const edge = end.stop === null;
    const side = edge ? edges.length > 1 && end === edges[0] : index === 0;
    const x = edge ? (side ? 16 : PICTURE.width - 16) : spot.x + size / 2;
    const y = edge ? EDGE_Y : spot.y + size / 2;
    return {
      x,
      y,
      end,
      path: leadPath({ x, y }, side, edge),
      label: edge
        ? pointLabel(end, index, x, side)
        : label('', { x, y, anchor: 'middle', width: 10, most: 1 }),
    };
  });
  return {
    instrument: INSTRUMENT,
    range: rangeLabel(picture.range),
    run: null,
    stations: [],
    slots: [],
    cavities: boxes,
    caption: label(`${here.plug} ${here.cavity}${here.face ? FACES[here.face] : ''}`, {
      x: 8,
      y: EDGE_Y + 4,
      anchor: 'start',
      width: 160,
      most: 1,
    }),
    points,
    pointer: null,
  };
}

export function pictureShape(picture: CardPicture): PictureShape {
  const { width } = PICTURE;
  const count = picture.stations.length;
  const step = count === 0 ? 0 : (width - 2 * MARGIN) / count;
  const xOf = (stop: number) => (count === 0 ? width / 2 : MARGIN + stop * step);
  const stations = picture.stations.map(({ name, here }, index) => {
    const x = xOf(index) + 15;
    const wide = step - 30;
    const lines = label(name, { x: x + wide / 2, y: RUN_Y, anchor: 'middle', width: wide - 6, most: 2 });
    const y = RUN_Y + 4 - ((lines.lines.length - 1) * LINE) / 2;
    return {
      x,
      y: RUN_Y - STATION_HALF,
      width: wide,
      height: 2 * STATION_HALF,
      here,
      label: { ...lines, y, box: { ...lines.box, y: y - LINE + 3 } },
    };
  });
  const edges = picture.leads.filter(({ stop }) => stop === null);
  const points = picture.leads.map((end, index) => {
    const left =
      end.stop === null ? edges.length > 1 && end === edges[0] : xOf(end.stop) <= width / 2 && index === 0;
    const x = end.stop === null ? (left ? 16 : width - 16) : xOf(end.stop);
    const y = end.stop === null ? EDGE_Y : RUN_Y;
    const path = leadPath({ x, y }, left, end.stop === null);
    return { x, y, end, path, label: pointLabel(end, index, x, left) };
  });
  const at = stations.find(({ here }) => here) ?? null;
  const middle = INSTRUMENT.x + INSTRUMENT.width / 2;
  return {
    instrument: INSTRUMENT,
    range: rangeLabel(picture.range),
    run: count === 0 ? null : { from: 8, to: width - 8, y: RUN_Y },
    stations,
    slots: [],
    cavities: [],
    caption: null,
    points,
    pointer:
      picture.leads.length > 0 || !at
        ? null
        : `M${middle} ${INSTRUMENT.y + INSTRUMENT.height} V42 H${at.x + at.width / 2} V${at.y - 2}`,
  };
}

function pointLabel(end: LeadEnd, index: number, x: number, left: boolean): Label {
  if (end.stop === null) {
    const at = left ? x + POINT + 5 : x - POINT - 5;
    return label(end.name, { x: at, y: EDGE_Y + 4, anchor: left ? 'start' : 'end', width: 150, most: 1 });
  }
  const anchor = x < 90 ? 'start' : x > PICTURE.width - 90 ? 'end' : 'middle';
  const at = anchor === 'start' ? x - 12 : anchor === 'end' ? x + 12 : x;
  return label(end.name, { x: at, y: STOP_LABEL_Y[index === 0 ? 0 : 1], anchor, width: 170, most: 1 });
}
