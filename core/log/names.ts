/** Names and values as they stand in the lines of a log. */
import type {
  BOARD_CHECKS,
  CircuitFile,
  CURRENT_PHASES,
  FunctionStateName,
  OPENED_BY,
  PROOF_ANSWERS,
  ReadingValue,
  SoundName,
  WATCH_SORTS,
  Work,
} from '../format';
import { formatQuantity } from '../quantity';

export const STATE_WORDS: Readonly<Record<FunctionStateName, string>> = {
  works: 'works',
  weak: 'weak',
  dead: 'dead',
  'on-when-off': 'on when it should be off',
  'comes-and-goes': 'comes and goes',
  'not-tried': 'not tried',
};

export const SOUND_WORDS: Readonly<Record<SoundName, string>> = {
  silent: 'silent',
  clicks: 'a click',
  chatters: 'chatters, or clicks rapidly',
  hums: 'hums',
};

export function valueWords(value: ReadingValue): string {
  if ('volts' in value) return formatQuantity(value.volts, 'V');
  if ('ohms' in value) return formatQuantity(value.ohms, 'Ω');
  if ('overLimit' in value) return 'over limit';
  if ('amps' in value) return formatQuantity(value.amps, 'A');
  if ('sound' in value) return SOUND_WORDS[value.sound];
  return 'state' in value ? STATE_WORDS[value.state] : wordOf(value);
}

/** A value that is one of a few words, as it stands in the file. */
export function wordOf(
  value: Exclude<ReadingValue, { volts: number } | { ohms: number } | { overLimit: true } | { amps: number }>,
): string {
  if ('state' in value) return value.state;
  if ('lamp' in value) return value.lamp;
  if ('wiggle' in value) return value.wiggle;
  if ('sound' in value) return value.sound;
  return 'click' in value ? value.click : value.look;
}

export function conditionName(circuit: CircuitFile | null, id: string): string {
  return circuit?.conditions.find((one) => one.id === id)?.name ?? id;
}

export function functionName(circuit: CircuitFile | null, id: string): string {
  return circuit?.functions.find((one) => one.id === id)?.name ?? id;
}

export function partName(circuit: CircuitFile | null, id: string): string {
  return circuit?.parts.find((one) => one.id === id)?.name ?? id;
}

/** What a job is for where nothing failed. */
export const WORK_WORDS: Readonly<Record<Work, string>> = {
  survey: 'Survey',
  mapping: 'Mapping',
  change: 'Change',
};

/** How a job ends without a repair. */
export const ENDING_WORDS = { 'made-safe': 'made safe, not repaired', 'not-found': 'not found' } as const;

/** What made a fuse open. */
export const OPENED_BY_WORDS: Readonly<Record<(typeof OPENED_BY)[number], string>> = {
  fault: 'a fault that was found',
  overload: 'an overload that was measured',
  appliance: 'an appliance',
  age: 'age or heat of the fuse itself',
  unknown: 'not known',
};

export const PHASE_WORDS: Readonly<Record<(typeof CURRENT_PHASES)[number], string>> = {
  running: 'running',
  starting: 'starting',
  stall: 'with the shaft held',
};

export const PROOF_ANSWER_WORDS: Readonly<Record<(typeof PROOF_ANSWERS)[number], string>> = {
  done: 'as it should be',
  wrong: 'not as it should be',
  'not-here': 'not possible here',
  owner: 'left to the owner',
};

/** What a board repair has to answer for. */
export const BOARD_CHECK_WORDS: Readonly<Record<(typeof BOARD_CHECKS)[number], string>> = {
  coil: 'coil of the same ohms and volts',
  contact: 'contact of the same form and at least the same rating',
  heat: 'heat kept off the neighbours',
  coating: 'coating restored',
  seal: 'seal of the case restored',
  'every-item': 'every item of the complaint seen to work',
  tracks: 'tracks and wires carry what they carried: a stronger relay does not strengthen them',
};

/** What somebody comes back to. */
export const WATCH_SORT_WORDS: Readonly<Record<(typeof WATCH_SORTS)[number], string>> = {
  watch: 'To be watched',
  visit: 'Second visit',
  part: 'Part awaited',
  reading: 'Reading due',
};
