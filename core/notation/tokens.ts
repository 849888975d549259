/** One line of the notation as words with their places, cut at commas. */

/** A mistake, where it stands and how to put it right. Lines from 1; columns from 0, `to` behind the last character. */
export interface TextProblem {
  readonly line: number;
  readonly from: number;
  readonly to: number;
  readonly message: string;
}

export interface Token {
  readonly kind: 'word' | 'text' | 'point' | 'value';
  /** Text without its quotes; a point without its brackets; `key` of a value. */
  readonly text: string;
  /** What stands behind `key=`, still as it was written. */
  readonly value?: string;
  readonly from: number;
  readonly to: number;
}

export interface Segment {
  readonly tokens: readonly Token[];
  readonly from: number;
  readonly to: number;
}

const SEPARATORS = new Set(['→', '->', 'then']);

/** The segments of a line, from a column on. Throws nothing; what is unclosed is reported. */
export function segmentsOf(
  text: string,
  line: number,
  start: number,
  report: (problem: TextProblem) => void,
): Segment[] {
  const segments: Segment[] = [];
  let tokens: Token[] = [];
  let begun = start;
  const close = (at: number) => {
    if (tokens.length > 0) segments.push({ tokens, from: tokens[0]!.from, to: tokens.at(-1)!.to });
    else if (text.slice(begun, at).trim() === '' && at < text.length && segments.length > 0) {
      report({ line, from: at, to: at + 1, message: 'Two commas follow each other. Take one away.' });
    }
    tokens = [];
    begun = at + 1;
  };
  let at = start;
  while (at < text.length) {
    const letter = text[at]!;
    if (/\s/.test(letter)) at += 1;
    else if (letter === ',') {
      close(at);
      at += 1;
    } else if (letter === '"') {
      const end = endOfText(text, at);
      if (end < 0) {
        report({ line, from: at, to: text.length, message: 'The quote is not closed. End the name with ".' });
        tokens.push({ kind: 'text', text: text.slice(at + 1), from: at, to: text.length });
        at = text.length;
      } else {
        tokens.push({ kind: 'text', text: unquoted(text.slice(at, end)), from: at, to: end });
        at = end;
      }
    } else if (letter === '[') {
      const end = text.indexOf(']', at);
      if (end < 0) {
        report({
          line,
          from: at,
          to: text.length,
          message: 'The bracket is not closed. Write [point-name].',
        });
        at = text.length;
      } else {
        tokens.push({ kind: 'point', text: text.slice(at + 1, end).trim(), from: at, to: end + 1 });
        at = end + 1;
      }
    } else {
      const token = wordAt(text, at, line, report);
      if (SEPARATORS.has(token.text) && token.kind === 'word') close(token.from);
      else tokens.push(token);
      at = token.to;
    }
  }
  if (tokens.length > 0) close(text.length);
  return segments;
}

function wordAt(text: string, from: number, line: number, report: (problem: TextProblem) => void): Token {
  let at = from;
  while (at < text.length) {
    const letter = text[at]!;
    if (/[\s"[\]]/.test(letter)) break;
    // Between two digits a comma is a decimal sign; everywhere else it ends the part.
    if (letter === ',' && !(/\d/.test(text[at - 1] ?? '') && /\d/.test(text[at + 1] ?? ''))) break;
    at += 1;
    if (letter === '=') {
      const end = endOfValue(text, at);
      if (end < 0) {
        report({ line, from, to: text.length, message: 'The value behind = is not closed.' });
        return { kind: 'value', text: text.slice(from, at - 1), value: 'null', from, to: text.length };
      }
      return { kind: 'value', text: text.slice(from, at - 1), value: text.slice(at, end), from, to: end };
    }
  }
  // A stray bracket is a word of its own, so that reading always goes on.
  const to = Math.max(at, from + 1);
  return { kind: 'word', text: text.slice(from, to), from, to };
}

/** Behind the closing quote of a text that opens here; -1 when it is not closed. */
function endOfText(text: string, from: number): number {
  for (let at = from + 1; at < text.length; at++) {
    if (text[at] === '\\') at += 1;
    else if (text[at] === '"') return at + 1;
  }
  return -1;
}

/** Behind a JSON value that starts here; -1 when a bracket or quote stays open. */
function endOfValue(text: string, from: number): number {
  if (text[from] === '"') return endOfText(text, from);
  let depth = 0;
  for (let at = from; at < text.length; at++) {
    const letter = text[at]!;
    if (letter === '"') {
      const end = endOfText(text, at);
      if (end < 0) return -1;
      at = end - 1;
    } else if (letter === '[' || letter === '{') depth += 1;
    else if (letter === ']' || letter === '}') {
      depth -= 1;
      if (depth <= 0) return at + 1;
    } else if (depth === 0 && /[\s,]/.test(letter)) return at;
  }
  return depth === 0 ? text.length : -1;
}

/** Words in quotes, as in JSON; a text that JSON cannot read is taken as it stands. */
function unquoted(quoted: string): string {
  try {
    return String(JSON.parse(quoted));
  } catch {
    return quoted.slice(1, -1);
  }
}

export function quoted(text: string): string {
  return JSON.stringify(text);
}
