/** What is wrong with an input, where, in words. */
import type { CompiledError, CompiledValidator } from './generated/compiled';

export interface Problem {
  readonly code: string;
  /** JSON path with ids where there are any: "/parts/F31/pins/out". */
  readonly path: string;
  readonly message: string;
}

/** Largest file that is read at all, bytes. */
export const FILE_LIMIT_BYTES = 4 * 1024 * 1024;
/** As many problems as anyone wants to read at once. */
const PROBLEM_LIMIT = 200;

export type Checked<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** Reads JSON text of a limited size; says line and column of the first mistake. */
export function readJson(text: string): Checked<unknown> {
  if (text.length > FILE_LIMIT_BYTES) {
    return fail(
      'too-large',
      '',
      `The file has ${(text.length / 1024 / 1024).toFixed(1)} MB; at most ${FILE_LIMIT_BYTES / 1024 / 1024} MB are read.`,
    );
  }
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
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
  const problems: Problem[] = [];
  const seen = new Set<string>();
  for (const error of validate.errors ?? []) {
    const path = namedPath(data, error.instancePath);
    const message = errorWords(error);
    const key = `${path} ${message}`;
    if (seen.has(key)) continue;
    seen.add(key);
    problems.push({ code: `schema-${error.keyword}`, path, message });
    if (problems.length >= PROBLEM_LIMIT) break;
  }
  return { ok: false, problems };
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
      return 'Is not written in the form that is wanted here.';
    default:
      return error.message ? `${error.message[0]?.toUpperCase()}${error.message.slice(1)}.` : 'Is not valid.';
  }
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
