import type { CircuitPart } from '../format';
import type { ReadPart } from './readPart';
import { wordsOfKind } from './words';

/** Fields that the text did not touch, from the circuit it was made from. */
export function unspoken(old: CircuitPart, part: ReadPart): Record<string, unknown> {
  const { numbers, choices } = wordsOfKind(part.kind);
  const spoken = new Set<string>([
    ...Object.values(numbers),
    ...Object.keys(choices ?? {}),
    ...SPOKEN,
    'pins',
    'kind',
    'id',
  ]);
  return Object.fromEntries(Object.entries(old).filter(([field]) => !spoken.has(field)));
}

/** Fields of single kinds that are always written. */
export const SPOKEN: readonly string[] = [
  'colour',
  'cavity',
  'plug',
  'closedIn',
  'positions',
  'rest',
  'contacts',
  'momentary',
  'appliances',
];

/** What follows for a switch or a socket when it is not said. */
export function derived(part: ReadPart): Record<string, unknown> {
  if (part.kind === 'socket') return { appliances: part.fields.appliances ?? [] };
  if (part.kind !== 'switch') return {};
  const positions = (part.fields.positions as string[] | undefined) ?? ['off', 'on'];
  const rest = (part.fields.rest as string | undefined) ?? positions[0]!;
  const on = positions.filter((one) => one !== rest);
  const contacts =
    (part.fields.contacts as unknown[] | undefined) ??
    part.ways.map((way) => ({
      from: way.enter,
      to: way.leave,
      closedIn: positions.includes(way.leave) ? [way.leave] : on,
    }));
  return { positions, rest, contacts };
}
