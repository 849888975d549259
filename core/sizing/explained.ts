/**
 * What a sum answers, and why: every figure with the formula and the numbers in it, what it rests on and what it leaves
 * out. Whoever shows a sum shows these words and makes none of its own.
 */

/** One line of the working: `formula` has the numbers in it, `source` says where its constants come from. */
interface Step {
  readonly name: string;
  readonly formula: string;
  readonly source?: string;
}

/** A figure that was asked for. */
export interface Answer {
  readonly id: string;
  readonly name: string;
  /** With its unit: "16 mm²". */
  readonly words: string;
  /** The first thing to be read. */
  readonly main?: true;
  /** How it stands: within its limit, near or above it; nothing where it has none. */
  readonly stands?: 'good' | 'watch' | 'bad';
}

/** Points of a curve, `x` and `y` in the units of its axes; `low` and `high` where a band is meant. */
interface CurvePoint {
  readonly x: number;
  readonly y?: number;
  readonly low?: number;
  readonly high?: number;
}

export interface Curve {
  /** What it tells, in a sentence: for those who cannot see it, too. */
  readonly title: string;
  readonly xName: string;
  readonly yName: string;
  /** Sizes that are sold: one after another, whatever lies between them. */
  readonly steps?: true;
  /** Its differences tell, and not how far it lies from zero: volts at rest. */
  readonly close?: true;
  /** Ratios, as opening times have them, on a logarithmic scale. */
  readonly logarithmic?: true;
  readonly points: readonly CurvePoint[];
  /** A limit across it, in the unit of y; places on it, in the unit of x. */
  readonly limits: readonly { readonly y: number; readonly words: string }[];
  readonly marks: readonly { readonly x: number; readonly words: string }[];
}

export interface SumResult {
  readonly answers: readonly Answer[];
  /** Which of several rules decided, in a sentence; null where there is one rule only. */
  readonly governs: string | null;
  readonly steps: readonly Step[];
  readonly assumes: readonly string[];
  readonly leavesOut: readonly string[];
  /** What has to be minded; also what could not be said because an input is unknown. */
  readonly cautions: readonly string[];
  readonly curve: Curve | null;
  /** For a label: what was worked out, short. */
  readonly label: string;
}

/** A sum whose inputs make no sense together: which field, and why. */
export interface Refused {
  readonly field: string;
  readonly message: string;
}

export function isRefused(result: SumResult | Refused): result is Refused {
  return 'message' in result;
}
