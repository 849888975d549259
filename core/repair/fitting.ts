/** What was fitted, against what the map has in its place and the wires behind it. */
import { partsBehind } from '../circuit';
import {
  type ByKind,
  byKind,
  type CircuitFile,
  type CircuitPart,
  type KindOfPart,
  type RepairLine,
} from '../format';
import { type Alike, likeForLike, type PartKind } from './likeForLike';

/** Of the wires behind a fuse the thinnest, mm²; null where the size of one of them is not said: it may be thinner. */
export function thinnestBehind(circuit: CircuitFile, fuse: string): number | null {
  const sizes = partsBehind(circuit, fuse).flatMap((part) => (part.kind === 'wire' ? [part.sizeMm2] : []));
  const said = sizes.filter((size) => size !== undefined);
  return sizes.length === 0 || said.length < sizes.length ? null : Math.min(...said);
}

/** Kinds of parts that are compared. */
export const COMPARED = ['fuse', 'relay', 'lamp', 'wire', 'switch', 'connector'] as const;
export type ComparedKind = (typeof COMPARED)[number];

const known = <T extends object>(fields: T) =>
  Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined && value !== '')) as {
    [K in keyof T]?: Exclude<T[K], undefined>;
  };

function contactOf({ pins }: Extract<CircuitPart, { kind: 'relay' }>) {
  if (pins['87b']) return 'double-make' as const;
  if (pins['87'] && pins['87a']) return 'changeover' as const;
  return pins['87a'] ? ('break' as const) : ('make' as const);
}

const notCompared = () => null;

/** What belongs in the place of each kind; null where it is not compared. */
const WANTED: ByKind<KindOfPart | null, [nominalVolts: number]> = {
  battery: notCompared,
  'charging-source': notCompared,
  fuse: ({ family, ratingAmps }) => ({ kind: 'fuse', ...known({ family, ratingAmps }) }),
  'fusible-link': notCompared,
  breaker: notCompared,
  polyfuse: notCompared,
  wire: ({ sizeMm2 }) => ({ kind: 'wire', ...known({ sizeMm2 }) }),
  connector: () => ({ kind: 'connector' }),
  splice: notCompared,
  ground: notCompared,
  switch: ({ momentary }) => ({ kind: 'switch', action: momentary ? 'momentary' : 'latching' }),
  'key-contact': notCompared,
  relay: (part, coilVolts) => ({
    kind: 'relay',
    ...known({
      number: part.partNumber,
      footprint: part.footprint,
      contact: contactOf(part),
      coilVolts,
      suppression: part.suppression,
      contactAmps: part.contactRatingAmps,
    }),
  }),
  'latching-relay': notCompared,
  solenoid: notCompared,
  flasher: notCompared,
  'cut-off': notCompared,
  'module-output': notCompared,
  lamp: ({ watts }, volts) => ({ kind: 'lamp', ...known({ volts, watts }) }),
  led: notCompared,
  motor: notCompared,
  pump: notCompared,
  horn: notCompared,
  heater: notCompared,
  module: notCompared,
  resistor: notCompared,
  socket: notCompared,
  diode: notCompared,
};

/** What belongs in the place of a part, as far as the map says it; null where its kind is not compared. */
export function wantedAt(circuit: CircuitFile, id: string): KindOfPart | null {
  const part = circuit.parts.find((one) => one.id === id);
  return part ? byKind(WANTED, part, circuit.nominalVolts) : null;
}

/** What a line of a repair is against what belongs there; null where nothing was put in the place of something else. */
export function judgeLine({
  wanted,
  fitted,
  nominalVolts,
  wireMm2,
}: {
  readonly wanted?: PartKind | undefined;
  readonly fitted?: PartKind | undefined;
  readonly nominalVolts?: number | undefined;
  readonly wireMm2?: number | undefined;
}): Alike | null {
  if (!wanted || !fitted) return null;
  return likeForLike(wanted, fitted, { nominalVolts: nominalVolts ?? 12, wireMm2: wireMm2 ?? null });
}

/** Whether a line makes the repair a temporary one, whoever does it. What is not said is told, and not refused. */
export function noRepair(alike: Alike | null): boolean {
  return alike !== null && !alike.repair && alike.verdict !== 'open';
}

const of = (value: string | number | undefined, unit = '') =>
  value === undefined ? [] : [`${value}${unit}`.replace(/-/g, ' ')];

const WORDS: { readonly [K in PartKind['kind']]: (part: Extract<PartKind, { kind: K }>) => string[] } = {
  fuse: (part) => [...of(part.family), ...of(part.ratingAmps, ' A'), ...of(part.volts, ' V')],
  relay: (part) => [
    ...of(part.number),
    ...of(part.footprint),
    ...of(part.contact),
    ...of(part.coilVolts, ' V coil'),
    ...of(part.contactAmps, ' A'),
  ],
  lamp: (part) => [...of(part.volts, ' V'), ...of(part.watts, ' W'), ...of(part.base)],
  wire: (part) => [...of(part.sizeMm2, ' mm²'), ...of(part.celsius, ' °C')],
  switch: (part) => [...of(part.action), ...of(part.amps, ' A')],
  connector: (part) => [
    ...of(part.series),
    ...of(part.cavities, ' cavities'),
    ...(part.sealed === undefined ? [] : [part.sealed ? 'sealed' : 'no seal']),
  ],
};

/** What a part is, in words: "mini, 10 A". */
export function kindWords(part: PartKind): string {
  return (WORDS[part.kind] as (part: PartKind) => string[])(part).join(', ');
}

export const DEED_WORDS: Readonly<Record<RepairLine['deed'], string>> = {
  replaced: 'replaced',
  cleaned: 'cleaned',
  're-terminated': 're-terminated',
  spliced: 'spliced',
  bypassed: 'bypassed',
  adjusted: 'adjusted',
  'board-repaired': 'board repaired',
};

export const JOINT_WORDS: Readonly<Record<NonNullable<RepairLine['joint']>['method'], string>> = {
  'crimped-terminal': 'crimped terminal',
  'crimped-sleeve': 'crimped sleeve',
  soldered: 'soldered',
  'solder-sleeve': 'solder sleeve',
  screwed: 'screwed',
};

function jointWords({ method, pulled, sealed }: NonNullable<RepairLine['joint']>): string {
  const pull =
    pulled === undefined ? 'pull not tried' : pulled ? 'held when pulled' : 'did not hold when pulled';
  const seal = sealed === undefined ? 'seal not looked at' : sealed ? 'sealed' : 'not sealed';
  return `${JOINT_WORDS[method]}, ${pull}, ${seal}`;
}

/** A line of a repair in words, with what it is against the design where it is not like it. */
export function lineWords(line: RepairLine): string {
  const alike = judgeLine(line);
  const what = line.fitted ? kindWords(line.fitted) : '';
  return [
    `${line.name}: ${DEED_WORDS[line.deed]}${what ? `, ${what} fitted` : ''}`,
    ...(line.place ? [`at ${line.place}`] : []),
    ...(line.joint ? [jointWords(line.joint)] : []),
    ...(alike && alike.verdict !== 'alike' ? [alike.because.join('; ')] : []),
  ].join('; ');
}

/** A joint that does not hold, or that nobody pulled, is none. */
export function jointProblem({ joint }: Pick<RepairLine, 'joint'>): string | null {
  if (!joint || joint.pulled === true) return null;
  return joint.pulled === false
    ? 'A joint that did not hold when it was pulled is made anew before it is written down.'
    : null;
}
