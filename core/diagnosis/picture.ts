/** Where the leads of a test go, as a small picture shows it: a stretch of the run, with points and what is held. */
import type { CircuitFile, CircuitPart, TestRef } from '../format';
import { kindOf } from './kinds';
import type { Sign } from './kinds/kind';
import type { Run } from './run';

interface PictureStation {
  /** Ids of the parts that it stands for; more than one where several between two points are drawn as one. */
  readonly parts: readonly string[];
  readonly name: string;
  /** The test is done at it. */
  readonly here: boolean;
}

/** Where an end of a lead goes. */
export interface LeadEnd {
  /** Null for a lead that has no plus and minus. */
  readonly pole: 'plus' | 'minus' | null;
  /** The point of the circuit. */
  readonly node: string;
  readonly name: string;
  /** Which stop of the picture it is; null for a post or earth at its edge. */
  readonly stop: number | null;
}

export interface CardPicture {
  readonly sign: Sign;
  /** "DC, to 20 V". */
  readonly range: string;
  readonly stations: readonly PictureStation[];
  /** One more than stations; null where nothing is touched there. */
  readonly stops: readonly (string | null)[];
  readonly leads: readonly LeadEnd[];
}

/** Stations that a small picture has room for, and with which their names are read at arm's length. */
const MOST_STATIONS = 3;
const READABLE = 2;
/** Ranges of common meters, volts. */
const RANGES = [20, 60, 200, 600];

const RANGE_WORDS: Readonly<Record<Exclude<Sign, 'volts' | 'lamp'>, string>> = {
  millivolts: 'DC, millivolts',
  ohms: 'ohms, lowest range',
  clamp: 'DC amperes, zeroed',
  led: 'LED tester',
  'fused-lead': 'lead with a fuse',
  eye: 'look',
  ear: 'listen and feel',
  hand: 'by hand',
};

function rangeWords(sign: Sign, nominalVolts: number): string {
  if (sign === 'lamp') return `lamp for ${nominalVolts} V`;
  if (sign !== 'volts') return RANGE_WORDS[sign];
  return `DC, to ${RANGES.find((volts) => volts >= nominalVolts * 1.25) ?? RANGES.at(-1)} V`;
}

/** A stretch of the circuit in a line: parts, and the points before, between and behind them. */
interface Stretch {
  readonly parts: readonly string[];
  readonly nodes: readonly string[];
}

/** The picture of a test; its points are those of the test, whatever of the circuit is drawn with them. */
export function cardPicture(circuit: CircuitFile, ref: TestRef, runs: readonly Run[]): CardPicture {
  const { sign, plus, minus, at } = kindOf(ref).leads(circuit, ref);
  const edges = edgesOf(circuit);
  const battery = circuit.parts.find((part) => part.id === at)?.kind === 'battery';
  const touched = [plus, minus].filter((node) => node !== undefined);
  const inner = battery ? touched : touched.filter((node) => !edges.has(node));
  const { parts, nodes } = shortened(stretchOf(circuit, runs, inner, at), inner, at);
  const nameOf = (id: string) => circuit.nodes.find((node) => node.id === id)?.name ?? id;
  const end = (node: string, pole: LeadEnd['pole']): LeadEnd => {
    const stop = inner.includes(node) ? nodes.indexOf(node) : -1;
    return { pole, node, name: nameOf(node), stop: stop < 0 ? null : stop };
  };
  const polar = sign !== 'fused-lead';
  const leads = [
    ...(plus === undefined ? [] : [end(plus, polar ? 'plus' : null)]),
    ...(minus === undefined ? [] : [end(minus, polar ? 'minus' : null)]),
    ...otherEnd(circuit, ref, end),
  ];
  return {
    sign,
    range: rangeWords(sign, circuit.nominalVolts),
    stations: parts.map((ids) => ({
      parts: ids,
      name:
        ids.length === 1
          ? (circuit.parts.find(({ id }) => id === ids[0])?.name ?? ids[0]!)
          : `${ids.length} parts`,
      here: at !== undefined && ids.includes(at),
    })),
    stops: nodes.map((node) =>
      leads.some((lead) => lead.node === node && lead.stop !== null) ? node : null,
    ),
    leads,
  };
}

/** A lead that puts plus or earth on a point has its other end on a post or on earth. */
function otherEnd(
  { parts, reference }: CircuitFile,
  ref: TestRef,
  end: (node: string, pole: LeadEnd['pole']) => LeadEnd,
): LeadEnd[] {
  if (ref.kind !== 'apply') return [];
  const battery = parts.find((part) => part.kind === 'battery');
  const node = ref.with === 'plus' ? battery?.pins.plus : reference;
  return node === undefined ? [] : [{ ...end(node, null), stop: null }];
}

/** Posts and earth: a lead that goes there goes to the edge of the picture. */
function edgesOf({ parts, reference }: CircuitFile): ReadonlySet<string> {
  const edges = new Set([reference]);
  for (const part of parts) {
    if (part.kind === 'battery') for (const node of Object.values(part.pins)) edges.add(node);
    if (part.kind === 'ground') edges.add(part.pins.body);
  }
  return edges;
}

/** The stretch of a run that holds the points, or the part; where no run has them, the parts that meet there. */
function stretchOf(
  circuit: CircuitFile,
  runs: readonly Run[],
  touched: readonly string[],
  at: string | undefined,
): Stretch {
  const run = runs.find(
    ({ stops, stations }) =>
      touched.every((node) => stops.includes(node)) &&
      (touched.length > 0 || stations.some(({ part }) => part === at)),
  );
  if (run && (touched.length > 0 || at !== undefined)) {
    return { parts: run.stations.map(({ part }) => part), nodes: run.stops };
  }
  const [one, other] = touched;
  const part = circuit.parts.find(({ id }) => id === at);
  if (one !== undefined && other !== undefined) {
    const between =
      part ?? circuit.parts.find((each) => pins(each).includes(one) && pins(each).includes(other));
    return { parts: between ? [between.id] : [], nodes: between ? [one, other] : [one, other] };
  }
  if (one !== undefined) {
    const [before, behind] = circuit.parts.filter((each) => pins(each).includes(one) && each.id !== at);
    return {
      parts: [before, behind].flatMap((each) => (each ? [each.id] : [])),
      nodes: [...(before ? [otherPin(before, one)] : []), one, ...(behind ? [otherPin(behind, one)] : [])],
    };
  }
  if (!part) return { parts: [], nodes: [] };
  const [from = '', to = ''] = pins(part);
  return { parts: [part.id], nodes: [from, to] };
}

const pins = (part: CircuitPart) => Object.values(part.pins) as string[];
const otherPin = (part: CircuitPart, node: string) => pins(part).find((one) => one !== node) ?? '';

/** As much of a stretch as there is room for: what is touched, its neighbours, and what lies between as one. */
function shortened(
  { parts, nodes }: Stretch,
  touched: readonly string[],
  at: string | undefined,
): { parts: string[][]; nodes: string[] } {
  const places = touched.map((node) => nodes.indexOf(node)).filter((place) => place >= 0);
  const own = at === undefined ? -1 : parts.indexOf(at);
  const [first, last] =
    places.length > 0 ? [Math.min(...places), Math.max(...places)] : [Math.max(0, own), Math.max(0, own) + 1];
  // Stations `first` to `last - 1` lie between the points.
  const within = parts.slice(first, last);
  const folded: string[][] =
    within.length > MOST_STATIONS
      ? [[within[0]!], within.slice(1, -1), [within.at(-1)!]]
      : within.map((part) => [part]);
  const inside =
    within.length > MOST_STATIONS ? [nodes[first + 1]!, nodes[last - 1]!] : nodes.slice(first + 1, last);
  const shown = { parts: folded, nodes: [nodes[first]!, ...inside, ...(last > first ? [nodes[last]!] : [])] };
  if (shown.nodes[0] === undefined) return { parts: [], nodes: [] };
  // Neighbours as far as there is room, on the side of the source first.
  let before = first;
  let behind = last;
  while (shown.parts.length < READABLE && (before > 0 || behind < parts.length)) {
    if (before > 0) {
      before -= 1;
      shown.parts.unshift([parts[before]!]);
      shown.nodes.unshift(nodes[before]!);
    }
    if (shown.parts.length < READABLE && behind < parts.length) {
      shown.parts.push([parts[behind]!]);
      behind += 1;
      shown.nodes.push(nodes[behind]!);
    }
  }
  return shown;
}
