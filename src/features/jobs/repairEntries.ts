/** The repair as its form has it, read into entries of the log; what of it cannot be taken is named with its field. */
import {
  BOUNDS,
  type BodyOf,
  type CircuitFile,
  dueProblem,
  type EventBody,
  JOINTS,
  REPAIR_DEEDS,
  type RepairLine,
} from '#core/format';
import { readNumber } from '#core/quantity';
import {
  type Alike,
  COMPARED,
  type ComparedKind,
  jointProblem,
  judgeLine,
  noRepair,
  readPart,
  thinnestBehind,
  typedOf,
  wantedAt,
} from '#core/repair';
import { textOf } from '@/sync/useKeptForm';
import { dayOf } from '@/ui/dates';

/** One part and what was done to it, as typed. */
export interface LineWords {
  /** Of the circuit; empty where the map has it not. */
  part: string;
  name: string;
  deed: string;
  place: string;
  /** What is compared, where something was put in the place of something else; empty where nothing was. */
  kind: string;
  wanted: Record<string, string>;
  fitted: Record<string, string>;
  joint: string;
  pulled: string;
  sealed: string;
}

interface PartWords {
  name: string;
  count: string;
  /** The item of the stock; empty where it is none. */
  item?: string;
}

export interface RepairWords {
  words: string;
  parts: PartWords[];
  lines: LineWords[];
  minutes: string;
  undo: string;
  temporary: boolean;
  due: string;
  reason: string;
  /** Temporary repairs that it puts right. */
  ends: string[];
}

export const NO_LINE: LineWords = {
  part: '',
  name: '',
  deed: '',
  place: '',
  kind: '',
  wanted: {},
  fitted: {},
  joint: '',
  pulled: '',
  sealed: '',
};

type Read<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly message: string; readonly field: string };

/** A line that begins with a part of the map: what belongs there stands in it. */
export function lineOf(circuit: CircuitFile | null, part: string): Partial<LineWords> {
  const wanted = circuit ? wantedAt(circuit, part) : null;
  return {
    part,
    name: circuit?.parts.find(({ id }) => id === part)?.name ?? '',
    kind: wanted?.kind ?? '',
    wanted: wanted ? typedOf(wanted) : {},
    fitted: {},
  };
}

const isKind = (kind: string): kind is ComparedKind => (COMPARED as readonly string[]).includes(kind);
const yesOrNo = (said: string) => (said === '' ? undefined : said === 'yes');

/** What is compared of a line as far as it is typed; null where nothing is. */
export function judgedOf(line: LineWords, circuit: CircuitFile | null): Alike | null {
  const compared = comparedOf(line, circuit);
  return compared.ok ? judgeLine(compared.value) : null;
}

function comparedOf(
  line: LineWords,
  circuit: CircuitFile | null,
): Read<Pick<RepairLine, 'wanted' | 'fitted' | 'nominalVolts' | 'wireMm2'>> {
  if (line.deed !== 'replaced' || !isKind(line.kind)) return { ok: true, value: {} };
  const wanted = readPart(line.kind, line.wanted);
  if (!wanted.ok) return { ok: false, message: `What belongs there. ${wanted.message}`, field: 'wanted' };
  const fitted = readPart(line.kind, line.fitted);
  if (!fitted.ok) return { ok: false, message: `What was fitted. ${fitted.message}`, field: 'fitted' };
  if (Object.keys(fitted.value).length === 1) return { ok: true, value: {} };
  const wireMm2 = circuit && line.kind === 'fuse' ? thinnestBehind(circuit, line.part) : null;
  return {
    ok: true,
    value: {
      wanted: wanted.value,
      fitted: fitted.value,
      ...(circuit ? { nominalVolts: circuit.nominalVolts } : {}),
      ...(wireMm2 === null ? {} : { wireMm2 }),
    },
  };
}

function readLine(line: LineWords, circuit: CircuitFile | null): Read<RepairLine> {
  const name = textOf(line.name);
  if (name === '') return { ok: false, message: 'Say which part it is.', field: 'name' };
  const deed = REPAIR_DEEDS.find((one) => one === line.deed);
  if (!deed) return { ok: false, message: `${name}: say what was done to it.`, field: 'deed' };
  const compared = comparedOf(line, circuit);
  if (!compared.ok) return { ...compared, message: `${name}: ${compared.message}` };
  const method = JOINTS.find((one) => one === line.joint);
  const pulled = yesOrNo(line.pulled);
  const sealed = yesOrNo(line.sealed);
  const joint = method && {
    method,
    ...(pulled === undefined ? {} : { pulled }),
    ...(sealed === undefined ? {} : { sealed }),
  };
  const loose = joint ? jointProblem({ joint }) : null;
  if (loose) return { ok: false, message: `${name}: ${loose}`, field: 'pulled' };
  return {
    ok: true,
    value: {
      ...(line.part === '' ? {} : { part: line.part }),
      name,
      deed,
      ...(textOf(line.place) === '' ? {} : { place: textOf(line.place) }),
      ...compared.value,
      ...(joint ? { joint } : {}),
    },
  };
}

function readLines(values: RepairWords, circuit: CircuitFile | null): Read<RepairLine[]> {
  const lines: RepairLine[] = [];
  for (const [at, typed] of (values.lines ?? []).entries()) {
    const line = readLine({ ...NO_LINE, ...typed }, circuit);
    if (!line.ok) return { ...line, field: `lines.${at}.${line.field}` };
    lines.push(line.value);
  }
  return { ok: true, value: lines };
}

/** What is no repair: refused, or with a day and a reason a temporary one. */
function noRepairOf(values: RepairWords, lines: readonly RepairLine[]): Read<{ reason?: string }> {
  const wrong = lines.flatMap((line) => {
    const alike = judgeLine(line);
    return alike && noRepair(alike) ? [`${line.name}: ${alike.because.join('; ')}`] : [];
  });
  const reason = textOf(values.reason);
  if (wrong.length === 0) return { ok: true, value: values.temporary && reason !== '' ? { reason } : {} };
  const why = wrong.join('. ');
  if (!values.temporary) {
    const message = `${why}. That is no repair: say that it is temporary, until when, and why.`;
    return { ok: false, message, field: 'temporary' };
  }
  if (reason === '') return { ok: false, message: `${why}. Say why it was fitted.`, field: 'reason' };
  return { ok: true, value: { reason } };
}

function readParts(
  parts: readonly PartWords[],
  stock: { readonly place: string | null; readonly nameOf: (item: string) => string | null },
): Read<BodyOf<'repair'>['partsUsed']> {
  const used: BodyOf<'repair'>['partsUsed'] = [];
  for (const [row, part] of parts.entries()) {
    const item = textOf(part.item);
    const name = item === '' ? textOf(part.name) : (stock.nameOf(item) ?? textOf(part.name));
    if (name === '') continue;
    const count = readNumber(textOf(part.count), BOUNDS.partCount);
    if (!count.ok) {
      return { ok: false, message: `How many of “${name}”? ${count.message}`, field: `parts.${row}.count` };
    }
    if (item !== '' && stock.place === null) {
      return { ok: false, message: `Say from which place “${name}” was taken.`, field: `parts.${row}.count` };
    }
    used.push({
      name,
      count: count.value,
      ...(item !== '' && stock.place !== null
        ? { from: 'stock' as const, stock: { item, place: stock.place } }
        : {}),
    });
  }
  return { ok: true, value: used };
}

const NO_STOCK = { place: null, nameOf: () => null };

/** The repair as entries of the log, or what of it cannot be taken. */
export function entriesOf(
  values: RepairWords,
  circuit: CircuitFile | null = null,
  stock: Parameters<typeof readParts>[1] = NO_STOCK,
): { ok: true; bodies: EventBody[] } | { ok: false; message: string; field: string } {
  const words = textOf(values.words);
  if (words === '') return { ok: false, message: 'Say what was done.', field: 'words' };
  const took = textOf(values.minutes);
  const minutes = took === '' ? null : readNumber(took, BOUNDS.repairMinutes);
  if (minutes && !minutes.ok) {
    const message = `The minutes it took: ${minutes.message} They may stay empty.`;
    return { ok: false, message, field: 'minutes' };
  }
  const due = textOf(values.due);
  const lines = readLines(values, circuit);
  if (!lines.ok) return lines;
  const temporary = values.temporary === true;
  const why = noRepairOf(values, lines.value);
  if (!why.ok) return why;
  if (temporary && due === '') {
    const message = 'A temporary repair needs a day by which it is put right.';
    return { ok: false, message, field: 'due' };
  }
  const wrongDay = temporary ? dueProblem(due, dayOf(new Date())) : null;
  if (wrongDay) return { ok: false, message: wrongDay, field: 'due' };
  const partsUsed = readParts(values.parts, stock);
  if (!partsUsed.ok) return partsUsed;
  const undo = textOf(values.undo);
  const ends = values.ends ?? [];
  if (ends.length > 0 && temporary) {
    const message = 'What puts a temporary part right is not temporary itself.';
    return { ok: false, message, field: 'temporary' };
  }
  const repair: EventBody = {
    kind: 'repair',
    words,
    partsUsed: partsUsed.value,
    ...(lines.value.length === 0 ? {} : { lines: lines.value }),
    ...(minutes ? { minutes: minutes.value } : {}),
    temporary,
    ...(temporary ? { due } : {}),
    ...(undo === '' ? {} : { undo }),
    ...why.value,
    ...(ends.length === 0 ? {} : { ends: [...ends] }),
  };
  return { ok: true, bodies: [repair] };
}
