/** Functions over settings, before and after, as rows. */
import type { CircuitFile } from '../format';
import { csvCell } from '../format';
import type { FunctionOutcome } from '../network';
import type { At } from './at';
import type { Examined } from './findings';
import { askedFor } from './findings/goals';
import { settingWords } from './settings';

export interface TableCell {
  /** Null where the circuit has no such function. */
  readonly before: FunctionOutcome | null;
  readonly after: FunctionOutcome | null;
  readonly asked: boolean;
}

interface ChangeRow {
  readonly at: At;
  readonly words: string;
  readonly cells: readonly TableCell[];
  readonly differs: boolean;
}

export interface ChangeTable {
  readonly functions: readonly { readonly id: string; readonly name: string }[];
  readonly rows: readonly ChangeRow[];
}

/** Every function of either circuit, those of before first. */
function functionsOf(before: CircuitFile, after: CircuitFile) {
  const known = new Set(before.functions.map(({ id }) => id));
  return [...before.functions, ...after.functions.filter(({ id }) => !known.has(id))];
}

export function changeTable({ scene }: Examined): ChangeTable {
  const { before, after, beforeModel, afterModel, settings } = scene;
  const functions = functionsOf(before, after);
  const rows = settings.map((setting): ChangeRow => {
    const cells = functions.map((one): TableCell => {
      const was = before.functions.find(({ id }) => id === one.id);
      const is = after.functions.find(({ id }) => id === one.id);
      const cell = {
        before: was ? beforeModel.outcome(was, setting.before) : null,
        after: is ? afterModel.outcome(is, setting.after) : null,
      };
      const differs = cell.before !== cell.after;
      const on = cell.after !== null && cell.after !== 'dead';
      return { ...cell, asked: differs && askedFor(scene, one.id, setting, on) };
    });
    return {
      at: setting.at,
      words: settingWords(after, setting.at),
      cells,
      differs: cells.some((cell) => cell.before !== cell.after),
    };
  });
  return { functions: functions.map(({ id, name }) => ({ id, name })), rows };
}

const OUTCOME_WORDS: Readonly<Record<FunctionOutcome, string>> = {
  works: 'on',
  weak: 'weak',
  dead: 'off',
};

export function cellWords({ before, after }: TableCell): string {
  const said = (one: FunctionOutcome | null) => (one === null ? '–' : OUTCOME_WORDS[one]);
  return before === after ? said(after) : `${said(before)} → ${said(after)}`;
}

/** As CSV: a row a setting, a column a function; what differs as “before → after”. */
export function changeCsv({ functions, rows }: ChangeTable): string {
  return [
    ['Setting', ...functions.map(({ name }) => name)],
    ...rows.map(({ words, cells }) => [words, ...cells.map(cellWords)]),
  ]
    .map((row) => row.map(csvCell).join(','))
    .join('\n');
}
