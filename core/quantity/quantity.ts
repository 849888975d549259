/** Reads and prints quantities: the one place that knows how a technician writes a number. */

export type Unit = 'V' | 'Ω' | 'A';

export type ParsedReading =
  | { readonly ok: true; readonly value: number; readonly unit: Unit; readonly unitWritten: boolean }
  | { readonly ok: true; readonly overLimit: true; readonly unit: Unit; readonly unitWritten: boolean }
  | { readonly ok: false; readonly code: ReadingErrorCode; readonly message: string };

type ReadingErrorCode = 'empty' | 'not-a-number' | 'ambiguous-thousands' | 'wrong-unit' | 'out-of-range';

const UNITS: readonly (readonly [RegExp, Unit])[] = [
  [/^(v|volt|volts)$/i, 'V'],
  [/^(ω|Ω|ohm|ohms|r)$/i, 'Ω'],
  [/^(a|amp|amps|ampere)$/i, 'A'],
];
const PREFIXES: Readonly<Record<string, number>> = { m: 1e-3, k: 1e3, K: 1e3, M: 1e6, µ: 1e-6, u: 1e-6 };
const RANGE: Readonly<Record<Unit, readonly [number, number]>> = {
  V: [-1000, 1000],
  Ω: [0, 1e9],
  A: [-5000, 5000],
};

function refuse(code: ReadingErrorCode, message: string): ParsedReading {
  return { ok: false, code, message };
}

/** Why a comma before three digits is asked back; null where it means one thing. */
function twoMeanings(whole: string, separator: string, fraction: string): string | null {
  if (!separator.startsWith(',') || fraction.length !== 3 || !/^[1-9]\d{0,2}$/.test(whole)) return null;
  const asThousand = Number(whole + fraction);
  const asDecimal = Number(`${whole}.${fraction}`);
  return `“${whole},${fraction}” can mean ${asThousand} or ${asDecimal}. Write ${asThousand} or ${whole}.${fraction}.`;
}

export interface NumberRange {
  /** Smallest that is taken; `above` is not taken itself. */
  readonly least?: number;
  readonly above?: number;
  readonly most: number;
  readonly whole?: boolean;
  /** May stand behind the number, and is said when it is asked for. */
  readonly unit?: string;
}

export type ReadNumber =
  | { readonly ok: true; readonly value: number }
  | { readonly ok: false; readonly message: string };

/**
 * Reads a number of a form, written as readings are: a comma is a decimal sign, `1,200` is refused.
 *
 * @example readNumber('1,5 mm²', { above: 0, most: 240, unit: 'mm²' }) // { ok: true, value: 1.5 }
 */
export function readNumber(text: string, range: NumberRange): ReadNumber {
  const { least, above, most, whole: wholeOnly, unit = '' } = range;
  const typed = text.trim().replace(/[−–]/g, '-');
  const bare = unit !== '' && typed.endsWith(unit) ? typed.slice(0, -unit.length).trim() : typed;
  const behind = unit === '' ? '' : ` ${unit}`;
  const from = least === undefined ? `above ${above ?? 0}` : `from ${least}`;
  const wanted = `Write a ${wholeOnly ? 'whole ' : ''}number ${from} to ${most}${behind}`;
  const match = /^([+-]?)(\d*)(?:([.,])(\d*))?$/.exec(bare);
  if (!match || (match[2] === '' && !match[4])) {
    return { ok: false, message: typed === '' ? `${wanted}.` : `“${text.trim()}” is no number. ${wanted}.` };
  }
  const [, sign, whole = '', separator = '', fraction = ''] = match;
  const two = twoMeanings(whole, separator, fraction);
  if (two) return { ok: false, message: two };
  const value = Number(`${sign}${whole || '0'}.${fraction || '0'}`);
  const inside = value <= most && (least === undefined ? value > (above ?? 0) : value >= least);
  if (!inside || (wholeOnly && !Number.isInteger(value))) {
    return { ok: false, message: `${wanted}, not ${formatNumber(value)}.` };
  }
  return { ok: true, value };
}

/**
 * Reads what was typed: `12.4`, `12,4`, `-12.3 V`, `5.5m`, `5,5 mV`, `OL`, `0.3 ohm`, `4.7k`. A comma is a
 * decimal sign. A missing unit is the card's. `1,200` could be 1.2 or 1200 and is refused.
 *
 * @example parseReading('5,5 mV', 'V') // { ok: true, value: 0.0055, unit: 'V', unitWritten: true }
 */
export function parseReading(text: string, cardUnit: Unit): ParsedReading {
  const trimmed = text.trim().replace(/[−–]/g, '-');
  if (trimmed === '') return refuse('empty', 'Nothing has been entered yet.');
  if (/^(ol|o\.l|0l|over ?limit|inf|∞)\.?$/i.test(trimmed)) {
    return { ok: true, overLimit: true, unit: cardUnit, unitWritten: false };
  }
  const match = /^([+-]?)\s*(\d*)([.,](\d*))?\s*(\p{L}*)$/u.exec(trimmed);
  if (!match || (match[2] === '' && !match[4])) {
    return refuse(
      'not-a-number',
      `“${text.trim()}” is not a reading. Write a number such as 12.4, 12,4 or 5.5m, or OL for over limit.`,
    );
  }
  const [, sign, whole = '', separator = '', fraction = '', suffix = ''] = match;
  const two = twoMeanings(whole, separator, fraction);
  if (two) return refuse('ambiguous-thousands', two);
  let value = Number(`${sign}${whole || '0'}.${fraction || '0'}`);
  let unit: Unit = cardUnit;
  let unitWritten = false;
  if (suffix !== '') {
    const direct = UNITS.find(([pattern]) => pattern.test(suffix));
    const prefix = PREFIXES[suffix[0]!];
    const behind = UNITS.find(([pattern]) => pattern.test(suffix.slice(1)));
    if (direct) {
      unit = direct[1];
      unitWritten = true;
    } else if (prefix !== undefined && (suffix.length === 1 || behind)) {
      value *= prefix;
      if (behind) {
        unit = behind[1];
        unitWritten = true;
      }
    } else {
      return refuse('not-a-number', `“${suffix}” is not a unit. Use V, mV, Ω, kΩ or A.`);
    }
  }
  if (unit !== cardUnit) {
    return refuse(
      'wrong-unit',
      `This card takes ${UNIT_WORDS[cardUnit]}, and “${text.trim()}” is in ${UNIT_WORDS[unit]}. Set the meter as the card says, or choose another test.`,
    );
  }
  const [low, high] = RANGE[unit];
  if (value < low || value > high) {
    return refuse('out-of-range', `${formatQuantity(value, unit)} is outside what a meter shows here.`);
  }
  // Twelve digits keep what was typed and drop the binary tail of the prefix multiplication.
  return { ok: true, value: Number(value.toPrecision(12)), unit, unitWritten };
}

const UNIT_WORDS: Readonly<Record<Unit, string>> = { V: 'volts', Ω: 'ohms', A: 'amperes' };

/**
 * Prints a quantity with as many digits as a hand meter would show; what is there is never printed as nothing.
 *
 * @example formatQuantity(12.4, 'V') // "12.40 V"
 * @example formatQuantity(0.004, 'A') // "4 mA"
 * @example formatQuantity(0.3, 'Ω') // "0.30 Ω"
 */
export function formatQuantity(value: number, unit: Unit): string {
  const size = Math.abs(value);
  if (size >= LEAST && size < SMALL[unit]) {
    // Rounded first: what rounds up to the next step is printed in it.
    if (size >= 0.99995e-3) return `${trimZeros((value * 1e3).toFixed(1))} m${unit}`;
    return `${trimZeros((value * 1e6).toFixed(1))} µ${unit}`;
  }
  if (size >= 1000) return `${trimZeros((value / 1000).toFixed(2))} k${unit}`;
  return `${value.toFixed(size >= 100 ? 1 : 2)} ${unit}`;
}

/** A tenth of a millionth is nothing to any hand meter. */
const LEAST = 1e-7;
/** Below this a thousandth part is the unit: two decimals would leave too little, or nothing. */
const SMALL: Readonly<Record<Unit, number>> = { V: 0.1, A: 0.1, Ω: 0.01 };

function trimZeros(text: string): string {
  return text.includes('.') ? text.replace(/\.?0+$/, '') : text;
}

/** A number as it is written on a part: 7.5, 15, 30. */
export function formatNumber(value: number): string {
  return String(Number(value.toPrecision(6)));
}
