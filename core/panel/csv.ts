/**
 * Slots of a box as CSV (RFC 4180): columns matched by their headings, every problem by its row, and nothing taken
 * in before somebody has seen it.
 */
import { cellText, csvCell, type Slot } from '../format';
import { familySize, SLOT_FAMILIES, SLOT_FEEDS, SLOT_STATES, SLOT_TYPES } from '../limits';

export const CSV_COLUMNS = [
  'type',
  'number',
  'label',
  'meaning',
  'rating',
  'family',
  'colour',
  'state',
  'feed',
  'functions',
  'synonyms',
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
  colour: ['color'],
  functions: ['serves', 'function', 'feeds'],
  synonyms: ['also called', 'aliases'],
};

export interface CsvProblem {
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

/** Splits CSV into rows of fields; comma, semicolon or tab, whichever the heading uses most. */
export function csvRows(text: string): string[][] {
  const firstLine = text.slice(0, text.search(/\r|\n|$/));
  const separator = [',', ';', '\t']
    .map((one) => ({ one, count: firstLine.split(one).length }))
    .sort((x, y) => y.count - x.count)[0]!.one;
  const rows: string[][] = [];
  let row: string[] = [];
  let field = '';
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const char = text[i]!;
    if (quoted) {
      if (char === '"' && text[i + 1] === '"') {
        field += '"';
        i += 1;
      } else if (char === '"') quoted = false;
      else field += char;
    } else if (char === '"' && field.trim() === '') {
      quoted = true;
      field = '';
    } else if (char === separator) {
      row.push(field);
      field = '';
    } else if (char === '\n' || char === '\r') {
      if (char === '\r' && text[i + 1] === '\n') i += 1;
      row.push(field);
      rows.push(row);
      row = [];
      field = '';
    } else field += char;
  }
  row.push(field);
  rows.push(row);
  return rows.filter((one) => one.some((value) => value.trim() !== '')).map((one) => one.map(cellText));
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

/** What a CSV would bring into a box, and everything that is wrong with it. `matched` overrides the guess. */
export function previewCsv(text: string, override: readonly (CsvColumn | null)[] | null = null): CsvPreview {
  const [headings = [], ...lines] = csvRows(text);
  const matched = override ?? headings.map(columnFor);
  const problems: CsvProblem[] = [];
  const report = (row: number, column: string, message: string) => problems.push({ row, column, message });
  const at = (column: CsvColumn) => matched.indexOf(column);
  if (at('number') < 0) {
    report(0, 'number', 'No column is the number of the slot. Choose which one it is.');
    return { headings, matched, slots: [], problems, rows: lines.length };
  }
  if (lines.length > ROW_LIMIT) {
    report(0, '', `${lines.length} rows are more than the ${ROW_LIMIT} that are read.`);
    return { headings, matched, slots: [], problems, rows: lines.length };
  }
  const seen = new Map<string, number>();
  const slots: { row: number; slot: Slot }[] = [];
  lines.forEach((fields, index) => {
    const row = index + 2;
    const before = problems.length;
    const value = (column: CsvColumn) => (at(column) < 0 ? '' : (fields[at(column)] ?? '').trim());
    if (fields.length > headings.length) {
      report(
        row,
        '',
        `${fields.length} fields where the heading has ${headings.length}: a separator too many?`,
      );
    }
    const among = <T extends string>(column: CsvColumn, allowed: readonly T[], otherwise: T): T => {
      const written = value(column)
        .toLowerCase()
        .replace(/[\s_]+/g, '-');
      if (written === '') return otherwise;
      const found = allowed.find((one) => one === written);
      if (!found) report(row, column, `“${value(column)}” is none of ${allowed.join(', ')}.`);
      return found ?? otherwise;
    };
    const number = value('number');
    if (number === '') report(row, 'number', 'The number of the slot is missing.');
    else if (number.length > 12) report(row, 'number', `“${number}” is too long for a slot number.`);
    const type = among('type', SLOT_TYPES, 'fuse');
    const family = among(
      'family',
      SLOT_FAMILIES,
      type === 'relay' ? 'relay-micro' : type === 'stud' ? 'stud' : 'mini',
    );
    const state = among('state', SLOT_STATES, 'unknown');
    const feed = value('feed') === '' ? undefined : among('feed', SLOT_FEEDS, 'unknown');
    const size = (column: CsvColumn, least: number, most: number) => {
      if (value(column) === '') return null;
      const found = numberIn(value(column));
      if (found === null || found < least || found > most) {
        report(row, column, `“${value(column)}” is not a number between ${least} and ${most}.`);
        return null;
      }
      return found;
    };
    const rating = size('rating', 0.1, 1000);
    const [long, short] = familySize(family);
    const x = size('x', 0, 2000);
    const y = size('y', 0, 2000);
    const width = size('width', 0.5, 500) ?? short;
    const height = size('height', 0.5, 500) ?? long;
    const key = `${type} ${number}`;
    const earlier = seen.get(key);
    if (number !== '' && earlier !== undefined) {
      report(row, 'number', `${key} stood in row ${earlier} already.`);
    }
    seen.set(key, earlier ?? row);
    for (const column of ['label', 'meaning'] as const) {
      const limit = column === 'label' ? 80 : 200;
      if (value(column).length > limit)
        report(row, column, `The ${column} is longer than ${limit} characters.`);
    }
    if (problems.length > before) return;
    const list = (column: CsvColumn) =>
      value(column)
        .split(/[|/]/)
        .map((one) => one.trim())
        .filter((one) => one !== '');
    const many = slots.length;
    slots.push({
      row,
      slot: {
        id: `${type}-${number.toLowerCase().replace(/[^a-z0-9]+/g, '-')}`,
        type,
        number,
        label: value('label'),
        ...(value('meaning') ? { meaning: value('meaning') } : {}),
        ...(list('synonyms').length > 0 ? { synonyms: list('synonyms') } : {}),
        family,
        ...(rating === null ? {} : { ratingAmps: rating }),
        ...(value('colour') ? { colour: value('colour').toLowerCase() } : {}),
        state,
        ...(feed ? { feed } : {}),
        ...(list('functions').length > 0 ? { functions: list('functions') } : {}),
        // Where no place is given the slots stand in rows of ten until somebody moves them.
        x: x ?? 6 + (many % 10) * 14,
        y: y ?? 6 + Math.floor(many / 10) * 24,
        width,
        height,
      },
    });
  });
  return { headings, matched, slots, problems, rows: lines.length };
}

/** The slots of a box as CSV, every column; what `previewCsv` reads back is the same. */
export function slotsToCsv(slots: readonly Slot[]): string {
  const row = (slot: Slot) =>
    [
      slot.type,
      slot.number,
      slot.label,
      slot.meaning ?? '',
      slot.ratingAmps === undefined ? '' : String(slot.ratingAmps),
      slot.family,
      slot.colour ?? '',
      slot.state,
      slot.feed ?? '',
      (slot.functions ?? []).join(' | '),
      (slot.synonyms ?? []).join(' | '),
      String(slot.x),
      String(slot.y),
      String(slot.width),
      String(slot.height),
    ]
      .map(csvCell)
      .join(',');
  return [CSV_COLUMNS.join(','), ...slots.map(row)].join('\r\n');
}
