/** A sum of the trade: its inputs by field, and the function that works it out. */

import { isRefused, type Refused, type SumResult } from './explained';
import type { Field } from './fields';

type Fields = Readonly<Record<string, Field<unknown>>>;
export type InputsOf<F extends Fields> = { readonly [K in keyof F]: F[K] extends Field<infer T> ? T : never };

export interface Sum {
  readonly id: string;
  readonly name: string;
  /** Other words by which somebody looks for it. */
  readonly also: readonly string[];
  /** What it answers, in one sentence. */
  readonly says: string;
  readonly fields: Fields;
  readonly work: (typed: Readonly<Record<string, string>>) => Worked;
}

export interface Worked {
  /** Why a field cannot be read, by field; what is missing is told apart from what is wrong. */
  readonly problems: Readonly<Record<string, string>>;
  readonly missing: readonly string[];
  readonly result: SumResult | null;
}

/** What stands in a field: what was typed, else what it begins with. */
export function standsIn(field: Field<unknown>, typed: string | undefined): string {
  return typed ?? field.first ?? '';
}

/** Puts the fields of a sum before its function: nothing is worked out while one of them cannot be read. */
export function sumOf<F extends Fields>(sum: {
  readonly id: string;
  readonly name: string;
  readonly also: readonly string[];
  readonly says: string;
  readonly fields: F;
  readonly work: (inputs: InputsOf<F>) => SumResult | Refused;
}): Sum {
  return {
    ...sum,
    work: (typed) => {
      const problems: Record<string, string> = {};
      const missing: string[] = [];
      const inputs: Record<string, unknown> = {};
      for (const [id, field] of Object.entries(sum.fields)) {
        const text = standsIn(field, typed[id]);
        const read = field.read(text);
        if (read.ok) inputs[id] = read.value;
        else if (text.trim() === '') missing.push(id);
        else problems[id] = read.message;
      }
      if (missing.length > 0 || Object.keys(problems).length > 0) return { problems, missing, result: null };
      const result = sum.work(inputs as InputsOf<F>);
      if (isRefused(result)) return { problems: { [result.field]: result.message }, missing, result: null };
      return { problems, missing, result };
    },
  };
}

/** The sum in plain text, as it goes onto a job or the clipboard: inputs, answers, working, what it rests on. */
export function sumText(sum: Sum, typed: Readonly<Record<string, string>>, result: SumResult): string {
  const inputs = Object.entries(sum.fields).flatMap(([id, field]) => {
    const text = standsIn(field, typed[id])
      .trim()
      .replace(/\s*\n\s*/g, '; ');
    if (text === '') return [];
    const unit = field.digits && field.unit && /^[\d.,]+$/.test(text) ? ` ${field.unit}` : '';
    const shown = field.options?.find((one) => one.id === text)?.name ?? text;
    return [`${field.name} ${shown}${unit}`];
  });
  return [
    `${sum.name}: ${result.answers.map(({ name, words }) => `${name} ${words}`).join('; ')}.`,
    `From: ${inputs.join('; ')}.`,
    ...(result.governs ? [result.governs] : []),
    ...result.steps.map(({ name, formula, source }) => `${name}: ${formula}${source ? ` (${source})` : ''}`),
    ...result.cautions.map((words) => `Mind: ${words}`),
    ...(result.assumes.length > 0 ? [`Assumed: ${result.assumes.join(' ')}`] : []),
    ...(result.leavesOut.length > 0 ? [`Left out: ${result.leavesOut.join(' ')}`] : []),
  ].join('\n');
}
