/** What playing a plan shows: a sentence with the setting it occurs in, what it concerns, how much, and what would mend it. */
import type { CircuitFile, PlanEdit, PlanFile } from '../../format';
import type { CircuitModel } from '../../network';
import type { At } from '../at';
import type { Setting } from '../settings';

/**
 * danger: nothing is done while it stands, unless somebody says why. mind: it is to be minded. doubt: what nobody can know from
 * a circuit. asked: it differs, and was asked for.
 */
export type Level = 'danger' | 'mind' | 'doubt' | 'asked';

export interface Finding {
  /** Which kind found it. */
  readonly kind: string;
  readonly level: Level;
  readonly words: string;
  /** Positions of key, engine, switches and plugs; null where it holds in all. */
  readonly at: At | null;
  /** Parts and points that it lies in, from the source on where it is a way. */
  readonly path: readonly string[];
  /** Volts or ampere that make it one; null where none do. */
  readonly amount: { readonly value: number; readonly unit: 'V' | 'A' } | null;
  readonly remedy: string;
}

/** What a plan says besides its edits. */
export type PlanFacts = Pick<
  PlanFile,
  'goals' | 'ties' | 'variants' | 'chosen' | 'charging' | 'unknown' | 'unverified' | 'undoes'
>;

/** A plan with what it makes of the circuit. */
export interface Scene {
  readonly before: CircuitFile;
  readonly after: CircuitFile;
  readonly beforeModel: CircuitModel;
  readonly afterModel: CircuitModel;
  readonly edits: readonly PlanEdit[];
  readonly settings: readonly Setting[];
  readonly facts: PlanFacts;
}

/** One kind of finding. */
export interface FindingKind {
  readonly name: string;
  readonly find: (scene: Scene) => readonly Finding[];
}

/** By which a finding is known again: what was said of it still stands after the plan was changed elsewhere. */
export function findingKey({ kind, path, words }: Finding): string {
  return `${kind}:${path.length > 0 ? path.join('+') : words}`.slice(0, 400);
}
