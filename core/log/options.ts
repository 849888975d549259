/** Repair or replace: ways of doing it, their arithmetic, and what a board repair still has to answer for. */
import { BOARD_CHECKS, type BodyOf } from '../format';
import { labourTotal, lineTotal, moneyWords, sumOf } from '../quantity';
import { BOARD_CHECK_WORDS } from './names';
import type { JobState } from './state';

export type Option = BodyOf<'option'>;

export interface OptionCost {
  /** Money, in the shop's currency, to the hundredth. */
  readonly parts: number;
  readonly labour: number;
  readonly total: number;
  /** Until the last part is here. */
  readonly waitDays: number;
}

/** What a way of doing it costs: parts, and minutes by the rate of an hour; each line as it is printed. */
export function costOf({ parts, minutes, rate }: Option): OptionCost {
  const material = sumOf(parts.map(({ price, count }) => lineTotal(price, count)));
  const labour = labourTotal(rate, minutes);
  return {
    parts: material,
    labour,
    total: sumOf([material, labour]),
    waitDays: Math.max(0, ...parts.map(({ days }) => days)),
  };
}

/** What sets a way apart from the cheapest: money and days more. */
export function differencesOf(options: readonly Option[]): ReadonlyMap<string, string> {
  const costs = options.map((option) => ({ option, cost: costOf(option) }));
  const cheapest = costs.toSorted((one, other) => one.cost.total - other.cost.total)[0];
  if (!cheapest || costs.length < 2) return new Map();
  const words = ({ option, cost }: (typeof costs)[number]) => {
    if (option.option === cheapest.option.option) return 'the cheapest';
    const days = cost.waitDays - cheapest.cost.waitDays;
    const minutes = option.minutes - cheapest.option.minutes;
    return [
      `${moneyWords(cost.total - cheapest.cost.total)} more`,
      ...(days === 0
        ? []
        : [`${Math.abs(days)} ${Math.abs(days) === 1 ? 'day' : 'days'} ${days > 0 ? 'later' : 'sooner'}`]),
      ...(minutes === 0 ? [] : [`${Math.abs(minutes)} min ${minutes > 0 ? 'more' : 'less'} work`]),
    ].join(', ');
  };
  return new Map(costs.map((one) => [one.option.option, words(one)]));
}

/** Checks of a board repair that nobody has answered; none where no board was repaired. */
export function boardChecks(job: Pick<JobState, 'repairs' | 'boardChecks' | 'chosen' | 'options'>) {
  const chosen = job.options.find(({ option }) => option === job.chosen?.option);
  const board =
    chosen?.board === true ||
    job.repairs.some(({ lines = [] }) => lines.some(({ deed }) => deed === 'board-repaired'));
  return board ? BOARD_CHECKS.map((check) => ({ check, said: job.boardChecks.get(check) ?? null })) : [];
}

export function boardOwed(job: Parameters<typeof boardChecks>[0]): string[] {
  const open = boardChecks(job).filter(({ said }) => said === null);
  return open.map(({ check }) => `board repair, not answered: ${BOARD_CHECK_WORDS[check]}`);
}
