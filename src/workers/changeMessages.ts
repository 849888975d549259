/** What the page and the worker that plays plans say to each other. */
import type { ChangeTable, Finding, HalfDone, SumsBehind, WorkStep } from '#core/change';
import type { CircuitFile, PlanFile } from '#core/format';

export interface ChangeRequest {
  readonly request: number;
  readonly circuit: CircuitFile;
  readonly plan: PlanFile;
  /** Steps that are done, so that what stands on the vehicle now is worked out too. */
  readonly done: readonly string[];
}

export interface PlanLooked {
  readonly findings: readonly Finding[];
  readonly steps: readonly WorkStep[];
  readonly half: HalfDone;
  readonly table: ChangeTable;
  readonly sums: SumsBehind;
  /** Settings that there are, and those that were looked at. */
  readonly settings: { readonly count: number; readonly looked: number };
}

export type ChangeAnswer =
  | { readonly request: number; readonly progress: number }
  | { readonly request: number; readonly answer: PlanLooked }
  | { readonly request: number; readonly problem: string };
