/**
 * What every fault of a complaint would show in every test, as it is worked out: the tests of the first card first, in
 * shares among workers where there are several, then the rest.
 */
import type { TestRef } from '../format';
import type { CircuitModel } from '../network';
import type { Complaint } from './assessment';
import { repairGroups } from './evidence/groups';
import type { KeptPredictions } from './evidence/keptPredictions';
import { Predictions } from './evidence/predictions';
import type { RepairGroup } from './evidence/repairGroup';
import type { Hypothesis } from './hypotheses/hypothesis';
import { kindOf } from './kinds';
import type { TestCandidate } from './tests';

/** How far it is, in tests. */
export interface Progress {
  readonly done: number;
  readonly total: number;
}

/** What the first card is chosen among: what works, and volts or lamp with key and switches as they are for the complaint. */
const comesFirst = (ref: TestRef, condition: string) =>
  ref.kind === 'function' || ((ref.kind === 'volts' || ref.kind === 'lamp') && ref.condition === condition);

/** Tests that are chosen among, and the repair groups that they tell apart. */
export class Choice {
  /** Those that can tell anything, the most promising first. */
  readonly tests: TestCandidate[] = [];
  private ungrouped: readonly RepairGroup[] | null = null;
  private withoutRefused: { key: string; groups: RepairGroup[] } | null = null;

  constructor(
    private readonly hypotheses: readonly Hypothesis[],
    private readonly predictions: Predictions,
  ) {}

  /** Repair groups when some tests are refused; formed anew only when that changes. */
  groups(refused: readonly string[]): { groups: RepairGroup[] } {
    const key = [...refused].sort().join('\n');
    if (this.withoutRefused?.key === key) return this.withoutRefused;
    const allowed = this.tests.filter((test) => !refused.includes(test.id));
    const groups =
      refused.length === 0 ? [...this.allGroups()] : repairGroups(this.hypotheses, allowed, this.predictions);
    this.withoutRefused = { key, groups };
    return this.withoutRefused;
  }

  /** Those that there are while no test is refused. */
  allGroups(): readonly RepairGroup[] {
    this.ungrouped ??=
      this.predictions.before.groups(this.tests) ??
      repairGroups(this.hypotheses, this.tests, this.predictions);
    return this.ungrouped;
  }
}

export class Preparing {
  /** Among the tests that come first; empty until `first` was gone through. */
  readonly early: Choice;
  private readonly whole: Choice;
  /** The tests that are offered by themselves, those that come first at the head. */
  private readonly offered: readonly TestCandidate[];
  private left: Generator<Progress> | null;

  constructor(
    private readonly model: CircuitModel,
    private readonly hypotheses: readonly Hypothesis[],
    private readonly predictions: Predictions,
    permitted: readonly TestCandidate[],
    private readonly complaint: Complaint,
  ) {
    const { condition } = complaint;
    const rank = (ref: TestRef) =>
      comesFirst(ref, condition) ? 0 : 'condition' in ref && ref.condition === condition ? 1 : 2;
    this.offered = permitted
      .filter((test) => !kindOf(test.ref).onRequest)
      .sort((x, y) => rank(x.ref) - rank(y.ref));
    this.early = new Choice(hypotheses, predictions);
    this.whole = new Choice(hypotheses, predictions);
    this.left = this.workOut(this.offered, this.whole);
  }

  private *workOut(tests: readonly TestCandidate[], into: Choice): Generator<Progress> {
    for (const [at, test] of tests.entries()) {
      if (this.predictions.of(test.id, test.ref).tells) into.tests.push(test);
      yield { done: at + 1, total: tests.length };
    }
    if (into === this.whole) this.left = null;
  }

  /** The tests that come first, a test at a time. */
  first(): Generator<Progress> {
    const tests = this.offered.filter(({ ref }) => comesFirst(ref, this.complaint.condition));
    return this.workOut(tests, this.early);
  }

  /** Everything that is left, a test at a time. */
  *rest(): Generator<Progress> {
    if (this.left) yield* this.left;
  }

  /** Among all tests; works out what is left. */
  all(): Choice {
    const { left } = this;
    if (left) while (!left.next().done);
    return this.whole;
  }

  /** What some hypotheses would show in every test that is offered, a test at a time. */
  *share(ids: readonly string[]): Generator<Progress, KeptPredictions> {
    const wanted = new Set(ids);
    const own = this.hypotheses.filter(({ id }) => wanted.has(id));
    const predictions = new Predictions(this.model, own);
    for (const [at, test] of this.offered.entries()) {
      predictions.of(test.id, test.ref);
      yield { done: at + 1, total: this.offered.length };
    }
    return predictions.toKeep() ?? { rows: [], tests: new Map() };
  }

  /** All of it, to be kept; null where all of it was kept before. */
  toKeep(): KeptPredictions | null {
    const all = this.all();
    const predictions = this.predictions.toKeep();
    if (!predictions) return null;
    return { ...predictions, groups: { tests: all.tests.map(({ id }) => id), groups: all.allGroups() } };
  }
}
