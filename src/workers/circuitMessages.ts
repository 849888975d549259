/** What the page and the worker that holds a circuit say to each other. */
import type { Run } from '#core/diagnosis';
import type { CircuitFile } from '#core/format';
import type { DrawAsleep, LiveSetting, LiveState, StateTable } from '#core/live';
import type { Coverage, FunctionWithout } from '#core/panel';

type Hands = Pick<LiveSetting, 'faults' | 'done' | 'fusesOpen'>;

export type CircuitQuestion =
  | { readonly ask: 'live'; readonly setting: LiveSetting }
  | {
      readonly ask: 'table';
      readonly varied: readonly string[];
      readonly at: Readonly<Record<string, string>>;
      readonly one: Hands;
      readonly other: Hands | null;
    }
  | { readonly ask: 'without'; readonly panel: string; readonly slot: string }
  | { readonly ask: 'coverage' }
  /** What it draws with the key off, nothing switched on. */
  | { readonly ask: 'asleep' }
  /** Without a condition: the one in which the function should be on. */
  | { readonly ask: 'runs'; readonly function: string; readonly condition: string | null };

export interface CircuitRequest {
  /** Only with the first question about a circuit. */
  readonly circuit?: CircuitFile;
  readonly request: number;
  readonly question: CircuitQuestion;
}

export interface CircuitAnswers {
  readonly live: LiveState;
  readonly table: StateTable;
  readonly without: readonly FunctionWithout[];
  readonly coverage: readonly Coverage[];
  readonly asleep: readonly DrawAsleep[];
  readonly runs: readonly Run[];
}

export type CircuitAnswer =
  | { readonly request: number; readonly answer: CircuitAnswers[CircuitQuestion['ask']] }
  | { readonly request: number; readonly problem: string };
