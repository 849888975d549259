/** Names and values as they stand in the lines of a log. */
import type { CircuitFile, FunctionStateName, ReadingValue, SoundName, Work } from '../format';
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
