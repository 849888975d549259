/** Labels that a job leaves on the vehicle: on plugs, in slots, on what is set aside or isolated. */
import { type CircuitFile, dayWords, type Panel } from '../format';
import { STEP_WORDS } from '../hands';
import { judgeLine, noRepair } from '../repair';
import { momentOf } from './clock';
import { functionName, partName } from './names';
import { labelsOfPlans } from './plansOnJob';
import type { JobState } from './state';

export interface Label {
  /** Large, on the first line. */
  readonly title: string;
  readonly lines: readonly string[];
}

/** `job` names the work on every label, with what it serves and its day, so that whoever finds it knows where to ask. */
export function labelsOf(
  state: JobState,
  circuit: CircuitFile | null,
  job: string,
  panels: readonly Panel[] = [],
): Label[] {
  const labels: Label[] = [];
  const last = state.entries.at(-1)?.event;
  const day = last ? dayWords(momentOf(last).slice(0, 10)) : '';
  const serves = state.complaint?.function ? functionName(circuit, state.complaint.function) : '';
  const of = [serves, day].filter((one) => one !== '').join(' · ');
  const add = (title: string, ...lines: readonly string[]) =>
    labels.push({ title, lines: [...lines, of, job].filter((line) => line !== '') });
  for (const words of state.setAside.values()) add('QUARANTINE: not to be plugged in', words, 'Not tested');
  for (const { words, due, lines = [] } of state.temporaries) {
    const above = lines.flatMap((line) => {
      const alike = judgeLine(line);
      return alike && noRepair(alike)
        ? [`${line.name}: ${alike.percentOfDesign ?? '?'} % of the design`]
        : [];
    });
    add('TEMPORARY', words, ...above, `To be put right by ${due ? dayWords(due) : 'a day not said'}`);
  }
  for (const step of state.isolated) add('DO NOT CONNECT', STEP_WORDS[step]);
  for (const { one, other } of state.swaps)
    add(
      'EXCHANGED',
      `${partName(circuit, one)} and ${partName(circuit, other)} stand in each other’s places`,
    );
  for (const { tag, plug } of state.tags) add(tag, `Plug ${plug}`);
  for (const { label } of state.notes) if (label) add('NOTE', label);
  for (const { title, lines } of labelsOfPlans(state, circuit, panels)) add(title, ...lines);
  for (const { undo } of state.repairs) if (undo) add('To undo', undo);
  return labels;
}
