/** Steps to a box and plugs underneath as lines of text, for people who would rather write than fill in forms. */
import type { Panel, Slot } from '../format';
import { readNumber } from '../quantity';

type Step = NonNullable<Panel['steps']>[number];
type Plug = NonNullable<Panel['plugs']>[number];

function fields(line: string): string[] {
  return line.split('|').map((one) => one.trim());
}

/** "Step | fastener | tool | direction | what breaks | minutes"; what is empty at the end is left out. */
export function stepsText(steps: readonly Step[] | undefined): string {
  return (steps ?? [])
    .map(({ words, fastener, tool, direction, breaks, minutes }) =>
      [
        words,
        fastener ?? '',
        tool ?? '',
        direction ?? '',
        breaks ?? '',
        minutes === undefined ? '' : String(minutes),
      ]
        .join(' | ')
        .replace(/(?:\s*\|\s*)+$/, ''),
    )
    .join('\n');
}

/** What lines of text mean, or which of them cannot be read and why. */
export type ReadLines<T> =
  | { readonly ok: true; readonly value: readonly T[] }
  | { readonly ok: false; readonly message: string };

/** Reads line by line; the first that cannot be read is said by its number. */
function readLines<T>(text: string, read: (line: string) => T | string): ReadLines<T> {
  const value: T[] = [];
  for (const [index, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const one = read(line.trim());
    if (typeof one === 'string') return { ok: false, message: `Line ${index + 1}: ${one}` };
    value.push(one);
  }
  return { ok: true, value };
}

export function stepsFrom(text: string): ReadLines<Step> {
  return readLines<Step>(text, (line) => {
    const [words = '', fastener, tool, direction, breaks, minutes = '', more] = fields(line);
    if (words === '') return 'say the step before the first stroke.';
    if (more) return `“${more}” is one part too many; there are six.`;
    const taken = minutes === '' ? null : readNumber(minutes, { least: 0, most: 600, unit: 'min' });
    if (taken && !taken.ok) return `the minutes: ${taken.message}`;
    return {
      words,
      ...(fastener ? { fastener } : {}),
      ...(tool ? { tool } : {}),
      ...(direction ? { direction } : {}),
      ...(breaks ? { breaks } : {}),
      ...(taken ? { minutes: taken.value } : {}),
    };
  });
}

/** "Name | shape | cavities | mating or wire". */
export function plugsText(plugs: readonly Plug[] | undefined): string {
  return (plugs ?? []).map((one) => [one.name, one.shape, one.cavities, one.face].join(' | ')).join('\n');
}

/** Plugs as written. One that is known by its name keeps its id; new ids follow from the names and never repeat. */
export function plugsFrom(text: string, before: readonly Plug[] = []): ReadLines<Plug> {
  const taken = new Set(before.map((one) => one.id));
  const kept = new Set<string>();
  return readLines<Plug>(text, (line) => {
    const [name = '', shape = '', count = '', face = ''] = fields(line);
    if (name === '') return 'say the name of the plug first.';
    const cavities = readNumber(count, { least: 1, most: 200, whole: true });
    if (!cavities.ok) return `how many cavities? ${cavities.message}`;
    if (!/^(m|mating|w|wire)?$/i.test(face)) return `“${face}” is no face. Write mating or wire.`;
    const known = before.find((one) => one.name === name && !kept.has(one.id));
    const id = known?.id ?? freeId(name, taken);
    taken.add(id);
    kept.add(id);
    return {
      id,
      name,
      shape: shape || name,
      cavities: cavities.value,
      face: /^w/i.test(face) ? 'wire' : 'mating',
    };
  });
}

function freeId(name: string, taken: ReadonlySet<string>): string {
  const base =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'plug';
  let id = `plug-${base}`;
  for (let again = 2; taken.has(id); again++) id = `plug-${base}-${again}`;
  return id;
}

type Dispute = NonNullable<Slot['disputed']>[number];

/** "Source: what it says". */
export function disputedText(disputed: readonly Dispute[] | undefined): string {
  return (disputed ?? []).map((one) => `${one.source}: ${one.says}`).join('\n');
}

export function disputedFrom(text: string): ReadLines<Dispute> {
  return readLines<Dispute>(text, (line) => {
    const at = line.indexOf(':');
    const [source, says] = [line.slice(0, Math.max(0, at)).trim(), line.slice(at + 1).trim()];
    if (at < 0 || source === '') return 'say the source, a colon, and what it says.';
    return says === '' ? `what does ${source} say?` : { source, says };
  });
}

/** Numbers of the cavities as seen from a face, row by row; the other face mirrors each row. */
export function cavityRows(plug: Pick<Plug, 'cavities' | 'face'>, seenFrom: Plug['face']): number[][] {
  const perRow = plug.cavities <= 3 ? plug.cavities : Math.ceil(plug.cavities / 2);
  const numbers = Array.from({ length: plug.cavities }, (_, index) => index + 1);
  const rows: number[][] = [];
  for (let at = 0; at < numbers.length; at += perRow) rows.push(numbers.slice(at, at + perRow));
  return seenFrom === plug.face ? rows : rows.map((row) => row.slice().reverse());
}
