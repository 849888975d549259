/** Plays a fault to its end by the engine's own proposals: for practice scores and for the proof that it works. */

import { breakCircuit, type Fault } from '../faults';
import type { FunctionStateName, ReadingValue, TestRef } from '../format';
import type { CircuitModel } from '../network';
import type { Assessment, Complaint } from './assessment';
import type { TakenReading } from './evidence/readings';
import { repairUnit } from './hypotheses/hypotheses';
import { complaintOf, readingOf } from './playback';
import type { DiagnosisSession } from './session';

export interface PlayedFault {
  readonly fault: Fault;
  readonly complaint: { readonly function: string; readonly condition: string };
  readonly tests: number;
  readonly minutes: number;
  readonly assessment: Assessment;
  /** Whether the group that ends first contains the fault. */
  readonly right: boolean;
  readonly trail: readonly string[];
}

/** More tests than any technician would do on one circuit. */
const TEST_LIMIT = 40;

/** Something seen between two tests. */
export interface Seen {
  readonly test: TestRef;
  readonly value: ReadingValue;
}

/** What somebody complains of. */
export interface FunctionSeen extends Complaint {
  readonly state: FunctionStateName;
}

/** Minutes spent on making something fail again, and how often that is tried. */
const WAITING_MINUTES = 2;
const WAITS = 12;
/** Minutes to see that the symptom has come or gone. */
const NOTICING_MINUTES = 0.3;

/**
 * A job led to its end by the engine's own proposals, whoever reads the instruments. `notice` tells before each
 * test when the symptom has come or gone by itself; tests that are `refused` are not proposed.
 */
export function leadToEnd(
  session: DiagnosisSession,
  complaint: FunctionSeen,
  read: (ref: TestRef) => ReadingValue,
  notice: () => Seen | null = () => null,
  refused: readonly string[] = [],
): { assessment: Assessment; tests: number; minutes: number; trail: readonly string[] } {
  const readings: TakenReading[] = [
    {
      id: 'complaint',
      test: { kind: 'function', function: complaint.function, condition: complaint.condition },
      value: { state: complaint.state },
    },
  ];
  const opened = new Set<string>();
  const trail: string[] = [];
  let minutes = 0;
  let waited = 0;
  for (;;) {
    const assessment = session.assess({ readings, refused, opened: [...opened] });
    if (assessment.stop?.reason === 'works-now' && waited < WAITS) {
      waited += 1;
      minutes += WAITING_MINUTES;
      const seen = notice();
      if (seen) readings.push({ id: `r${readings.length}`, ...seen });
      continue;
    }
    const proposal = assessment.stop ? undefined : assessment.next[0];
    if (!proposal || readings.length > TEST_LIMIT) {
      return { assessment, tests: readings.length - 1, minutes, trail };
    }
    const seen = notice();
    if (seen) {
      minutes += NOTICING_MINUTES;
      trail.push(`noticed ${JSON.stringify(seen.value)}`);
      readings.push({ id: `r${readings.length}`, ...seen });
      continue;
    }
    minutes += proposal.minutes;
    if (proposal.place) opened.add(proposal.place);
    const value = read(proposal.ref);
    trail.push(`${proposal.id} = ${JSON.stringify(value)}`);
    readings.push({ id: `r${readings.length}`, test: proposal.ref, value });
  }
}

/** Whether the suspect that ends first holds the fault, with the fuse it blew or without. */
export function endsRight({ suspects }: Assessment, fault: Fault, blewFuse: boolean): boolean {
  return suspects[0]?.units.includes(repairUnit(fault, blewFuse)) ?? false;
}

/** Plays one fault in a session; null when the fault shows in no function. */
export function followEngine(
  sessionFor: (complaint: { function: string; condition: string }) => DiagnosisSession,
  model: CircuitModel,
  fault: Fault,
): PlayedFault | null {
  const broken = breakCircuit(model, [fault]);
  const complaint = complaintOf(broken);
  if (!complaint) return null;
  const session = sessionFor(complaint);
  const played = leadToEnd(session, complaint, (ref) => readingOf(broken, ref));
  const right = endsRight(played.assessment, fault, broken.blown.length > 0);
  return { fault, complaint, right, ...played };
}
