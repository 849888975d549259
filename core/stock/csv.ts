/**
 * The stock as CSV (RFC 4180), both ways: columns matched by their headings, every mistake by its row, and nothing taken
 * in before somebody has seen it. An item is the one of the same name and sort.
 */
import Papa from 'papaparse';
import {
  BOUNDS,
  cellText,
  csvCell,
  type KindOfPart,
  STOCK_SORTS,
  STOCK_UNITS,
  type StockItem,
} from '../format';
import { type NumberRange, readNumber } from '../quantity';
import { COMPARED, type ComparedKind, PART_FIELDS, readPart, typedOf } from '../repair';
import { type Level, type OrderLine, rounded } from './levels';

const GENERAL = ['sort', 'name', 'unit', 'minimum', 'reorder', 'count'] as const;
/** Fields of the parts that are compared, each once: "rating" of a fuse and of a switch is one column. */
const PART_COLUMNS = [
  'ratingAmps',
  'family',
  'number',
  'footprint',
  'layout',
  'contact',
  'coilVolts',
  'suppression',
  'plusPin',
  'contactAmps',
  'volts',
  'watts',
  'base',
  'sizeMm2',
  'celsius',
  'terminalMm2',
  'action',
  'amps',
  'series',
  'cavities',
  'sealed',
] as const;
export const STOCK_COLUMNS = [...GENERAL, ...PART_COLUMNS] as const;
export type StockColumn = (typeof STOCK_COLUMNS)[number];

/** Headings that people write for a column. */
const ALIASES: Readonly<Partial<Record<StockColumn, readonly string[]>>> = {
  sort: ['kind', 'type', 'group'],
  name: ['item', 'article', 'description'],
  minimum: ['min', 'least'],
  reorder: ['order', 'reorder quantity', 'pack'],
  count: ['quantity', 'qty', 'stock', 'pieces', 'there'],
  ratingAmps: ['rating', 'amps rating', 'rating a'],
  sizeMm2: ['size', 'mm2', 'mm²'],
  coilVolts: ['coil'],
  contactAmps: ['contact rating'],
};

interface StockCsvProblem {
  /** Line of the text, the heading being 1; 0 for the file as a whole. */
  readonly row: number;
  readonly column: string;
  readonly message: string;
}

interface StockCsvRow {
  readonly row: number;
  readonly item: StockItem;
  /** Null where the file has no count for it: what is there stays. */
  readonly count: number | null;
  readonly isNew: boolean;
}

export interface StockCsvPreview {
  readonly headings: readonly string[];
  readonly matched: readonly (StockColumn | null)[];
  readonly rows: readonly StockCsvRow[];
  readonly problems: readonly StockCsvProblem[];
}

const ROW_LIMIT = 2000;

function columnFor(heading: string): StockColumn | null {
  const wanted = heading.trim().toLowerCase();
  return (
    STOCK_COLUMNS.find((column) => column.toLowerCase() === wanted || ALIASES[column]?.includes(wanted)) ??
    null
  );
}

/** What two items of a stock may not share: the sort and the name, however it is written. */
export const itemKey = ({ sort, name }: Pick<StockItem, 'sort' | 'name'>) =>
  `${sort} ${name.trim().toLowerCase()}`;

const isCompared = (sort: string): sort is ComparedKind => (COMPARED as readonly string[]).includes(sort);

/**
 * What a CSV would bring in, beside the items that are known; `newId` gives an id to what is new. `override` is for
 * whoever matches the columns by hand.
 */
export function previewStockCsv(
  text: string,
  known: readonly StockItem[],
  newId: () => string,
  override?: readonly (StockColumn | null)[],
): StockCsvPreview {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    delimitersToGuess: [',', ';', '\t'],
    skipEmptyLines: 'greedy',
  });
  const [headings = [], ...lines] = data.map((row) => row.map(cellText));
  const matched = headings.map((heading, at) => (override ? (override[at] ?? null) : columnFor(heading)));
  const problems: StockCsvProblem[] = [];
  const whole = (column: string, message: string) => problems.push({ row: 0, column, message });
  if (headings.length === 0) whole('', 'There is nothing in it.');
  for (const needed of ['sort', 'name'] as const)
    if (headings.length > 0 && !matched.includes(needed)) whole(needed, `No column is the ${needed}.`);
  const twice = matched.filter((column, at) => column !== null && matched.indexOf(column) !== at);
  for (const column of new Set(twice)) whole(column!, `Two columns are the ${column}.`);
  if (lines.length > ROW_LIMIT)
    whole('', `It has ${lines.length} rows; at most ${ROW_LIMIT} are taken at once.`);
  if (problems.length > 0) return { headings, matched, rows: [], problems };
  const rows: StockCsvRow[] = [];
  const knownBy = new Map(known.map((one) => [itemKey(one), one]));
  const seen = new Set<string>();
  for (const [at, cells] of lines.entries()) {
    const row = at + 2;
    const value = (column: StockColumn) => (cells[matched.indexOf(column)] ?? '').trim();
    const report = (column: string, message: string) => problems.push({ row, column, message });
    const read = readRow({ value, report, has: (column) => matched.includes(column) }, knownBy, newId);
    if (!read) continue;
    const key = itemKey(read.item);
    if (seen.has(key)) {
      report('name', `“${read.item.name}” stands in an earlier row already.`);
      continue;
    }
    seen.add(key);
    rows.push({ row, ...read });
  }
  return { headings, matched, rows, problems };
}

interface Cells {
  readonly value: (column: StockColumn) => string;
  readonly has: (column: StockColumn) => boolean;
  readonly report: (column: string, message: string) => void;
}

function among<T extends string>(cells: Cells, column: StockColumn, allowed: readonly T[]): T | null {
  const said = cells.value(column).toLowerCase().replace(/s$/, '');
  const found = allowed.find((one) => one === said);
  if (!found) cells.report(column, `“${cells.value(column)}” is none of ${allowed.join(', ')}.`);
  return found ?? null;
}

function amount(cells: Cells, column: StockColumn, range: NumberRange): number | null {
  const read = readNumber(cells.value(column), range);
  if (!read.ok) cells.report(column, read.message);
  return read.ok ? rounded(read.value) : null;
}

/** One row; null where something of it cannot be taken, which is reported. */
function readRow(
  cells: Cells,
  known: ReadonlyMap<string, StockItem>,
  newId: () => string,
): Omit<StockCsvRow, 'row'> | null {
  let good = true;
  const wrong = () => {
    good = false;
    return null;
  };
  const name = cells.value('name');
  if (name === '') cells.report('name', 'The name is empty.');
  if (name.length > 160) cells.report('name', 'The name is longer than 160 characters.');
  if (name === '' || name.length > 160) wrong();
  const sort = among(cells, 'sort', STOCK_SORTS) ?? wrong();
  const before = sort === null ? undefined : known.get(itemKey({ sort, name }));
  const unit =
    cells.value('unit') === ''
      ? (before?.unit ?? (sort === 'wire' ? 'metre' : 'piece'))
      : (among(cells, 'unit', STOCK_UNITS) ?? wrong());
  const number = (column: 'minimum' | 'reorder', otherwise: number) =>
    cells.value(column) === '' ? otherwise : (amount(cells, column, BOUNDS.stockCount) ?? wrong());
  const minimum = number('minimum', before?.minimum ?? 0);
  const reorder = number('reorder', before?.reorder ?? 0);
  const count = cells.value('count') === '' ? null : (amount(cells, 'count', BOUNDS.stockCount) ?? wrong());
  const part = sort !== null && isCompared(sort) ? partOf(cells, sort, before?.part) : undefined;
  if (part === null) wrong();
  if (!good || sort === null || unit === null || minimum === null || reorder === null) return null;
  const item: StockItem = {
    id: before?.id ?? newId(),
    sort,
    name,
    unit,
    minimum,
    reorder,
    ...(part ? { part } : {}),
  };
  return { item, count, isNew: before === undefined };
}

/** What is compared of it: as the row says it, the rest as it was; undefined where nothing is said, null where it is wrong. */
function partOf(
  cells: Cells,
  kind: ComparedKind,
  before: KindOfPart | undefined,
): KindOfPart | undefined | null {
  const typed: Record<string, string> = before?.kind === kind ? typedOf(before) : {};
  for (const { id } of PART_FIELDS[kind]) {
    const column = id as StockColumn;
    if (cells.has(column)) typed[id] = cells.value(column);
  }
  const read = readPart(kind, typed);
  if (!read.ok) {
    cells.report(read.field, read.message);
    return null;
  }
  return Object.keys(read.value).length > 1 ? read.value : undefined;
}

const line = (cells: readonly string[]) => cells.map(csvCell).join(',');

/** All of it; the count is of all places, or of the one that is asked. */
export function stockCsv(levels: readonly Level[], place: string | null = null): string {
  const rows = levels.map(({ item, at, total }) => {
    const typed = item.part ? typedOf(item.part) : {};
    const count = place === null ? total : (at.find((one) => one.place === place)?.count ?? 0);
    const general: Record<(typeof GENERAL)[number], string> = {
      sort: item.sort,
      name: item.name,
      unit: item.unit,
      minimum: String(item.minimum),
      reorder: String(item.reorder),
      count: String(count),
    };
    return line([
      ...GENERAL.map((column) => general[column]),
      ...PART_COLUMNS.map((column) => typed[column] ?? ''),
    ]);
  });
  return `${[line(STOCK_COLUMNS), ...rows].join('\r\n')}\r\n`;
}

export function orderCsv(lines: readonly OrderLine[]): string {
  const rows = lines.map(({ item, total, order }) =>
    line([item.sort, item.name, String(total), String(item.minimum), String(order), item.unit]),
  );
  return `${[line(['sort', 'name', 'there', 'minimum', 'order', 'unit']), ...rows].join('\r\n')}\r\n`;
}
