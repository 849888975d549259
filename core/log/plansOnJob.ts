/** Changes that a job plans, as sheets, labels and closing speak of them: from the log alone. */
import { chosenEdits, planLabels, playPlan } from '../change';
import type { CircuitFile, Panel } from '../format';
import type { PlanOnJob } from './draft';
import type { JobState } from './state';

/** Something of it was done on the vehicle. */
export function isBegun({ steps }: Pick<PlanOnJob, 'steps'>): boolean {
  return [...steps.values()].some(({ how, leaves }) => how === 'done' && leaves !== undefined);
}

/** Plans that are on the vehicle in part. */
export function inTheMiddle({ plans }: Pick<JobState, 'plans'>): PlanOnJob[] {
  return plans.filter((one) => one.ended === null && isBegun(one));
}

/** What stands on the vehicle of a change that is not finished, each a sentence. */
export function leftBy({ steps }: Pick<PlanOnJob, 'steps'>): string[] {
  return [...steps.values()].flatMap(({ how, leaves }) => (how === 'done' && leaves ? [leaves] : []));
}

/** Why a job cannot close, of its plans. */
export function plansOpen({ plans }: Pick<JobState, 'plans'>): string[] {
  return plans.flatMap((one) => {
    if (one.ended !== null) return [];
    return isBegun(one)
      ? [`the change “${one.plan.name}” is half done: neither carried out nor taken back`]
      : [`the change “${one.plan.name}” is planned: neither begun nor given up`];
  });
}

/** Labels of its plans: as they were when it was carried out, else of what is planned. */
export function labelsOfPlans(
  { plans }: Pick<JobState, 'plans'>,
  circuit: CircuitFile | null,
  panels: readonly Panel[],
) {
  return plans.flatMap(({ plan, ended }) => {
    if (ended) return ended.labels ?? [];
    const on = plan.circuit ?? circuit;
    return on ? planLabels(playPlan(on, chosenEdits(plan)), plan, panels, plan.name) : [];
  });
}
