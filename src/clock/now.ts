/**
 * The one source of time of the server: what is due, overdue, opened and made is judged by it. Tests move it by a file
 * that `EVERY_TRACE_CLOCK` names, which holds by how many milliseconds it goes ahead; without one it is the machine's own.
 */
import { readFileSync } from 'node:fs';

export function now(): Date {
  return new Date(Date.now() + ahead());
}

function ahead(): number {
  const file = process.env.EVERY_TRACE_CLOCK;
  if (!file) return 0;
  try {
    const said = Number(readFileSync(file, 'utf8'));
    return Number.isFinite(said) ? said : 0;
  } catch {
    // Nobody has moved it yet.
    return 0;
  }
}
