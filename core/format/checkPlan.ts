/** Reads a plan file and reports every problem with its form at once; what it asks of a circuit shows when it is played. */
import validatePlan from './generated/planFile';
import { PLAN_FORMAT } from './lists';
import type { PlanFile } from './planSchema';
import { type Checked, ProblemList, readJson, validateWith } from './problem';
import { upgraded } from './upgrade/upgrade';

export function checkPlanText(text: string): Checked<PlanFile> {
  const json = readJson(text);
  return json.ok ? checkPlan(json.value) : json;
}

export function checkPlan(data: unknown): Checked<PlanFile> {
  const file = upgraded(data, PLAN_FORMAT);
  if (!file.ok) return file;
  const shape = validateWith<PlanFile>(validatePlan, file.value);
  if (!shape.ok) return shape;
  const problems = new ProblemList();
  const seen = new Set<string>();
  for (const [index, { id }] of shape.value.edits.entries()) {
    if (seen.has(id)) problems.add('repeated-id', `/edits/${index}/id`, `The edit “${id}” stands twice.`);
    seen.add(id);
  }
  return problems.isEmpty ? shape : { ok: false, problems: problems.all };
}
