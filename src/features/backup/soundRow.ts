/**
 * What the program reads of a row beside its columns, checked before the row is written: the checksum of a backup says that
 * nothing was lost on the way, not that what it holds was ever recorded.
 */
import { checkCircuit } from '#core/circuit';
import {
  type Checked,
  checkEvent,
  checkPanelSet,
  checkPlan,
  ENTRY_VERSION,
  type JobEvent,
  photoKind,
  photoProblem,
  upgradedEntry,
  validateHandRequest,
  validateStockRequest,
  validateWith,
} from '#core/format';
import { Damaged } from './readBackup';

type Row = Readonly<Record<string, unknown>>;

/** An entry as it would arrive today: an older one is brought up first. */
function checkEntry({ id, job_id, version, made_at, client_order, body }: Row): Checked<unknown> {
  return checkEvent({
    id,
    jobId: job_id,
    version: Math.max(Number(version), ENTRY_VERSION),
    madeAt: new Date(String(made_at)).toISOString(),
    clientOrder: client_order,
    body: upgradedEntry(body as JobEvent['body'], Number(version)),
  });
}

/** As it would be sent today. */
function checkItem({ id, sort, name, part, unit, minimum, reorder }: Row): Checked<unknown> {
  const item = { id, sort, name, unit, minimum: Number(minimum), reorder: Number(reorder) };
  return validateWith(validateStockRequest, { kind: 'item', id, item: part ? { ...item, part } : item });
}

function checkHand({ id, hand }: Row): Checked<unknown> {
  return hand === null || hand === undefined
    ? { ok: true, value: null }
    : validateWith(validateHandRequest, { id, hand });
}

const CHECKS: Readonly<Record<string, { what: string; check: (row: Row) => Checked<unknown> }>> = {
  job_events: { what: 'an entry', check: checkEntry },
  circuit_versions: { what: 'a circuit', check: ({ file }) => checkCircuit(file) },
  panel_set_versions: { what: 'a box', check: ({ file }) => checkPanelSet(file) },
  stock_items: { what: 'an item of the stock', check: checkItem },
  people: { what: 'instruments and habits of somebody', check: checkHand },
  recipes: { what: 'a recipe', check: ({ plan }) => checkPlan(plan) },
};

function whyNot(check: (row: Row) => Checked<unknown>, row: Row): string | null {
  try {
    const checked = check(row);
    return checked.ok ? null : (checked.problems[0]?.message ?? '');
  } catch {
    return 'It has not the form of one.';
  }
}

/** Throws `Damaged`, in words, where a row of a table holds something that this program could not read. */
export function checkRow(table: string, row: Row): void {
  const known = CHECKS[table];
  if (!known) return;
  const why = whyNot(known.check, row);
  if (why === null) return;
  const which = typeof row.id === 'string' ? ` (${row.id})` : '';
  throw new Damaged(`tables/${table}.jsonl holds ${known.what} that cannot be read${which}. ${why}`.trim());
}

/** Throws `Damaged` where a file is no picture of the kind that its line says. */
export function checkPhoto(id: string, kind: string, bytes: Uint8Array): void {
  const problem = photoProblem(bytes);
  if (problem !== null || photoKind(bytes) !== kind) {
    throw new Damaged(`The picture of the line ${id} is no ${kind}. ${problem ?? ''}`.trim());
  }
}
