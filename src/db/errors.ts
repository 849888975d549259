/** What the database says when it refuses. */

/** The SQLSTATE of an error, also where the query builder has wrapped it; null for anything else. */
function sqlState(error: unknown): string | null {
  for (let here = error; here instanceof Error; here = here.cause) {
    const { code } = here as { code?: unknown };
    if (typeof code === 'string' && /^[0-9A-Z]{5}$/.test(code)) return code;
  }
  return null;
}

/** Whether an error says that all connections were in use for longer than one waits: the database itself is well. */
export function isPoolFull(error: unknown): boolean {
  for (let here = error; here instanceof Error; here = here.cause) {
    // The package gives it no code.
    if (here.message === 'timeout exceeded when trying to connect') return true;
  }
  return false;
}

/** Whether the database took a transaction back for the sake of another: a deadlock, or an order that cannot be. */
export function isTakenBack(error: unknown): boolean {
  return ['40P01', '40001'].includes(sqlState(error) ?? '');
}

/**
 * Why the database will never take what was sent: a value that it cannot hold (class 22) or that breaks a rule between
 * rows (class 23). Null when the fault is not in the data.
 */
export function dataRefusal(error: unknown): string | null {
  const state = sqlState(error);
  if (state?.startsWith('22'))
    return 'It holds a value that cannot be kept: too large, or not readable as text.';
  if (state?.startsWith('23')) return 'It contradicts what is kept already.';
  return null;
}
