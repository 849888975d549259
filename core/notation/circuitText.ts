/** A circuit from whatever file a person has: JSON, or the notation. */
import { checkCircuitText } from '../circuit';
import type { Checked, CircuitFile } from '../format';
import { readNotation, TEXT_LIMIT } from './read';

/** A text that is no JSON object; longer ones than anybody writes are left to the JSON reader, which says so. */
export function isNotation(text: string): boolean {
  return !text.trimStart().startsWith('{') && text.length <= TEXT_LIMIT;
}

/** The circuit, or every problem: by JSON path in a file, by line and column in a text. */
export function readCircuitText(text: string): Checked<CircuitFile> {
  if (!isNotation(text)) return checkCircuitText(text);
  const { circuit, problems } = readNotation(text);
  if (circuit) return { ok: true, value: circuit };
  return {
    ok: false,
    problems: problems.map(({ line, from, message }) => ({
      code: 'notation',
      path: `line ${line}, column ${from + 1}`,
      message,
    })),
  };
}
