/** How the parts that are compared are typed: field by field, read once for every form. */
import { BOUNDS, CONTACT_FORMS, FUSE_FAMILIES, type KindOfPart } from '../format';
import { type NumberRange, readNumber } from '../quantity';
import type { ComparedKind } from './fitting';

export interface PartField {
  readonly id: string;
  readonly name: string;
  readonly unit?: string;
  /** One of these, or a number in this range; else words. */
  readonly options?: readonly { readonly id: string; readonly name: string }[];
  readonly range?: NumberRange;
  /** Two numbers, least and most: "1 to 2.5". */
  readonly span?: true;
  /** Asked of the place only, and not of what is fitted. */
  readonly ofPlace?: true;
}

const oneOf = (ids: readonly string[]) => ids.map((id) => ({ id, name: id.replace(/-/g, ' ') }));
const number = (id: string, name: string, range: NumberRange): PartField => ({
  id,
  name,
  range,
  ...(range.unit ? { unit: range.unit } : {}),
});

export const PART_FIELDS: Readonly<Record<ComparedKind, readonly PartField[]>> = {
  fuse: [
    number('ratingAmps', 'Rating', BOUNDS.fuseRating),
    { id: 'family', name: 'Family', options: oneOf(FUSE_FAMILIES) },
    number('volts', 'Made for', BOUNDS.partVolts),
  ],
  relay: [
    { id: 'number', name: 'Number' },
    { id: 'footprint', name: 'Footprint' },
    { id: 'layout', name: 'Pin layout' },
    { id: 'contact', name: 'Contact', options: oneOf(CONTACT_FORMS) },
    number('coilVolts', 'Coil', BOUNDS.partVolts),
    { id: 'suppression', name: 'Suppression', options: oneOf(['none', 'resistor', 'diode']) },
    { id: 'plusPin', name: 'Coil plus', options: oneOf(['85', '86']) },
    number('contactAmps', 'Contact rating', BOUNDS.partAmps),
  ],
  lamp: [
    number('volts', 'Volts', BOUNDS.partVolts),
    number('watts', 'Watts', BOUNDS.lampWatts),
    { id: 'base', name: 'Base' },
  ],
  wire: [
    number('sizeMm2', 'Size', BOUNDS.wireMm2),
    number('celsius', 'Insulation', BOUNDS.insulation),
    {
      id: 'terminalMm2',
      name: 'Terminal takes',
      unit: 'mm²',
      range: BOUNDS.wireMm2,
      span: true,
      ofPlace: true,
    },
  ],
  switch: [
    { id: 'action', name: 'Action', options: oneOf(['momentary', 'latching']) },
    number('amps', 'Rating', BOUNDS.partAmps),
  ],
  connector: [
    { id: 'series', name: 'Series' },
    number('cavities', 'Cavities', BOUNDS.cavities),
    {
      id: 'sealed',
      name: 'Seal',
      options: [
        { id: 'yes', name: 'sealed' },
        { id: 'no', name: 'no seal' },
      ],
    },
  ],
};

type Read<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly field: string; readonly message: string };

/** A part from what was typed, by field; what is empty is not said. */
export function readPart(kind: ComparedKind, typed: Readonly<Record<string, string>>): Read<KindOfPart> {
  const part: Record<string, unknown> = { kind };
  for (const field of PART_FIELDS[kind]) {
    const words = (typed[field.id] ?? '').trim();
    if (words === '') continue;
    const value = readField(field, words);
    if (!value.ok) return { ok: false, field: field.id, message: `${field.name}: ${value.message}` };
    part[field.id] = value.value;
  }
  return { ok: true, value: part as KindOfPart };
}

function readField(
  { id, options, range, span }: PartField,
  words: string,
): { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly message: string } {
  if (options) {
    if (!options.some((one) => one.id === words))
      return { ok: false, message: `“${words}” is none of the choices.` };
    return { ok: true, value: id === 'sealed' ? words === 'yes' : words };
  }
  if (!range) return { ok: true, value: words };
  if (!span) return readNumber(words, range);
  const [least, most] = words.split(/\s*(?:to|-|–|\.\.)\s*/).map((one) => readNumber(one, range));
  if (!least?.ok || !most?.ok) return { ok: false, message: 'Two sizes, like “1 to 2.5”.' };
  if (least.value > most.value) return { ok: false, message: 'The smaller size comes first.' };
  return { ok: true, value: [least.value, most.value] };
}

/** A part as its form shows it. */
export function typedOf(part: KindOfPart): Record<string, string> {
  return Object.fromEntries(
    Object.entries(part).flatMap(([field, value]) => {
      if (field === 'kind' || value === undefined) return [];
      if (typeof value === 'boolean') return [[field, value ? 'yes' : 'no']];
      return [[field, Array.isArray(value) ? value.join(' to ') : String(value)]];
    }),
  );
}
