/** The work order of a plan on paper: sentences, what playing it shows, every step with its box, material, labels, the way back. */
import {
  circuitOf,
  examine,
  planLabels,
  STAGE_WORDS,
  STAGES,
  standingOf,
  undoSteps,
  workOrder,
} from '../change';
import { plain, type Sheet, type SheetPart } from './sheetLines';
import type { JobState } from './state';
import { type JobMaps, onMaps } from './traced';

/** Null where the job has no such plan, or no circuit that it could be played on. */
export function workSheetOf(maps: JobMaps, job: JobState, planId: string): Sheet | null {
  const one = job.plans.find(({ plan }) => plan.id === planId);
  if (!one) return null;
  const { plan, ended } = one;
  if (ended) {
    return {
      standing: ended.how === 'carried' ? 'Carried out' : 'Not on the vehicle',
      from: null,
      until: null,
      place: job.workPlace,
      open: [],
      parts: [
        {
          title: 'Done',
          lines: ended.words.map((words, index) => plain(`${index + 1}. ${words}`)),
          empty: 'Nothing.',
        },
        {
          title: 'To undo it',
          lines: ended.undo.map((words, index) => plain(`${index + 1}. ${words}`)),
          empty: 'Nothing.',
        },
      ],
    };
  }
  const traced = onMaps(maps, job);
  const circuit = plan.circuit ? circuitOf(plan, []) : traced.circuit;
  if (!circuit) return null;
  const looked = examine(circuit, plan);
  const steps = workOrder(looked);
  const panels = traced.panelSet?.panels ?? [];
  const standing = standingOf(
    steps,
    {
      done: one.steps,
      kept: new Set(one.kept.keys()),
      isolated: job.isolated,
      testerProved: job.testerProvedAt !== null,
      wireReadings: job.wireReadings,
      slotReadings: job.slotReadings,
      panels,
    },
    circuit,
  );
  const material = [...new Set(steps.flatMap((step) => step.with ?? []))];
  const stages = STAGES.map(
    (stage): SheetPart => ({
      title: STAGE_WORDS[stage],
      lines: standing
        .filter(({ step }) => step.stage === stage)
        .map(({ step, done, overridden, says }) =>
          plain(
            `${done ? '☑' : '☐'} ${step.words}`,
            [
              step.asks.by === 'checks' ? step.asks.lines.map((line) => `☐ ${line}`).join('  ') : '',
              step.with ? `With: ${step.with}.` : '',
              says,
              overridden === null ? '' : `Passed: ${overridden}`,
            ]
              .filter(Boolean)
              .join(' '),
          ),
        ),
      empty: null,
    }),
  );
  const shows = looked.findings
    .filter(({ level }) => level !== 'asked')
    .map(({ level, words, remedy }) => plain(`${level === 'danger' ? '▲ ' : ''}${words}`, remedy));
  const labels = planLabels(looked.played, plan, panels, plan.name);
  const left = standing.filter(({ done }) => !done).length;
  return {
    standing:
      left === 0 ? 'Every step is done' : `${standing.length - left} of ${standing.length} steps done`,
    from: null,
    until: null,
    place: job.workPlace,
    open: [],
    parts: [
      {
        title: plan.name,
        lines: looked.played.applied.map(({ words }, index) => plain(`${index + 1}. ${words}`)),
        empty: 'No edit.',
      },
      { title: 'What it shows', lines: shows, empty: 'Nothing in danger.' },
      { title: 'Tools and material', lines: material.map((words) => plain(words)), empty: null },
      ...stages.filter(({ lines }) => lines.length > 0),
      // Distances along the loom are written down before it is opened.
      {
        title: 'Along the loom',
        lines: [
          ...(plan.loom ?? []).map((words) => plain(words)),
          ...['Keepers', 'Branch-offs', 'Ends'].map((words) =>
            plain(`${words}: ____ mm  ____ mm  ____ mm  ____ mm`),
          ),
        ],
        empty: null,
      },
      {
        title: 'Labels',
        lines: labels.map(({ title, lines }) => plain(title, lines.join(' '))),
        empty: null,
      },
      {
        title: 'To undo it',
        lines: undoSteps(looked.played).map((words, index) => plain(`${index + 1}. ${words}`)),
        empty: 'Nothing.',
      },
    ],
  };
}
