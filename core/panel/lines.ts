/** Steps to a box and plugs underneath as lines of text, for people who would rather write than fill in forms. */
import type { Panel } from '../format/panelSchema';

type Step = NonNullable<Panel['steps']>[number];
type Plug = NonNullable<Panel['plugs']>[number];

function fields(line: string): string[] {
  return line.split('|').map((one) => one.trim());
}

function lines(text: string): string[] {
  return text
    .split('\n')
    .map((one) => one.trim())
    .filter((one) => one !== '');
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

export function stepsFrom(text: string): Step[] {
  return lines(text).flatMap((line): Step[] => {
    const [words = '', fastener, tool, direction, breaks, minutes = ''] = fields(line);
    if (words === '') return [];
    const taken = Number(minutes.replace(',', '.'));
    return [
      {
        words,
        ...(fastener ? { fastener } : {}),
        ...(tool ? { tool } : {}),
        ...(direction ? { direction } : {}),
        ...(breaks ? { breaks } : {}),
        ...(minutes !== '' && taken >= 0 && taken <= 600 ? { minutes: taken } : {}),
      },
    ];
  });
}

/** "Name | shape | cavities | mating or wire". */
export function plugsText(plugs: readonly Plug[] | undefined): string {
  return (plugs ?? []).map((one) => [one.name, one.shape, one.cavities, one.face].join(' | ')).join('\n');
}

/** Plugs of the lines that name at least one and its cavities; ids follow from the names and never repeat. */
export function plugsFrom(text: string): Plug[] {
  const taken = new Set<string>();
  return lines(text).flatMap((line): Plug[] => {
    const [name = '', shape = '', count = '', face = ''] = fields(line);
    const cavities = Number(count);
    if (name === '' || !Number.isInteger(cavities) || cavities < 1 || cavities > 200) return [];
    const base =
      name
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-|-$/g, '') || 'plug';
    let id = `plug-${base}`;
    for (let again = 2; taken.has(id); again++) id = `plug-${base}-${again}`;
    taken.add(id);
    return [{ id, name, shape: shape || name, cavities, face: face.startsWith('w') ? 'wire' : 'mating' }];
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
