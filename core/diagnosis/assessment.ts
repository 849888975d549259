/** What a diagnosis is asked, and what it answers. */
import type { Fault } from '../faults';
import type { Hand, TestRef } from '../format';
import type { Stop } from './choice/decision';
import type { OutcomeMeaning } from './choice/explainTest';
import type { Fitted } from './evidence/fitted';
import type { KeptPredictions } from './evidence/keptPredictions';
import type { TakenReading } from './evidence/readings';
import type { TookFuses } from './hypotheses/appliance';
import type { PriorTable } from './hypotheses/priors';
import type { SwitchedPins } from './relay/pinPanel';
import type { LookConflict } from './verdict/lookConflicts';
import type { SubstitutionTable } from './verdict/substitution';

export interface Complaint {
  readonly function: string;
  readonly condition: string;
}

export interface AssessmentInput {
  readonly readings: readonly TakenReading[];
  /** Ids of tests that the technician cannot or will not do. */
  readonly refused: readonly string[];
  /** Places that are open already. */
  readonly opened: readonly string[];
  /** Parts that do not stand in their own places now. */
  readonly fitted?: Fitted | undefined;
}

export interface SuspectForm {
  readonly words: string;
  readonly chance: number;
  /** Its first fault; null for nothing and for what is not in the map. */
  readonly fault: Fault | null;
  readonly intermittent: boolean;
}

export interface Suspect {
  readonly id: string;
  readonly title: string;
  /** What would be repaired, any of which it may be. */
  readonly units: readonly string[];
  readonly parts: readonly string[];
  readonly chance: number;
  /** Its likeliest forms, in words, with their chances. */
  readonly forms: readonly SuspectForm[];
  readonly reason: string;
}

export interface ReadingEffect {
  readonly id: string;
  readonly sentence: string;
  /** Parts that this reading was the first to clear. */
  readonly clears: readonly string[];
  /** Fits none of the suspects that were left. */
  readonly unexpected: boolean;
}

export interface Proposal {
  readonly id: string;
  readonly ref: TestRef;
  readonly place: string | null;
  readonly lead: string;
  readonly minutes: number;
  readonly gainBits: number;
  readonly expected: string;
  readonly why: string;
  readonly outcomes: readonly OutcomeMeaning[];
}

type Strength = 'provisional' | 'supported' | 'proved';

export interface Verdict {
  /** Null while nothing leads. */
  readonly suspect: string | null;
  readonly strength: Strength | null;
  readonly sentence: string;
  readonly evidence: readonly string[];
}

export interface PartStanding {
  readonly part: string;
  readonly chance: number;
  /**
   * All of its faults are ruled out, and its current was seen to flow; all are, but without its load, so that it is not
   * the cause and not proved sound; some are; none is.
   */
  readonly standing: 'cleared' | 'excluded' | 'partly' | 'open';
  readonly clearedBy: string | null;
  /** Faults of it that remain, in words. */
  readonly remaining: readonly string[];
}

export interface Assessment {
  readonly suspects: readonly Suspect[];
  readonly effects: readonly ReadingEffect[];
  readonly parts: readonly PartStanding[];
  /** Relays and modules of the runs, pin by pin. */
  readonly switched: readonly SwitchedPins[];
  readonly verdict: Verdict;
  readonly next: readonly Proposal[];
  readonly notInMap: number;
  /** Why to stop here; null while testing on is worth it. */
  readonly stop: Stop | null;
  /** What the person’s habit costs where it puts another test first; null where it changes nothing. */
  readonly habit: string | null;
  /** Tests that stand before the leading part is bought; none once it is proved, or while nothing leads. */
  readonly beforePurchase: readonly string[];
  /** What trying the leading repair would cost, in minutes; null while nothing leads. */
  readonly repair: { readonly minutes: number; readonly price: number; readonly wrong: number } | null;
  /** Tables of part by vehicle, for every part that something was substituted for. */
  readonly substitutions: readonly SubstitutionTable[];
  /** Suspects that only a refused test would tell apart, in words; null when there are none. */
  readonly mergedByRefusal: string | null;
  /** Not known whether it fails at this moment: something was touched, or it comes and goes. */
  readonly askFailsNow: boolean;
  /** What was seen and what was measured differ, until the part itself is measured. */
  readonly lookConflicts: readonly LookConflict[];
  /** The reading that disagrees with the others, and what to do about it; null while all fit together. */
  readonly contradiction: { readonly reading: string; readonly sentence: string } | null;
}

/** What of a shop, a person and an appliance a session is made with. */
export interface SessionOptions {
  /** Weights that a shop has learned. */
  readonly priors?: PriorTable;
  /** What the person has at hand; the usual where it is not given. */
  readonly hand?: Hand;
  /** Cautions that were answered with "not now", by id. */
  readonly notNow?: readonly string[];
  /** An appliance was plugged in when it failed. */
  readonly appliance?: TookFuses | null;
  /** What was worked out of the same circuit by the same program before, the likeliest to hold it first. */
  readonly kept?: readonly KeptPredictions[] | undefined;
}
