/** How the inputs of sums are typed: each field reads its text as freely as a reading is read, or says why not. */
import { FUSE_FAMILIES } from '../format';
import { gaugeMm2 } from '../limits';
import { formatNumber, type NumberRange, readNumber } from '../quantity';

export type ReadField<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly message: string };

export interface Field<T> {
  readonly name: string;
  /** A typical value, said beside it. */
  readonly typical: string;
  readonly unit?: string;
  /** One of these; else it is typed. */
  readonly options?: readonly { readonly id: string; readonly name: string }[];
  /** Several lines, one thing a line. */
  readonly lines?: true;
  /** Digits alone are typed: the pad of digits opens. */
  readonly digits?: true;
  /** What stands in it before anything is typed. */
  readonly first?: string;
  readonly read: (text: string) => ReadField<T>;
}

const no = (message: string) => ({ ok: false, message }) as const;
const yes = <T>(value: T) => ({ ok: true, value }) as const;

/** A unit that may stand behind a number, and what it is in the field's own. */
type Units = Readonly<Record<string, number>>;

const LENGTHS: Units = { m: 1, cm: 0.01, mm: 0.001, ft: 0.3048, in: 0.0254 };
const AMPS: Units = { A: 1, a: 1, amp: 1, amps: 1, mA: 0.001, ma: 0.001 };
const VOLTS: Units = { V: 1, v: 1, volt: 1, volts: 1, mV: 0.001, mv: 0.001 };
const WATTS: Units = { W: 1, w: 1, watt: 1, watts: 1, kW: 1000, kw: 1000 };
const OHMS: Units = { ohm: 1, ohms: 1, Ω: 1, mΩ: 0.001, mohm: 0.001, k: 1000, kΩ: 1000 };
const HOURS: Units = {
  h: 1,
  hour: 1,
  hours: 1,
  d: 24,
  day: 24,
  days: 24,
  week: 168,
  weeks: 168,
  min: 1 / 60,
};
const SECONDS: Units = { s: 1, sec: 1, seconds: 1, ms: 0.001, min: 60, minutes: 60, h: 3600 };
const AMP_HOURS: Units = { Ah: 1, ah: 1, AH: 1 };

/** A number, the unit behind it if there is one, and the range that it has to lie in, said in the field's unit. */
function readIn(
  units: Units,
  own: string,
  range: Omit<NumberRange, 'unit'>,
  text: string,
): ReadField<number> {
  const typed = text.trim();
  const found = /^([^\p{L}µ°%]*?)\s*([\p{L}µ°%Ω²]+)?$/u.exec(typed);
  const written = found?.[2];
  if (written === undefined || written === own) return readNumber(typed, { ...range, unit: own });
  const factor = units[written];
  if (factor === undefined) {
    return no(`“${written}” is not a unit for this. Use ${Object.keys(units).slice(0, 5).join(', ')}.`);
  }
  const bare = readNumber(found![1]!, { least: -1e12, most: 1e12 });
  if (!bare.ok) return bare;
  return readNumber(String(Number((bare.value * factor).toPrecision(12))), { ...range, unit: own });
}

export interface Asked {
  readonly name: string;
  readonly typical: string;
  readonly first?: string;
}

function amount(units: Units, unit: string, range: Omit<NumberRange, 'unit'>) {
  return (asked: Asked): Field<number> => ({
    ...asked,
    unit,
    digits: true,
    read: (text) => (text.trim() === '' ? no(`${asked.name} is missing.`) : readIn(units, unit, range, text)),
  });
}

export const amps = amount(AMPS, 'A', { above: 0, most: 2000 });
export const volts = amount(VOLTS, 'V', { above: 0, most: 100 });
export const millivolts = amount({ mV: 1, mv: 1, V: 1000, v: 1000 }, 'mV', { least: 0, most: 100_000 });
export const watts = amount(WATTS, 'W', { above: 0, most: 50_000 });
export const ohms = amount(OHMS, 'Ω', { above: 0, most: 1e9 });
export const metres = amount(LENGTHS, 'm', { above: 0, most: 200 });
export const hours = amount(HOURS, 'h', { above: 0, most: 100_000 });
export const seconds = amount(SECONDS, 's', { above: 0, most: 86_400 });
export const ampHours = amount(AMP_HOURS, 'Ah', { above: 0, most: 5000 });
export const percent = amount({}, '%', { least: 0, most: 100 });
export const celsius = amount({ '°C': 1, C: 1, c: 1 }, '°C', { least: -40, most: 84 });
export const blocks = amount({}, '', { least: 1, most: 48, whole: true });

/** The same, but may stay unknown: null where it is empty. */
export function unknown<T>(field: Field<T>): Field<T | null> {
  return { ...field, read: (text) => (text.trim() === '' ? yes(null) : field.read(text)) };
}

export function choice<const Id extends string>(
  asked: Asked,
  options: readonly { readonly id: Id; readonly name: string }[],
): Field<Id> {
  return {
    ...asked,
    first: asked.first ?? options[0]!.id,
    options,
    read: (text) => {
      const found = options.find(({ id }) => id === text.trim());
      return found ? yes(found.id) : no(`“${text.trim()}” is none of the choices.`);
    },
  };
}

export const FAMILY_OPTIONS = FUSE_FAMILIES.map((id) => ({ id, name: id.replace(/-/g, ' ') }));

/** What draws, as watts or amps, several alike with a times sign: "48 A", "600 W", "4 x 21 W", "4 × 1,75". */
export interface Load {
  readonly count: number;
  readonly each: number;
  readonly unit: 'A' | 'W';
}

const TIMES = /^\s*(\d+)\s*(?:x|×|\*|times)\s*(.+)$/i;

export function readLoad(text: string): ReadField<Load> {
  const typed = text.trim();
  if (typed === '') return no('What it draws is missing: amps, watts, or several alike as “4 x 21 W”.');
  const many = TIMES.exec(typed);
  const count = many ? Number(many[1]) : 1;
  if (count < 1 || count > 1000) return no('From 1 to 1000 of them.');
  const one = many ? many[2]! : typed;
  const unit = /w(att)?s?\s*$/i.test(one) ? 'W' : 'A';
  const each =
    unit === 'W'
      ? readIn(WATTS, 'W', { above: 0, most: 50_000 }, one)
      : readIn(AMPS, 'A', { above: 0, most: 2000 }, one);
  return each.ok ? yes({ count, each: each.value, unit }) : each;
}

export function load(asked: Asked): Field<Load> {
  return { ...asked, unit: 'A or W', read: readLoad };
}

/** Ampere of a load on so many volts, and how they were found. */
export function loadAmps(
  one: Load,
  systemVolts: number,
): { readonly amps: number; readonly formula: string } {
  const each = one.unit === 'A' ? one.each : one.each / systemVolts;
  const times = one.count === 1 ? '' : `${one.count} × `;
  return {
    amps: one.count * each,
    formula:
      one.unit === 'A' && one.count === 1
        ? `${formatNumber(one.each)} A, as typed`
        : one.unit === 'A'
          ? `I = ${times}${formatNumber(one.each)} A = ${figure(one.count * each, 'A')}`
          : `I = ${times}${formatNumber(one.each)} W ÷ ${formatNumber(systemVolts)} V = ${figure(one.count * each, 'A')}`,
  };
}

/** A drop that is allowed: in volts, or as a share of the system's. */
export type AllowedDrop = { readonly volts: number } | { readonly percent: number };

export function drop(asked: Asked): Field<AllowedDrop> {
  return {
    ...asked,
    unit: 'V or %',
    read: (text) => {
      if (text.trim() === '') return no(`${asked.name} is missing: “0.4 V”, or “3 %”.`);
      if (text.includes('%')) {
        const read = readIn({}, '%', { above: 0, most: 50 }, text);
        return read.ok ? yes({ percent: read.value }) : read;
      }
      const read = readIn(VOLTS, 'V', { above: 0, most: 50 }, text);
      return read.ok ? yes({ volts: read.value }) : read;
    },
  };
}

/** A size of wire: "2.5", "2,5 mm²", "AWG 12", "12 awg". */
export function readSize(text: string): ReadField<number> {
  const gauge = /^(?:awg|gauge|ga)?\s*(\d{1,2})\s*(awg|gauge|ga)?$/i.exec(text.trim());
  if (gauge && /[a-z]/i.test(text)) {
    const number = Number(gauge[1]);
    return number > 30
      ? no('Gauges from 0 to 30 are read here.')
      : yes(Number(gaugeMm2(number).toPrecision(3)));
  }
  const bare = text.trim().replace(/\s*(mm2|mm²|sqmm|qmm)\s*$/i, '');
  return readNumber(bare, { above: 0, most: 240, unit: 'mm²' });
}

export function size(asked: Asked): Field<number> {
  return {
    ...asked,
    unit: 'mm² or AWG',
    read: (text) => (text.trim() === '' ? no(`${asked.name} is missing.`) : readSize(text)),
  };
}

/** Several things, one a line; a line that cannot be read is named by its number. */
export function list<T>(
  asked: Asked & { readonly least?: number },
  readLine: (line: string) => ReadField<T>,
): Field<readonly T[]> {
  return {
    ...asked,
    lines: true,
    read: (text) => {
      const found: T[] = [];
      for (const [index, line] of text.split(/\r?\n|;/).entries()) {
        if (line.trim() === '') continue;
        const read = readLine(line.trim());
        if (!read.ok) return no(`Line ${index + 1}: ${read.message}`);
        found.push(read.value);
      }
      if (found.length < (asked.least ?? 1))
        return no(`${asked.name}: write at least one, each on its line.`);
      return found.length > 200 ? no('More than 200 lines.') : yes(found);
    },
  };
}

/** Words, then an amount: "Roof fan 5 A", "5 A roof fan"; the amount is what `read` takes of the first words that it takes. */
export function named<T>(
  line: string,
  read: (text: string) => ReadField<T>,
): ReadField<{ name: string; value: T }> {
  const words = line.split(/\s+/);
  let reason = `“${line}” has no amount.`;
  // The longest piece that is an amount: "4 x 1.75 A" before "1.75 A".
  for (let length = Math.min(5, words.length); length > 0; length--) {
    for (let from = words.length - length; from >= 0; from--) {
      const piece = words.slice(from, from + length);
      if (!piece.some((word) => /\d/.test(word))) continue;
      const found = read(piece.join(' '));
      if (found.ok) {
        const name = [...words.slice(0, from), ...words.slice(from + length)].join(' ').replace(/[:,]$/, '');
        return yes({ name, value: found.value });
      }
      if (length === words.length || /meaning|can mean/.test(found.message)) reason = found.message;
    }
  }
  return no(reason);
}

/** A figure as it is said: three digits, no tail. */
export function figure(value: number, unit = ''): string {
  const size = Math.abs(value);
  const behind = unit === '' ? '' : ` ${unit}`;
  if (size !== 0 && size < 0.1 && /^(A|V|Ω)$/.test(unit))
    return `${formatNumber(Number((value * 1000).toPrecision(3)))} m${unit}`;
  return `${formatNumber(Number(value.toPrecision(size >= 1000 ? 4 : 3)))}${behind}`;
}
