/** What is wrong with an input, where, in words. */
import { DAY_PATTERN, INSTANT_PATTERN } from './calendar';
import type { CompiledError, CompiledValidator } from './generated/compiled';
import { STORABLE_PATTERN } from './storable';

export interface Problem {
  readonly code: string;
  /** JSON path with ids where there are any: "/parts/F31/pins/out". */
  readonly path: string;
  readonly message: string;
}

/** Largest file that is read at all, bytes. */
export const FILE_LIMIT_BYTES = 4 * 1024 * 1024;
/** As many problems as anyone wants to read at once. */
export const PROBLEM_LIMIT = 200;
/** Most values (objects, lists, texts, numbers) that one file may hold. */
export const VALUE_LIMIT = 400_000;

export type Checked<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** Reads JSON text of a limited size; says line and column of the first mistake. */
export function readJson(text: string, limit = FILE_LIMIT_BYTES): Checked<unknown> {
  if (text.length > limit) {
    return fail(
      'too-large',
      '',
      `The file has ${(text.length / 1024 / 1024).toFixed(1)} MB; at most ${limit / 1024 / 1024} MB are read.`,
    );
  }
  try {
    const value = JSON.parse(text) as unknown;
    if (!holdsTooMany(value)) return { ok: true, value };
    return fail(
      'too-large',
      '',
      `The file holds more than ${VALUE_LIMIT} values; no circuit and no box has so many.`,
    );
  } catch (error) {
    const said = error instanceof Error ? error.message : '';
    const position = Number(/position (\d+)/.exec(said)?.[1] ?? Number.NaN);
    if (Number.isNaN(position)) {
      return fail('not-json', '', 'The file is not JSON: it ends too early or holds something else.');
    }
    const before = text.slice(0, position);
    const line = before.split('\n').length;
    const column = position - before.lastIndexOf('\n');
    return fail(
      'not-json',
      '',
      `The file is not JSON: line ${line}, column ${column} cannot be read. A comma, quote or bracket before it may be missing.`,
    );
  }
}

export function fail(code: string, path: string, message: string): { ok: false; problems: Problem[] } {
  return { ok: false, problems: [{ code, path, message }] };
}

/** Runs a compiled validator and puts what it found into words, with ids in place of list positions. */
export function validateWith<T>(validate: CompiledValidator, data: unknown): Checked<T> {
  if (validate(data)) return { ok: true, value: data as T };
  const problems = new ProblemList();
  const seen = new Set<string>();
  for (const error of validate.errors ?? []) {
    if (problems.isFull) {
      problems.count();
      continue;
    }
    const path = namedPath(data, error.instancePath);
    const message = errorWords(error);
    const key = `${path} ${message}`;
    if (seen.has(key)) continue;
    seen.add(key);
    problems.add(`schema-${error.keyword}`, path, message);
  }
  return { ok: false, problems: problems.all };
}

/** Problems as they are found: the first of them with their words, of the rest how many there are. */
export class ProblemList {
  private readonly kept: Problem[] = [];
  private more = 0;

  /** A message that takes work to write is given as what writes it. */
  add(code: string, path: string, message: string | (() => string)): void {
    if (this.isFull) this.more += 1;
    else this.kept.push({ code, path, message: typeof message === 'string' ? message : message() });
  }

  /** One more that nobody would read. */
  count(): void {
    this.more += 1;
  }

  get isFull(): boolean {
    return this.kept.length >= PROBLEM_LIMIT;
  }

  get isEmpty(): boolean {
    return this.kept.length === 0;
  }

  /** What was found, with a last line that counts what is not listed. */
  get all(): readonly Problem[] {
    if (this.more === 0) return this.kept;
    const message = `${this.more} further ${this.more === 1 ? 'problem is' : 'problems are'} not listed.`;
    return [...this.kept, { code: 'more-problems', path: '', message }];
  }
}

/** Whether data hold more values than a file may; looks no further than the limit. */
function holdsTooMany(data: unknown): boolean {
  const open: unknown[] = [data];
  let count = 0;
  while (open.length > 0) {
    const value = open.pop();
    count += 1;
    if (count + open.length > VALUE_LIMIT) return true;
    if (Array.isArray(value)) {
      if (count + open.length + value.length > VALUE_LIMIT) return true;
      for (const one of value) open.push(one);
    } else if (value !== null && typeof value === 'object') {
      for (const one of Object.values(value)) open.push(one);
    }
  }
  return false;
}

function namedPath(data: unknown, pointer: string): string {
  let here = data;
  const named: string[] = [];
  for (const raw of pointer.split('/').slice(1)) {
    const step = raw.replace(/~1/g, '/').replace(/~0/g, '~');
    here = (here as Record<string, unknown> | undefined)?.[step];
    const id = (here as { id?: unknown } | undefined)?.id;
    named.push(/^\d+$/.test(step) && typeof id === 'string' && id !== '' ? id : step);
  }
  return `/${named.join('/')}`.replace(/^\/$/, '');
}

function list(values: unknown): string {
  return Array.isArray(values) ? values.map((value) => String(value)).join(', ') : String(values);
}

function errorWords(error: CompiledError): string {
  const { params } = error;
  switch (error.keyword) {
    case 'required':
      return `“${String(params.missingProperty)}” is missing.`;
    case 'additionalProperties':
      return `“${String(params.additionalProperty)}” is not known here. Check the spelling or take it out.`;
    case 'type':
      return `Must be ${article(String(params.type))}.`;
    case 'enum':
      return `Must be one of ${list(params.allowedValues)}.`;
    case 'const':
      return `Must be “${String(params.allowedValue)}”.`;
    case 'discriminator':
      return params.error === 'mapping'
        ? `“${String(params.tagValue)}” is not a kind that this version knows.`
        : '“kind” must say what this is.';
    case 'minimum':
      return `Must be at least ${String(params.limit)}.`;
    case 'maximum':
      return `Must be at most ${String(params.limit)}.`;
    case 'exclusiveMinimum':
      return `Must be above ${String(params.limit)}.`;
    case 'minLength':
      return 'Must not be empty.';
    case 'maxLength':
      return `Must have at most ${String(params.limit)} characters.`;
    case 'minItems':
    case 'minProperties':
      return `Needs at least ${String(params.limit)}.`;
    case 'maxItems':
      return `At most ${String(params.limit)} are taken.`;
    case 'uniqueItems':
      return 'Holds the same entry twice.';
    case 'pattern':
      return patternWords(String(params.pattern));
    default:
      return error.message ? `${error.message[0]?.toUpperCase()}${error.message.slice(1)}.` : 'Is not valid.';
  }
}

function patternWords(pattern: string): string {
  if (pattern === STORABLE_PATTERN) {
    return 'Holds a character that cannot be kept: a NUL, or half of a pair. Take it out.';
  }
  if (pattern === DAY_PATTERN) return 'Is no day of the calendar, written as 2026-03-31.';
  if (pattern === INSTANT_PATTERN) return 'Is no moment of the calendar, written as 2026-03-31T14:05:00Z.';
  return 'Is not written in the form that is wanted here.';
}

function article(type: string): string {
  const words: Record<string, string> = {
    object: 'an object in braces',
    array: 'a list in brackets',
    string: 'a text in quotes',
    number: 'a number',
    integer: 'a whole number',
    boolean: 'true or false',
  };
  return words[type] ?? type;
}
