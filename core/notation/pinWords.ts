import { PROTECTORS } from '../circuit';
import type { PartKind } from '../format';
import type { ReadPart } from './readPart';
import { type Way, wordsOfKind } from './words';

export function requiredPins(kind: PartKind, ways: readonly Way[]): readonly string[] {
  if (kind === 'latching-relay') return ['30', 'set', 'set-return', 'reset', 'reset-return'];
  if (kind === 'flasher') return ['49', '49a'];
  return [...new Set(ways.flatMap((way) => [way.enter, way.leave]))];
}

/** Kinds that have a side that is fed and one that feeds on. */
const SIDED: readonly PartKind[] = [...PROTECTORS, 'switch', 'key-contact', 'cut-off'];

/** "load side", "terminal 87", "plus terminal", "lug": what a hand finds of a pin. */
export function pinWords(kind: PartKind, pin: string): string {
  if (kind === 'battery') return `${pin} post`;
  if (SIDED.includes(kind) && (pin === 'in' || pin === 'out'))
    return pin === 'in' ? 'feed side' : 'load side';
  if (pin === 'in' || pin === 'out') return `${pin} side`;
  if (/^\d/.test(pin)) return `terminal ${pin}`;
  if (pin === 'plus' || pin === 'minus') return `${pin} terminal`;
  if (kind === 'connector') return pin === 'a' ? 'side towards the feed' : 'side towards the load';
  if (pin === 'a' || pin === 'b') return pin === 'a' ? 'near end' : 'far end';
  if (kind === 'splice') return `leg ${pin}`;
  return pin;
}

/** By which part a hand finds a point where several meet: posts, fuses and terminals before plugs, ends of wires last. */
const FOUND_BY: readonly (readonly PartKind[])[] = [
  ['battery', 'charging-source'],
  PROTECTORS,
  ['lamp', 'led', 'motor', 'pump', 'horn', 'heater', 'module', 'socket'],
  ['relay', 'latching-relay', 'flasher', 'solenoid', 'module-output', 'cut-off'],
  ['switch', 'key-contact'],
  ['ground'],
  ['connector'],
  ['splice'],
];

/** Rank of a kind among those that meet at a point: the lowest names it. */
export function foundBy(kind: PartKind): number {
  const rank = FOUND_BY.findIndex((kinds) => kinds.includes(kind));
  return rank < 0 ? FOUND_BY.length : rank;
}

export function capital(word: string): string {
  return `${word[0]!.toUpperCase()}${word.slice(1)}`;
}

/** The pin that a branch leaves a part by, when only the part is named. */
export function leaving(part: ReadPart): string | null {
  if (part.kind === 'splice') return freeLeg(part);
  return part.ways.at(-1)?.leave ?? wordsOfKind(part.kind).ways[0]?.leave ?? null;
}

export function entering(part: ReadPart): string | null {
  if (part.kind === 'splice') return freeLeg(part);
  const { ways, mustSay } = wordsOfKind(part.kind);
  return part.ways[0]?.enter ?? (mustSay ? null : (ways[0]?.enter ?? null));
}

/** The next leg of a splice that nobody has named: 1, 2, 3 … */
export function freeLeg(part: ReadPart): string {
  while (part.pins.has(String(part.nextLeg))) part.nextLeg += 1;
  return String(part.nextLeg);
}

/** What is wrong with a pin's name; null when the kind has it. */
export function pinProblem(part: Pick<ReadPart, 'kind' | 'id'>, pin: string): string | null {
  const { anyPins, ways, word } = wordsOfKind(part.kind);
  if (anyPins) {
    return /^[A-Za-z0-9-]{1,20}$/.test(pin) ? null : `“${pin}” cannot name a terminal of ${part.id}.`;
  }
  const pins = [...new Set(ways.flatMap((way) => [way.enter, way.leave]))];
  if (pins.includes(pin)) return null;
  return `A ${word} has no terminal “${pin}”. It has ${pins.join(', ')}.`;
}
