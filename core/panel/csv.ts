/**
 * Slots of a box as CSV (RFC 4180): columns matched by their headings, every problem by its row, and nothing taken in
 * before somebody has seen what it would change. A slot is the one of the same type and number; what the file has no
 * column for stays as it was.
 */
import Papa from 'papaparse';
import { cellText, csvCell, fieldWords, type Slot } from '../format';
import { familySize, SLOT_FAMILIES, SLOT_FEEDS, SLOT_STATES, SLOT_TYPES } from '../limits';
import { stateProblem, wantsProof } from './slotStates';

export const CSV_COLUMNS = [
  'type',
  'number',
  'label',
  'meaning',
  'rating',
  'second rating',
  'wire limit',
  'family',
  'colour',
  'state',
  'evidence',
  'feed',
  'functions',
  'synonyms',
  'found rating',
  'found family',
  'found colour',
  'source',
  'confirmed',
  'confidence',
  'applies',
  'x',
  'y',
  'width',
  'height',
] as const;
export type CsvColumn = (typeof CSV_COLUMNS)[number];

/** Headings that people write for a column. */
const ALIASES: Readonly<Partial<Record<CsvColumn, readonly string[]>>> = {
  type: ['kind'],
  number: ['no', 'nr', 'num', '#', 'slot', 'position', 'pos'],
  label: ['printed', 'print', 'lid', 'abbreviation'],
  meaning: ['description', 'text', 'circuit', 'name'],
  rating: ['amps', 'ampere', 'a', 'size', 'rating a'],
  'wire limit': ['wire', 'limit of its wire'],
  colour: ['color'],
  evidence: ['how it is known', 'proof'],
  functions: ['serves', 'function', 'feeds'],
  synonyms: ['also called', 'aliases'],
  'found colour': ['found color'],
  applies: ['applies to', 'build'],
};

const SOURCES = ['lid', 'manual', 'measured', 'sibling-vehicle'] as const;
const CONFIDENCES = ['sure', 'likely', 'doubtful'] as const;
const YES_NO = ['yes', 'no'] as const;

interface CsvProblem {
  /** Line of the text, the heading being 1; 0 for the file as a whole. */
  readonly row: number;
  readonly column: string;
  readonly message: string;
}

export interface CsvPreview {
  readonly headings: readonly string[];
  /** Which column each heading stands for; null where none fits. */
  readonly matched: readonly (CsvColumn | null)[];
  readonly slots: readonly { readonly row: number; readonly slot: Slot }[];
  readonly problems: readonly CsvProblem[];
  readonly rows: number;
}

/** Most rows that are read. */
const ROW_LIMIT = 2000;

/** CSV as rows of fields; comma, semicolon or tab, whichever the text uses. */
export function csvRows(text: string): string[][] {
  const { data } = Papa.parse<string[]>(text, {
    delimitersToGuess: [',', ';', '\t'],
    skipEmptyLines: 'greedy',
  });
  return data.map((row) => row.map(cellText));
}

function columnFor(heading: string): CsvColumn | null {
  const wanted = heading.trim().toLowerCase();
  return CSV_COLUMNS.find((column) => column === wanted || ALIASES[column]?.includes(wanted)) ?? null;
}

/** A number as people write it, a comma being a decimal sign; null where it is none. */
function numberIn(text: string): number | null {
  const match = /^(\d+(?:[.,]\d+)?)\s*(?:a|amp|amps|mm)?$/i.exec(text.trim());
  return match ? Number(match[1]!.replace(',', '.')) : null;
}

const keyOf = ({ type, number }: Pick<Slot, 'type' | 'number'>) => `${type} ${number}`;

/** One row while it is read: its cells by column, and where its problems go. */
interface Row {
  has(column: CsvColumn): boolean;
  /** Trimmed; empty where there is no such column. */
  value(column: CsvColumn): string;
  report(column: string, message: string): void;
}

/** One of the allowed words, however it is written; undefined where the cell is empty or says something else. */
function among<T extends string>(row: Row, column: CsvColumn, allowed: readonly T[]): T | undefined {
  const said = row.value(column);
  if (said === '') return undefined;
  const written = said.toLowerCase().replace(/[\s_]+/g, '-');
  const found = allowed.find((one) => one === written);
  if (!found) row.report(column, `“${said}” is none of ${allowed.join(', ')}.`);
  return found;
}

function size(row: Row, column: CsvColumn, least: number, most: number): number | undefined {
  const said = row.value(column);
  if (said === '') return undefined;
  const found = numberIn(said);
  if (found === null || found < least || found > most) {
    row.report(column, `“${said}” is not a number between ${least} and ${most}.`);
    return undefined;
  }
  return found;
}

function words(row: Row, column: CsvColumn, most: number): string | undefined {
  const said = row.value(column);
  if (said.length > most) row.report(column, `The ${column} is longer than ${most} characters.`);
  return said === '' ? undefined : said;
}

/** Several in one cell, between upright strokes; a stroke that belongs to a word has a backslash before it. */
function list(row: Row, column: CsvColumn): string[] | undefined {
  const all = row
    .value(column)
    .split(/(?<!\\)\|/)
    .map((one) => one.replace(/\\\|/g, '|').trim())
    .filter((one) => one !== '');
  return all.length > 0 ? all : undefined;
}

/** What a row says of the fields of a slot that the file has columns for: undefined for what it leaves empty. */
function saidOf(row: Row): Partial<Record<keyof Slot, unknown>> {
  const said: Partial<Record<keyof Slot, unknown>> = {};
  const take = (column: CsvColumn, field: keyof Slot, read: () => unknown) => {
    if (row.has(column)) said[field] = read();
  };
  take('label', 'label', () => words(row, 'label', 80) ?? '');
  take('meaning', 'meaning', () => words(row, 'meaning', 200));
  take('rating', 'ratingAmps', () => size(row, 'rating', 0.1, 1000));
  take('second rating', 'secondRatingAmps', () => size(row, 'second rating', 0.1, 1000));
  take('wire limit', 'wireLimitAmps', () => size(row, 'wire limit', 0.1, 1000));
  take('family', 'family', () => among(row, 'family', SLOT_FAMILIES));
  take('colour', 'colour', () => words(row, 'colour', 30)?.toLowerCase());
  take('state', 'state', () => among(row, 'state', SLOT_STATES));
  take('evidence', 'stateEvidence', () => words(row, 'evidence', 200));
  take('feed', 'feed', () => among(row, 'feed', SLOT_FEEDS));
  take('functions', 'functions', () => list(row, 'functions'));
  take('synonyms', 'synonyms', () => list(row, 'synonyms'));
  take('source', 'source', () => among(row, 'source', SOURCES));
  take('confidence', 'confidence', () => among(row, 'confidence', CONFIDENCES));
  take('applies', 'applies', () => words(row, 'applies', 120));
  take('confirmed', 'confirmed', () => {
    const yes = among(row, 'confirmed', YES_NO);
    return yes === undefined ? undefined : yes === 'yes';
  });
  for (const side of ['x', 'y'] as const) take(side, side, () => size(row, side, 0, 2000));
  for (const side of ['width', 'height'] as const) take(side, side, () => size(row, side, 0.5, 500));
  return said;
}

/** What was found in the slot, where the file has a column for any of it. */
function foundOf(row: Row, before: Slot['found']): Slot['found'] {
  const found = {
    ratingAmps: row.has('found rating') ? size(row, 'found rating', 0.1, 1000) : before?.ratingAmps,
    family: row.has('found family') ? among(row, 'found family', SLOT_FAMILIES) : before?.family,
    colour: row.has('found colour') ? words(row, 'found colour', 30)?.toLowerCase() : before?.colour,
  };
  const said = Object.entries(found).filter(([, value]) => value !== undefined);
  return said.length > 0 ? Object.fromEntries(said) : undefined;
}

/** A slot that nobody has drawn yet; where no place is given they stand in rows of ten until somebody moves them. */
function blank(type: Slot['type'], number: string, many: number, family: Slot['family'], id: string): Slot {
  const [across, along] = familySize(family);
  return {
    id,
    type,
    number,
    label: '',
    family,
    state: 'unknown',
    x: 6 + (many % 10) * 14,
    y: 6 + Math.floor(many / 10) * 24,
    width: along,
    height: across,
  };
}

/** An id for a slot that is new, told apart from those that are there: "1/2" and "1-2" are two slots. */
function freeId(type: Slot['type'], number: string, taken: ReadonlySet<string>): string {
  const plain = `${type}-${number.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`.replace(/-$/, '');
  let id = plain;
  for (let more = 2; taken.has(id); more++) id = `${plain}.${more}`;
  return id;
}

/** Fields that every slot has: an empty cell leaves them as they were. */
const ALWAYS: readonly (keyof Slot)[] = ['label', 'family', 'state', 'x', 'y', 'width', 'height'];

function withSaid(before: Slot, said: Partial<Record<keyof Slot, unknown>>): Slot {
  const now: Record<string, unknown> = { ...before };
  for (const [field, value] of Object.entries(said)) {
    if (value !== undefined) now[field] = value;
    else if (!ALWAYS.includes(field as keyof Slot)) delete now[field];
  }
  return now as unknown as Slot;
}

/**
 * What a CSV would bring into a box that has some slots already, and everything that is wrong with it. `override` is
 * for whoever matches the columns by hand.
 */
export function previewCsv(
  text: string,
  override: readonly (CsvColumn | null)[] | null = null,
  before: readonly Slot[] = [],
): CsvPreview {
  const [headings = [], ...lines] = csvRows(text);
  const matched = override ?? headings.map(columnFor);
  const problems: CsvProblem[] = [];
  const nothing = (message: string, column = '') => ({
    headings,
    matched,
    slots: [],
    problems: [{ row: 0, column, message }],
    rows: lines.length,
  });
  const at = (column: CsvColumn) => matched.indexOf(column);
  if (at('number') < 0) {
    return nothing('No column is the number of the slot. Choose which one it is.', 'number');
  }
  if (lines.length > ROW_LIMIT) {
    return nothing(`${lines.length} rows are more than the ${ROW_LIMIT} that are read.`);
  }
  const known = new Map(before.map((slot) => [keyOf(slot), slot]));
  const taken = new Set(before.map((slot) => slot.id));
  const seen = new Map<string, number>();
  const slots: { row: number; slot: Slot }[] = [];
  lines.forEach((fields, index) => {
    const line = index + 2;
    const earlierProblems = problems.length;
    const row: Row = {
      has: (column) => at(column) >= 0,
      value: (column) => (fields[at(column)] ?? '').trim(),
      report: (column, message) => problems.push({ row: line, column, message }),
    };
    if (fields.length > headings.length) {
      row.report(
        '',
        `${fields.length} fields where the heading has ${headings.length}: a separator too many?`,
      );
    }
    const number = row.value('number');
    if (number === '') row.report('number', 'The number of the slot is missing.');
    else if (number.length > 12) row.report('number', `“${number}” is too long for a slot number.`);
    const type = among(row, 'type', SLOT_TYPES) ?? 'fuse';
    const said = saidOf(row);
    const key = keyOf({ type, number });
    const earlier = seen.get(key);
    if (number !== '' && earlier !== undefined) {
      row.report('number', `${key} stood in row ${earlier} already.`);
    }
    seen.set(key, earlier ?? line);
    const usual = type === 'relay' ? 'relay-micro' : type === 'stud' ? 'stud' : 'mini';
    const family = (said.family as Slot['family'] | undefined) ?? usual;
    const old = known.get(key) ?? blank(type, number, slots.length, family, freeId(type, number, taken));
    const found = foundOf(row, old.found);
    const slot = withSaid(old, { ...said, found });
    const claims = slot.state !== old.state && wantsProof(slot.state);
    const unproved = claims ? stateProblem(slot.state, slot.stateEvidence ?? '') : null;
    if (unproved) row.report('evidence', unproved);
    if (problems.length > earlierProblems) return;
    taken.add(slot.id);
    slots.push({ row: line, slot });
  });
  return { headings, matched, slots, problems, rows: lines.length };
}

export interface CsvChanges {
  readonly added: readonly Slot[];
  /** Slots that are there and become otherwise, with what of them, in words. */
  readonly changed: readonly { readonly slot: Slot; readonly fields: readonly string[] }[];
  readonly same: number;
  /** Slots that are there and that the file does not name. */
  readonly unnamed: readonly Slot[];
}

/** What taking some rows would change in a box. */
export function csvChanges(before: readonly Slot[], rows: CsvPreview['slots']): CsvChanges {
  const known = new Map(before.map((slot) => [slot.id, slot]));
  const named = new Set(rows.map(({ slot }) => slot.id));
  const differing = (slot: Slot) => {
    const old = known.get(slot.id) as Partial<Record<string, unknown>> | undefined;
    const fields = [...new Set([...Object.keys(old ?? {}), ...Object.keys(slot)])];
    const now = slot as unknown as Record<string, unknown>;
    return fields.filter((field) => JSON.stringify(old?.[field]) !== JSON.stringify(now[field]));
  };
  const there = rows.filter(({ slot }) => known.has(slot.id));
  const changed = there
    .map(({ slot }) => ({ slot, fields: differing(slot).map(fieldWords) }))
    .filter((one) => one.fields.length > 0);
  return {
    added: rows.map(({ slot }) => slot).filter((slot) => !known.has(slot.id)),
    changed,
    same: there.length - changed.length,
    unnamed: before.filter((slot) => !named.has(slot.id)),
  };
}

const listed = (all: readonly string[] | undefined) =>
  (all ?? []).map((one) => one.replace(/\|/g, '\\|')).join(' | ');
const spelled = (value: number | undefined) => (value === undefined ? '' : String(value));

/** What stands in a column for a slot. */
const CELLS: Readonly<Record<CsvColumn, (slot: Slot) => string>> = {
  type: (slot) => slot.type,
  number: (slot) => slot.number,
  label: (slot) => slot.label,
  meaning: (slot) => slot.meaning ?? '',
  rating: (slot) => spelled(slot.ratingAmps),
  'second rating': (slot) => spelled(slot.secondRatingAmps),
  'wire limit': (slot) => spelled(slot.wireLimitAmps),
  family: (slot) => slot.family,
  colour: (slot) => slot.colour ?? '',
  state: (slot) => slot.state,
  evidence: (slot) => slot.stateEvidence ?? '',
  feed: (slot) => slot.feed ?? '',
  functions: (slot) => listed(slot.functions),
  synonyms: (slot) => listed(slot.synonyms),
  'found rating': (slot) => spelled(slot.found?.ratingAmps),
  'found family': (slot) => slot.found?.family ?? '',
  'found colour': (slot) => slot.found?.colour ?? '',
  source: (slot) => slot.source ?? '',
  confirmed: (slot) => (slot.confirmed === undefined ? '' : slot.confirmed ? 'yes' : 'no'),
  confidence: (slot) => slot.confidence ?? '',
  applies: (slot) => slot.applies ?? '',
  x: (slot) => String(slot.x),
  y: (slot) => String(slot.y),
  width: (slot) => String(slot.width),
  height: (slot) => String(slot.height),
};

/** The slots of a box as CSV, every column. What has no column, pins and disputes, stays with the slot when it is read back. */
export function slotsToCsv(slots: readonly Slot[]): string {
  const rows = slots.map((slot) => CSV_COLUMNS.map((column) => csvCell(CELLS[column](slot))).join(','));
  return [CSV_COLUMNS.join(','), ...rows].join('\r\n');
}
