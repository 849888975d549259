/** What carrying a plan out makes, all of it at once: new files, slots, and what the ledger says of it. */
import { checkCircuit, mergeCircuits, same } from '../circuit';
import type { BodyOf, CircuitFile, PanelSetFile, PlanFile } from '../format';
import { chosenEdits, playPlan, undoSteps } from './apply';
import { examine, findingKey } from './findings';
import { planLabels } from './labels';
import { endsRead, endsWords, standingOf, strayDone, type WorkFacts } from './standing';
import { type WorkStep, workOrder } from './steps';
import { type FileChange, fileBefore, fileChanges, type SlotChange, slotChanges } from './versions';

export type Ended = BodyOf<'plan-ended'>;

export interface Carried {
  readonly ok: true;
  readonly files: readonly FileChange[];
  readonly slots: readonly SlotChange[];
  readonly entry: Ended;
  /** What was passed and stays owed, each in words: somebody has to come back to it. */
  readonly owed: readonly string[];
}
export interface NotCarried {
  readonly ok: false;
  readonly message: string;
}

const MOST_WORDS = 2000;
/** Steps that do not go away by being passed: ends that are hidden, causes, lights, readings. */
const OWED = /^read\.|\.cap-|^prove\.(cause|lights|continuity|lamps)/;

/** The circuit that a plan is played on: its own, or those of the vehicle joined. */
export function circuitOf(plan: PlanFile, files: readonly CircuitFile[]): CircuitFile | null {
  return plan.circuit ?? (files.length > 0 ? mergeCircuits([...files]).circuit : null);
}

/** `undone`: the entry of the change that this plan takes back, where it takes one back. */
export function carryOut(
  plan: PlanFile,
  files: readonly CircuitFile[],
  panelSet: PanelSetFile | null,
  facts: WorkFacts,
  undone: Ended | null = null,
): Carried | NotCarried {
  const circuit = circuitOf(plan, files);
  if (!circuit) return { ok: false, message: 'There is no circuit that it could be made in.' };
  const looked = examine(circuit, plan);
  const { played } = looked;
  if (played.stuck) {
    return {
      ok: false,
      message: `The circuit has changed since it was planned, and it cannot be made in it: ${played.stuck.problem}`,
    };
  }
  const danger = looked.findings.find((one) => one.level === 'danger' && !facts.kept.has(findingKey(one)));
  if (danger)
    return { ok: false, message: `A danger stands in it, and nobody has said why it may: ${danger.words}` };
  const steps = workOrder(looked);
  const [stray] = strayDone(steps, facts.done);
  if (stray)
    return {
      ok: false,
      message: `Done on the vehicle, and not in the plan: ${stray.step.leaves ?? stray.id} Take it back first.`,
    };
  const standing = standingOf(steps, facts, circuit);
  const open = standing.find(({ done }) => !done);
  if (open) return { ok: false, message: `Not done yet: ${open.step.words}` };
  const own = plan.circuit ? [circuit] : files;
  const back = plan.circuit ? null : exactlyBack(plan, files, played.after, undone);
  const isWhole = back !== null;
  const changed = plan.circuit
    ? [{ circuit: circuit.id, after: played.after, patch: {} }]
    : (back ?? fileChanges(files, played));
  for (const { after } of changed) {
    const checked = checkCircuit(after);
    if (!checked.ok)
      return {
        ok: false,
        message: checked.problems
          .map(({ message }) => message)
          .join(' ')
          .slice(0, MOST_WORDS),
      };
  }
  const slots =
    undone && isWhole
      ? slotsBack(panelSet, undone)
      : slotChanges(panelSet, played.before, chosenEdits(plan), plan.name);
  return {
    ok: true,
    files: changed.filter(({ after }) => !own.includes(after)),
    slots,
    owed: [
      ...standing.flatMap(({ step, overridden }) =>
        overridden !== null && OWED.test(step.id)
          ? [`${step.words} (${overridden})`.slice(0, MOST_WORDS)]
          : [],
      ),
      ...fedFromBoth(standing, facts, circuit),
    ],
    entry: {
      kind: 'plan-ended',
      plan: plan.id,
      how: 'carried',
      name: plan.name,
      words: played.applied.map(({ words }) => words.slice(0, MOST_WORDS)),
      undo: undoSteps(played).map((words) => words.slice(0, MOST_WORDS)),
      passed: standing.flatMap(({ step, overridden }) =>
        overridden === null ? [] : [`${step.words} Because: ${overridden}`.slice(0, MOST_WORDS)],
      ),
      labels: planLabels(played, plan, panelSet?.panels ?? [], plan.name).map((label) => ({
        ...label,
        title: label.title.slice(0, 160),
        lines: label.lines.map((line) => line.slice(0, MOST_WORDS)),
      })),
      files: changed.map(({ circuit: id, patch }) => ({
        circuit: id,
        patch,
        ...(plan.circuit ? { made: true as const } : {}),
      })),
      slots: slots.map((one) => ({ ...one })),
      // A part of it taken back is a change of its own.
      ...(plan.undoes && isWhole ? { undoes: plan.undoes } : {}),
    },
  };
}

/** Wires that were read live at both ends: the drawing takes one feed off, the other is to be found. */
function fedFromBoth(
  standing: readonly { readonly step: { readonly asks: WorkStep['asks'] } }[],
  facts: WorkFacts,
  circuit: CircuitFile,
): string[] {
  return standing.flatMap(({ step: { asks } }) => {
    if (asks.by !== 'wire-ends') return [];
    const gate = endsRead(asks.wire, facts, circuit.nominalVolts);
    const both = (['a', 'b'] as const).every((end) => gate.live.some((one) => one.end === end));
    const name = circuit.parts.find(({ id }) => id === asks.wire)?.name ?? asks.wire;
    return both
      ? [`${name}: ${endsWords(gate)} Each feed is to be found and taken off.`.slice(0, MOST_WORDS)]
      : [];
  });
}

/**
 * The files as they were before a change, byte for byte, where all of it is taken back, nothing of it was changed since, and
 * that is what the plan shows.
 */
function exactlyBack(
  plan: PlanFile,
  files: readonly CircuitFile[],
  shown: CircuitFile,
  undone: Ended | null,
): FileChange[] | null {
  if (!undone?.files || plan.edits.length !== undone.words.length) return null;
  if (plan.edits.some(({ kind }) => kind !== 'restore')) return null;
  try {
    const back = files.map((file): FileChange => {
      const patch = undone.files!.find(({ circuit }) => circuit === file.id)?.patch;
      return { circuit: file.id, after: patch ? fileBefore(file, patch) : file, patch: {} };
    });
    const parts = ({ parts: all }: CircuitFile) => [...all].sort((x, y) => (x.id < y.id ? -1 : 1));
    const made = mergeCircuits(back.map(({ after }) => after)).circuit;
    return same(parts(made), parts(shown)) ? back : null;
  } catch {
    return null;
  }
}

/** Slots as they were, where they still are what the change made of them. */
function slotsBack(panelSet: PanelSetFile | null, undone: Ended): SlotChange[] {
  return (undone.slots ?? []).flatMap((one): SlotChange[] => {
    const now = panelSet?.panels.find(({ id }) => id === one.panel)?.slots.find(({ id }) => id === one.slot);
    return now && JSON.stringify(now) === JSON.stringify(one.after)
      ? [{ panel: one.panel, slot: one.slot, before: now, after: one.before }]
      : [];
  });
}

/** A plan that takes a change back, edit by edit; or why that cannot be, in words. */
export function undoingPlan(
  plan: PlanFile,
  ended: Ended,
  files: readonly CircuitFile[],
  id: string,
  job: string,
): { readonly ok: true; readonly plan: PlanFile } | NotCarried {
  if (ended.files?.some(({ made }) => made)) {
    return {
      ok: false,
      message: 'It was stated where no circuit was drawn: undo it by hand, by the words of its steps.',
    };
  }
  try {
    const before = files.map((file) => {
      const patch = ended.files?.find(({ circuit }) => circuit === file.id)?.patch;
      return patch ? fileBefore(file, patch) : file;
    });
    const played = playPlan(mergeCircuits(before).circuit, chosenEdits(plan));
    if (played.stuck) return { ok: false, message: played.stuck.problem };
    const edits = played.applied
      .map(({ edit, patch, words, undo }) => ({
        kind: 'restore' as const,
        id: `back-${edit.id}`.slice(0, 80),
        words: undo,
        was: `Do it again: ${words}`.slice(0, MOST_WORDS),
        patch,
      }))
      .reverse();
    return {
      ok: true,
      plan: {
        format: plan.format,
        version: plan.version,
        id,
        name: `Undo: ${plan.name}`.slice(0, 160),
        purpose: '',
        edits,
        undoes: { job, plan: plan.id },
      },
    };
  } catch (error) {
    return {
      ok: false,
      message: `Something else was changed since: ${error instanceof Error ? error.message : 'undo that first.'}`,
    };
  }
}
