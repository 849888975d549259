/** What the page and the diagnosis worker say to each other. */

import type {
  Assessment,
  AssessmentInput,
  BarredTest,
  Complaint,
  PriorTable,
  Proposal,
  RelayDuty,
  RequiredProof,
  Run,
  SeenBefore,
} from '#core/diagnosis';
import type { CircuitFile, Hand, TestRef } from '#core/format';
import type { KeptFor } from './keptPredictions';

export type WorkerRequest =
  /** What is worked out is kept for its owner; for nobody where it is not known who that is. `cores`: of the device. */
  | { type: 'describe'; circuit: CircuitFile; owner: KeptFor | null; cores: number }
  /** Starts anew; whatever was being worked out before is dropped. */
  | {
      type: 'open';
      complaint: Complaint;
      priors: PriorTable;
      appliance: { fusesTaken: number } | null;
      hand: Hand;
      /** Cautions that were answered with "not now", by id. */
      notNow: readonly string[];
    }
  | { type: 'cancel' }
  | {
      type: 'assess';
      request: number;
      input: AssessmentInput;
      chosen: string | null;
      /** Parts that were found or repaired, for the list of what must be proved. */
      touched: readonly string[];
      /** Functions as they were seen before the repair. */
      seen: readonly SeenBefore[];
    };

export interface PermittedTest {
  id: string;
  ref: TestRef;
  place: string | null;
  lead: string;
}

export interface DescribeAnswer {
  type: 'described';
  /** What a sound circuit does, by `function|condition`. */
  expected: Record<string, 'works' | 'weak' | 'dead'>;
  partsOfFunction: Record<string, string[]>;
  emfVolts: number;
}

export type WorkerAnswer =
  | DescribeAnswer
  | {
      type: 'opened';
      complaint: Complaint;
      runs: Run[];
      soundVolts: Record<string, number>;
      /** What every relay of the runs has to do in the condition. */
      relayDuties: Record<string, RelayDuty>;
      /** Every permitted test, for whoever goes their own way. */
      permitted: PermittedTest[];
      /** Tests that safety forbids, with the reasons. */
      forbidden: BarredTest[];
    }
  /** The card to begin with, while the rest is still being worked out: no verdict yet, and nothing is cleared. */
  | { type: 'first'; request: number; card: Proposal }
  /** How much of the table of predictions is made, from 0 to 1. */
  | { type: 'preparing'; done: number }
  | {
      type: 'assessed';
      request: number;
      assessment: Assessment;
      card: Proposal | null;
      proofs: RequiredProof[];
    }
  /** Parts of which one number would change the next test; asked for only then. */
  | { type: 'would-help'; request: number; parts: string[] }
  | { type: 'failed'; message: string };
