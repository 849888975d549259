/** What playing a plan shows: a sentence with the setting it occurs in, what it concerns, how much, and what would mend it. */
import type { CircuitFile, PlanEdit } from '../../format';
import type { CircuitModel } from '../../network';
import type { Setting } from '../settings';

export interface Finding {
  /** Which kind found it. */
  readonly kind: string;
  /** Nothing is done while it stands; else it is to be minded. */
  readonly danger: boolean;
  readonly words: string;
  /** Positions of key, engine, switches and plugs; null where it holds in all. */
  readonly at: Readonly<Record<string, string>> | null;
  /** Parts and points that it lies in. */
  readonly path: readonly string[];
  /** Volts or ampere that make it one; null where none do. */
  readonly amount: { readonly value: number; readonly unit: 'V' | 'A' } | null;
  readonly remedy: string;
}

/** A plan with what it makes of the circuit. */
export interface Scene {
  readonly before: CircuitFile;
  readonly after: CircuitFile;
  readonly beforeModel: CircuitModel;
  readonly afterModel: CircuitModel;
  readonly edits: readonly PlanEdit[];
  readonly settings: readonly Setting[];
}

/** One kind of finding. */
export interface FindingKind {
  readonly name: string;
  readonly find: (scene: Scene) => readonly Finding[];
}
