/** Reads a job file, of whatever version, and reports every problem at once. */
import { checkPanelSet } from './checkPanelSet';
import { checkPlan } from './checkPlan';
import validateJobFile from './generated/jobFile';
import type { JobFile } from './jobSchema';
import { type Checked, ProblemList, validateWith } from './problem';
import { upgraded } from './upgrade/upgrade';

/** Its form, its boxes and its order; circuits are checked by whoever knows circuits. */
export function checkJob(data: unknown): Checked<JobFile> {
  const file = upgraded(data, 'every-trace/job');
  if (!file.ok) return file;
  const shape = validateWith<JobFile>(validateJobFile, file.value);
  if (!shape.ok) return shape;
  const problems = new ProblemList();
  const { events, panelSet } = shape.value;
  const ids = new Set<string>();
  events.forEach((event, index) => {
    const path = `/events/${event.id}`;
    if (ids.has(event.id)) problems.add('repeated-id', path, `The entry “${event.id}” stands twice.`);
    ids.add(event.id);
    if (event.body.kind === 'plan') {
      const plan = checkPlan(event.body.plan);
      if (!plan.ok)
        for (const one of plan.problems) problems.add(one.code, `${path}/body/plan${one.path}`, one.message);
    }
    if (event.seq !== index + 1) {
      problems.add(
        'order',
        path,
        `The entry stands at place ${index + 1} and says that it is number ${event.seq}.`,
      );
    }
  });
  if (panelSet) {
    const boxes = checkPanelSet(panelSet);
    if (!boxes.ok)
      for (const one of boxes.problems) problems.add(one.code, `/panelSet${one.path}`, one.message);
  }
  return problems.isEmpty ? shape : { ok: false, problems: problems.all };
}
