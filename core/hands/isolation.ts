/** What must be isolated before which work, and in which order. The maker's own times and rules win. */
import { ISOLATION_STEPS } from '../format';

export const TASKS = [
  'cover-off',
  'probe',
  'pull-fuse',
  'module-plug',
  'bolted-fuse',
  'lift-box',
  'cut-or-solder',
  'terminal-out',
  'near-restraint',
] as const;
export type Task = (typeof TASKS)[number];

export const TASK_WORDS: Readonly<Record<Task, string>> = {
  'cover-off': 'Take the cover off',
  probe: 'Probe with meter or lamp',
  'pull-fuse': 'Pull a plug-in fuse, its load off',
  'module-plug': 'Unplug a module',
  'bolted-fuse': 'Move a bolted fuse or a stud',
  'lift-box': 'Lift the box',
  'cut-or-solder': 'Cut or solder',
  'terminal-out': 'Take a terminal out',
  'near-restraint': 'Work near a restraint',
};

export const STEPS = ISOLATION_STEPS;
export type IsolationStep = (typeof STEPS)[number];

export const STEP_WORDS: Readonly<Record<IsolationStep, string>> = {
  'key-off': 'Key off, and out of reach',
  slept: 'Waited until the modules sleep (10 to 60 minutes)',
  'earthed-pole-off': 'Earthed pole of every battery off, other sources too',
  'retained-power-waited': 'Waited the maker’s time for retained power',
  'dead-reading': 'Read dead at the place, on a proved tester',
};

/** In the order in which they are done. */
const WANTED: Readonly<Record<Task, readonly IsolationStep[]>> = {
  'cover-off': [],
  probe: [],
  'pull-fuse': [],
  'module-plug': ['key-off', 'slept'],
  'bolted-fuse': ['key-off', 'earthed-pole-off'],
  'lift-box': ['key-off', 'earthed-pole-off'],
  'cut-or-solder': ['key-off', 'earthed-pole-off', 'dead-reading'],
  'terminal-out': ['key-off', 'earthed-pole-off'],
  'near-restraint': ['key-off', 'earthed-pole-off', 'retained-power-waited'],
};

/** The steps that a task wants, in the order in which they are done. */
export function stepsOf(task: Task): readonly IsolationStep[] {
  return WANTED[task];
}

export interface Gate {
  readonly allowed: boolean;
  /** Steps still to be done, in order. */
  readonly missing: readonly IsolationStep[];
  readonly sentence: string;
}

/** Whether a task may begin after the steps that were done. A retained-power time nobody knows means stop. */
export function isolationGate(
  task: Task,
  done: readonly IsolationStep[],
  retainedMinutes: number | null = null,
): Gate {
  const missing = WANTED[task].filter((step) => !done.includes(step));
  if (task === 'near-restraint' && retainedMinutes === null) {
    return {
      allowed: false,
      missing,
      sentence: 'The maker’s waiting time for retained power is not known here: stop, and look it up.',
    };
  }
  if (missing.length === 0) {
    return {
      allowed: true,
      missing,
      sentence:
        WANTED[task].length === 0 ? 'Nothing need be disconnected for this.' : 'Isolated: it may begin.',
    };
  }
  return {
    allowed: false,
    missing,
    sentence: `First: ${missing.map((step) => STEP_WORDS[step].toLowerCase()).join('; then ')}.`,
  };
}

export interface PlugTag {
  readonly plug: string;
  readonly tag: string;
}

/** Why a plug cannot have a tag: empty, or borne by another plug of the same shape. Null when it can. */
export function tagProblem(
  plugs: readonly { readonly id: string; readonly name: string; readonly shape: string }[],
  tags: readonly PlugTag[],
  plug: string,
  tag: string,
): string | null {
  const words = tag.trim();
  if (words === '') return 'Write what stands on the tag.';
  const shape = plugs.find((one) => one.id === plug)?.shape;
  const clash = plugs.find(
    (one) =>
      one.id !== plug &&
      one.shape === shape &&
      tags.some((other) => other.plug === one.id && other.tag.toLowerCase() === words.toLowerCase()),
  );
  return clash
    ? `${clash.name} looks the same and bears “${words}” already: two equal plugs need different tags.`
    : null;
}

/** Plugs that could be taken for one another. */
export function lookAlikes(
  plugs: readonly { readonly id: string; readonly name: string; readonly shape: string }[],
): (readonly string[])[] {
  const byShape = new Map<string, string[]>();
  for (const plug of plugs) byShape.set(plug.shape, [...(byShape.get(plug.shape) ?? []), plug.name]);
  return [...byShape.values()].filter((names) => names.length > 1);
}
